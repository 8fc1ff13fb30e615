<script setup lang="ts">
import { computed } from 'vue'

import type { SpecPreview } from '../../api/schema'
import { count } from '../../shared/words'
import CatchRate from './CatchRate.vue'
import CoverageGrid from './CoverageGrid.vue'
import PinBox from './PinBox.vue'

/** What is checked and how well: interface, cases, coverage, catch rate, sources. `text` is what `preview` is of. */
const props = defineProps<{ table: SpecPreview | null; preview: SpecPreview; taskId: number; text: string }>()
const emit = defineEmits<{ line: [line: number] }>()
const isClocked = computed(() => !!props.table?.sequences.length)
const isNamed = computed(() => !!props.table?.rows[0]?.label)
</script>

<template>
  <section class="compartment side">
    <div class="caption">Interface</div>
    <PinBox v-if="table?.ports.length" :unit="table.unit" :ports="table.ports" />
    <p v-else class="quiet">no ports yet</p>
    <div class="caption">{{ isClocked ? 'Steps' : 'Cases' }}</div>
    <p v-if="table && isClocked">{{ count(table.cases, 'step') }} in {{ count(table.sequences.length, 'sequence') }}</p>
    <CoverageGrid v-if="table?.coverage" :coverage="table.coverage" />
    <p v-if="table && !isClocked">
      {{ count(table.cases, 'case') }},
      <span :class="{ warn: table.uncovered }">{{
        table.uncovered ? `${table.uncovered} covered by no source` : 'every one covered'
      }}</span>
    </p>
    <p v-for="(n, name) in preview.groups" :key="name" class="row spread">
      <span>{{ name }}</span><span class="mono">{{ n }}</span>
    </p>
    <template v-if="table && !isClocked && !isNamed">
      <div class="caption">Catch rate</div>
      <CatchRate :task-id="taskId" :text="preview.is_right ? text : ''" @line="(line) => emit('line', line)" />
    </template>
    <div class="caption">Sources</div>
    <p v-for="s in preview.sources" :key="s">{{ s }}</p>
    <p v-if="preview.sources.length > 1 && preview.is_right" class="tag pass">agree on every case</p>
  </section>
</template>

<style scoped>
.side {
  display: flex;
  flex-direction: column;
  gap: 6px;
  overflow: auto;
}
.side .caption:not(:first-child) {
  margin-top: 10px;
}
.warn {
  color: var(--undef-text);
}
</style>
