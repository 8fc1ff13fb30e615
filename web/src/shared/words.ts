/** A moment as people say it, in the reader's own time zone (the server speaks UTC). */
export function moment(iso: string | null, language = 'en-GB'): string {
  if (!iso) return ''
  const date = new Date(iso.endsWith('Z') || iso.includes('+') ? iso : `${iso}Z`)
  return date.toLocaleString(language === 'en' ? 'en-GB' : language, {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  })
}
export function clock(iso: string | null): string {
  if (!iso) return ''
  return new Date(`${iso}Z`).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
}
export function mark(value: number | null): string {
  return value === null ? 'held' : String(Math.round(value * 100) / 100)
}
export function count(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`
}
const SHORT: Record<string, string> = { verilog: 'v', vhdl: 'vhd', wiring: 'wiring' }
export function shortLanguage(language: string): string {
  return SHORT[language] ?? language
}
/** Initials for narrow column heads: `level_eq` is L, where that stays unambiguous. */
export function heads(names: string[]): string[] {
  const first = names.map((n) => n[0]?.toUpperCase() ?? '')
  return names.every((n) => n.length <= 4) ? names : new Set(first).size === first.length ? first : names
}
export const CELL_WORDS: Record<string, string> = { p: 'right', f: 'wrong', u: 'undefined', n: 'not compared', s: 'did not finish' }
export interface Outcomes {
  right: number
  wrong: number
  against_rules: number
  unchecked: number
  clusters_open: number
}
/** How a task stands, in one line: the same three states as everywhere. */
export function outcomes(task: Outcomes): string {
  const rules = task.against_rules ? `, ${task.against_rules} against rules` : ''
  return `${task.right} right, ${task.wrong} wrong${rules}`
}
/** What is left to say of a task that was checked. */
export function leftToSay(task: Outcomes): string {
  if (task.clusters_open) return `${task.clusters_open} to comment`
  if (task.unchecked) return `${task.unchecked} not checked`
  return task.wrong + task.against_rules ? 'all commented' : 'all right'
}
