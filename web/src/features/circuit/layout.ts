import ELK, { type ElkExtendedEdge, type ElkNode, type ElkPort } from 'elkjs/lib/elk-api'
import workerUrl from 'elkjs/lib/elk-worker.min.js?url'

import type { CircuitPart, CircuitPin } from '../../api/schema'
import { isBox, type Indexed } from './model'

/** Where a part stands, with the places of its pins on the drawing. */
export interface Placed {
  part: CircuitPart
  x: number
  y: number
  w: number
  h: number
  folded: boolean
  /** Where the output of a gate points, and which side of the body each pin is on. */
  facing: Facing
  pins: { pin: CircuitPin; x: number; y: number; side: Side }[]
}
export type Facing = 'left' | 'right' | 'up' | 'down'
export type Side = 'left' | 'right' | 'above' | 'below'
/** What is said of the looks of a circuit, by its parts and pins. */
export interface Appearance {
  turned: Map<number, Facing>
  sides: Map<number, Side>
  /** Pins where a wire starts that is drawn as its name. */
  named: Map<number, string>
  frames: { text: string; parts: number[] }[]
}
const PLAIN: Appearance = { turned: new Map(), sides: new Map(), named: new Map(), frames: [] }
export interface Run {
  start: number
  end: number
  label: string
  points: { x: number; y: number }[]
  dots: { x: number; y: number }[]
}
export interface Layout {
  parts: Placed[]
  runs: Run[]
  width: number
  height: number
  milliseconds: number
  named: Map<number, string>
  frames?: { text: string; parts: number[] }[]
  remarks?: { line: number; x: number; y: number; text: string }[]
}

const PITCH = 18
const GATE = 58
/** Drawings with more parts are laid out by quicker rules: straight placement and one sweep against crossings. */
const LARGE = 80
const CAREFUL = { 'elk.layered.nodePlacement.strategy': 'NETWORK_SIMPLEX', 'elk.layered.thoroughness': '5' }
const QUICK = {
  'elk.layered.nodePlacement.strategy': 'BRANDES_KOEPF',
  'elk.layered.thoroughness': '1',
  'elk.layered.crossingMinimization.greedySwitch.type': 'OFF',
}
function optionsFor(parts: number, calm: boolean): Record<string, string> {
  return {
    'elk.algorithm': 'layered',
    'elk.direction': 'RIGHT',
    'elk.edgeRouting': 'ORTHOGONAL',
    'elk.hierarchyHandling': 'INCLUDE_CHILDREN',
    'elk.layered.spacing.nodeNodeBetweenLayers': '34',
    'elk.spacing.nodeNode': '16',
    'elk.spacing.edgeNode': '12',
    'elk.spacing.edgeEdge': '10',
    'elk.layered.spacing.edgeNodeBetweenLayers': '14',
    ...(parts > LARGE ? QUICK : CAREFUL),
    ...(calm ? { 'elk.layered.considerModelOrder.strategy': 'NODES_AND_EDGES', 'elk.separateConnectedComponents': 'false' } : {}),
    'elk.json.shapeCoords': 'ROOT',
    'elk.json.edgeCoords': 'ROOT',
    'elk.padding': '[top=12,left=12,bottom=12,right=12]',
  }
}
let engine: InstanceType<typeof ELK> | null = null

/**
 * Lay out what is visible: parts in `only` (all when null), boxes in `folded` without what is inside. Runs in a worker. A `calm` drawing
 * keeps the order of the text, so that little moves when a line is added.
 */
export async function layOut(
  at: Indexed,
  folded: Set<number>,
  only: Set<number> | null,
  calm = false,
  looks: Appearance = PLAIN,
): Promise<Layout> {
  engine ??= new ELK({ workerUrl })
  const began = performance.now()
  const graph = build(at, folded, only, calm, looks)
  const done = await engine.layout(graph)
  const found = { ...collect(at, done, folded, looks), milliseconds: performance.now() - began, named: looks.named }
  return calm ? withOpenOutputs(found) : found
}

/** What of a circuit says how it is laid out: where this is the same, so is the layout. */
export function shapeOf(at: Indexed): string {
  const parts = at.circuit.parts.map((p) => {
    const pins = p.pins.map((n) => [n.id, n.side, isBox(p) ? n.name : ''])
    return [p.id, p.within, isBox(p) || isTerminal(p) ? `${p.kind} ${p.label}` : '', pins]
  })
  return JSON.stringify([parts, at.circuit.wires])
}
/** The same layout for another circuit of the same shape. */
export function withCircuit(layout: Layout, at: Indexed): Layout {
  const parts = layout.parts.map((p) => ({
    ...p,
    part: at.part.get(p.part.id) as CircuitPart,
    pins: p.pins.map((n) => ({ ...n, pin: at.pin.get(n.pin.id) as CircuitPin })),
  }))
  return { ...layout, parts }
}

