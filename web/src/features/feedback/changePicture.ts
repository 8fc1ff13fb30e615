import type { Letter } from '../../api/schema'
import { sign } from '../circuit/symbols'

export type Change = Letter['tasks'][number]['changes'][number]
export type Driven = Change['before'][number]
type Piece = Driven['piece']

/** A part or a name in the picture of one line; a name's `x` is its right end. */
export interface Placed {
  piece: Piece
  x: number
  y: number
  w: number
  h: number
}
export interface Picture {
  w: number
  h: number
  parts: Placed[]
  names: Placed[]
  wires: string[]
  /** Circles of inverted inputs. */
  circles: { x: number; y: number }[]
}

const ROW = 18
const GAP = 26
const LEAST = 30
const BODY = 46
const LETTER = 6.8
const EDGE = 4
const APART = 8
/** The radius of a circle that inverts. */
export const CIRCLE = 3.5

const wide = (text: string): number => text.length * LETTER + 6
const heightOf = (piece: Piece): number => Math.max(LEAST, piece.inputs.length * ROW)
const sumOf = (sizes: { h: number }[]): number => sizes.reduce((sum, s) => sum + s.h, 0)
const bodyOf = (piece: Piece): number => Math.max(BODY, wide(sign(piece.kind, piece.text)) + 18)

/** What an input comes from; an inversion before it is a circle at the pin. */
const source = (input: Piece): Piece => (input.kind === 'not' ? input.inputs[0] : input)

/** How much room a piece takes with all that stands at its inputs. */
function size(piece: Piece): { w: number; h: number } {
  if (piece.kind === 'name') return { w: wide(piece.text), h: ROW }
  const inside = piece.inputs.map(source).map(size)
  return {
    w: Math.max(0, ...inside.map((s) => s.w)) + GAP + bodyOf(piece),
    h: APART + Math.max(heightOf(piece), sumOf(inside)),
  }
}

/** One line of a wiring list: what is driven at the right, what drives it before it, a tree of parts with names at its ends. */
export function pictureOf(driven: Driven): Picture {
  const all = size(driven.piece)
  const name = driven.names.join(', ')
  const picture: Picture = { w: all.w + GAP + wide(name) + 2 * EDGE, h: all.h + 2 * EDGE, parts: [], names: [], wires: [], circles: [] }
  const end = place(picture, driven.piece, EDGE + all.w, EDGE)
  const x = EDGE + all.w + GAP
  picture.wires.push(`M${end.x} ${end.y}H${x - 3}`)
  picture.names.push({
    piece: { kind: 'name', text: name, inverted: false, inputs: [] },
    x: x + wide(name) - 6,
    y: end.y,
    w: wide(name),
    h: ROW,
  })
  return picture
}

/** Put a piece so that it ends at `right`, from `top` down; gives where its wire begins. */
function place(picture: Picture, piece: Piece, right: number, top: number): { x: number; y: number } {
  const { h } = size(piece)
  const y = top + h / 2
  if (piece.kind === 'name') {
    picture.names.push({ piece, x: right, y, w: wide(piece.text), h: ROW })
    return { x: right + 3, y }
  }
  const w = bodyOf(piece)
  const inside = piece.inputs.map(source).map(size)
  const inner = sumOf(inside)
  const body = heightOf(piece)
  picture.parts.push({ piece, x: right - w, y: y - body / 2, w, h: body })
  let from = top + (h - inner) / 2
  piece.inputs.forEach((input, i) => {
    const end = place(picture, source(input), right - w - GAP, from)
    from += inside[i].h
    const at = y - body / 2 + ((i + 0.5) * body) / piece.inputs.length
    const bend = right - w - GAP / 2 + (i < piece.inputs.length / 2 ? 1 : -1) * (i % 3) * 3
    const meets = right - w - (input.kind === 'not' ? 2 * CIRCLE : 0)
    if (input.kind === 'not') picture.circles.push({ x: right - w - CIRCLE, y: at })
    picture.wires.push(end.y === at ? `M${end.x} ${at}H${meets}` : `M${end.x} ${end.y}H${bend}V${at}H${meets}`)
  })
  return { x: right, y }
}

/** A text as its stretches: words, and changes in the place of the lines that say them. */
export function stretches(text: string, changes: Change[]): (string | Change)[] {
  const lines = text.split('\n')
  const found: (string | Change)[] = []
  let at = 0
  for (const change of changes) {
    if (change.first > at) found.push(lines.slice(at, change.first).join('\n'))
    found.push(change)
    at = change.first + change.count
  }
  if (at < lines.length) found.push(lines.slice(at).join('\n'))
  return found.filter((x) => x !== '')
}
