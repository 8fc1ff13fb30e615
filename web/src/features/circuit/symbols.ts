/** Symbols of gates: the rectangular outlines of IEC 60617-12, and the distinctive shapes of IEEE 91a as a setting. */
export type SymbolSet = 'rectangular' | 'distinctive'

const SIGN: Record<string, string> = { and: '&', or: '≥1', xor: '=1', not: '1', buf: '1', select: 'MUX' }
const NAME: Record<string, string> = {
  and: 'AND',
  or: 'OR',
  xor: 'XOR',
  not: 'NOT',
  buf: 'buffer',
  select: 'selector',
  operator: 'operator',
}

/** Space at each side of a body for circles and stubs. */
export const STUB = 8

export function sign(kind: string, label: string): string {
  return SIGN[kind] ?? label
}

/** What a symbol is called, inverted output included. */
export function spoken(kind: string, label: string, inverted: boolean): string {
  const name = kind === 'operator' ? label : (NAME[kind] ?? kind)
  return inverted && ['and', 'or', 'xor'].includes(kind) ? { and: 'NAND', or: 'NOR', xor: 'XNOR' }[kind as 'and'] : name
}

/** The pointed end of an OR: from the top at x = a to the tip at x = b and back to the bottom. */
function nose(a: number, b: number, h: number): string {
  const m = h / 2
  return `C${b - 10} 0 ${b - 4} ${m * 0.6} ${b} ${m}C${b - 4} ${h - m * 0.6} ${b - 10} ${h} ${a} ${h}`
}

/** The outline of a body between x = a and x = b, of height h; empty where a rectangle is to be drawn. */
export function outline(kind: string, a: number, b: number, h: number): string {
  const m = h / 2
  switch (kind) {
    case 'and': {
      const r = Math.min(m, (b - a) * 0.6)
      const pull = b + r / 3 // a cubic with both controls there has its middle at b: the wire begins at the tip
      return `M${a} 0H${b - r}C${pull} 0 ${pull} ${h} ${b - r} ${h}H${a}Z`
    }
    case 'or':
      return `M${a} 0H${a + 10}${nose(a + 10, b, h)}H${a}C${a + 8} ${h * 0.7} ${a + 8} ${h * 0.3} ${a} 0Z`
    case 'xor':
      return (
        `M${a + 4} 0H${a + 12}${nose(a + 12, b, h)}H${a + 4}C${a + 12} ${h * 0.7} ${a + 12} ${h * 0.3} ${a + 4} 0Z` +
        `M${a} 0C${a + 8} ${h * 0.3} ${a + 8} ${h * 0.7} ${a} ${h}`
      )
    case 'not':
    case 'buf':
      return `M${a} ${m - 14}L${b} ${m}L${a} ${m + 14}Z`
    case 'select':
      return `M${a + 4} 0L${b - 4} 8V${h - 8}L${a + 4} ${h}Z`
    default:
      return ''
  }
}
