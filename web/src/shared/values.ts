export type Radix = 'bin' | 'dec' | 'signed' | 'hex'
export const RADICES: Radix[] = ['bin', 'dec', 'signed', 'hex']

/** Digits (0 1 x z -) as people read them; what is not all known stays digits, or one sign where all are alike. */
export function shown(digits: string, radix: Radix): string {
  if (digits.length === 1) return digits
  if (/^x+$/.test(digits)) return 'x'
  if (/^z+$/.test(digits)) return 'z'
  if (/^-+$/.test(digits)) return '–'
  if (radix === 'bin' || /[xz-]/.test(digits)) return digits
  const value = BigInt(`0b${digits}`)
  if (radix === 'hex') return value.toString(16).padStart(Math.ceil(digits.length / 4), '0')
  return String(radix === 'signed' ? BigInt.asIntN(digits.length, value) : value)
}
/** What is to be known of a port to write its values. */
export interface PortKind {
  name: string
  width: number
  radix: string
  signed: boolean
}
/** A stretch of a value: digits of the base, or the bits of one of them. */
export interface Piece {
  text: string
  isBits: boolean
  /** Of bits, which of them are not as expected. */
  wrong: boolean[]
}
const MOST_BITS = 8

/** Ports whose values are too long for bits: hexadecimal, or decimal where they have a sign. */
export function isLong(port: PortKind | undefined): port is PortKind {
  return !!port && port.radix === 'bin' && port.width > MOST_BITS
}
/** The base in which a long value is read. */
export function baseOf(port: PortKind): 'hex' | 'dec' {
  return port.signed ? 'dec' : 'hex'
}
/**
 * A long value in pieces. What is known stands in the port's base; a hexadecimal digit with x, z, `-` or a bit that is not as in
 * `expected` stands in its four bits.
 */
export function pieces(digits: string, port: PortKind, expected?: string): Piece[] {
  const plain = (text: string): Piece[] => [{ text, isBits: false, wrong: [] }]
  if (digits.length !== port.width || !/^[01xz-]+$/.test(digits)) return plain(digits)
  if (/^x+$|^z+$|^-+$/.test(digits)) return plain(shown(digits, 'bin'))
  const isKnown = /^[01]+$/.test(digits)
  if (port.signed && isKnown) return plain(shown(digits, 'signed'))
  const isWrong = (i: number): boolean =>
    expected !== undefined && expected.length === digits.length && expected[i] !== '-' && expected[i] !== digits[i]
  const found: Piece[] = []
  const first = digits.length % 4 || 4
  for (let start = 0, end = first; start < digits.length; start = end, end += 4) {
    const four = digits.slice(start, end)
    const wrong = [...four].map((_, i) => isWrong(start + i))
    if (/[xz-]/.test(four) || wrong.some(Boolean)) {
      found.push({ text: four, isBits: true, wrong })
      continue
    }
    const digit = parseInt(four, 2).toString(16)
    const last = found.at(-1)
    if (last && !last.isBits) last.text += digit
    else found.push({ text: digit, isBits: false, wrong: [] })
  }
  return found
}
/** How many characters a value of a port takes at most where all is well. */
export function roomOf(port: PortKind | undefined, name: string, inBits = false): number {
  if (!port) return name.length
  const digits = !isLong(port) || inBits ? port.width : port.signed ? Math.ceil(port.width * 0.302) + 1 : Math.ceil(port.width / 4)
  return Math.max(digits, 2)
}
