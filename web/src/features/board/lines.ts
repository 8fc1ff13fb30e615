/** What can be done to the lines of a wiring list: every act on the drawing is one of these, so that the text says it all. */

/** Lines of a text changed: the numbered one replaced, or taken out where nothing is given. */
export function withLine(text: string, line: number, value: string | null): string {
  const lines = text.split('\n')
  if (line < 1 || line > lines.length) return text
  if (value === null) lines.splice(line - 1, 1)
  else lines[line - 1] = value
  return lines.join('\n')
}
export function lineOf(text: string, line: number): string {
  return text.split('\n')[line - 1] ?? ''
}

const LINE = /^(\s*)(?:([A-Za-z_][\w$]*)\s*:\s*)?([A-Za-z_][\w$]*)[^<]*<-/
/** What a line is called: by its label, or by the first wire that it drives; empty where it is no line of a part. */
export function labelOf(text: string, line: number): string {
  const m = LINE.exec(lineOf(text, line))
  return m ? (m[2] ?? m[3]) : ''
}
/** The first wire that a line drives. */
export function drivenBy(text: string, line: number): string {
  return LINE.exec(lineOf(text, line))?.[3] ?? ''
}

/** One thing that a part is given: which pin it is for where that is said, what it is, and where in the line that stands. */
export interface Given {
  pin: string
  value: string
  start: number
  end: number
}
interface Call {
  /** Where the part's name stands, with a `!` before it. */
  start: number
  nameEnd: number
  inverted: boolean
  name: string
  given: Given[]
  /** Where the bracket closes. */
  close: number
}
const CALL = /<-\s*(!?)\s*([A-Za-z_][\w$]*)\s*\(/
/** The outermost part of a line; null where there is none, or where the line is only half written. */
export function callOf(line: string): Call | null {
  const m = CALL.exec(line)
  if (!m || line.slice(0, m.index).includes('//')) return null
  const nameEnd = m.index + m[0].indexOf(m[2], 2) + m[2].length
  const start = nameEnd - m[2].length - (m[1] ? m[0].indexOf(m[2], 2) - m[0].indexOf('!') : 0)
  const given: Given[] = []
  let depth = 0
  let from = m.index + m[0].length
  const take = (to: number): void => {
    const written = line.slice(from, to)
    const pin = /^\s*([A-Za-z_][\w$]*)\s*:/.exec(written)
    const value = pin ? written.slice(pin[0].length) : written
    if (value.trim())
      given.push({ pin: pin?.[1] ?? '', value: value.trim(), start: to - value.trimStart().length, end: from + written.trimEnd().length })
    from = to + 1
  }
  for (let i = from; i < line.length; i++) {
    const c = line[i]
    if (c === '/' && line[i + 1] === '/') return null
    if (c === '(' || c === '{' || c === '[') depth++
    else if (c === ',' && !depth) take(i)
    else if ((c === '}' || c === ']') && depth) depth--
    else if (c === ')') {
      if (!depth) {
        take(i)
        return { start, nameEnd, inverted: !!m[1], name: m[2], given, close: i }
      }
      depth--
    }
  }
  return null
}

/** Gates that take the same. */
export const GATES = ['and', 'or', 'xor', 'nand', 'nor', 'xnor']
const OPPOSITE: Record<string, string> = {
  and: 'nand',
  nand: 'and',
  or: 'nor',
  nor: 'or',
  xor: 'xnor',
  xnor: 'xor',
  not: 'buf',
  buf: 'not',
}

/** The gate that a line is at its outermost, if it is one that may be exchanged. */
export function gateOf(text: string, line: number): string {
  const kind = callOf(lineOf(text, line))?.name ?? ''
  return GATES.includes(kind) ? kind : ''
}
function changed(text: string, line: number, from: number, to: number, by: string): string {
  const written = lineOf(text, line)
  return withLine(text, line, written.slice(0, from) + by + written.slice(to))
}
/** The same with another part, its wires kept. */
export function withGate(text: string, line: number, gate: string): string {
  const call = callOf(lineOf(text, line))
  return call ? changed(text, line, call.nameEnd - call.name.length, call.nameEnd, gate) : text
}
/** The same with its output inverted: the opposite gate, or a circle on the output. */
export function withInvertedOutput(text: string, line: number): string {
  const call = callOf(lineOf(text, line))
  if (!call) return text
  if (call.inverted) return changed(text, line, call.start, call.nameEnd, call.name)
  return changed(text, line, call.start, call.nameEnd, OPPOSITE[call.name] ?? `!${call.name}`)
}
/** The same with something else at one input; with less inputs where nothing is given. */
export function withGiven(text: string, line: number, index: number, value: string | null): string {
  const call = callOf(lineOf(text, line))
  const given = call?.given[index]
  if (!call || !given) return text
  if (value !== null) return changed(text, line, given.start, given.end, value)
  const rest = call.given.filter((_, i) => i !== index).map((g) => (g.pin ? `${g.pin}: ${g.value}` : g.value))
  return changed(text, line, call.nameEnd, call.close, `(${rest.join(', ')}`)
}
export function withInvertedInput(text: string, line: number, index: number): string {
  const value = callOf(lineOf(text, line))?.given[index]?.value
  if (value === undefined || value === '_') return text
  return withGiven(text, line, index, value.startsWith('!') ? value.slice(1).trimStart() : `!${value}`)
}
/** The same with one input more, which is open until something is put there. */
export function withOneMore(text: string, line: number): string {
  const call = callOf(lineOf(text, line))
  return call ? changed(text, line, call.close, call.close, call.given.length ? ', _' : '_') : text
}
