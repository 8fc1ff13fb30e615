import type { ClusterView, FeedbackStudent, FeedbackView } from '../../api/schema'

/** A cluster that is owed a comment, with its task and those on the class list whose hand-ins are in it. */
export interface OpenCluster {
  task: FeedbackView['tasks'][number]
  cluster: ClusterView
  students: FeedbackStudent[]
}

const NAMED = 4

export function openClusters(view: FeedbackView | null): OpenCluster[] {
  const found: OpenCluster[] = []
  for (const task of view?.tasks ?? [])
    for (const cluster of task.clusters) {
      if (cluster.kind === 'right') continue
      const ids = new Set(cluster.members.map((m) => m.handin_id))
      const students = (view?.students ?? []).filter((s) => s.handin_id !== null && ids.has(s.handin_id))
      found.push({ task, cluster, students })
    }
  return found
}
/** The names of the first few of a cluster. */
export function writersOf(cluster: ClusterView): string {
  return (
    cluster.members
      .slice(0, NAMED)
      .map((m) => m.name)
      .join(', ') + (cluster.members.length > NAMED ? '…' : '')
  )
}
