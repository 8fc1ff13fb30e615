<script setup lang="ts">
import { computed } from 'vue'

import type { CircuitPart, CircuitPin } from '../../api/schema'
import type { Layout, Placed, Run } from './layout'
import { isTerminal, upright } from './layout'
import { levelOf, path, roomiest } from './lines'
import { digitsOf, givenName, type Indexed, isBox, portValue, shortValue, wireName } from './model'
import { outline, sign, spoken, STUB, type SymbolSet } from './symbols'

const props = defineProps<{
  at: Indexed
  layout: Layout
  digits: Record<string, string>
  place: number
  chosen: Set<number>
  probes: number[]
  explains: Set<number>
  astray: Map<number, string>
  ports: Map<string, { radix: string; signed: boolean }>
  symbols: SymbolSet
  /** A part that is being moved by hand, and how far. */
  moved?: { id: number; x: number; y: number } | null
}>()
const emit = defineEmits<{ wire: [pin: number]; part: [part: CircuitPart, isMore: boolean]; fold: [part: number]; back: [pin: number] }>()
interface DrawnRun {
  run: Run
  pin: CircuitPin
  digits: string
  level: string
  d: string
  plain: string
  value: { x: number; y: number; text: string } | null
  tag: string
  name: string
}
/** Wires that go to a port of the whole: it says their name. */
const outward = computed(() => new Set(props.layout.runs.filter((r) => props.at.owner.get(r.end)?.kind === 'output').map((r) => r.start)))
const runs = computed<DrawnRun[]>(() => {
  const labelled = new Set<number>()
  const tagged = new Set<number>()
  return props.layout.runs.map((run) => {
    const pin = props.at.pin.get(run.start) as CircuitPin
    const digits = digitsOf(pin, props.digits, props.place)
    const level = levelOf(digits)
    const room = roomiest(run.points)
    const text = digits.length > 1 ? shortValue(digits) : ''
    const fits = text && !labelled.has(run.start) && room.length > text.length * 7
    if (fits) labelled.add(run.start)
    return {
      run,
      pin,
      digits,
      level,
      d: path(run.points, level),
      plain: path(run.points, '1'),
      value: fits ? { x: room.x, y: room.y, text } : null,
      name: tagged.has(run.start) || fits || outward.value.has(run.start) ? '' : givenName(props.at, pin),
      tag: tagOf(run, tagged),
    }
  })
})
/** What is said of a wire once, where it begins: that it is a probe, that it could explain everything. */
function tagOf(run: Run, tagged: Set<number>): string {
  if (tagged.has(run.start) || !run.points.length) return ''
  tagged.add(run.start)
  const probe = props.probes.indexOf(run.start)
  return [probe >= 0 ? `p${probe + 1}` : '', props.explains.has(run.start) ? 'explains all' : ''].filter(Boolean).join(', ')
}
/** What a part is, for whoever points at it and for a screen reader: its kind, where it stands, what it gives. */
function told(p: Placed): string {
  const { kind, label, line, end_line: end } = p.part
  if (isTerminal(p.part)) return `${kind} ${label} = ${terminalValue(p)}`
  const name = isGate(p) ? spoken(kind, label, inverted(p)) : label
  const where = end > line ? `lines ${line} to ${end}` : `line ${line}`
  const outputs = p.pins.filter((n) => n.pin.side === 'out')
  const gives = outputs.map((n) => `${wireName(props.at, n.pin)} = ${shortValue(digitsOf(n.pin, props.digits, props.place))}`)
  return `${name}, ${where}: ${gives.join(', ')}`
}
/** Where a wire's name stands at its beginning, so that it is off the part that it comes from. */
function beside(run: Run): { x: number; y: number; 'text-anchor': string } {
  const [a, b] = run.points
  if (b && b.x === a.x && b.y !== a.y) return { x: a.x + 5, y: b.y > a.y ? a.y + 13 : a.y - 5, 'text-anchor': 'start' }
  return b && b.x < a.x ? { x: a.x - 2, y: a.y - 4, 'text-anchor': 'end' } : { x: a.x + 2, y: a.y - 4, 'text-anchor': 'start' }
}
function title(r: DrawnRun): string {
  const like = props.at.circuit.likeness.find((k) => k.pin === r.run.start)
  const beside = !like
    ? ''
    : like.how === 'same'
      ? `, the same as ${like.name} of the reference`
      : like.how === 'inverse'
        ? `, the opposite of ${like.name} of the reference`
        : ''
  const explains = props.explains.has(r.run.start) ? ': another value here would make every case right' : ''
  return `${wireName(props.at, r.pin)} = ${shortValue(r.digits)}${beside}${explains}`
}
/** Words that a pin's name stands with on the sides of a box. */
const ANCHOR = { left: 'start', right: 'end', above: 'middle', below: 'middle' }
const AWAY = { left: [5, 4], right: [-5, 4], above: [0, 13], below: [0, -5] }

