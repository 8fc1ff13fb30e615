import type { ResultsView } from '../../api/schema'

/** The results of one group: clusters with its members alone, those that have none left out. Without a group all of them. */
export function ofGroup(results: ResultsView, inGroup: ((handin: number) => boolean) | null, names: Set<string>): ResultsView {
  if (!inGroup) return results
  const places = new Map<number, number>()
  const clusters = results.clusters.flatMap((cluster, before) => {
    const members = cluster.members.filter((m) => inGroup(m.handin_id))
    if (!members.length) return []
    places.set(before, places.size)
    return [{ ...cluster, members }]
  })
  const case_clusters = results.case_clusters.map((of) => of.flatMap((n) => places.get(n) ?? []))
  const case_failures = case_clusters.map((of) => of.reduce((sum, n) => sum + (clusters[n]?.members.length ?? 0), 0))
  return { ...results, clusters, case_clusters, case_failures, missing: results.missing.filter((name) => names.has(name)) }
}
