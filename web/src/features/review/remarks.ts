import type { MessageView, ReviewView } from '../../api/schema'

/** How a hand-in is clocked is worth a word even where every step is right. */
const CLOCKING = ['ripple-clock', 'race', 'start-values']
/** What was done with a hand-in that its writer may not expect, whatever the verdict. */
const REMARKS = ['power-up', 'left-out', 'copy-read', 'wrong-suffix', 'provided', 'not-taken', 'unused-unit']

type Said = Pick<ReviewView, 'messages' | 'findings' | 'status'>

export function clockingOf(review: Said): MessageView[] {
  return review.messages.filter((m) => CLOCKING.includes(m.code) && !review.findings.includes(m.text))
}
export function remarksOf(review: Said): MessageView[] {
  return review.messages.filter((m) => REMARKS.includes(m.code) && m.severity !== 'error')
}
/** Why there is no verdict. */
export function errorsOf(review: Said): MessageView[] {
  return review.status === 'checked' ? [] : review.messages.filter((m) => m.severity === 'error')
}
export function located(m: Pick<MessageView, 'line' | 'text' | 'hint'>, withHint = false): string {
  return (m.line ? `line ${m.line}: ` : '') + m.text + (withHint && m.hint ? ` (${m.hint})` : '')
}
