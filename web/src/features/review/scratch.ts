import { computed, reactive, type Ref, watch } from 'vue'

import { post } from '../../api/client'
import type { ReviewView } from '../../api/schema'
import { useResource } from '../../shared/resource'
import { turnedOf } from './cases'

const PATIENCE = 350

/** How one text differs from another, from its first to its last other line; empty when it does not. */
export function changeText(original: string, changed: string): string {
  const [before, after] = [original, changed].map((t) => t.replaceAll('\r', '').split('\n'))
  let from = 0
  while (from < before.length && from < after.length && before[from] === after[from]) from++
  let end = 0
  const left = Math.min(before.length, after.length) - from
  while (end < left && before[before.length - 1 - end] === after[after.length - 1 - end]) end++
  const said = (lines: string[]): string => {
    const words = lines
      .slice(from, lines.length - end)
      .map((l) => l.trim())
      .filter(Boolean)
      .join(' ')
    return words ? `"${words}"` : 'nothing'
  }
  return said(before) === said(after) ? '' : `line ${from + 1}: ${said(after)} instead of ${said(before)}`
}

/** A scratch copy of a hand-in: texts that may be changed, and what the cases say then. Nothing of the hand-in's own is touched. */
export function useScratch(taskId: () => number, review: Ref<ReviewView | null>) {
  const texts = reactive(new Map<string, string>())
  const {
    data: outcome,
    trouble,
    isLoading: isBusy,
    reload,
    clear,
  } = useResource(
    (signal) => post(`/tasks/${taskId()}/review/${review.value?.handin_id ?? 0}/what-if`, { files: files.value }, { signal }),
    { lazy: true },
  )
  let timer = 0

  const original = (path: string): string => review.value?.files.find((f) => f.path === path)?.text ?? ''
  const text = (path: string): string => texts.get(path) ?? original(path)
  const isChanged = computed(() => [...texts].some(([path, t]) => t !== original(path)))

  function set(path: string, changed: string): void {
    if (changed === text(path)) return
    texts.set(path, changed)
    window.clearTimeout(timer)
    timer = window.setTimeout(() => void run(), PATIENCE)
  }
  function setLine(path: string, number: number, line: string): void {
    const lines = text(path).split('\n')
    lines[number - 1] = line + (lines[number - 1]?.endsWith('\r') ? '\r' : '')
    set(path, lines.join('\n'))
  }
  async function run(): Promise<void> {
    if (review.value && isChanged.value) await reload()
    else clear()
  }
  function reset(): void {
    window.clearTimeout(timer)
    texts.clear()
    clear()
  }
  watch(() => review.value?.handin_id, reset)

  /** The change in words, to be put into a comment. */
  function quote(): string {
    const parts = [...texts.keys()].map((path) => changeText(original(path), text(path))).filter(Boolean)
    const o = outcome.value
    const effect =
      o?.status === 'checked' ? `; then ${o.passed === o.total ? `all ${o.total}` : `${o.passed} of ${o.total}`} are right` : ''
    return `${parts.join(', ')}${effect}.`
  }
  const turned = computed(() => turnedOf(outcome.value))
  /** The changed texts as the server takes them. */
  const files = computed(() => [...texts].filter(([path, t]) => t !== original(path)).map(([path, t]) => ({ path, text: t })))
  return { text, files, set, setLine, reset, quote, outcome, trouble, isBusy, isChanged, turned }
}
export type Scratch = ReturnType<typeof useScratch>