/** All that is drawn, names of wires and remarks included. */
export function extent(layout: Layout): { x: number; y: number; w: number; h: number } {
  const letters = Math.max(0, ...[...layout.named.values()].map((name) => name.length))
  const aside = layout.named.size ? 18 + 6.4 * letters : 0
  const remarks = layout.remarks ?? []
  const right = Math.max(layout.width + aside, ...remarks.map((r) => r.x + 6.6 * r.text.length))
  const bottom = Math.max(layout.height, ...remarks.map((r) => r.y + 20))
  return { x: -aside, y: 0, w: right + aside, h: bottom }
}

const EXAMPLE = 80
/** Have the worker ready before it is wanted: its program takes a while to be read, and its first drawing four times as long as later ones. */
export async function warmUp(): Promise<void> {
  if (engine) return
  engine = new ELK({ workerUrl })
  const port = (id: string, x: number, y: number, side: string): ElkPort => ({ id, x, y, layoutOptions: { 'elk.port.side': side } })
  const children = Array.from({ length: EXAMPLE }, (_, n) => ({
    id: `n${n}`,
    width: GATE,
    height: 2 * PITCH,
    ports: [port(`a${n}`, 0, PITCH / 2, 'WEST'), port(`b${n}`, 0, 1.5 * PITCH, 'WEST'), port(`y${n}`, GATE, PITCH, 'EAST')],
    layoutOptions: { 'elk.portConstraints': 'FIXED_POS' },
  }))
  const edges = children.slice(1).flatMap((_, n) => [
    { id: `u${n}`, sources: [`y${n}`], targets: [`a${n + 1}`] },
    { id: `v${n}`, sources: [`y${(n * 7) % (n + 1)}`], targets: [`b${n + 1}`] },
  ])
  await engine.layout({ id: 'root', children, edges, layoutOptions: optionsFor(EXAMPLE + 1, true) })
}

function isHidden(at: Indexed, part: CircuitPart, folded: Set<number>): boolean {
  for (let box = at.part.get(part.within); box; box = at.part.get(box.within)) if (folded.has(box.id)) return true
  return false
}

function build(at: Indexed, folded: Set<number>, only: Set<number> | null, calm: boolean, looks: Appearance): ElkNode {
  const shown = at.circuit.parts.filter((p) => (!only || only.has(p.id)) && !isHidden(at, p, folded))
  const ids = new Set(shown.map((p) => p.id))
  const joined = new Set(at.circuit.wires.flatMap((w) => [w.start, w.end]))
  const nodes = new Map<number, ElkNode>()
  for (const part of shown)
    nodes.set(part.id, node(part, part.kind === 'unit' && !folded.has(part.id) && shown.some((p) => p.within === part.id), joined, looks))
  const root: ElkNode = {
    id: 'root',
    children: [],
    edges: [],
    layoutOptions: optionsFor(shown.length, calm),
  }
  const frames = new Map<number, ElkNode>()
  looks.frames.forEach((frame, i) => {
    const group: ElkNode = { id: `g${i}`, children: [], layoutOptions: { 'elk.padding': '[top=24,left=16,bottom=14,right=16]' } }
    for (const id of frame.parts) if (ids.has(id) && !frames.has(id)) frames.set(id, group)
    if ([...frames.values()].includes(group)) root.children?.push(group)
  })
  for (const part of shown)
    (nodes.get(part.within)?.children ?? frames.get(part.id)?.children ?? root.children)?.push(nodes.get(part.id) as ElkNode)
  for (const wire of at.circuit.wires) {
    const [a, b] = [at.owner.get(wire.start), at.owner.get(wire.end)]
    if (looks.named.has(wire.start)) continue
    if (!a || !b || !ids.has(a.id) || !ids.has(b.id) || inside(at, wire.start, wire.end, folded)) continue
    root.edges?.push({ id: `w${wire.start}-${wire.end}`, sources: [`p${wire.start}`], targets: [`p${wire.end}`] })
  }
  return root
}

