<script setup lang="ts">
import type { CoverageView } from '../../api/schema'

defineProps<{ coverage: CoverageView }>()
const WORDS = { t: 'taken', o: 'left out', '.': 'not possible' }
</script>

<template>
  <div class="coverage">
    <p>{{ coverage.taken }} of {{ coverage.possible }} pairs of state and row are taken</p>
    <div v-if="coverage.grid.length" class="grid" role="img" :aria-label="`${coverage.taken} of ${coverage.possible} pairs taken`">
      <div v-for="(row, i) in coverage.grid" :key="i" class="line">
        <span class="mono">row {{ i + 1 }}</span
        ><i
          v-for="(what, k) in row"
          :key="k"
          :class="`is-${what === '.' ? 'none' : what}`"
          :title="`row ${i + 1}, state ${k + 1}: ${WORDS[what as 't']}`"
        ></i>
      </div>
    </div>
    <p class="quiet small">
      {{ coverage.states }} of {{ coverage.possible_states }} states are reached<template v-if="coverage.unreached.length"
        >; never {{ coverage.unreached.slice(0, 4).join('; ')
        }}<template v-if="coverage.possible_states - coverage.states > 4"> and more</template></template
      >
    </p>
    <p v-if="coverage.idle_rows.length" class="warn">{{ coverage.idle_rows.length }} rows are never taken</p>
    <p v-if="!coverage.is_whole" class="quiet small">Not every choice of inputs in every state: that would be too many steps.</p>
  </div>
</template>

<style scoped>
.coverage {
  display: grid;
  gap: 5px;
}
.grid {
  display: grid;
  gap: 2px;
  overflow-x: auto;
}
.line {
  display: flex;
  gap: 2px;
  align-items: center;
}
.line span {
  font-size: 12px;
  color: var(--ink-2);
  width: 44px;
  flex: none;
}
.line i {
  width: 11px;
  height: 11px;
  border-radius: 3px;
  flex: none;
}
.is-t {
  background: var(--pass);
}
.is-o {
  box-shadow: inset 0 0 0 1.5px var(--undef);
}
.is-none {
  background: var(--line-2);
}
.warn {
  color: var(--undef-text);
}
</style>
