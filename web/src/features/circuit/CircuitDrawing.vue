<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import { ref, watch } from 'vue'

import type { CircuitPart } from '../../api/schema'
import CircuitFigure from './CircuitFigure.vue'
import { extent, type Layout } from './layout'
import type { Indexed } from './model'
import type { SymbolSet } from './symbols'

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
  caption: string
  /** Whether parts may be moved by hand. */
  movable?: boolean
}>()
const emit = defineEmits<{
  wire: [pin: number]
  part: [part: CircuitPart, isMore: boolean]
  fold: [part: number]
  back: [pin: number]
  move: [part: CircuitPart, x: number, y: number]
  remark: [line: number, x: number, y: number]
  within: [parts: CircuitPart[]]
}>()
const host = ref<HTMLElement>()
const view = ref({ x: 0, y: 0, scale: 1 })
let held: { x: number; y: number } | null = null
/** A part that is moved: where the pointer took it, and how far it is by now, in the drawing's own measure. */
const moved = ref<{ id: number; fromX: number; fromY: number; x: number; y: number } | null>(null)
const CLICK = 4
/** A frame that is drawn over parts to choose them, in the window's measure. */
const band = ref<{ x: number; y: number; w: number; h: number } | null>(null)
let bandFrom: { x: number; y: number } | null = null

/** The whole drawing, as large as fits, never larger than life. */
function fit(): void {
  const box = host.value?.getBoundingClientRect()
  if (!box || !props.layout.width) return
  const all = extent(props.layout)
  const scale = Math.min(1.15, (box.width - 8) / all.w, (box.height - 8) / all.h)
  view.value = { scale, x: (box.width - all.w * scale) / 2 - all.x * scale, y: Math.max(4, (box.height - all.h * scale) / 2) }
}
watch(
  () => props.layout,
  () => requestAnimationFrame(fit),
  { immediate: true },
)
useResizeObserver(host, fit)

function zoom(event: WheelEvent): void {
  const box = host.value?.getBoundingClientRect()
  if (!box) return
  const factor = Math.exp(-event.deltaY * 0.0015)
  const scale = Math.min(4, Math.max(0.05, view.value.scale * factor))
  const [px, py] = [event.clientX - box.left, event.clientY - box.top]
  const by = scale / view.value.scale
  view.value = { scale, x: px - (px - view.value.x) * by, y: py - (py - view.value.y) * by }
}
function grab(event: PointerEvent): void {
  const part = (event.target as Element).closest<SVGElement>('[data-part]')
  if (part && props.movable && !['input', 'output'].includes(part.dataset.kind ?? '')) {
    moved.value = { id: Number(part.dataset.part), fromX: event.clientX, fromY: event.clientY, x: 0, y: 0 }
    return
  }
  const remark = (event.target as Element).closest<SVGElement>('[data-remark]')
  if (remark && props.movable) {
    moved.value = { id: -Number(remark.dataset.remark), fromX: event.clientX, fromY: event.clientY, x: 0, y: 0 }
    return
  }
  if ((event.target as Element).closest('.hit')) return
  const box = host.value?.getBoundingClientRect()
  if (event.shiftKey && props.movable && box) {
    bandFrom = { x: event.clientX - box.left, y: event.clientY - box.top }
    host.value?.setPointerCapture(event.pointerId)
    return
  }
  held = { x: event.clientX - view.value.x, y: event.clientY - view.value.y }
  host.value?.setPointerCapture(event.pointerId)
}
function drag(event: PointerEvent): void {
  const m = moved.value
  if (m) {
    const [x, y] = [event.clientX - m.fromX, event.clientY - m.fromY]
    if (m.x || m.y || Math.hypot(x, y) > CLICK) {
      if (!m.x && !m.y) host.value?.setPointerCapture(event.pointerId)
      moved.value = { ...m, x: x / view.value.scale, y: y / view.value.scale }
    }
  }
  const box = host.value?.getBoundingClientRect()
  if (bandFrom && box) {
    const [x, y] = [event.clientX - box.left, event.clientY - box.top]
    band.value = { x: Math.min(x, bandFrom.x), y: Math.min(y, bandFrom.y), w: Math.abs(x - bandFrom.x), h: Math.abs(y - bandFrom.y) }
  }
  if (held) view.value = { ...view.value, x: event.clientX - held.x, y: event.clientY - held.y }
}

/** A part is let go of: where it was moved it stays, where it was not it was clicked. */
function letGo(): void {
  held = bandFrom = null
  const b = band.value
  band.value = null
  if (b && b.w + b.h > CLICK) {
    const { x, y, scale } = view.value
    const [left, top, right, bottom] = [(b.x - x) / scale, (b.y - y) / scale, (b.x + b.w - x) / scale, (b.y + b.h - y) / scale]
    const inside = props.layout.parts.filter((p) => p.x < right && p.x + p.w > left && p.y < bottom && p.y + p.h > top)
    emit(
      'within',
      inside.map((p) => p.part),
    )
  }
  const m = moved.value
  moved.value = null
  const remark = m && m.id < 0 && props.layout.remarks?.find((r) => r.line === -m.id)
  if (m && remark && (m.x || m.y)) emit('remark', remark.line, remark.x + m.x, remark.y + m.y)
  const at = m && props.layout.parts.find((p) => p.part.id === m.id)
  if (m && at && (m.x || m.y)) emit('move', at.part, at.x + m.x, at.y + m.y)
}

/** Bring parts into sight. */
function show(ids: Set<number>): void {
  const box = host.value?.getBoundingClientRect()
  const first = props.layout.parts.find((p) => ids.has(p.part.id))
  if (!box || !first) return
  const [x, y] = [view.value.x + (first.x + first.w / 2) * view.value.scale, view.value.y + (first.y + first.h / 2) * view.value.scale]
  if (x < 20 || y < 20 || x > box.width - 20 || y > box.height - 20)
    view.value = { ...view.value, x: view.value.x + box.width / 2 - x, y: view.value.y + box.height / 2 - y }
}
watch(() => props.chosen, show)
defineExpose({ fit })
</script>

<template>
  <div
    ref="host"
    class="drawing"
    tabindex="0"
    :aria-label="caption"
    role="group"
    @wheel.prevent="zoom"
    @pointerdown="grab"
    @pointermove="drag"
    @pointerup="letGo"
    @pointercancel="((held = bandFrom = null), (moved = band = null))"
  >
    <svg width="100%" height="100%" role="group" :aria-label="caption">
      <g :transform="`translate(${view.x} ${view.y}) scale(${view.scale})`">
        <CircuitFigure
          :at="at"
          :layout="layout"
          :digits="digits"
          :place="place"
          :chosen="chosen"
          :probes="probes"
          :explains="explains"
          :astray="astray"
          :ports="ports"
          :symbols="symbols"
          :moved="moved"
          @wire="(id) => emit('wire', id)"
          @part="(p, isMore) => emit('part', p, isMore)"
          @fold="(id) => emit('fold', id)"
          @back="(id) => emit('back', id)"
        />
      </g>
      <rect v-if="band" class="band" :x="band.x" :y="band.y" :width="band.w" :height="band.h" />
    </svg>
  </div>
</template>

<style scoped>
.drawing {
  flex: 1;
  min-height: 0;
  overflow: hidden;
  cursor: grab;
  border-radius: 6px;
  touch-action: none;
}
.drawing:active {
  cursor: grabbing;
}
.band {
  fill: var(--lacquer);
  fill-opacity: 0.08;
  stroke: var(--lacquer);
}
svg {
  display: block;
  user-select: none;
}
</style>
