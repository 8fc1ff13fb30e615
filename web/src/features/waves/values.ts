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
/** The index of the last entry at or before a time; -1 when the first is later. */
export function indexAt(at: number[], time: number): number {
  let low = 0
  let high = at.length
  while (low < high) {
    const middle = (low + high) >> 1
    if (at[middle] <= time) low = middle + 1
    else high = middle
  }
  return low - 1
}
export function valueAt(at: number[], values: string[], time: number): string {
  return values[indexAt(at, time)] ?? ''
}
