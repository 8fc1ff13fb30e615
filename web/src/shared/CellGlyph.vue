<script setup lang="ts">
import { CELL_WORDS } from './words'

defineProps<{ cell: string; size?: number }>()
</script>

<template>
  <svg :width="size ?? 12" :height="size ?? 12" viewBox="0 0 12 12" role="img" :aria-label="CELL_WORDS[cell]">
    <title>{{ CELL_WORDS[cell] }}</title>
    <circle v-if="cell === 'p'" cx="6" cy="6" r="4.4" fill="var(--pass)" />
    <path v-else-if="cell === 'f'" d="M1 1h10v6.4L7.400 11H1z" fill="var(--fail)" />
    <g v-else-if="cell === 'u'" fill="none" stroke="var(--undef)">
      <path d="M6 .9 11.100 6 6 11.100 .9 6z" stroke-width="1.200" />
      <path d="M4.200 3.600v4.800M6 2v8M7.800 3.600v4.800" stroke-width=".8" />
    </g>
    <rect v-else-if="cell === 's'" x="1" y="3.500" width="10" height="5" fill="var(--ink)" />
    <rect v-else x="2.500" y="5.300" width="7" height="1.500" fill="var(--none)" />
  </svg>
</template>
