import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { get } from '../../api/client'
import type { ReviewView } from '../../api/schema'
import { useResource } from '../../shared/resource'

/** The hand-in under review, and the way from one to the next in the order of the results. */
export function useReview(taskId: () => number, shown: (review: ReviewView) => void) {
  const route = useRoute()
  const router = useRouter()
  const handin = computed(() => Number(route.params.handin) || 0)
  const isEmpty = ref(false)
  const order = useResource(async (signal) => {
    const results = await get(`/tasks/${taskId()}/results`, { signal })
    return results.clusters.flatMap((c) => c.members.map((m) => m.handin_id))
  })
  const {
    data: review,
    trouble,
    reload,
  } = useResource((signal) => get(`/tasks/${taskId()}/review/${handin.value}`, { signal }), { lazy: true })

  function go(id: number): void {
    void router.push({ params: { ...route.params, handin: String(id) } })
  }
  function walk(by: number): void {
    const ids = order.data.value ?? []
    const next = ids[ids.indexOf(handin.value) + by]
    if (next) go(next)
  }
  async function load(): Promise<void> {
    const found = await reload()
    if (found) shown(found)
  }
  watch(
    [handin, order.data],
    async ([id, ids], [before]) => {
      if (id && id !== before) return load()
      if (id || !ids) return
      if (ids[0]) await router.replace({ params: { ...route.params, handin: String(ids[0]) } })
      else isEmpty.value = true
    },
    { immediate: true },
  )
  return { handin, review, trouble: computed(() => trouble.value || order.trouble.value), isEmpty, load, go, walk }
}
