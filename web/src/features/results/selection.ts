import { computed, nextTick, ref, type Ref } from 'vue'

import type { ClusterView, ResultsView } from '../../api/schema'

/**
 * Which cluster and which of its hand-ins is chosen, and walking among them. A case of the class panel leaves the clusters
 * that fail it.
 */
export function useSelection(results: Ref<ResultsView | null>, firstKey: string) {
  const filter = ref<number | null>(null)
  const chosenKey = ref(firstKey)
  const chosenMember = ref<number | null>(null)
  const shown = computed(() => {
    const all = results.value?.clusters ?? []
    if (filter.value === null || !results.value) return all
    return results.value.case_clusters[filter.value].map((n) => all[n])
  })
  const chosen = computed(() => shown.value.find((c) => c.key === chosenKey.value) ?? null)
  const chosenHandin = computed(() => chosenMember.value ?? chosen.value?.members[0]?.handin_id ?? null)

  function choose(c: ClusterView): void {
    chosenKey.value = c.key
    chosenMember.value = c.members[0]?.handin_id ?? null
  }
  /** The first cluster, where the chosen one is gone. */
  function keep(): void {
    if (!chosen.value) chosenKey.value = shown.value[0]?.key ?? ''
  }
  function chooseHandin(handin: number): void {
    const c = results.value?.clusters.find((x) => x.members.some((m) => m.handin_id === handin))
    if (c) chosenKey.value = c.key
    chosenMember.value = handin
  }
  function step(by: number): void {
    const next = moved(shown.value, (c) => c.key === chosenKey.value, by)
    if (!next) return
    choose(next)
    void nextTick(() => document.querySelector('[aria-current=true]')?.scrollIntoView({ block: 'nearest' }))
  }
  function stepMember(by: number): void {
    chosenMember.value = moved(chosen.value?.members ?? [], (m) => m.handin_id === chosenHandin.value, by)?.handin_id ?? null
  }
  return { filter, shown, chosenKey, chosenHandin, choose, chooseHandin, keep, step, stepMember }
}

/** The item some places from the chosen one, not beyond the ends; from the first where none is chosen. */
export function moved<T>(items: T[], isChosen: (item: T) => boolean, by: number): T | undefined {
  const at = items.findIndex(isChosen)
  return items[Math.max(0, Math.min(items.length - 1, at + by))]
}
