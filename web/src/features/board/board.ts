import { useDebounceFn } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'

import { get, post } from '../../api/client'
import type { BoardStart, BoardView } from '../../api/schema'
import { useDraft } from '../../shared/drafts'
import { useResource } from '../../shared/resource'
import { index, type Indexed } from '../circuit/model'

/** Long enough for a word to be typed, short enough not to be waited for. */
const PATIENCE = 120

/** A circuit that is being made for a task: its text, what it does, and sentences put into it. */
export function useBoard(taskId: () => number) {
  const start = shallowRef<BoardStart | null>(null)
  const { text, from, drop } = useDraft(
    () => (start.value ? `task ${taskId()}/board` : ''),
    () => start.value?.text ?? '',
  )
  const view = shallowRef<BoardView | null>(null)
  /** The last circuit that could be drawn: it stays while the text does not parse. */
  const drawn = shallowRef<Indexed | null>(null)
  const isOld = ref(false)
  const begun = useResource((signal) => get(`/tasks/${taskId()}/board`, { signal }))
  const tried = useResource(async (signal) => post(`/tasks/${taskId()}/board`, { text: text.value }, { signal }), { lazy: true })
  const tryOut = useDebounceFn(tried.reload, PATIENCE)
  const stated = ref({ trouble: '', hint: '' })

  watch(begun.data, (found) => {
    if (!found) return
    start.value = found
    void tried.reload()
  })
  watch(taskId, () => {
    view.value = null
    drawn.value = null
    void begun.reload()
  })
  watch(text, () => start.value && void tryOut())
  watch(tried.data, (found) => {
    if (!found) return
    view.value = found
    isOld.value = !found.circuit.parts.length
    if (found.circuit.parts.length) drawn.value = index(found.circuit)
  })

  /** Say something to be put into the text; the line that it became, 0 where it became none. */
  async function state(said: string, only: string[]): Promise<number> {
    const found = await post(`/tasks/${taskId()}/board/state`, { text: text.value, said, only })
    stated.value = { trouble: found.trouble, hint: found.hint }
    if (!found.trouble) text.value = found.text
    return found.line
  }
  const trouble = computed(() => begun.trouble.value || tried.trouble.value)
  return { start, text, from, drop, view, drawn, isOld, state, stated, trouble, isBusy: tried.isLoading }
}

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
