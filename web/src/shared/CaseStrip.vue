<script setup lang="ts">
import CellGlyph from './CellGlyph.vue'

defineProps<{ cells: string }>()
</script>

<template>
  <div class="strip">
    <CellGlyph v-for="(cell, i) in cells" :key="i" :cell="cell" :class="{ gap: i % 4 === 0 && i > 0 }" />
  </div>
</template>

<style scoped>
.strip { display: flex; flex-wrap: wrap; gap: 3px 1.5px; align-items: center; }
.gap { margin-left: 5px; }
</style>
