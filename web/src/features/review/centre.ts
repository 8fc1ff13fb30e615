import { computed, ref, type Ref } from 'vue'

import type { ReviewView } from '../../api/schema'

export const VIEWS = {
  circuit: { label: 'Circuit', key: 'g', says: 'circuit' },
  waves: { label: 'Waves', key: 'w', says: 'waves' },
  output: { label: 'Output', key: 'o', says: 'what the bench printed' },
  source: { label: 'Source', key: 's', says: 'source' },
}
export type CentreView = keyof typeof VIEWS

/** What there is to be seen of a hand-in, in the order of the tabs. */
export function viewsOf(review: Pick<ReviewView, 'clocked' | 'status' | 'language' | 'output'> | null): CentreView[] {
  const isRun = review?.status === 'checked' && review.language !== 'vcd'
  const found: CentreView[] = []
  if (isRun && review.clocked) found.push('waves')
  if (review?.output) found.push('output')
  if (isRun && !review.output) found.push('circuit')
  return [...found, 'source']
}

/** What stands in the middle: the chosen view where there is one, else the most telling; a circuit is drawn only when asked for. */
export function useCentre(review: Ref<ReviewView | null>) {
  const chosenView = ref<CentreView | null>(null)
  const views = computed(() => viewsOf(review.value))
  const centre = computed<CentreView>(() => {
    if (chosenView.value && views.value.includes(chosenView.value)) return chosenView.value
    return views.value.find((v) => v !== 'circuit') ?? 'source'
  })
  return { views, centre, chosenView }
}