/** Whether a wire runs inside of a folded box: from its own pin inwards, or out of what is hidden. */
function inside(at: Indexed, start: number, end: number, folded: Set<number>): boolean {
  const [a, b] = [at.owner.get(start), at.owner.get(end)]
  return (folded.has(a?.id ?? -1) && at.pin.get(start)?.side === 'in') || (folded.has(b?.id ?? -1) && at.pin.get(end)?.side === 'out')
}

function node(part: CircuitPart, isOpen: boolean, joined: Set<number>, looks: Appearance): ElkNode {
  const ins = part.pins.filter((p) => p.side === 'in')
  const outs = part.pins.filter((p) => p.side === 'out')
  if (isOpen) {
    return {
      id: `n${part.id}`,
      children: [],
      ports: part.pins.map((p) => port(p)),
      layoutOptions: {
        'elk.portConstraints': 'FIXED_SIDE',
        'elk.padding': '[top=30,left=34,bottom=14,right=34]',
        'elk.spacing.portPort': `${PITCH}`,
      },
    }
  }
  const { width, height, pins } = isBox(part) ? box(part, looks) : symbol(part, ins, outs, looks.turned.get(part.id) ?? 'right')
  const ports = pins
    .filter((p) => joined.has(p.pin.id) || isBox(part) || !isTerminal(part))
    .map((p) => ({ ...port(p.pin, p.x, p.y), layoutOptions: { 'elk.port.side': COMPASS[p.side] } }))
  return {
    id: `n${part.id}`,
    width,
    height,
    ports,
    layoutOptions: {
      'elk.portConstraints': 'FIXED_POS',
      ...(LAYER[part.kind] ? { 'elk.layered.layering.layerConstraint': LAYER[part.kind] } : {}),
    },
  }
}
const COMPASS: Record<Side, string> = { left: 'WEST', right: 'EAST', above: 'NORTH', below: 'SOUTH' }

interface Body {
  width: number
  height: number
  pins: { pin: CircuitPin; x: number; y: number; side: Side }[]
}
/** A box with its pins along its sides: inputs at the left and outputs at the right, where nothing else is said. */
function box(part: CircuitPart, looks: Appearance): Body {
  const isMirrored = looks.turned.get(part.id) === 'left'
  const sideOf = (p: CircuitPin): Side => looks.sides.get(p.id) ?? ((p.side === 'in') !== isMirrored ? 'left' : 'right')
  const on = (side: Side): CircuitPin[] => part.pins.filter((p) => sideOf(p) === side)
  const [left, right, above, below] = [on('left'), on('right'), on('above'), on('below')]
  const [top, bottom] = [26 + (above.length ? PITCH : 0), below.length ? PITCH : 0]
  const rows = Math.max(left.length, right.length, 1)
  const across = Math.max(above.length, below.length)
  const least = part.kind === 'part' ? 76 : 130
  const width = Math.max(
    least,
    Math.min(260, part.label.length * 6.6 + 24),
    24 + 7 * (longest(left) + longest(right)),
    across * (12 + 7 * longest([...above, ...below])),
  )
  const height = top + rows * PITCH + bottom
  const along = (list: CircuitPin[], side: Side): Body['pins'] =>
    list.map((pin, i) => {
      const share = (i + 0.5) / list.length
      if (side === 'above' || side === 'below') return { pin, side, x: share * width, y: side === 'above' ? 0 : height }
      return { pin, side, x: side === 'left' ? 0 : width, y: top + share * rows * PITCH }
    })
  return { width, height, pins: [...along(left, 'left'), ...along(right, 'right'), ...along(above, 'above'), ...along(below, 'below')] }
}
/** A gate, or a port of the whole, turned to where its output is to point. */
function symbol(part: CircuitPart, ins: CircuitPin[], outs: CircuitPin[], facing: Facing): Body {
  const [w, h] = isTerminal(part) ? [26 + part.label.length * 8, 22] : [GATE, Math.max(2, ins.length, outs.length) * PITCH]
  const along = (list: CircuitPin[], x: number) => list.map((pin, i) => ({ pin, x, y: ((i + 0.5) * h) / list.length }))
  const [front, back] = FRONT[facing]
  const pins = [
    ...along(ins, 0).map((p) => ({ ...p, ...turnedTo(facing, p, w, h), side: back })),
    ...along(outs, w).map((p) => ({ ...p, ...turnedTo(facing, p, w, h), side: front })),
  ]
  return facing === 'up' || facing === 'down' ? { width: h, height: w, pins } : { width: w, height: h, pins }
}
/** The sides that outputs and inputs are on. */
const FRONT: Record<Facing, [Side, Side]> = {
  right: ['right', 'left'],
  left: ['left', 'right'],
  up: ['above', 'below'],
  down: ['below', 'above'],
}
/** Where a point of a symbol of that size comes to when its output points elsewhere. */
function turnedTo(facing: Facing, p: Point, w: number, h: number): Point {
  if (facing === 'left') return { x: w - p.x, y: h - p.y }
  if (facing === 'up') return { x: p.y, y: w - p.x }
  return facing === 'down' ? { x: h - p.y, y: p.x } : { x: p.x, y: p.y }
}
interface Upright {
  w: number
  h: number
  pins: Placed['pins']
  turning: string
  angle: number
}
const known = new WeakMap<Placed, Upright>()
/** And back: a symbol as if it were not turned, with how it is. */
export function upright(p: Placed): Upright {
  const found = known.get(p) ?? setUpright(p)
  known.set(p, found)
  return found
}
function setUpright(p: Placed): Upright {
  const isAcross = p.facing === 'up' || p.facing === 'down'
  const [w, h] = isAcross ? [p.h, p.w] : [p.w, p.h]
  const back = (x: number, y: number): Point => {
    if (p.facing === 'left') return { x: w - x, y: h - y }
    if (p.facing === 'up') return { x: w - y, y: x }
    return p.facing === 'down' ? { x: y, y: h - x } : { x, y }
  }
  const pins = p.pins.map((n) => ({ ...n, ...back(n.x - p.x, n.y - p.y) }))
  const turning = {
    right: '',
    left: `translate(${w} ${h}) rotate(180)`,
    up: `translate(0 ${w}) rotate(-90)`,
    down: `translate(${h} 0) rotate(90)`,
  }
  return { w, h, pins, turning: turning[p.facing], angle: { right: 0, left: 180, up: -90, down: 90 }[p.facing] }
}
const SIDE: Record<string, Side> = { WEST: 'left', EAST: 'right', NORTH: 'above', SOUTH: 'below' }
const LAYER: Record<string, string> = { input: 'FIRST', output: 'LAST' }

