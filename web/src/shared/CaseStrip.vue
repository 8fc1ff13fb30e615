<script setup lang="ts">
import CellGlyph from './CellGlyph.vue'
import { CELL_WORDS } from './words'

/** `shares` has, where a cell stands for many cases, how many in a hundred of them are not right. */
defineProps<{ cells: string; shares: number[] }>()
</script>

<template>
  <div
    v-if="shares.length"
    class="strip"
    role="img"
    :aria-label="`${shares.filter((s) => s > 0).length} of ${shares.length} parts of the cases have some that are not right`"
  >
    <span
      v-for="(share, i) in shares"
      :key="i"
      class="part"
      :class="[`cell-${cells[i]}`, { gap: i % 4 === 0 && i > 0 }]"
      :title="share ? `${share} % ${CELL_WORDS[cells[i]]}` : CELL_WORDS[cells[i]]"
    >
      <i v-if="share" :style="{ height: `${Math.max(14, share)}%` }" />
    </span>
  </div>
  <div v-else class="strip">
    <CellGlyph v-for="(cell, i) in cells" :key="i" :cell="cell" :class="{ gap: i % 4 === 0 && i > 0 }" />
  </div>
</template>

<style scoped>
.strip {
  display: flex;
  flex-wrap: wrap;
  gap: 3px 1.5px;
  align-items: center;
}
.gap {
  margin-left: 5px;
}
.part {
  width: 9px;
  height: 14px;
  display: flex;
  align-items: flex-end;
  border-bottom: 2px solid var(--pass);
  background: var(--pass-tint);
}
.part i {
  display: block;
  width: 100%;
  background: var(--fail);
}
.cell-u i {
  background: repeating-linear-gradient(90deg, var(--undef) 0 1px, var(--undef-tint) 1px 3px);
}
.cell-s i {
  background: var(--ink);
}
.cell-n {
  border-color: var(--none);
  background: none;
}
.cell-f,
.cell-u,
.cell-s {
  border-color: var(--ink-3);
}
</style>
