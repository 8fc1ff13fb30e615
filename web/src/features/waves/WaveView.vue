<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'

import { get } from '../../api/client'
import type { WaveLine } from '../../api/schema'
import { prepare } from '../../shared/canvas'
import { useKeys } from '../../shared/keys'
import { isNight } from '../../shared/night'
import { useResource } from '../../shared/resource'
import { useLook } from './look'
import { AXIS, heightOf, paintAxis, paintCursor, paintTracks, type Track, tracksOf } from './paint'
import { valueAt } from './values'
import { type Radix, RADICES, shown } from '../../shared/values'
import { BASE } from '../../shared/base'
import Choice from '../../shared/Choice.vue'

/** `step` is the case chosen elsewhere, counted over all sequences. */
const props = defineProps<{ taskId: number; handin: number; step: number | null }>()
const emit = defineEmits<{ step: [step: number] }>()

/** Steps in sight at either side of one that is shown. */
const NEAR = 8
const CLOSER = 1.5
const wanted = ref<string[]>([])
let wantedSequence = 0
const {
  data: waves,
  trouble,
  reload,
  clear,
} = useResource(
  (signal) =>
    get(`/tasks/${props.taskId}/review/${props.handin}/waves`, { query: { sequence: wantedSequence, wanted: wanted.value }, signal }),
  { lazy: true },
)
const radices = ref<Record<string, Radix>>({})
const a = ref<number | null>(null)
const b = ref<number | null>(null)
const axis = ref<HTMLCanvasElement>()
const sheet = ref<HTMLCanvasElement>()
const box = ref<HTMLElement>()
const body = ref<HTMLElement>()
const { width } = useElementSize(box)
const { height: bodyHeight } = useElementSize(body)
const scrollTop = ref(0)

const end = computed(() => (waves.value ? waves.value.actions.length * waves.value.step_time : 1))
const tracks = computed<Track[]>(() => (waves.value ? tracksOf(waves.value, radixOf) : []))
const high = computed(() => heightOf(tracks.value))
const look = useLook(width, end)
const { view } = look
const sequence = computed(() => waves.value?.sequences[waves.value.sequence])
const stepTime = computed(() => waves.value?.step_time ?? 10)
const names = computed(() => tracks.value.filter((t) => t.what !== 'want'))

function radixOf(line: WaveLine): Radix {
  return (
    radices.value[line.name] ??
    (line.radix === 'dec' ? (line.signed ? 'signed' : 'dec') : line.kind === 'inner' && line.width > 1 ? 'dec' : (line.radix as Radix))
  )
}
function turnRadix(line: WaveLine): void {
  if (line.width > 1) radices.value = { ...radices.value, [line.name]: RADICES[(RADICES.indexOf(radixOf(line)) + 1) % RADICES.length] }
}

async function load(number: number): Promise<void> {
  const isOther = waves.value?.sequence !== number
  wantedSequence = number
  if ((await reload()) && isOther) b.value = null
}
/** The sequence of a step, and its place in it from 0 on. */
function placeOf(step: number): { number: number; at: number } {
  const all = waves.value?.sequences ?? []
  const number = Math.max(
    0,
    all.findLastIndex((s) => s.first <= step),
  )
  return { number, at: step - (all[number]?.first ?? 0) }
}
/** Shows the step that is chosen by the time the waves are there. */
async function show(): Promise<void> {
  if (!waves.value) await load(0)
  if (!waves.value) return
  const { number, at } = placeOf(props.step ?? 0)
  if (waves.value.sequence !== number) await load(number)
  a.value = (at + 0.7) * stepTime.value
  zoomToSteps(Math.max(0, at - NEAR), at + NEAR)
}
onMounted(show)
watch(
  () => props.handin,
  async () => {
    clear()
    wanted.value = []
    await show()
  },
)
watch(
  () => props.step,
  (step) => {
    if (step === null || !waves.value) return
    const { number, at } = placeOf(step)
    if (number === waves.value.sequence && stepAt(a.value) === at) return
    void show()
  },
)
watch(wanted, () => waves.value && load(waves.value.sequence))

