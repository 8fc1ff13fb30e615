<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'

import type { WavesView } from '../../api/schema'
import { prepare } from '../../shared/canvas'
import { AXIS, heightOf, paintAxis, paintTracks, tracksOf } from './paint'

/** A few steps as a picture that can be printed. */
const props = defineProps<{ waves: WavesView }>()
const NAMES = 104
const WIDTH = 526
const canvas = ref<HTMLCanvasElement>()
const tracks = computed(() => tracksOf(props.waves, (line) => (line.radix === 'dec' && line.signed ? 'signed' : (line.radix as 'bin'))))
const height = computed(() => AXIS + heightOf(tracks.value))
const words = computed(() => {
  const { offset, actions, sequences, sequence } = props.waves
  return `steps ${offset + 1} to ${offset + actions.length} of ${sequences[sequence].name}`
})

onMounted(async () => {
  await document.fonts.ready
  const p = prepare(canvas.value!, WIDTH, height.value)
  const end = props.waves.actions.length * props.waves.step_time
  const view = { start: 0, scale: (WIDTH - NAMES) / end, width: WIDTH - NAMES, end }
  p.fillStyle = '#fff'
  p.fillRect(0, 0, WIDTH, height.value)
  p.translate(NAMES, 0)
  paintAxis(p, props.waves, view)
  p.translate(0, AXIS)
  paintTracks(p, props.waves, tracks.value, view, 0, height.value - AXIS)
  p.translate(-NAMES, 0)
  for (const track of tracks.value) {
    p.fillStyle = track.what === 'want' ? '#5f5867' : '#2a2431'
    p.font = track.what === 'want' ? '11px "IBM Plex Sans"' : '12px "IBM Plex Mono"'
    p.textBaseline = 'middle'
    p.fillText(track.what === 'want' ? 'should be' : track.line.name, track.what === 'want' ? 12 : 0, track.top + track.high / 2)
  }
})
</script>

<template>
  <figure>
    <canvas ref="canvas" :style="{ width: `${WIDTH}px`, height: `${height}px` }" role="img" :aria-label="`waveform, ${words}`"></canvas>
    <figcaption class="quiet small">{{ words[0].toUpperCase() + words.slice(1) }}; shaded where it is not right.</figcaption>
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
