import { computed, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { get } from '../../api/client'
import type { ReviewView } from '../../api/schema'
import { useResource } from '../../shared/resource'

/** Milliseconds for which a hand-in that was left stays on screen while the next one is read. */
const PATIENCE = 150

/** The hand-in under review, and the way from one to the next in the order of the results. */
export function useReview(taskId: () => number, inGroup: () => (handin: number) => boolean, shown: (review: ReviewView) => void) {
  const route = useRoute()
  const router = useRouter()
  const handin = computed(() => Number(route.params.handin) || 0)
  const every = useResource(async (signal) => {
    const results = await get(`/tasks/${taskId()}/results`, { signal })
    return results.clusters.flatMap((c) => c.members.map((m) => m.handin_id))
  })
  const order = computed(() => every.data.value?.filter(inGroup()) ?? null)
  const isEmpty = computed(() => !handin.value && order.value?.length === 0)
  const {
    data: review,
    trouble,
    reload,
  } = useResource((signal) => get(`/tasks/${taskId()}/review/${handin.value}`, { signal }), { lazy: true })

  function go(id: number): void {
    void router.push({ params: { ...route.params, handin: String(id) } })
  }
  function walk(by: number): void {
    const ids = order.value ?? []
    const next = ids[ids.indexOf(handin.value) + by]
    if (next) go(next)
  }
  /** What is on screen is of another hand-in than the address says: it is only looked at, and soon gone. */
  const isStale = computed(() => review.value !== null && review.value.handin_id !== handin.value)
  async function load(): Promise<void> {
    window.setTimeout(() => isStale.value && clearShown(), PATIENCE)
    const found = await reload()
    if (found) shown(found)
  }
  function clearShown(): void {
    review.value = null
  }
  watch(
    [handin, order],
    async ([id, ids], [before]) => {
      if (id && id !== before) return load()
      if (!id && ids?.[0]) await router.replace({ params: { ...route.params, handin: String(ids[0]) } })
    },
    { immediate: true },
  )
  /** What a run found is read; where one looks, and what one writes, stays. */
  async function again(): Promise<void> {
    await every.reload()
    if (review.value) await reload()
    else if (handin.value) await load()
  }
  return { handin, review, isStale, trouble: computed(() => trouble.value || every.trouble.value), isEmpty, load, again, go, walk }
}