// Looking around.

function zoomToSteps(first: number, last: number): void {
  look.zoomTo(first * stepTime.value, (last + 1) * stepTime.value)
}
function all(): void {
  look.zoomTo(0, end.value)
}
function xOf(event: MouseEvent): number {
  return event.clientX - sheet.value!.getBoundingClientRect().left
}
function onWheel(event: WheelEvent): void {
  look.wheel(xOf(event), event.deltaX, event.deltaY, event.shiftKey)
}
function onDown(event: PointerEvent): void {
  look.grab(event.clientX)
  ;(event.target as HTMLElement).setPointerCapture(event.pointerId)
}
function onMove(event: PointerEvent): void {
  if (event.buttons) look.drag(event.clientX)
}
function onUp(event: PointerEvent): void {
  if (look.letGo()) place(look.timeAt(xOf(event)), event.shiftKey)
}

// Cursors.

function stepAt(time: number | null): number {
  return time === null ? -1 : Math.floor(time / stepTime.value)
}
function place(time: number, second: boolean): void {
  const at = Math.max(0, Math.min(time, end.value - 0.01))
  if (second) b.value = at
  else {
    a.value = at
    if (sequence.value) emit('step', sequence.value.first + stepAt(at))
  }
}
function move(by: number): void {
  const count = waves.value?.actions.length ?? 1
  const step = Math.max(0, Math.min(count - 1, stepAt(a.value) + by))
  place((step + 0.7) * stepTime.value, false)
  if (a.value !== null) look.bringIn(a.value)
}
/** The next step that goes wrong of itself, in this sequence or one after it. */
async function nextDivergence(): Promise<void> {
  if (!waves.value) return
  const from = stepAt(a.value) + 1
  const found = [...waves.value.cells].findIndex((cell, i) => i >= from && 'fus'.includes(cell))
  if (found >= 0) {
    place((found + 0.7) * stepTime.value, false)
    zoomToSteps(Math.max(0, found - NEAR), found + NEAR)
    return
  }
  const count = waves.value.sequences.length
  for (let k = 1; k <= count; k++) {
    const next = (waves.value.sequence + k) % count
    if (!waves.value.sequences[next].wrong) continue
    await load(next)
    a.value = null
    if ([...waves.value.cells].some((cell) => 'fus'.includes(cell))) return nextDivergence()
  }
}
const apart = computed(() => {
  if (a.value === null || b.value === null) return ''
  const steps = stepAt(b.value) - stepAt(a.value)
  return `b is ${Math.abs(steps)} ${Math.abs(steps) === 1 ? 'step' : 'steps'} ${steps < 0 ? 'before' : 'after'} a`
})
function under(track: Track, time: number | null): string {
  return time === null ? '' : shown(valueAt(track.line.at, track.line.values, time), track.radix)
}
function wantedUnder(track: Track): string {
  return a.value === null || track.what !== 'got' ? '' : shown(valueAt(track.line.expected_at, track.line.expected, a.value), track.radix)
}
function isBad(track: Track): boolean {
  const step = stepAt(a.value)
  return track.line.bad.some(([x, y]) => x <= step && step <= y)
}

// Painting: at most once a frame, and only what is in sight.

let asked = 0
function paint(): void {
  asked ||= requestAnimationFrame(() => {
    asked = 0
    const w = waves.value
    if (!w || !sheet.value || !axis.value || !width.value) return
    const head = prepare(axis.value, width.value, AXIS)
    paintAxis(head, w, view.value)
    const p = prepare(sheet.value, width.value, high.value)
    const from = scrollTop.value
    const to = Math.min(high.value, from + Math.max(bodyHeight.value, 60))
    paintTracks(p, w, tracks.value, view.value, from, to)
    for (const [time, name] of [
      [b.value, 'b'],
      [a.value, 'a'],
    ] as const) {
      paintCursor(head, view.value, time, name, 0, AXIS, true)
      paintCursor(p, view.value, time, name, from, to, false)
    }
    performance.mark('waves-painted')
  })
}
watch([waves, view, tracks, a, b, scrollTop, bodyHeight, high, isNight], paint)
watch(sheet, paint)

