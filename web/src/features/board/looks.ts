/** How a circuit looks, as its text says it (docs/formats.md, wiring list): read from lines, and written into them. */
import { drivenBy, labelOf } from './lines'

export type Facing = 'left' | 'right' | 'up' | 'down'
export type Side = 'left' | 'right' | 'above' | 'below'
export interface Looks {
  places: Map<string, { x: number; y: number }>
  turned: Map<string, Facing>
  unfolded: Set<string>
  /** By label, a dot and the pin. */
  sides: Map<string, Side>
  groups: { names: string[]; text: string }[]
  remarks: { line: number; x: number; y: number; text: string }[]
  named: Set<string>
}

/** So many units of a drawing are one of a `place`. */
export const GRID = 10
const NAME = '[A-Za-z_][\\w$]*'
const END = '\\s*(?://.*)?$'
const PLACE = new RegExp(`^\\s*place\\s+(${NAME})\\s+(\\d+)\\s+(\\d+)${END}`)
const TURN = new RegExp(`^\\s*turn\\s+(${NAME})\\s+(left|right|up|down)${END}`)
const UNFOLD = new RegExp(`^\\s*unfold\\s+(${NAME})${END}`)
const SIDE = new RegExp(`^\\s*side\\s+(${NAME})\\s*\\.\\s*(${NAME})\\s+(left|right|above|below)${END}`)
const GROUP = new RegExp(`^\\s*group\\s+(${NAME}(?:\\s*,\\s*${NAME})*)\\s+"([^"]*)"${END}`)
const REMARK = new RegExp(`^\\s*remark\\s+(\\d+)\\s+(\\d+)\\s+"([^"]*)"${END}`)
const NAMED = new RegExp(`^\\s*named\\s+(${NAME})${END}`)

export function looksOf(text: string): Looks {
  const found: Looks = {
    places: new Map(),
    turned: new Map(),
    unfolded: new Set(),
    sides: new Map(),
    groups: [],
    remarks: [],
    named: new Set(),
  }
  text.split('\n').forEach((line, i) => {
    let m: RegExpExecArray | null
    if ((m = PLACE.exec(line))) found.places.set(m[1], { x: Number(m[2]) * GRID, y: Number(m[3]) * GRID })
    else if ((m = TURN.exec(line))) found.turned.set(m[1], m[2] as Facing)
    else if ((m = UNFOLD.exec(line))) found.unfolded.add(m[1])
    else if ((m = SIDE.exec(line))) found.sides.set(`${m[1]}.${m[2]}`, m[3] as Side)
    else if ((m = GROUP.exec(line))) found.groups.push({ names: m[1].split(/\s*,\s*/), text: m[2] })
    else if ((m = REMARK.exec(line))) found.remarks.push({ line: i + 1, x: Number(m[1]) * GRID, y: Number(m[2]) * GRID, text: m[3] })
    else if ((m = NAMED.exec(line))) found.named.add(m[1])
  })
  return found
}

/** The text with a look said: in the place of the line that said the same of the same, behind line `after` otherwise; taken out where nothing is said. */
function said(text: string, after: number, isSame: (line: string) => boolean, look: string | null): string {
  const lines = text.split('\n')
  const known = lines.findIndex(isSame)
  if (look === null) {
    if (known >= 0) lines.splice(known, 1)
  } else if (known >= 0) lines[known] = `  ${look}`
  else lines.splice(after, 0, `  ${look}`)
  return lines.join('\n')
}
const on = (n: number): number => Math.max(0, Math.round(n / GRID))

/** The text with a line put somewhere by hand. */
export function withPlace(text: string, line: number, x: number, y: number): string {
  const label = labelOf(text, line)
  return label ? said(text, line, (l) => PLACE.exec(l)?.[1] === label, `place ${label} ${on(x)} ${on(y)}`) : text
}
/** The text without any places: everything stands by itself again. */
export function tidied(text: string): string {
  return text
    .split('\n')
    .filter((l) => !PLACE.test(l))
    .join('\n')
}
const NEXT: Record<Facing, Facing> = { right: 'down', down: 'left', left: 'up', up: 'right' }
/** The text with a line's part turned once more. */
export function withTurn(text: string, line: number): string {
  const label = labelOf(text, line)
  if (!label) return text
  const next = NEXT[looksOf(text).turned.get(label) ?? 'right']
  return said(text, line, (l) => TURN.exec(l)?.[1] === label, next === 'right' ? null : `turn ${label} ${next}`)
}
export function withFold(text: string, line: number, isFolded: boolean): string {
  const label = labelOf(text, line)
  return label ? said(text, line, (l) => UNFOLD.exec(l)?.[1] === label, isFolded ? null : `unfold ${label}`) : text
}
/** The text with the wire that a line drives drawn as its name, or as a line again. */
export function withNamed(text: string, line: number): string {
  const wire = drivenBy(text, line)
  if (!wire) return text
  return said(text, line, (l) => NAMED.exec(l)?.[1] === wire, looksOf(text).named.has(wire) ? null : `named ${wire}`)
}
export function withSide(text: string, line: number, pin: string, side: Side): string {
  const label = labelOf(text, line)
  if (!label) return text
  const isSame = (l: string): boolean => {
    const m = SIDE.exec(l)
    return m?.[1] === label && m[2] === pin
  }
  return said(text, line, isSame, `side ${label}.${pin} ${side}`)
}
export function withGroup(text: string, lines: number[], name: string): string {
  const labels = [...lines].sort((a, b) => a - b).flatMap((n) => labelOf(text, n) || [])
  if (!labels.length) return text
  return said(text, Math.max(...lines), () => false, `group ${labels.join(', ')} "${name.replace(/"/g, "'")}"`)
}
/** The text with words that stand in the drawing, before its last line. */
export function withRemark(text: string, words: string, x: number, y: number): string {
  const lines = text.split('\n')
  const end = lines.findIndex((l) => l.trim() === 'end')
  lines.splice(end < 0 ? lines.length : end, 0, `  remark ${on(x)} ${on(y)} "${words.replace(/"/g, "'")}"`)
  return lines.join('\n')
}
export function withRemarkAt(text: string, line: number, x: number, y: number): string {
  const lines = text.split('\n')
  const m = REMARK.exec(lines[line - 1] ?? '')
  if (m) lines[line - 1] = `  remark ${on(x)} ${on(y)} "${m[3]}"`
  return lines.join('\n')
}
