import type { ResultsView } from '../../api/schema'

/** What tells clusters apart whose sentence is the same, by their keys: a case that is wrong in one and not in the others, or what
 * each gives in the first case that both have wrong. */
export function tellApart(results: ResultsView): Map<string, string> {
  const alike = new Map<string, number[]>()
  results.clusters.forEach((c, n) => {
    if (c.kind !== 'wrong') return
    const said = [c.title, ...c.sentences.slice(0, 2)].join('\n')
    alike.set(said, [...(alike.get(said) ?? []), n])
  })
  const found = new Map<string, string>()
  for (const group of alike.values()) {
    if (group.length < 2) continue
    for (const n of group) {
      const others = group.filter((m) => m !== n)
      const own = results.case_clusters.findIndex((of) => of.includes(n) && !others.some((m) => of.includes(m)))
      const spared = results.case_clusters.findIndex((of) => !of.includes(n) && others.every((m) => of.includes(m)))
      const cluster = results.clusters[n]
      if (own >= 0) found.set(cluster.key, `told apart by case \`${results.case_labels[own]}\`: wrong here alone`)
      else if (spared >= 0) found.set(cluster.key, `told apart by case \`${results.case_labels[spared]}\`: right here alone`)
      else {
        const row = cluster.rows[0]
        const at = row?.wrong.indexOf(true) ?? -1
        if (at >= 0) found.set(cluster.key, `told apart by the values: \`${results.outputs[at]}\` is another one in the cases below`)
      }
    }
  }
  return found
}
