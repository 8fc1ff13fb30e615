/** Before this nothing is said: the first few tell little of the rest. In ms, and as a share of the whole. */
const SOON = 1500
const ENOUGH = 0.05

/** How long work will take from here, by how long it took so far (in ms); empty where that says nothing yet. */
export function leftText(done: number, total: number, elapsed: number): string {
  if (done >= total || elapsed < SOON || done < total * ENOUGH) return ''
  const seconds = (elapsed / done) * (total - done) * 0.001
  if (seconds < 1.5) return 'a second left'
  if (seconds < 90) return `about ${Math.round(seconds)} s left`
  return `about ${Math.round(seconds / 60)} min left`
}
