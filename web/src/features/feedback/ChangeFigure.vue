<script setup lang="ts">
import { computed } from 'vue'

import { useSymbols } from '../circuit/symbolSetting'
import { outline, sign, spoken, STUB } from '../circuit/symbols'
import { type Change, CIRCLE, pictureOf, type Placed } from './changePicture'

/** A change of a drawn circuit: the line as it was handed in, and as it would be right. */
const props = defineProps<{ change: Change; before: string; after: string }>()
const { symbols } = useSymbols()
const sides = computed(() =>
  [
    { title: props.before, lines: props.change.before },
    { title: props.after, lines: props.change.after },
  ]
    .filter((s) => s.lines.length)
    .map((s) => ({
      title: s.title,
      pictures: s.lines.map((driven) => ({ ...pictureOf(driven), said: saidOf(driven.piece, driven.names) })),
    })),
)
function words(piece: Placed['piece']): string {
  if (piece.kind === 'name') return piece.text
  return `${spoken(piece.kind, piece.text, piece.inverted)}(${piece.inputs.map(words).join(', ')})`
}
function saidOf(piece: Placed['piece'], names: string[]): string {
  return `${names.join(', ')} = ${words(piece)}`
}
function shape(p: Placed): string {
  return symbols.value === 'distinctive' ? outline(p.piece.kind, 0, p.w - STUB, p.h) : ''
}
</script>

<template>
  <figure class="change">
    <div v-for="side in sides" :key="side.title" class="side">
      <figcaption>{{ side.title }}</figcaption>
      <svg
        v-for="(p, i) in side.pictures"
        :key="i"
        :width="p.w"
        :height="p.h"
        :viewBox="`0 0 ${p.w} ${p.h}`"
        role="img"
        :aria-label="p.said"
      >
        <path v-for="(d, k) in p.wires" :key="k" class="wire" :d="d" />
        <g v-for="(part, k) in p.parts" :key="`p${k}`" :transform="`translate(${part.x} ${part.y})`">
          <path v-if="shape(part)" class="body" :d="shape(part)" />
          <rect v-else class="body" :width="part.w - STUB" :height="part.h" />
          <text v-if="!shape(part) || part.piece.kind === 'select'" :x="(part.w - STUB) / 2" :y="part.h / 2 + 4" text-anchor="middle">
            {{ sign(part.piece.kind, part.piece.text) }}
          </text>
          <circle v-if="part.piece.inverted" class="body" :cx="part.w - STUB + CIRCLE" :cy="part.h / 2" :r="CIRCLE" />
          <path v-else class="wire" :d="`M${part.w - STUB} ${part.h / 2}H${part.w}`" />
        </g>
        <circle v-for="(c, k) in p.circles" :key="`c${k}`" class="body" :cx="c.x" :cy="c.y" :r="CIRCLE" />
        <text v-for="(n, k) in p.names" :key="`n${k}`" class="name" :x="n.x" :y="n.y + 4" text-anchor="end">{{ n.piece.text }}</text>
      </svg>
    </div>
  </figure>
</template>

<style scoped>
.change {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 34px;
  margin: 6px 0;
  white-space: normal;
  break-inside: avoid;
}
.side {
  display: grid;
  gap: 4px;
  align-content: start;
}
figcaption {
  font-size: 12px;
  color: var(--ink-2);
}
svg {
  max-width: 100%;
  height: auto;
}
.body {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.4;
}
.wire {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.2;
}
text {
  font: 12px var(--sans);
  fill: var(--ink);
}
.name {
  font: 12px var(--mono);
}
</style>