export function isTerminal(part: CircuitPart): boolean {
  return part.kind === 'input' || part.kind === 'output'
}

function longest(pins: CircuitPin[]): number {
  return Math.max(0, ...pins.map((p) => p.name.length))
}

function port(pin: CircuitPin, x?: number, y?: number) {
  return {
    id: `p${pin.id}`,
    width: 0,
    height: 0,
    ...(x === undefined ? {} : { x, y }),
    layoutOptions: { 'elk.port.side': pin.side === 'in' ? 'WEST' : 'EAST' },
  }
}

function collect(at: Indexed, done: ElkNode, folded: Set<number>, looks: Appearance): Omit<Layout, 'milliseconds' | 'named'> {
  const parts: Placed[] = []
  const take = (n: ElkNode): void => {
    for (const child of n.children ?? []) {
      if (child.id.startsWith('g')) {
        take(child)
        continue
      }
      const part = at.part.get(Number(child.id.slice(1))) as CircuitPart
      const [x, y] = [child.x ?? 0, child.y ?? 0]
      const pins = (child.ports ?? []).map((p) => ({
        pin: at.pin.get(Number(p.id.slice(1))) as CircuitPin,
        x: p.x ?? 0,
        y: p.y ?? 0,
        side: SIDE[p.layoutOptions?.['elk.port.side'] ?? 'WEST'],
      }))
      parts.push({
        part,
        x,
        y,
        w: child.width ?? 0,
        h: child.height ?? 0,
        folded: part.kind === 'unit' && (folded.has(part.id) || !child.children?.length),
        facing: isBox(part) || isTerminal(part) ? 'right' : (looks.turned.get(part.id) ?? 'right'),
        pins,
      })
      take(child)
    }
  }
  take(done)
  const labels = new Map(at.circuit.wires.map((w) => [`w${w.start}-${w.end}`, w.label]))
  const runs = ((done.edges ?? []) as ElkExtendedEdge[]).map((e) => {
    const [start, end] = e.id.slice(1).split('-').map(Number)
    const section = e.sections?.[0]
    const points = section ? [section.startPoint, ...(section.bendPoints ?? []), section.endPoint] : []
    return { start, end, label: labels.get(e.id) ?? '', points, dots: e.junctionPoints ?? [] }
  })
  return { parts, runs, width: done.width ?? 0, height: done.height ?? 0 }
}

