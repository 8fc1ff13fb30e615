/** The index of the last entry at or before a time; -1 when the first is later. */
export function indexAt(at: number[], time: number): number {
  let low = 0
  let high = at.length
  while (low < high) {
    const middle = (low + high) >> 1
    if (at[middle] <= time) low = middle + 1
    else high = middle
  }
  return low - 1
}
export function valueAt(at: number[], values: string[], time: number): string {
  return values[indexAt(at, time)] ?? ''
}
