import type { WaveLine, WavesView } from '../../api/schema'
import { palette } from '../../shared/canvas'
import { indexAt } from './values'
import { type Radix, shown } from '../../shared/values'

/** One line of the picture: a signal as it was, or what is expected of it. */
export interface Track {
  line: WaveLine
  what: 'got' | 'want' | 'only'
  radix: Radix
  top: number
  high: number
}

export const AXIS = 46
const HIGH = { only: 26, want: 22, got: 26 }
const INK = palette({
  ink: 'ink',
  soft: 'ink-2',
  faint: 'ink-3',
  line: 'line',
  line2: 'line-2',
  paper: 'paper',
  rice: 'rice',
  fail: 'fail',
  failTint: 'fail-tint',
  undef: 'undef',
  undefTint: 'undef-tint',
  undefText: 'undef-text',
  pass: 'pass',
  none: 'none',
  zero: 'wire-0',
  lacquer: 'lacquer',
  tint: 'lacquer-tint',
})

/** The tracks of a picture, outputs with what is expected of them above. */
export function tracksOf(waves: WavesView, radix: (line: WaveLine) => Radix): Track[] {
  const out: Track[] = []
  let top = 4
  for (const line of waves.waves) {
    for (const what of line.kind === 'out' && line.expected?.length ? (['want', 'got'] as const) : (['only'] as const)) {
      out.push({ line, what, radix: radix(line), top, high: HIGH[what] })
      top += HIGH[what]
    }
    top += out.at(-1)?.what === 'got' ? 8 : 4
  }
  return out
}
export function heightOf(tracks: Track[]): number {
  const last = tracks.at(-1)
  return last ? last.top + last.high + 8 : 40
}

/** Where and how large: time at the left edge, pixels per unit of time, end of the sequence. */
export interface View {
  start: number
  scale: number
  width: number
  end: number
}

/** All tracks between two heights. */
export function paintTracks(p: CanvasRenderingContext2D, waves: WavesView, tracks: Track[], view: View, from: number, to: number): void {
  p.fillStyle = INK.paper
  p.fillRect(0, from, view.width, to - from)
  paintGrid(p, waves, view, from, to)
  for (const track of tracks) {
    if (track.top + track.high < from || track.top > to) continue
    if (track.what === 'want') paintBad(p, waves, track, view)
    if (track.line.width === 1) paintBit(p, track, view)
    else paintBus(p, track, view)
  }
}
const xOf = (view: View, time: number) => (time - view.start) * view.scale

