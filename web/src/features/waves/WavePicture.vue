<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'

import type { WavesView } from '../../api/schema'
import { colour, prepare } from '../../shared/canvas'
import { isNight } from '../../shared/night'
import { AXIS, heightOf, paintAxis, paintCursor, paintTracks, tracksOf } from './paint'

/** A few steps as a picture that can be printed, or, with a chosen step, those around it of a longer sequence. */
const props = withDefaults(
  defineProps<{
    waves: WavesView
    width?: number
    /** The chosen step, counted from the first one of these waves. */
    at?: number | null
    /** How many steps are in sight at most. */
    most?: number
  }>(),
  { width: 526, at: null, most: Infinity },
)
const emit = defineEmits<{ pick: [step: number] }>()
const NAMES = 104
const canvas = ref<HTMLCanvasElement>()
const tracks = computed(() => tracksOf(props.waves, (line) => (line.radix === 'dec' && line.signed ? 'signed' : (line.radix as 'bin'))))
const height = computed(() => AXIS + heightOf(tracks.value))
/** The first step in sight, and how many there are. */
const sight = computed(() => {
  const all = props.waves.actions.length
  const count = Math.min(all, props.most)
  const first = Math.round((props.at ?? 0) - count / 2)
  return { first: Math.max(0, Math.min(all - count, first)), count }
})
const words = computed(() => {
  const { offset, sequences, sequence } = props.waves
  const { first, count } = sight.value
  return `steps ${offset + first + 1} to ${offset + first + count} of ${sequences[sequence].name}`
})
const isTold = computed(() => tracks.value.some((t) => t.what === 'want'))

function paint(): void {
  if (!canvas.value) return
  const p = prepare(canvas.value, props.width, height.value)
  const { first, count } = sight.value
  const step = props.waves.step_time
  const width = props.width - NAMES
  const view = { start: first * step, scale: width / (count * step), width, end: (first + count) * step }
  const cursor = props.at === null ? null : (props.at + 0.7) * step
  p.fillStyle = colour('paper')
  p.fillRect(0, 0, props.width, height.value)
  p.save()
  p.beginPath()
  p.rect(NAMES - 4, 0, width + 4, height.value)
  p.clip()
  p.translate(NAMES, 0)
  paintAxis(p, props.waves, view)
  p.translate(0, AXIS)
  paintTracks(p, props.waves, tracks.value, view, 0, height.value - AXIS)
  paintCursor(p, view, cursor, 'a', 0, height.value - AXIS, false)
  p.restore()
  p.translate(0, AXIS)
  for (const track of tracks.value) {
    p.fillStyle = colour(track.what === 'want' ? 'ink-2' : 'ink')
    p.font = track.what === 'want' ? '12px \"IBM Plex Sans"' : '12px "IBM Plex Mono"'
    p.textBaseline = 'middle'
    p.fillText(track.what === 'want' ? 'should be' : track.line.name, track.what === 'want' ? 12 : 0, track.top + track.high / 2)
  }
}
function pick(event: MouseEvent): void {
  const { first, count } = sight.value
  const step = first + Math.floor(((event.offsetX - NAMES) / (props.width - NAMES)) * count)
  if (event.offsetX >= NAMES && step < first + count) emit('pick', step)
}
onMounted(async () => {
  await document.fonts.ready
  paint()
})
watch(() => [props.waves, props.at, props.width, isNight.value], paint, { flush: 'post' })
</script>

<template>
  <figure>
    <canvas
      ref="canvas"
      :style="{ width: `${width}px`, height: `${height}px` }"
      role="img"
      :aria-label="`waveform, ${words}`"
      @click="pick"
    ></canvas>
    <figcaption class="quiet small">
      {{ words[0].toUpperCase() + words.slice(1) }}<template v-if="isTold">; shaded where it is not right.</template>
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 4px 0;
  max-width: 100%;
  overflow-x: auto;
}
canvas {
  display: block;
}
</style>