const search = ref<{ focus: () => void }>()
useKeys([
  { key: '+', label: 'waves: closer', act: () => look.zoom(CLOSER) },
  { key: '-', label: 'waves: wider', act: () => look.zoom(1 / CLOSER) },
  { key: '0', label: 'waves: the whole sequence', act: all },
  { key: 'f', label: 'waves: next step that goes wrong', act: () => void nextDivergence() },
  { key: 'ArrowRight', label: 'waves: cursor a step on', act: () => move(1) },
  { key: 'ArrowLeft', label: 'waves: cursor a step back', act: () => move(-1) },
  { key: 'b', label: 'waves: second cursor here', act: () => (b.value = a.value) },
  { key: 'i', label: 'waves: find an inner signal', act: () => search.value?.focus() },
])
</script>

<template>
  <div class="waves">
    <p v-if="trouble" class="trouble">{{ trouble }}</p>
    <p v-else-if="!waves" class="quiet">The sequence is played…</p>
    <template v-if="waves">
      <div class="tools">
        <Choice
          :value="waves.sequence"
          size="small"
          class="which"
          label="sequence"
          :options="
            waves.sequences.map((s, i) => ({
              value: i,
              label: s.wrong ? `${s.name}: ${s.wrong} of ${s.length} wrong` : `${s.name}: ${s.length} right`,
            }))
          "
          @change="(v: unknown) => load(Number(v)).then(() => ((a = null), all()))"
        />
        <Choice
          ref="search"
          v-model:value="wanted"
          mode="multiple"
          size="small"
          class="inner"
          placeholder="add an inner signal  i"
          :options="waves.inner.map((n) => ({ value: n, label: n }))"
          :max-tag-count="1"
          label="inner signals"
          :disabled="!waves.inner.length"
        />
        <span class="quiet small apart">{{ apart }}</span>
        <button type="button" class="tool" title="next step that goes wrong (f)" @click="nextDivergence">
          next wrong <span class="key">f</span>
        </button>
        <button type="button" class="tool" title="the whole sequence (0)" @click="all">all <span class="key">0</span></button>
        <button type="button" class="tool" aria-label="wider" @click="look.zoom(1 / CLOSER)">−</button
        ><button type="button" class="tool" aria-label="closer" @click="look.zoom(CLOSER)">+</button>
        <a class="tool" :href="`${BASE}/api/tasks/${taskId}/review/${handin}/waves.vcd?sequence=${waves.sequence}`" download>VCD</a>
      </div>
      <div class="head">
        <div class="names-head small quiet">
          <span>{{ a === null ? '' : `step ${stepAt(a) + 1}` }}</span><span class="mono">a</span
          ><span v-if="b !== null" class="mono">b</span>
        </div>
        <div ref="box" class="box"><canvas ref="axis" :style="{ width: `${width}px`, height: `${AXIS}px` }"></canvas></div>
      </div>
      <div
        ref="body"
        class="body"
        tabindex="0"
        role="region"
        aria-label="waveform; the arrow keys move the cursor"
        @scroll="scrollTop = body?.scrollTop ?? 0"
      >
        <div class="names" :style="{ height: `${high}px` }">
          <div
            v-for="t in names"
            :key="t.line.kind + t.line.name"
            class="name"
            :data-name="t.line.name"
            :class="[t.line.kind, { bad: isBad(t) }]"
            :style="{ top: `${t.what === 'got' ? t.top - 22 : t.top}px`, height: `${t.what === 'got' ? t.high + 22 : t.high}px` }"
          >
            <button
              type="button"
              :title="t.line.width > 1 ? `${t.line.name}: shown ${t.radix}, click for the next` : t.line.name"
              @click="turnRadix(t.line)"
            >
              {{ t.line.name }}<small v-if="t.line.width > 1">{{ t.radix }}</small>
            </button>
            <span class="value mono"
              ><i v-if="t.what === 'got'" class="quiet">{{ wantedUnder(t) }}</i
              ><b>{{ under(t, a) }}</b></span
            >
            <span v-if="b !== null" class="value mono"
              ><b>{{ under(t, b) }}</b></span
            >
          </div>
        </div>
        <canvas
          ref="sheet"
          :style="{ width: `${width}px`, height: `${high}px` }"
          data-waves
          @wheel.prevent="onWheel"
          @pointerdown="onDown"
          @pointermove="onMove"
          @pointerup="onUp"
        ></canvas>
      </div>
      <p v-if="waves.trouble" class="tag undef">ends in step {{ waves.ended + 1 }}: {{ waves.trouble }}</p>
      <p class="quiet small legend">wheel zooms, drag moves, click sets a, shift+click b; above each output what it should be</p>
    </template>
  </div>
