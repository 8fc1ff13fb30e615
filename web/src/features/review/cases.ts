import { computed, nextTick, ref, type Ref } from 'vue'

import type { CaseRow, ReviewView } from '../../api/schema'
import type { Scratch } from './scratch'

const FAILING = 'fus'
export type Turned = Map<number, 'right' | 'wrong'>

/** Cases by whether they turned, as the table marks them. */
export function turnedOf(change: { turned_right: number[]; turned_wrong: number[] } | null | undefined): Turned {
  const found: Turned = new Map()
  for (const i of change?.turned_right ?? []) found.set(i, 'right')
  for (const i of change?.turned_wrong ?? []) found.set(i, 'wrong')
  return found
}

/** What a second attempt turned, in words; empty for a first attempt. */
export function sinceText(since: ReviewView['since']): string {
  if (!since) return ''
  if (!since.is_known) return `attempt ${since.attempt} was not checked by this spec`
  if (since.status !== 'checked') return `attempt ${since.attempt} could not be checked`
  if (!since.turned_right.length && !since.turned_wrong.length) return `as attempt ${since.attempt}`
  return `since attempt ${since.attempt}: ${since.turned_right.length} right, ${since.turned_wrong.length} wrong`
}

/** The rows that failed as handed in or fail now, and the others, both in their order. */
export function parted(rows: CaseRow[], original: CaseRow[]): { wrong: CaseRow[]; rest: CaseRow[] } {
  const failed = new Set(original.filter((r) => FAILING.includes(r.cell)).map((r) => r.index))
  const isWrong = (r: CaseRow): boolean => failed.has(r.index) || FAILING.includes(r.cell)
  return { wrong: rows.filter(isWrong), rest: rows.filter((r) => !isWrong(r)) }
}

/** The cases beside the hand-in: with a scratch copy the table shows what that does. */
export function useCases(review: Ref<ReviewView | null>, scratch: Scratch) {
  const chosenCase = ref<number | null>(null)
  const isSinceShown = ref(false)
  const outcome = computed(() => (scratch.outcome.value?.status === 'checked' ? scratch.outcome.value : null))
  const rows = computed(() => outcome.value?.rows ?? review.value?.rows ?? [])
  const parts = computed(() => parted(rows.value, review.value?.rows ?? []))
  const wrong = computed(() => parts.value.wrong)
  const rest = computed(() => parts.value.rest)
  const turned = computed(() => (scratch.outcome.value || !isSinceShown.value ? scratch.turned.value : turnedOf(review.value?.since)))

  function choose(index: number): void {
    chosenCase.value = index
  }
  function chooseFirst(): void {
    chosenCase.value = wrong.value[0]?.index ?? null
  }
  function walkCase(by: number): void {
    walk(wrong.value.length ? wrong.value : rest.value, by)
  }
  /** Through all rows as they stand, the right ones too. */
  function walkEvery(by: number): void {
    walk([...wrong.value, ...rest.value], by)
  }
  function walk(list: CaseRow[], by: number): void {
    const at = list.findIndex((r) => r.index === chosenCase.value)
    const next = list[Math.max(0, Math.min(list.length - 1, at + by))]
    if (!next) return
    chosenCase.value = next.index
    void nextTick(() => document.querySelector('tr.chosen')?.scrollIntoView({ block: 'nearest' }))
  }
  return { chosenCase, isSinceShown, rows, wrong, rest, turned, choose, chooseFirst, walkCase, walkEvery }
}
export type Cases = ReturnType<typeof useCases>