/** Outputs that nothing drives yet stand at the right of all, below each other: there they will stay once they are driven. */
function withOpenOutputs(layout: Layout): Layout {
  const driven = new Set(layout.runs.map((r) => r.end))
  const isOpen = (p: Placed): boolean => p.part.kind === 'output' && !driven.has(p.part.pins[0]?.id)
  const rest = layout.parts.filter((p) => !isOpen(p))
  if (rest.length === layout.parts.length || !rest.length) return layout
  const x = Math.max(...rest.filter((p) => p.part.kind !== 'output').map((p) => p.x + p.w)) + 6 * AWAY
  const outputs = rest.filter((p) => p.part.kind === 'output')
  let y = outputs.length ? Math.max(...outputs.map((p) => p.y + p.h)) + 2 * AWAY : Math.min(...rest.map((p) => p.y))
  const moved = layout.parts.filter(isOpen).map((p) => {
    const placed = to(p, { x: outputs.length ? outputs[0].x : x, y })
    y += p.h + 2 * AWAY
    return placed
  })
  const parts = [...rest, ...moved]
  return { ...layout, parts, width: Math.max(...parts.map((p) => p.x + p.w)) + 12, height: Math.max(...parts.map((p) => p.y + p.h)) + 20 }
}

/** Where parts were put by hand, by their numbers, in the drawing's own measure. */
export type Places = Map<number, Point>

/** A drawing in which some parts stand where somebody put them; the rest stays, outputs right of all, and wires to what moved are led anew. */
export function withPlaces(layout: Layout, places: Places): Layout {
  if (!places.size) return layout
  const isOutput = (p: Placed): boolean => p.part.kind === 'output'
  const inner = layout.parts.filter((p) => !isOutput(p)).map((p) => (places.has(p.part.id) ? to(p, places.get(p.part.id) as Point) : p))
  const first = Math.min(...layout.parts.filter(isOutput).map((p) => p.x))
  const further = Math.max(0, ...inner.map((p) => p.x + p.w + 3 * AWAY - first))
  const parts = [...inner, ...layout.parts.filter(isOutput).map((p) => (further ? to(p, { x: p.x + further, y: p.y }) : p))]
  const moved = new Set(parts.filter((p) => places.has(p.part.id) || (further && isOutput(p))).map((p) => p.part.id))
  const ends = new Map(parts.flatMap((p) => p.pins.map((n) => [n.pin.id, { x: n.x, y: n.y, moved: moved.has(p.part.id) }] as const)))
  const runs = layout.runs.map((run) => {
    const [a, b] = [ends.get(run.start), ends.get(run.end)]
    if (!a || !b || (!a.moved && !b.moved)) return run
    const points = led(a, b)
    const isShared = layout.runs.some((other) => other.start === run.start && other.end !== run.end)
    return { ...run, points, dots: isShared && points.length > 2 ? [points[1]] : [] }
  })
  const right = Math.max(layout.width, ...parts.map((p) => p.x + p.w + 12))
  const bottom = Math.max(layout.height, ...parts.map((p) => p.y + p.h + 20))
  return { ...layout, parts, runs, width: right, height: bottom }
}

interface Point {
  x: number
  y: number
}
function to(p: Placed, at: Point): Placed {
  const [dx, dy] = [at.x - p.x, at.y - p.y]
  return { ...p, x: at.x, y: at.y, pins: p.pins.map((n) => ({ ...n, x: n.x + dx, y: n.y + dy })) }
}

const AWAY = 14
/** A wire from an output to an input in right angles: straight over where there is room, else round. */
function led(a: Point, b: Point): Point[] {
  const corner = (x: number, y: number): Point => ({ x, y })
  if (b.x - a.x >= 2 * AWAY) {
    const middle = a.x + (b.x - a.x) / 2
    return a.y === b.y
      ? [corner(a.x, a.y), corner(b.x, b.y)]
      : [corner(a.x, a.y), corner(middle, a.y), corner(middle, b.y), corner(b.x, b.y)]
  }
  const between = (a.y + b.y) / 2
  return [
    corner(a.x, a.y),
    corner(a.x + AWAY, a.y),
    corner(a.x + AWAY, between),
    corner(b.x - AWAY, between),
    corner(b.x - AWAY, b.y),
    corner(b.x, b.y),
  ]
}