</template>

<style scoped>
.waves {
  display: flex;
  flex-direction: column;
  min-height: 0;
  flex: 1;
  gap: 6px;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 5px;
  white-space: nowrap;
}
.which {
  width: 168px;
}
.inner {
  flex: 1;
  min-width: 90px;
  max-width: 220px;
}
.apart {
  margin-left: auto;
}
.tool {
  border: 1px solid var(--line);
  border-radius: 5px;
  background: var(--paper);
  padding: 1px 6px;
  font-size: 12px;
  cursor: pointer;
  color: var(--ink);
  text-decoration: none;
  line-height: 20px;
}
.tool:hover {
  border-color: var(--lacquer-2);
}
.head {
  display: grid;
  grid-template-columns: 172px minmax(0, 1fr);
  border-top: 1px solid var(--line);
}
.names-head {
  display: flex;
  align-items: flex-end;
  gap: 8px;
  padding: 0 8px 2px 2px;
  border-bottom: 1px solid var(--line);
}
.names-head span:first-child {
  flex: 1;
}
.names-head .mono {
  width: 36px;
  text-align: right;
  color: var(--lacquer);
  font-weight: 600;
}
.box {
  overflow: hidden;
  height: 46px;
}
.body {
  display: grid;
  grid-template-columns: 172px minmax(0, 1fr);
  overflow-y: auto;
  overflow-x: hidden;
  flex: 1;
  min-height: 80px;
  align-content: start;
}
canvas {
  display: block;
  cursor: crosshair;
  touch-action: none;
}
.names {
  position: relative;
  border-right: 1px solid var(--line);
}
.name {
  position: absolute;
  left: 0;
  right: 0;
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 0 8px 0 2px;
  border-left: 3px solid transparent;
}
.name.bad {
  border-left-color: var(--fail);
  background: var(--fail-tint);
}
.name button {
  flex: 1;
  min-width: 0;
  border: 0;
  background: none;
  padding: 0 0 0 3px;
  text-align: left;
  font: 12.5px var(--mono);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  cursor: pointer;
}
.name.inner button {
  color: var(--ink-2);
  font-style: italic;
}
.name small {
  font: 12px var(--sans);
  color: var(--ink-3);
  margin-left: 5px;
}
.value {
  display: grid;
  justify-items: end;
  width: 36px;
  font-size: 12px;
  line-height: 20px;
  white-space: nowrap;
}
.value i {
  font-style: normal;
}
.value b {
  font-weight: 500;
}
.bad .value b {
  color: var(--fail-text);
  font-weight: 600;
}
.legend {
  text-align: right;
}
</style>
