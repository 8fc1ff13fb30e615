import { colour, palette } from '../../shared/canvas'
import { mark } from '../../shared/words'
import { type CellGrid, type CellRow, cellOf } from './cells'

const NAMES = 190
const MARK = 56
const HEAD = 92
const ROW = 22
/** From this size on a cell is a sign, below it a bar. */
const SIGN_FROM = 14
const LONGEST_NAME = 27
const INK = palette({ p: 'pass', f: 'fail', u: 'undef', n: 'none', s: 'ink' })

/** Where the picture is scrolled to, and the size of a cell. */
export interface Place {
  cell: number
  x: number
  y: number
}
/** Students down in the order of `rows`, cases across; `failures` are those of each case. */
export interface RowsPicture extends Place {
  grid: CellGrid
  rows: CellRow[]
  failures: Uint16Array
  chosen: number | null
  /** The cell that the keys are at. */
  cursor: { row: number; index: number } | null
  width: number
  height: number
}

/** How large all of it is. */
export function sizeOf(cases: number, rows: number, cell: number): { width: number; height: number } {
  return { width: NAMES + MARK + cases * cell, height: HEAD + rows * ROW + 8 }
}
/** Where to scroll so that a cell is in sight; what is in sight stays where it is. */
export function scrollTo(cell: { row: number; index: number }, at: Place & { width: number; height: number }): { x: number; y: number } {
  const [left, top] = [cell.index * at.cell, cell.row * ROW]
  const [across, down] = [at.width - NAMES - MARK - at.cell, at.height - HEAD - ROW]
  return { x: Math.max(Math.min(at.x, left), left - across), y: Math.max(Math.min(at.y, top), top - down) }
}
/** The row and case under a point of the picture. */
export function placeAt(x: number, y: number, at: Place): { row: number; index: number } {
  return { row: Math.floor((y - HEAD + at.y) / ROW), index: Math.floor((x - NAMES + at.x) / at.cell) }
}

interface Sight {
  firstCase: number
  lastCase: number
  firstRow: number
  lastRow: number
}
function sightOf(w: RowsPicture): Sight {
  const firstCase = Math.floor(w.x / w.cell)
  const firstRow = Math.floor(w.y / ROW)
  return {
    firstCase,
    lastCase: Math.min(w.grid.cases, firstCase + Math.ceil((w.width - NAMES - MARK) / w.cell) + 1),
    firstRow,
    lastRow: Math.min(w.rows.length, firstRow + Math.ceil((w.height - HEAD) / ROW) + 1),
  }
}
const leftOf = (w: RowsPicture, i: number): number => NAMES + i * w.cell - w.x
const topOf = (w: RowsPicture, i: number): number => HEAD + i * ROW - w.y

