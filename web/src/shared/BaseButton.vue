<script setup lang="ts">
import { baseOf, type PortKind } from './values'
import { showsBits } from './bits'

/** In which base the long values of a column stand; a press shows their bits, in all tables, or takes that back. */
defineProps<{ port: PortKind }>()
</script>

<template>
  <button type="button" class="base" :title="showsBits ? 'in a shorter base' : 'in bits'" @click.stop="showsBits = !showsBits">
    {{ showsBits ? 'bits' : baseOf(port) }}
  </button>
</template>

<style scoped>
.base {
  border: 0;
  background: none;
  padding: 0 4px;
  min-height: 24px;
  min-width: 24px;
  font: 12px var(--sans);
  color: var(--lacquer);
  text-decoration: underline dotted;
  cursor: pointer;
}
@media print {
  .base {
    display: none;
  }
}
</style>
