import type { CaseRow } from '../../api/schema'

type Cell = CaseRow['cell']

export interface CellRow {
  id: number
  name: string
  planes: string
  status: string
  mark: number | null
  cluster: string
  passed: number
  data: Uint8Array[]
}
export interface CellGrid {
  cases: number
  rows: CellRow[]
  labels: string[]
  groups: Record<string, number[]>
}

/** Takes the packed cells apart; the planes stay packed (see `TaskPicture.cells` on the server). */
export function unpackCells(buffer: ArrayBuffer): CellGrid {
  const size = new DataView(buffer).getUint32(0, true)
  const head = JSON.parse(new TextDecoder().decode(new Uint8Array(buffer, 4, size)))
  const bytes = Math.ceil(head.cases / 8)
  let at = 4 + size
  for (const row of head.rows) {
    row.data = []
    for (let i = 0; i < row.planes.length; i++) {
      row.data.push(new Uint8Array(buffer, at, bytes))
      at += bytes
    }
  }
  return head
}

export function cellOf(row: CellRow, index: number): Cell {
  for (let i = row.planes.length - 1; i >= 0; i--) if ((row.data[i][index >> 3] >> (index & 7)) & 1) return row.planes[i] as Cell
  return 'p'
}

/** How many hand-ins do not pass each case. */
export function failuresOf(grid: CellGrid): Uint16Array {
  const counts = new Uint16Array(grid.cases)
  for (const row of grid.rows)
    for (let i = 0; i < row.planes.length; i++) {
      if (row.planes[i] === 'n') continue
      const plane = row.data[i]
      for (let byte = 0; byte < plane.length; byte++) {
        let bits = plane[byte]
        while (bits) {
          const low = bits & -bits
          counts[byte * 8 + (31 - Math.clz32(low))]++
          bits ^= low
        }
      }
    }
  return counts
}