/** What is in sight, and nothing else. */
export function paintRows(p: CanvasRenderingContext2D, w: RowsPicture): void {
  const sight = sightOf(w)
  p.fillStyle = colour('paper')
  p.fillRect(0, 0, w.width, w.height)
  clipped(p, NAMES, HEAD, w.width - NAMES - MARK, w.height - HEAD, () => {
    for (let r = sight.firstRow; r < sight.lastRow; r++) paintRow(p, w, r, sight)
    paintCursor(p, w)
  })
  paintHeads(p, w, sight)
  clipped(p, 0, HEAD - 2, w.width, w.height, () => {
    for (let r = sight.firstRow; r < sight.lastRow; r++) paintName(p, w, r)
  })
}
function paintCursor(p: CanvasRenderingContext2D, w: RowsPicture): void {
  if (!w.cursor) return
  p.strokeStyle = colour('ink')
  p.lineWidth = 2
  p.strokeRect(leftOf(w, w.cursor.index) - 1, topOf(w, w.cursor.row) + 1, w.cell + 2, ROW - 2)
}
function clipped(p: CanvasRenderingContext2D, x: number, y: number, width: number, height: number, work: () => void): void {
  p.save()
  p.beginPath()
  p.rect(x, y, width, height)
  p.clip()
  work()
  p.restore()
}
function paintRow(p: CanvasRenderingContext2D, w: RowsPicture, r: number, sight: Sight): void {
  const row = w.rows[r]
  const top = topOf(w, r)
  if (row.id === w.chosen) {
    p.fillStyle = colour('lacquer-tint')
    p.fillRect(NAMES, top, w.width, ROW)
  }
  for (let i = sight.firstCase; i < sight.lastCase; i++) {
    const what = cellOf(row, i)
    if (w.cell >= SIGN_FROM) paintSign(p, what, leftOf(w, i) + w.cell / 2, top + ROW / 2)
    else {
      p.fillStyle = INK[what]
      p.globalAlpha = what === 'p' ? 0.35 : 1
      const high = what === 'n' ? 2 : what === 'p' ? ROW - 10 : ROW - 4
      p.fillRect(leftOf(w, i), top + (ROW - high) / 2, Math.max(1, w.cell - (w.cell > 4 ? 1 : 0)), high)
      p.globalAlpha = 1
    }
  }
}
function paintSign(p: CanvasRenderingContext2D, what: string, x: number, y: number): void {
  p.fillStyle = INK[what as keyof typeof INK]
  p.beginPath()
  if (what === 'p') p.arc(x, y, 4.2, 0, 7)
  else if (what === 'f') {
    p.moveTo(x - 5, y - 5)
    p.lineTo(x + 5, y - 5)
    p.lineTo(x + 5, y + 1.4)
    p.lineTo(x + 1.4, y + 5)
    p.lineTo(x - 5, y + 5)
  } else if (what === 's') p.rect(x - 5, y - 2.5, 10, 5)
  else if (what === 'n') p.rect(x - 3.5, y - 0.7, 7, 1.4)
  else {
    p.strokeStyle = INK.u
    p.lineWidth = 1.2
    p.moveTo(x, y - 5)
    p.lineTo(x + 5, y)
    p.lineTo(x, y + 5)
    p.lineTo(x - 5, y)
    p.closePath()
    for (const d of [-2, 0, 2]) {
      p.moveTo(x + d, y - 4 + Math.abs(d))
      p.lineTo(x + d, y + 4 - Math.abs(d))
    }
    return p.stroke()
  }
  p.fill()
}
function paintHeads(p: CanvasRenderingContext2D, w: RowsPicture, sight: Sight): void {
  p.fillStyle = colour('paper')
  p.fillRect(0, 0, w.width, HEAD)
  const most = w.failures.reduce((high, n) => Math.max(high, n), 1)
  const gap = w.cell > 8 ? 3 : 0
  clipped(p, NAMES, 0, w.width - NAMES - MARK, HEAD, () => {
    for (let i = sight.firstCase; i < sight.lastCase; i++) {
      const high = (28 * w.failures[i]) / most
      p.fillStyle = colour('fail')
      p.fillRect(leftOf(w, i) + gap, HEAD - 6 - high, Math.max(1, w.cell - 2 * gap), high)
      if (w.cell >= SIGN_FROM && w.grid.labels[i]) paintLabel(p, w.grid.labels[i], leftOf(w, i) + w.cell / 2 + 4)
    }
  })
  p.fillStyle = colour('ink-2')
  p.font = '12px "IBM Plex Sans"'
  p.fillText('failing each case', 4, HEAD - 10)
  p.fillText('mark', w.width - MARK + 10, HEAD - 10)
  p.fillStyle = colour('line')
  p.fillRect(0, HEAD - 3, w.width, 1)
}
function paintLabel(p: CanvasRenderingContext2D, label: string, x: number): void {
  p.save()
  p.translate(x, HEAD - 40)
  p.rotate(-Math.PI / 2)
  p.fillStyle = colour('ink-2')
  p.font = '12px \"IBM Plex Mono"'
  p.fillText(label.replaceAll(' ', ''), 0, 0)
  p.restore()
}
function paintName(p: CanvasRenderingContext2D, w: RowsPicture, r: number): void {
  const row = w.rows[r]
  const top = topOf(w, r)
  p.fillStyle = row.id === w.chosen ? colour('lacquer-tint') : colour('paper')
  p.fillRect(0, top, NAMES - 4, ROW)
  p.fillRect(w.width - MARK, top, MARK, ROW)
  p.fillStyle = colour('ink')
  p.font = '12.500px "IBM Plex Sans"'
  p.fillText(row.name.length > LONGEST_NAME ? `${row.name.slice(0, LONGEST_NAME - 1)}…` : row.name, 4, top + 15)
  p.font = '12px "IBM Plex Mono"'
  p.fillStyle = colour('ink-2')
  p.fillText(row.status === 'checked' ? mark(row.mark) : 'held', w.width - MARK + 10, top + 15)
}