/** A wire that is drawn as its name: a short piece at each end. */
interface Tag {
  key: string
  pin: number
  name: string
  level: string
  d: string
  x: number
  y: number
  anchor: string
}
const tags = computed<Tag[]>(() => {
  if (!props.layout.named.size) return []
  const spots = new Map(props.layout.parts.flatMap((p) => p.pins.map((n) => [n.pin.id, n] as const)))
  const ends = [...props.layout.named].map(([start, name]) => ({ start, end: start, name }))
  for (const w of props.at.circuit.wires) {
    const name = props.layout.named.get(w.start)
    if (name) ends.push({ start: w.start, end: w.end, name: w.label ? `${name}${w.label}` : name })
  }
  return ends.flatMap(({ start, end, name }) => {
    const at = spots.get(end)
    if (!at) return []
    const [dx, dy] = { left: [-12, 0], right: [12, 0], above: [0, -12], below: [0, 12] }[at.side]
    const level = levelOf(digitsOf(props.at.pin.get(start) as CircuitPin, props.digits, props.place))
    const anchor = dx < 0 ? 'end' : dx > 0 ? 'start' : 'middle'
    const d = path([at, { x: at.x + dx, y: at.y + dy }], level === 'x' ? 'z' : level)
    return [
      {
        key: `${start}-${end}`,
        pin: start,
        name,
        level,
        d,
        x: at.x + dx * 1.25,
        y: at.y + dy * 1.25 + (dy > 0 ? 9 : dy < 0 ? 0 : 4),
        anchor,
      },
    ]
  })
})
/** Frames around parts that belong together. */
const frames = computed(() =>
  (props.layout.frames ?? []).flatMap((f) => {
    const inside = props.layout.parts.filter((p) => f.parts.includes(p.part.id))
    if (!inside.length) return []
    const [x, y] = [Math.min(...inside.map((p) => p.x)) - 14, Math.min(...inside.map((p) => p.y)) - 22]
    const [r, b] = [Math.max(...inside.map((p) => p.x + p.w)) + 14, Math.max(...inside.map((p) => p.y + p.h)) + 12]
    return [{ text: f.text, x, y, w: r - x, h: b - y }]
  }),
)
function isGate(p: Placed): boolean {
  return !isTerminal(p.part) && !isBox(p.part)
}
function shape(p: Placed): string {
  const { w, h } = upright(p)
  return props.symbols === 'distinctive' ? outline(p.part.kind, STUB, w - STUB, h) : ''
}
function inverted(p: Placed): boolean {
  return p.pins.some((x) => x.pin.side === 'out' && x.pin.inverted)
}
/** Where a pin meets the body: shapes with a pointed or hollow side are met further in. */
function meets(p: Placed, x: { pin: CircuitPin }): number {
  if (x.pin.side === 'out') return upright(p).w - STUB
  return STUB + (shape(p) && (p.part.kind === 'or' || p.part.kind === 'xor') ? 5 : 0)
}
/** The short lines from all pins to the body. */
function stubs(p: Placed): string {
  const { w, pins } = upright(p)
  return pins
    .map((x) =>
      x.pin.side === 'in' ? `M0 ${x.y}H${x.pin.inverted ? 1 : meets(p, x)}` : `M${w} ${x.y}H${x.pin.inverted ? w - 1 : meets(p, x)}`,
    )
    .join('')
}
function cut(text: string, width: number): string {
  const most = Math.max(4, Math.floor(width / 6.4))
  return text.length > most ? text.slice(0, most - 1) + '…' : text
}
function pinValue(pin: CircuitPin): string {
  const digits = digitsOf(pin, props.digits, props.place)
  return digits.length > 1 || pin.bits.every((b) => b < 0) ? shortValue(digits) : ''
}
function isConstant(pin: CircuitPin): boolean {
  return pin.bits.every((b) => b < 0)
}
function terminalValue(p: Placed): string {
  return portValue(digitsOf(p.part.pins[0], props.digits, props.place), props.ports.get(p.part.label))
}
</script>

