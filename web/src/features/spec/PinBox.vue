<script setup lang="ts">
import { computed } from 'vue'

import type { PortView } from '../../api/schema'

const props = defineProps<{ unit: string; ports: PortView[] }>()
const MOST = 16
interface Pin {
  name: string
  width: number
}
/** The pins of one side; of very many the first, and how many more there are. */
function side(direction: PortView['direction']): Pin[] {
  const all: Pin[] = props.ports.filter((p) => p.direction === direction)
  return all.length <= MOST ? all : [...all.slice(0, MOST - 1), { name: `${all.length - MOST + 1} more`, width: 0 }]
}
const inputs = computed(() => side('in'))
const outputs = computed(() => side('out'))
const STEP = 22
const high = computed(() => Math.max(inputs.value.length, outputs.value.length, 2) * STEP + 14)
const y = (i: number, n: number) => high.value / 2 + (i - (n - 1) / 2) * STEP
</script>

<template>
  <svg
    :viewBox="`-16 0 268 ${high}`"
    :style="{ width: '100%', maxWidth: '300px', height: `${high}px` }"
    role="img"
    :aria-label="`${unit}: ${inputs.length} inputs, ${outputs.length} outputs`"
  >
    <rect x="82" y="4" width="76" :height="high - 8" rx="4" fill="var(--paper)" stroke="var(--ink)" stroke-width="1.300" />
    <g v-for="(p, i) in inputs" :key="p.name">
      <line
        x1="70"
        x2="82"
        :y1="y(i, inputs.length)"
        :y2="y(i, inputs.length)"
        stroke="var(--ink)"
        :stroke-width="p.width > 1 ? 3 : 1.3"
        :stroke-dasharray="p.width ? undefined : '2 3'"
      />
      <text x="66" :y="y(i, inputs.length) + 4" text-anchor="end">
        <tspan>{{ p.name }}</tspan>
        <tspan v-if="p.width > 1" class="w">[{{ p.width }}]</tspan>
      </text>
    </g>
    <g v-for="(p, i) in outputs" :key="p.name">
      <line
        x1="158"
        x2="170"
        :y1="y(i, outputs.length)"
        :y2="y(i, outputs.length)"
        stroke="var(--ink)"
        :stroke-width="p.width > 1 ? 3 : 1.3"
        :stroke-dasharray="p.width ? undefined : '2 3'"
      />
      <text x="174" :y="y(i, outputs.length) + 4">
        <tspan>{{ p.name }}</tspan>
        <tspan v-if="p.width > 1" class="w">[{{ p.width }}]</tspan>
      </text>
    </g>
    <text x="120" :y="high / 2 + 3" text-anchor="middle" class="unit" :textLength="unit.length > 11 ? 68 : undefined">{{ unit }}</text>
  </svg>
</template>

<style scoped>
text {
  font: 12px var(--mono);
  fill: var(--ink);
}
.unit {
  font-size: 12px;
  fill: var(--ink-2);
}
.w {
  fill: var(--ink-3);
  font-size: 12px;
}
</style>