function paintGrid(p: CanvasRenderingContext2D, waves: WavesView, view: View, from: number, to: number): void {
  const step = waves.step_time * view.scale
  if (step < 7) return
  p.fillStyle = INK.line2
  const first = Math.max(0, Math.floor(view.start / waves.step_time))
  for (let i = first; i <= waves.actions.length && xOf(view, i * waves.step_time) < view.width; i++)
    p.fillRect(Math.round(xOf(view, i * waves.step_time)), from, 1, to - from)
}
/** A tint behind every stretch in which the output is not right, from what is expected down to what was. */
function paintBad(p: CanvasRenderingContext2D, waves: WavesView, track: Track, view: View): void {
  for (const [a, b] of track.line.bad) {
    const x0 = xOf(view, a * waves.step_time)
    const x1 = xOf(view, (b + 1) * waves.step_time)
    if (x1 < 0 || x0 > view.width) continue
    p.fillStyle = INK.failTint
    p.fillRect(x0, track.top - 1, Math.max(1.5, x1 - x0), HIGH.want + HIGH.got + 2)
    p.fillStyle = INK.fail
    p.fillRect(x0, track.top + HIGH.want + HIGH.got + 1, Math.max(1.5, x1 - x0), 2)
  }
}
/** Calls back for each stretch of one value that is visible; changes too dense to be told apart come as one with no value. */
function stretches(track: Track, view: View, found: (x0: number, x1: number, value: string | null) => void): void {
  const at = track.what === 'want' ? track.line.expected_at : track.line.at
  const values = track.what === 'want' ? track.line.expected : track.line.values
  let i = Math.max(0, indexAt(at, view.start))
  const last = view.start + view.width / view.scale
  while (i < at.length && at[i] <= last) {
    const x0 = Math.max(-2, xOf(view, at[i]))
    const x1 = Math.min(view.width + 2, xOf(view, at[i + 1] ?? view.end))
    if (x1 - x0 >= 2 || i + 1 >= at.length) {
      if (x1 > x0) found(x0, x1, values[i])
      i++
      continue
    }
    let j = Math.max(i + 1, indexAt(at, view.start + (x0 + 2) / view.scale))
    while (j + 1 < at.length && xOf(view, at[j + 1]) - xOf(view, at[j]) < 2) j = Math.max(j + 1, indexAt(at, at[j] + 2 / view.scale))
    const until = Math.min(view.width + 2, xOf(view, at[Math.min(j, at.length - 1)]))
    found(x0, Math.max(x0 + 2, until), null)
    i = j
  }
}
function paintBit(p: CanvasRenderingContext2D, track: Track, view: View): void {
  const top = track.top + 5
  const low = track.top + track.high - 5
  const middle = (top + low) / 2
  const pale = track.what === 'want'
  let before: number | null = null
  stretches(track, view, (x0, x1, value) => {
    if (value === null) {
      p.fillStyle = pale ? INK.none : INK.faint
      p.fillRect(x0, top, x1 - x0, low - top)
      before = null
      return
    }
    const y = value === '1' ? top : value === '0' ? low : middle
    if (before !== null && before !== y) {
      p.fillStyle = pale ? INK.none : INK.soft
      p.fillRect(x0 - 0.5, Math.min(before, y), 1, Math.abs(before - y))
    }
    p.beginPath()
    if (value === 'x') zigzag(p, x0, x1, middle)
    else {
      p.strokeStyle = value === '1' ? (pale ? INK.faint : INK.ink) : value === '0' ? INK.zero : INK.none
      p.lineWidth = value === '1' ? (pale ? 1.6 : 2.6) : 1.1
      p.setLineDash(value === 'z' ? [1.5, 3] : value === '-' ? [6, 5] : [])
      p.moveTo(x0, y)
      p.lineTo(x1, y)
      p.stroke()
      p.setLineDash([])
    }
    before = y
  })
}
function zigzag(p: CanvasRenderingContext2D, x0: number, x1: number, y: number): void {
  p.strokeStyle = INK.undef
  p.lineWidth = 1.3
  p.moveTo(x0, y)
  const begin = Math.max(0, x0)
  for (let x = begin, up = true; x < x1; x += 4, up = !up) p.lineTo(Math.min(x + 4, x1), y + (up ? -4 : 4))
  p.stroke()
}
/** Buses are little boxes with their value in them, parted by gaps: one box, one value. */
function paintBus(p: CanvasRenderingContext2D, track: Track, view: View): void {
  const top = track.top + 3
  const high = track.high - 6
  const pale = track.what === 'want'
  p.font = `${pale ? 11 : 12}px "IBM Plex Mono"`
  p.textBaseline = 'middle'
  stretches(track, view, (x0, x1, value) => {
    if (value === null) {
      p.fillStyle = INK.none
      p.fillRect(x0, top, x1 - x0, high)
      return
    }
    const left = x0 + 1
    const wide = Math.max(1, x1 - x0 - 2)
    if (/^-+$/.test(value)) {
      p.fillStyle = INK.none
      for (let x = Math.max(0, left); x < left + wide; x += 11) p.fillRect(x, top + high / 2, 6, 1)
      return
    }
    const isOpen = /[xz]/.test(value)
    p.fillStyle = isOpen ? INK.undefTint : pale ? INK.paper : INK.rice
    p.strokeStyle = isOpen ? INK.undef : pale ? INK.none : INK.soft
    p.lineWidth = 1
    p.beginPath()
    p.roundRect(left + 0.5, top + 0.5, wide - 1 > 0 ? wide - 1 : 0.5, high - 1, Math.min(4, wide / 3))
    p.fill()
    p.stroke()
    if (isOpen) hatch(p, left + 1, top + 1, wide - 2, high - 2)
    if (wide < 10) return
    const text = shown(value, track.radix)
    p.fillStyle = isOpen ? INK.undefText : pale ? INK.soft : INK.ink
    const from = Math.max(left, 0)
    const room = Math.min(left + wide, view.width) - from
    const size = p.measureText(text).width
    if (size + 6 <= room) p.fillText(text, from + (room - size) / 2, top + high / 2 + 1)
    else if (room > 16) p.fillText('…', from + room / 2 - 4, top + high / 2)
  })
}
function hatch(p: CanvasRenderingContext2D, x: number, y: number, wide: number, high: number): void {
  p.save()
  p.beginPath()
  p.rect(x, y, wide, high)
  p.clip()
  p.globalAlpha = 0.35
  p.beginPath()
  for (let d = x - high; d < x + wide; d += 6) {
    p.moveTo(d, y + high)
    p.lineTo(d + high, y)
  }
  p.stroke()
  p.restore()
}