<template>
  <g>
    <!-- boxes that stand open, outer ones first -->
    <g
      v-for="p in layout.parts.filter((x) => x.part.kind === 'unit' && !x.folded)"
      :key="`u${p.part.id}`"
      :transform="`translate(${p.x} ${p.y})`"
    >
      <rect class="unit" :width="p.w" :height="p.h" rx="6" />
      <g
        class="hit fold"
        role="button"
        tabindex="0"
        :aria-label="`fold ${p.part.label}`"
        @click="emit('fold', p.part.id)"
        @keydown.enter="emit('fold', p.part.id)"
      >
        <rect x="0" y="0" :width="p.w" height="20" class="bar" rx="6" />
        <text x="8" y="14" class="name"
          >− {{ p.part.label }}<tspan class="of" dx="6">{{ p.part.unit }}</tspan></text
        >
      </g>
      <text
        v-for="x in p.pins"
        :key="x.pin.id"
        class="pin"
        :x="x.pin.side === 'in' ? x.x - p.x + 4 : x.x - p.x - 4"
        :y="x.y - p.y - 3"
        :text-anchor="x.pin.side === 'in' ? 'start' : 'end'"
        >{{ x.pin.name }}</text
      >
    </g>
    <g v-for="(f, i) in frames" :key="`f${i}`" :transform="`translate(${f.x} ${f.y})`">
      <rect class="frame" :width="f.w" :height="f.h" rx="3" />
      <text class="framed" x="6" y="12">{{ f.text }}</text>
    </g>
    <!-- wires -->
    <g v-for="r in runs" :key="`${r.run.start}-${r.run.end}`">
      <path v-if="astray.has(r.run.start)" class="halo" :d="r.plain" />
      <path v-if="explains.has(r.run.start)" class="lit" :d="r.plain" />
      <path class="wire" :class="`level-${r.level}`" :d="r.d" />
      <path class="hit reach" :d="r.plain" :data-wire="r.run.start" tabindex="-1" @click="emit('wire', r.run.start)"
        ><title>{{ title(r) }}</title></path
      >
      <circle v-for="(dot, k) in r.run.dots" :key="k" class="dot" :cx="dot.x" :cy="dot.y" r="2.6" />
    </g>
    <g v-for="t in tags" :key="`n${t.key}`" class="hit" :data-wire="t.pin" @click="emit('wire', t.pin)">
      <path class="wire" :class="`level-${t.level}`" :d="t.d" />
      <text class="tagname" :x="t.x" :y="t.y" :text-anchor="t.anchor">{{ t.name }}</text>
    </g>
    <!-- what stands at them, over all of them -->
    <g v-for="r in runs" :key="`t${r.run.start}-${r.run.end}`">
      <text
        v-if="r.run.label && r.run.points.length"
        class="bits"
        :x="r.run.points[r.run.points.length - 1].x - 4"
        :y="r.run.points[r.run.points.length - 1].y - 3"
        text-anchor="end"
        >{{ r.run.label }}</text
      >
      <text v-if="r.name" class="bits" v-bind="beside(r.run)">{{ r.name }}</text>
      <text v-if="r.value" class="value" :x="r.value.x" :y="r.value.y - 3" text-anchor="middle">{{ r.value.text }}</text>
    </g>
    <!-- parts -->
    <g
      v-for="p in layout.parts.filter((x) => x.part.kind !== 'unit' || x.folded)"
      :key="p.part.id"
      class="part hit"
      :class="{ chosen: chosen.has(p.part.id) }"
      :transform="`translate(${p.x + (moved?.id === p.part.id ? moved.x : 0)} ${p.y + (moved?.id === p.part.id ? moved.y : 0)})`"
      :data-part="p.part.id"
      :data-kind="p.part.kind"
      role="img"
      :aria-label="told(p)"
      @click="emit('part', p.part, $event.shiftKey)"
      @dblclick="p.part.kind === 'unit' && emit('fold', p.part.id)"
    >
      <template v-if="isGate(p)">
        <title>{{ told(p) }}</title>
        <g :transform="upright(p).turning || undefined">
          <path v-if="shape(p)" class="body" :d="shape(p)" />
          <rect v-else class="body" :x="STUB" :width="upright(p).w - 2 * STUB" :height="upright(p).h" />
          <path class="stub" :d="stubs(p)" />
          <template v-for="x in upright(p).pins" :key="x.pin.id">
            <circle
              v-if="x.pin.inverted"
              class="body"
              :cx="x.pin.side === 'in' ? STUB - 3.5 : upright(p).w - STUB + 3.5"
              :cy="x.y"
              r="3.5"
            />
            <text
              v-if="isConstant(x.pin)"
              class="value"
              x="-7"
              :y="x.y + 4"
              text-anchor="middle"
              :transform="`rotate(${-upright(p).angle} -7 ${x.y})`"
              >{{ pinValue(x.pin) }}</text
            >
            <text v-else-if="x.pin.name" class="pin" :x="STUB + 3" :y="x.y + 3.5">{{ x.pin.name }}</text>
          </template>
        </g>
        <text
          v-if="!shape(p) || p.part.kind === 'select'"
          class="sign"
          :class="{ small: p.part.kind === 'select' }"
          :x="p.w / 2 + (p.part.kind === 'select' ? 6 : 0)"
          :y="p.h / 2 + 4"
          text-anchor="middle"
          >{{ sign(p.part.kind, p.part.label) }}</text
        >
      </template>
      <template v-else-if="isTerminal(p.part)">
        <title>{{ told(p) }}</title>
        <path
          class="terminal"
          :class="{ bad: p.part.kind === 'output' && astray.has(p.part.pins[0].id) }"
          :d="
            p.part.kind === 'input'
              ? `M0 1H${p.w - 8}L${p.w} ${p.h / 2}L${p.w - 8} ${p.h - 1}H0Z`
              : `M8 1H${p.w}V${p.h - 1}H8L0 ${p.h / 2}Z`
          "
          @dblclick="p.part.kind === 'output' && emit('back', p.part.pins[0].id)"
        />
        <text class="port" :x="p.part.kind === 'input' ? 7 : 13" :y="p.h / 2 + 4">{{ p.part.label }}</text>
        <text
          class="level"
          :class="{ bad: p.part.kind === 'output' && astray.has(p.part.pins[0].id) }"
          :x="p.part.kind === 'input' ? p.w / 2 : p.w / 2 + 4"
          :y="p.h + 12"
          text-anchor="middle"
          >{{ terminalValue(p)
          }}<tspan v-if="p.part.kind === 'output' && astray.get(p.part.pins[0].id)" class="want">
            not {{ astray.get(p.part.pins[0].id) }}</tspan
          ></text
        >
      </template>
      <template v-else>
        <title>{{ told(p) }}</title>
        <rect class="body" :class="p.part.kind" :width="p.w" :height="p.h" :rx="p.part.kind === 'unit' ? 6 : 0" />
        <text class="name" x="8" y="14"
          >{{ p.part.kind === 'unit' ? '+ ' : '' }}{{ cut(p.part.label, p.w - 16) }}<tspan class="of" dx="6">{{ p.part.unit }}</tspan></text
        >
        <template v-for="x in p.pins" :key="x.pin.id">
          <circle v-if="x.pin.inverted" class="body" :cx="x.side === 'left' ? -3.5 : p.w + 3.5" :cy="x.y - p.y" r="3.5" />
          <text v-if="x.side === 'left' && isConstant(x.pin)" class="value" x="-3" :y="x.y - p.y + 4" text-anchor="end">{{
            pinValue(x.pin)
          }}</text>
          <path v-if="x.pin.edge && x.side === 'left'" class="stub" :d="`M0 ${x.y - p.y - 4}L6 ${x.y - p.y}L0 ${x.y - p.y + 4}`" />
          <text
            class="pin"
            :x="x.x - p.x + AWAY[x.side][0] + (x.pin.edge && x.side === 'left' ? 4 : 0)"
            :y="x.y - p.y + AWAY[x.side][1]"
            :text-anchor="ANCHOR[x.side]"
            >{{ x.pin.name }}</text
          >
        </template>
      </template>
    </g>
    <text
      v-for="r in layout.remarks ?? []"
      :key="`r${r.line}`"
      class="remark"
      :x="r.x + (moved?.id === -r.line ? moved.x : 0)"
      :y="r.y + 14 + (moved?.id === -r.line ? moved.y : 0)"
      :data-remark="r.line"
      >{{ r.text }}</text
    >
    <g
      v-for="r in runs.filter((x) => x.tag)"
      :key="`t${r.run.start}`"
      class="told"
      :transform="`translate(${r.run.points[0].x - 4} ${r.run.points[0].y + 7})`"
    >
      <rect class="tag" :width="r.tag.length * 5.6 + 9" height="14" rx="3" /><text class="tagged" x="4" y="10.5">{{ r.tag }}</text>
    </g>
  </g>
