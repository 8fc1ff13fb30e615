import { computed, reactive, type Ref, watch } from 'vue'

import { post } from '../../api/client'
import type { ReviewView } from '../../api/schema'
import { useDraft } from '../../shared/drafts'
import { useResource } from '../../shared/resource'
import { turnedOf } from './cases'

const PATIENCE = 350
/** Lines of a change that a letter draws (core/board/changes). */
const MOST_DRAWN = 12

interface Difference {
  /** The first line that differs, counted from 0. */
  from: number
  before: string[]
  after: string[]
}

/** The lines in which two texts differ, from the first to the last other one. */
function difference(original: string, changed: string): Difference {
  const [before, after] = [original, changed].map((t) => t.replaceAll('\r', '').split('\n'))
  let from = 0
  while (from < before.length && from < after.length && before[from] === after[from]) from++
  let end = 0
  const left = Math.min(before.length, after.length) - from
  while (end < left && before[before.length - 1 - end] === after[after.length - 1 - end]) end++
  const inside = (lines: string[]): string[] =>
    lines
      .slice(from, lines.length - end)
      .map((l) => l.trim())
      .filter(Boolean)
  return { from, before: inside(before), after: inside(after) }
}

/** How one text differs from another in words; empty when it does not. */
export function changeText(original: string, changed: string): string {
  const { from, before, after } = difference(original, changed)
  const said = (lines: string[]): string => (lines.length ? `"${lines.join(' ')}"` : 'nothing')
  return said(before) === said(after) ? '' : `line ${from + 1}: ${said(after)} instead of ${said(before)}`
}

/** Lines of a wiring list in which two texts differ, as a letter can draw them: `- ` as it was, `+ ` as it would be; empty where none
 * of them drives anything. */
export function drawnChange(original: string, changed: string): string {
  const { before, after } = difference(original, changed)
  const driving = (lines: string[], sign: string): string[] => lines.filter((l) => l.includes('<-')).map((l) => `${sign} ${l}`)
  const lines = [...driving(before, '-'), ...driving(after, '+')]
  return lines.length && lines.length <= MOST_DRAWN ? lines.join('\n') : ''
}

/** A scratch copy of a hand-in: texts that may be changed, and what the cases say then. Nothing of the hand-in's own is touched.
 * What was changed stays in this browser until it is undone; coming back it waits to be asked for (`left`), so that nobody takes it for what
 * was handed in. */
export function useScratch(taskId: () => number, review: Ref<ReviewView | null>) {
  const texts = reactive(new Map<string, string>())
  const draft = useDraft(
    () => (review.value ? `task ${taskId()}/hand-in ${review.value.handin_id}/attempt ${review.value.attempt}/scratch` : ''),
    () => '',
  )
  /** Whether a scratch copy of before waits. */
  const isLeft = computed(() => draft.text.value !== '' && !texts.size)
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
    if (isLeft.value) takeUp()
    if (changed === text(path)) return
    texts.set(path, changed)
    remember()
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
  function remember(): void {
    draft.text.value = isChanged.value ? JSON.stringify(files.value) : ''
  }
  /** On with what was left. */
  function takeUp(): void {
    for (const file of JSON.parse(draft.text.value || '[]') as { path: string; text: string }[]) texts.set(file.path, file.text)
    void run()
  }
  /** Back to what was handed in; what was changed waits. */
  function leave(): void {
    window.clearTimeout(timer)
    texts.clear()
    clear()
  }
  function reset(): void {
    leave()
    draft.drop()
  }
  watch(() => [review.value?.handin_id, review.value?.attempt], leave)

  /** The change in words, to be put into a comment. */
  function quote(): string {
    const paths = [...texts.keys()]
    const parts = paths.map((path) => changeText(original(path), text(path))).filter(Boolean)
    const drawn = paths.filter((path) => path.endsWith('.wiring')).map((path) => drawnChange(original(path), text(path)))
    const o = outcome.value
    const effect =
      o?.status === 'checked' ? `; then ${o.passed === o.total ? `all ${o.total}` : `${o.passed} of ${o.total}`} are right` : ''
    return [`${parts.join(', ')}${effect}.`, ...drawn.filter(Boolean)].join('\n')
  }
  const turned = computed(() => turnedOf(outcome.value))
  /** The changed texts as the server takes them. */
  const files = computed(() => [...texts].filter(([path, t]) => t !== original(path)).map(([path, t]) => ({ path, text: t })))
  return { text, files, set, setLine, reset, leave, isLeft, from: draft.from, takeUp, quote, outcome, trouble, isBusy, isChanged, turned }
}
export type Scratch = ReturnType<typeof useScratch>
