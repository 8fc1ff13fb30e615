<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, nextTick, onMounted, ref, watch } from 'vue'

import { getBytes } from '../../api/client'
import { useResource } from '../../shared/resource'
import { mark } from '../../shared/words'
import { type CellGrid, cellOf, failuresOf, unpackCells } from './cells'

const props = defineProps<{ taskId: number; chosen: number | null; order: number[] }>()
const emit = defineEmits<{ choose: [handin: number]; review: [handin: number] }>()

const NAMES = 190
const MARK = 56
const HEAD = 92
const ROW = 22
const SIZES = [2, 4, 8, 14, 18]
const {
  data: grid,
  trouble,
  reload,
} = useResource(async (signal) => unpackCells(await getBytes(`/tasks/${props.taskId}/cells`, { signal })), { lazy: true })
const zoom = ref(4)
const box = ref<HTMLElement>()
const canvas = ref<HTMLCanvasElement>()
const { width, height } = useElementSize(box)
const scrollX = ref(0)
const scrollY = ref(0)
const hover = ref('')
let failures: Uint16Array = new Uint16Array()

const cell = computed(() => SIZES[zoom.value])
const rows = computed(() => {
  if (!grid.value) return []
  const place = new Map(props.order.map((id, i) => [id, i]))
  return [...grid.value.rows].sort((a, b) => (place.get(a.id) ?? 1e9) - (place.get(b.id) ?? 1e9))
})
const fullWidth = computed(() => NAMES + MARK + (grid.value?.cases ?? 0) * cell.value)
const fullHeight = computed(() => HEAD + rows.value.length * ROW + 8)

onMounted(async () => {
  const found = await reload()
  if (!found) return
  failures = failuresOf(found)
  zoom.value = found.cases <= 48 ? 4 : found.cases <= 128 ? 2 : 0
  await nextTick()
  draw()
  performance.mark('rows-painted')
})
function onScroll(): void {
  scrollX.value = box.value?.scrollLeft ?? 0
  scrollY.value = box.value?.scrollTop ?? 0
}
const style = getComputedStyle(document.documentElement)
const colour = (name: string) => style.getPropertyValue(`--${name}`).trim()
const INK = { p: colour('pass'), f: colour('fail'), u: colour('undef'), n: colour('none'), s: colour('ink') }