</template>

<style scoped>
text {
  fill: var(--ink);
  font: 12px var(--sans);
}
.body {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.4;
}
.body.process {
  stroke-dasharray: none;
  fill: var(--rice);
}
.body.unit {
  fill: var(--lacquer-tint);
  stroke: var(--lacquer);
}
.unit {
  fill: var(--lacquer-tint);
  fill-opacity: 0.45;
  stroke: var(--lacquer);
  stroke-dasharray: 5 3;
}
.frame {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1;
  stroke-dasharray: 9 3 2 3;
}
.framed {
  font: italic 12px var(--sans);
  fill: var(--ink-2);
}
.remark {
  font: italic 12px var(--sans);
  cursor: move;
}
.tagname {
  font: 600 12px var(--mono);
  cursor: pointer;
}
.bar {
  fill: transparent;
}
.fold {
  cursor: pointer;
}
.fold:hover .bar,
.fold:focus-visible .bar {
  fill: var(--lacquer-tint);
}
.name {
  font: 600 12px var(--mono);
}
.of {
  fill: var(--ink-2);
  font-weight: 400;
}
.sign {
  font: 500 14px var(--sans);
}
.sign.small {
  font-size: 12px;
}
.pin {
  fill: var(--ink-2);
  font: 12px var(--mono);
}
.bits {
  fill: var(--ink-2);
  font: 12px var(--mono);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
}
.value,
.level {
  font: 12px var(--mono);
  font-feature-settings: 'zero' 1;
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
}
.port {
  font: 600 12px var(--mono);
}
.terminal {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.2;
}
.terminal.bad {
  stroke: var(--fail);
  stroke-width: 2.2;
}
.level.bad {
  fill: var(--fail-text);
  font-weight: 700;
}
.want {
  font-weight: 400;
  fill: var(--ink-2);
}
.part {
  cursor: pointer;
}
.part:hover .body,
.part:hover .terminal {
  fill: var(--lacquer-tint);
}
.part.chosen .body,
.part.chosen .terminal {
  stroke: var(--lacquer);
  stroke-width: 2.6;
  fill: var(--lacquer-tint);
}
.stub {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.2;
}
.wire {
  fill: none;
  pointer-events: none;
  stroke-linejoin: round;
}
.level-1 {
  stroke: var(--ink);
  stroke-width: 2.6;
}
.level-0 {
  stroke: var(--wire-0);
  stroke-width: 1.1;
}
.level-x {
  stroke: var(--undef);
  stroke-width: 1.4;
}
.level-z {
  stroke: var(--wire-0);
  stroke-width: 1.6;
  stroke-dasharray: 1.5 3.5;
}
.level-bus {
  stroke: var(--ink-2);
  stroke-width: 3.4;
}
.level-bus-x {
  stroke: var(--undef);
  stroke-width: 3.4;
}
.reach {
  fill: none;
  stroke: transparent;
  stroke-width: 10;
  cursor: pointer;
}
.reach:hover {
  stroke: var(--lacquer);
  stroke-opacity: 0.14;
}
.halo {
  fill: none;
  stroke: var(--fail);
  stroke-opacity: 0.34;
  stroke-width: 10;
  stroke-linecap: round;
}
.lit {
  fill: none;
  stroke: var(--lacquer);
  stroke-opacity: 0.3;
  stroke-width: 12;
  stroke-linecap: round;
}
.dot {
  fill: var(--ink-2);
}
.told {
  pointer-events: none;
}
.tag {
  fill: var(--lacquer);
}
.tagged {
  fill: var(--paper);
  font: 600 12px var(--sans);
}
</style>
