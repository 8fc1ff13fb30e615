import { useThrottleFn } from '@vueuse/core'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'

import type { BoardStart, CircuitView, LearnerStart, MessageView, StatedView } from '../../api/schema'
import { useDraft } from '../../shared/drafts'
import { useResource } from '../../shared/resource'
import { index, type Indexed } from '../circuit/model'

/** A change is tried at once, the next ones after so many ms; an earlier question is given up when a later one is asked. */
const PATIENCE = 30

export type Language = 'wiring' | 'v' | 'sv' | 'vhd'
const BY_ENDING: Record<string, Language> = { v: 'v', sv: 'sv', vhd: 'vhd', vhdl: 'vhd' }
/** The language of a file by how its name ends; what says nothing else is a wiring list. */
export function languageOf(name: string): Language {
  return BY_ENDING[name.replace(/^.*\./, '').toLowerCase()] ?? 'wiring'
}

/** How far a circuit is right, in words. */
export function verdictOf(passed: number, total: number, isClocked?: boolean): string {
  const what = isClocked ? 'steps' : 'cases'
  return passed === total ? `right in all ${total} ${what}` : `right in ${passed} of ${total} ${what}`
}

/** What every board hears of a circuit, whoever it belongs to. */
export interface Heard {
  circuit: CircuitView
  messages: MessageView[]
  rules: { rule: string; ok: boolean; text: string }[]
  gates: number
  levels: number
  rows: { index: number }[]
}
/** A sentence, or what is to become of lines: a block of that name, one put back, or lines that were copied put in. */
export interface Said {
  said: string
  only: string[]
  how: 'say' | 'block' | 'open' | 'paste'
  lines: number[]
}
/** Where a board's answers come from: a task of one's class, or a link that somebody was given. */
export interface BoardSource<S extends BoardStart | LearnerStart, V extends Heard> {
  /** What the board is for: where this changes, it begins anew. */
  place: string
  /** What the text is a draft of: in the same place there may be one for each language. */
  subject: string
  begin: (signal: AbortSignal) => Promise<S>
  /** What a text begins with. */
  first: (start: S) => string
  tryOut: (text: string, signal: AbortSignal) => Promise<V>
  state: (text: string, said: Said) => Promise<StatedView>
}

/** A circuit that is being made: its text, what it does, and sentences put into it. */
export function useBoard<S extends BoardStart | LearnerStart, V extends Heard>(source: () => BoardSource<S, V>) {
  const start = shallowRef<S | null>(null)
  const { text } = useDraft(
    () => (start.value ? source().subject : ''),
    () => (start.value ? source().first(start.value) : ''),
  )
  const view = shallowRef<V | null>(null)
  /** The last circuit that could be drawn, and what it did: they stay while the text does not parse. */
  const drawn = shallowRef<Indexed | null>(null)
  const ran = shallowRef<V | null>(null)
  const isOld = computed(() => view.value !== null && !view.value.circuit.parts.length)
  const begun = useResource((signal) => source().begin(signal))
  const tried = useResource((signal) => source().tryOut(text.value, signal), { lazy: true })
  const tryOut = useThrottleFn(tried.reload, PATIENCE, true)
  const stated = ref({ trouble: '', hint: '' })

  watch(begun.data, (found) => {
    if (found) start.value = found
  })
  // Nothing of one place may reach another: what is on its way is given up, and no text is tried before its own start is there.
  watch(
    () => source().place,
    () => {
      start.value = null
      begun.clear()
      void begun.reload()
    },
  )
  watch([start, () => source().subject], () => {
    tried.clear()
    view.value = null
    drawn.value = null
    ran.value = null
    stated.value = { trouble: '', hint: '' }
    // The draft of the new subject is read in this same turn; only then is there a text to try.
    if (start.value) void nextTick(tried.reload)
  })
  watch(text, () => start.value && void tryOut())
  watch(tried.data, (found) => {
    if (!found) return
    view.value = found
    void nextTick(() => performance.mark('board-tried')) // the table and the verdict stand there
    if (found.rows.length) ran.value = found
    if (found.circuit.parts.length) drawn.value = index(found.circuit)
  })

  /** Say something to be put into the text; the line that it became, 0 where it became none. */
  async function state(said: string, how: Said['how'] = 'say', lines: number[] = []): Promise<number> {
    const { subject, state: ask } = source()
    const found = await ask(text.value, { said, only: start.value?.only_gates ?? [], how, lines })
    if (source().subject !== subject) return 0
    stated.value = { trouble: found.trouble, hint: found.hint }
    if (!found.trouble) text.value = found.text
    return found.line
  }
  const trouble = computed(() => begun.trouble.value || tried.trouble.value)
  return { start, text, view, ran, drawn, isOld, state, stated, trouble }
}