function draw(): void {
  const c = canvas.value
  const g = grid.value
  if (!c || !g || !width.value || !height.value) return
  const ratio = window.devicePixelRatio
  c.width = width.value * ratio
  c.height = height.value * ratio
  const p = c.getContext('2d')!
  p.scale(ratio, ratio)
  p.fillStyle = colour('paper')
  p.fillRect(0, 0, width.value, height.value)
  const size = cell.value
  const firstCase = Math.floor(scrollX.value / size)
  const lastCase = Math.min(g.cases, firstCase + Math.ceil((width.value - NAMES - MARK) / size) + 1)
  const firstRow = Math.floor(scrollY.value / ROW)
  const lastRow = Math.min(rows.value.length, firstRow + Math.ceil((height.value - HEAD) / ROW) + 1)
  const left = (i: number) => NAMES + i * size - scrollX.value
  const top = (i: number) => HEAD + i * ROW - scrollY.value
  p.save()
  p.beginPath()
  p.rect(NAMES, HEAD, width.value - NAMES - MARK, height.value - HEAD)
  p.clip()
  for (let r = firstRow; r < lastRow; r++) {
    const row = rows.value[r]
    if (row.id === props.chosen) {
      p.fillStyle = colour('lacquer-tint')
      p.fillRect(NAMES, top(r), width.value, ROW)
    }
    for (let i = firstCase; i < lastCase; i++) {
      const what = cellOf(row, i)
      if (size >= 14) glyph(p, what, left(i) + size / 2, top(r) + ROW / 2)
      else {
        p.fillStyle = INK[what]
        p.globalAlpha = what === 'p' ? 0.35 : 1
        const high = what === 'n' ? 2 : what === 'p' ? ROW - 10 : ROW - 4
        p.fillRect(left(i), top(r) + (ROW - high) / 2, Math.max(1, size - (size > 4 ? 1 : 0)), high)
        p.globalAlpha = 1
      }
    }
  }
  p.restore()
  heads(p, g, firstCase, lastCase, left)
  names(p, firstRow, lastRow, top)
}
function glyph(p: CanvasRenderingContext2D, what: string, x: number, y: number): void {
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
function heads(p: CanvasRenderingContext2D, g: CellGrid, first: number, last: number, left: (i: number) => number): void {
  p.fillStyle = colour('paper')
  p.fillRect(0, 0, width.value, HEAD)
  p.save()
  p.beginPath()
  p.rect(NAMES, 0, width.value - NAMES - MARK, HEAD)
  p.clip()
  const most = Math.max(1, ...failures)
  for (let i = first; i < last; i++) {
    const high = (28 * failures[i]) / most
    p.fillStyle = colour('fail')
    p.fillRect(left(i) + (cell.value > 8 ? 3 : 0), HEAD - 6 - high, Math.max(1, cell.value - (cell.value > 8 ? 6 : 0)), high)
    if (cell.value >= 14 && g.labels[i]) {
      p.save()
      p.translate(left(i) + cell.value / 2 + 4, HEAD - 40)
      p.rotate(-Math.PI / 2)
      p.fillStyle = colour('ink-2')
      p.font = '11px "IBM Plex Mono"'
      p.fillText(g.labels[i].replaceAll(' ', ''), 0, 0)
      p.restore()
    }
  }
  p.restore()
  p.fillStyle = colour('ink-2')
  p.font = '12px "IBM Plex Sans"'
  p.fillText('failing each case', 4, HEAD - 10)
  p.fillText('mark', width.value - MARK + 10, HEAD - 10)
  p.fillStyle = colour('line')
  p.fillRect(0, HEAD - 3, width.value, 1)
}
function names(p: CanvasRenderingContext2D, first: number, last: number, top: (i: number) => number): void {
  p.save()
  p.beginPath()
  p.rect(0, HEAD - 2, width.value, height.value)
  p.clip()
  for (let r = first; r < last; r++) {
    const row = rows.value[r]
    p.fillStyle = row.id === props.chosen ? colour('lacquer-tint') : colour('paper')
    p.fillRect(0, top(r), NAMES - 4, ROW)
    p.fillRect(width.value - MARK, top(r), MARK, ROW)
    p.fillStyle = colour('ink')
    p.font = '12.500px "IBM Plex Sans"'
    p.fillText(row.name.length > 27 ? `${row.name.slice(0, 26)}…` : row.name, 4, top(r) + 15)
    p.font = '12px "IBM Plex Mono"'
    p.fillStyle = colour('ink-2')
    p.fillText(row.status === 'checked' ? mark(row.mark) : 'held', width.value - MARK + 10, top(r) + 15)
  }
  p.restore()
}
function at(event: MouseEvent): { row: number; index: number } {
  const rect = canvas.value!.getBoundingClientRect()
  return {
    row: Math.floor((event.clientY - rect.top - HEAD + scrollY.value) / ROW),
    index: Math.floor((event.clientX - rect.left - NAMES + scrollX.value) / cell.value),
  }
}
function onMove(event: MouseEvent): void {
  const { row, index } = at(event)
  const g = grid.value
  hover.value = g && rows.value[row] && index >= 0 && index < g.cases ? `${rows.value[row].name}: case ${g.labels[index] ?? index}` : ''
}
function onClick(event: MouseEvent, twice = false): void {
  const row = rows.value[at(event).row]
  if (!row) return
  if (twice) emit('review', row.id)
  else emit('choose', row.id)
}
watch([width, height, scrollX, scrollY, zoom, rows, () => props.chosen], draw)
</script>

<template>
  <section class="compartment face">
    <div class="row spread tools">
      <span class="caption"
        >Rows <span class="quiet">{{ hover }}</span></span
      >
      <span class="row"
        ><span class="quiet small">zoom</span><input v-model.number="zoom" type="range" min="0" :max="SIZES.length - 1" aria-label="zoom"
      /></span>
    </div>
    <p v-if="trouble" class="trouble">{{ trouble }}</p>
    <div
      ref="box"
      class="box"
      tabindex="0"
      aria-label="students down, cases across"
      @scroll="onScroll"
      @mousemove="onMove"
      @click="onClick"
      @dblclick="(e) => onClick(e, true)"
    >
      <canvas ref="canvas" :style="{ width: `${width}px`, height: `${height}px` }"></canvas>
      <div :style="{ width: `${fullWidth}px`, height: `${fullHeight}px` }"></div>
    </div>
  </section>
</template>

<style scoped>
.face {
  display: flex;
  flex-direction: column;
  height: 100%;
  gap: 6px;
}
.box {
  position: relative;
  overflow: auto;
  flex: 1;
}
canvas {
  position: sticky;
  left: 0;
  top: 0;
  display: block;
}
.box > div {
  position: absolute;
  left: 0;
  top: 0;
  pointer-events: none;
}
.tools input {
  width: 110px;
  accent-color: var(--lacquer);
}
</style>