const WORDS: Record<string, string> = { '.': '·', r: '↑', f: '↓', c: '⇅' }

/** Step numbers, what the clock does, and which steps are wrong: filled where it goes astray, hollow where it only follows. */
export function paintAxis(p: CanvasRenderingContext2D, waves: WavesView, view: View): void {
  p.fillStyle = INK.paper
  p.fillRect(0, 0, view.width, AXIS)
  p.fillStyle = INK.line
  p.fillRect(0, AXIS - 1, view.width, 1)
  const step = waves.step_time * view.scale
  const every = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000].find((n) => n * step >= 34) ?? 10000
  const first = Math.max(0, Math.floor(view.start / waves.step_time))
  const last = Math.min(waves.actions.length - 1, Math.ceil((view.start + view.width / view.scale) / waves.step_time))
  p.textBaseline = 'alphabetic'
  for (let i = first; i <= last; i++) {
    const x = xOf(view, i * waves.step_time)
    const cell = waves.cells[i]
    if ('fus'.includes(cell.toLowerCase())) {
      p.fillStyle = p.strokeStyle = cell.toLowerCase() === 'u' ? INK.undef : INK.fail
      const wide = Math.max(1.5, Math.min(step - 3, 9))
      if (cell === cell.toLowerCase()) p.fillRect(x + Math.max(0, (step - wide) / 2), AXIS - 13, wide, 9)
      else if (step > 8) {
        p.lineWidth = 1.2
        p.strokeRect(x + (step - wide) / 2 + 0.6, AXIS - 12.4, wide - 1.2, 7.8)
      } else p.fillRect(x, AXIS - 7, Math.max(1, wide), 3)
    } else if (step > 22) {
      p.fillStyle = INK.faint
      p.font = '12px "Obento Signs", "IBM Plex Mono"'
      p.fillText(WORDS[waves.actions[i]] ?? '', x + step / 2 - 4, AXIS - 5)
    }
    if ((i + waves.offset + 1) % every && every > 1) continue
    p.fillStyle = INK.soft
    p.font = '12px \"IBM Plex Mono"'
    const text = String(i + waves.offset + 1)
    p.fillText(text, every > 1 ? x + 2 : x + (step - p.measureText(text).width) / 2, 26)
    p.fillStyle = INK.line
    p.fillRect(x, 15, 1, 5)
  }
}
export function paintCursor(
  p: CanvasRenderingContext2D,
  view: View,
  time: number | null,
  name: string,
  from: number,
  to: number,
  withName: boolean,
): void {
  if (time === null) return
  const x = Math.round(xOf(view, time)) + 0.5
  if (x < 0 || x > view.width) return
  p.strokeStyle = INK.lacquer
  p.lineWidth = 1.3
  p.setLineDash(name === 'b' ? [4, 3] : [])
  p.beginPath()
  p.moveTo(x, from)
  p.lineTo(x, to)
  p.stroke()
  p.setLineDash([])
  if (!withName) return
  p.fillStyle = INK.lacquer
  p.fillRect(x - 7, 0, 14, 13)
  p.fillStyle = INK.paper
  p.font = '600 12px \"IBM Plex Sans"'
  p.fillText(name, x - 3, 10)
}
