<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, nextTick, onMounted, ref, watch } from 'vue'

import { getBytes } from '../../api/client'
import { prepare } from '../../shared/canvas'
import { isNight } from '../../shared/night'
import { useResource } from '../../shared/resource'
import { CELL_WORDS } from '../../shared/words'
import { cellOf, failuresOf, unpackCells } from './cells'
import { paintRows, placeAt, scrollTo, sizeOf } from './paintRows'

const props = defineProps<{ taskId: number; chosen: number | null; order: number[] }>()
const emit = defineEmits<{ choose: [handin: number]; review: [handin: number] }>()

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
  const shown = grid.value.rows.filter((row) => place.has(row.id))
  return shown.sort((a, b) => (place.get(a.id) ?? 1e9) - (place.get(b.id) ?? 1e9))
})
const full = computed(() => sizeOf(grid.value?.cases ?? 0, rows.value.length, cell.value))

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
function draw(): void {
  const g = grid.value
  if (!canvas.value || !g || !width.value || !height.value) return
  paintRows(prepare(canvas.value, width.value, height.value), {
    grid: g,
    rows: rows.value,
    failures,
    chosen: props.chosen,
    cursor: cursor.value,
    cell: cell.value,
    x: scrollX.value,
    y: scrollY.value,
    width: width.value,
    height: height.value,
  })
}
function at(event: MouseEvent): { row: number; index: number } {
  const rect = canvas.value!.getBoundingClientRect()
  return placeAt(event.clientX - rect.left, event.clientY - rect.top, { cell: cell.value, x: scrollX.value, y: scrollY.value })
}
function onMove(event: MouseEvent): void {
  const { row, index } = at(event)
  const g = grid.value
  hover.value = g && rows.value[row] && index >= 0 && index < g.cases ? `${rows.value[row].name}: case ${g.labels[index] ?? index}` : ''
}
/** The cell that the keys are at; it says of itself what it is. */
const cursor = ref<{ row: number; index: number } | null>(null)
function walk(down: number, across: number): void {
  const g = grid.value
  if (!g || !rows.value.length) return
  const from = cursor.value ?? { row: rows.value.findIndex((r) => r.id === props.chosen), index: 0 }
  const limit = (n: number, most: number): number => Math.max(0, Math.min(most - 1, n))
  cursor.value = { row: limit(from.row + down, rows.value.length), index: limit(from.index + across, g.cases) }
  const row = rows.value[cursor.value.row]
  const { index } = cursor.value
  hover.value = `${row.name}: case ${g.labels[index] ?? index}, ${CELL_WORDS[cellOf(row, index)]}`
  const sight = { cell: cell.value, x: scrollX.value, y: scrollY.value, width: width.value, height: height.value }
  box.value?.scrollTo({ left: scrollTo(cursor.value, sight).x, top: scrollTo(cursor.value, sight).y })
  if (row.id !== props.chosen) emit('choose', row.id)
}
function onClick(event: MouseEvent, twice = false): void {
  const row = rows.value[at(event).row]
  if (!row) return
  if (twice) emit('review', row.id)
  else emit('choose', row.id)
}
watch([width, height, scrollX, scrollY, zoom, rows, cursor, isNight, () => props.chosen], draw)
</script>

<template>
  <section class="compartment face">
    <div class="row spread tools">
      <span class="caption"
        >Rows <span class="quiet" role="status">{{ hover }}</span></span
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
      role="application"
      aria-label="students down, cases across; the arrow keys walk from cell to cell, Enter opens the review"
      @keydown.down.prevent.stop="walk(1, 0)"
      @keydown.up.prevent.stop="walk(-1, 0)"
      @keydown.right.prevent.stop="walk(0, 1)"
      @keydown.left.prevent.stop="walk(0, -1)"
      @scroll="onScroll"
      @mousemove="onMove"
      @click="onClick"
      @dblclick="(e) => onClick(e, true)"
    >
      <canvas ref="canvas" :style="{ width: `${width}px`, height: `${height}px` }"></canvas>
      <div :style="{ width: `${full.width}px`, height: `${full.height}px` }"></div>
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
