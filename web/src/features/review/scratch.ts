import { computed, reactive, ref, type Ref, watch } from 'vue'

import { post, sentence } from '../../api/client'
import type { Review, WhatIf } from '../../api/types'

const PATIENCE = 350

/** A scratch copy of a hand-in: texts that may be changed, and what the cases say then. Nothing of the hand-in's own is touched. */
export function useScratch(taskId: () => number, review: Ref<Review | null>) {
  const texts = reactive(new Map<string, string>())
  const outcome = ref<WhatIf | null>(null)
  const trouble = ref('')
  const isBusy = ref(false)
  let timer = 0
  let wanted = 0

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
    const handin = review.value?.handin_id
    if (!handin) return
    const number = ++wanted
    if (!isChanged.value) {
      outcome.value = null
      return
    }
    isBusy.value = true
    try {
      const found = await post<WhatIf>(`/tasks/${taskId()}/review/${handin}/what-if`, { files: files.value })
      if (number !== wanted) return
      outcome.value = found
      trouble.value = ''
    } catch (error) {
      if (number === wanted) trouble.value = sentence(error)
    } finally {
      if (number === wanted) isBusy.value = false
    }
  }
  function reset(): void {
    window.clearTimeout(timer)
    wanted++
    texts.clear()
    outcome.value = null
    trouble.value = ''
    isBusy.value = false
  }
  watch(() => review.value?.handin_id, reset)

  /** The change in words, to be put into a comment. */
  function quote(): string {
    const parts: string[] = []
    for (const path of texts.keys()) {
      const [before, after] = [original(path).replaceAll('\r', '').split('\n'), text(path).replaceAll('\r', '').split('\n')]
      let from = 0
      while (from < before.length && from < after.length && before[from] === after[from]) from++
      let end = 0
      while (end < before.length - from && end < after.length - from && before[before.length - 1 - end] === after[after.length - 1 - end]) end++
      const old = before.slice(from, before.length - end).map((l) => l.trim()).filter(Boolean).join(' ')
      const fresh = after.slice(from, after.length - end).map((l) => l.trim()).filter(Boolean).join(' ')
      if (old !== fresh) parts.push(`line ${from + 1}: ${fresh ? `"${fresh}"` : 'nothing'} instead of ${old ? `"${old}"` : 'nothing'}`)
    }
    const o = outcome.value
    const effect = o && o.status === 'checked' ? `; then ${o.passed === o.total ? `all ${o.total}` : `${o.passed} of ${o.total}`} are right` : ''
    return `${parts.join(', ')}${effect}.`
  }
  const turned = computed(() => {
    const found = new Map<number, 'right' | 'wrong'>()
    for (const i of outcome.value?.turned_right ?? []) found.set(i, 'right')
    for (const i of outcome.value?.turned_wrong ?? []) found.set(i, 'wrong')
    return found
  })
  /** The changed texts as the server takes them. */
  const files = computed(() => [...texts].filter(([path, t]) => t !== original(path)).map(([path, t]) => ({ path, text: t })))
  return { text, files, set, setLine, reset, quote, outcome, trouble, isBusy, isChanged, turned }
}
export type Scratch = ReturnType<typeof useScratch>
