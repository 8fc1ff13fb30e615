<script setup lang="ts">
import { Segmented } from 'ant-design-vue'
import { computed } from 'vue'

import type { ResultsView } from '../../api/schema'
import CellGlyph from '../../shared/CellGlyph.vue'
import { clock, count, heads } from '../../shared/words'

const props = defineProps<{ results: ResultsView; face: string; chosen: number | null }>()
const emit = defineEmits<{ face: [face: string]; filter: [label: number | null] }>()

const sums = computed(() => {
  const found = { right: 0, rules: 0, wrong: 0, unchecked: 0 }
  let ways = 0
  for (const c of props.results.clusters) {
    found[c.kind] += c.members.length
    if (c.kind === 'wrong') ways++
  }
  return { ...found, ways, missing: props.results.missing.length }
})
const most = computed(() => Math.max(1, ...props.results.case_failures))
const bar = computed(() => [
  { kind: 'pass', n: sums.value.right },
  { kind: 'undef', n: sums.value.rules },
  { kind: 'fail', n: sums.value.wrong },
  { kind: 'ink', n: sums.value.unchecked },
  { kind: 'none', n: sums.value.missing },
])
const total = computed(() =>
  Math.max(
    1,
    bar.value.reduce((n, b) => n + b.n, 0),
  ),
)
</script>

<template>
  <aside class="compartment class">
    <div class="row spread">
      <span class="caption">Class</span>
      <Segmented
        :value="face"
        size="small"
        :options="[
          { label: 'Tray', value: 'tray' },
          { label: 'Rows', value: 'rows' },
        ]"
        @change="(v) => emit('face', String(v))"
      />
    </div>
    <div class="bar"><i v-for="b in bar" :key="b.kind" :class="b.kind" :style="{ width: `${(100 * b.n) / total}%` }"></i></div>
    <ul class="legend">
      <li><CellGlyph cell="p" :size="11" /> {{ sums.right }} right</li>
      <li v-if="sums.rules"><CellGlyph cell="u" :size="11" /> {{ sums.rules }} right, against the rules</li>
      <li>
        <CellGlyph cell="f" :size="11" /> {{ sums.wrong }} wrong<template v-if="sums.ways">, {{ count(sums.ways, 'way') }}</template>
      </li>
      <li v-if="sums.unchecked"><CellGlyph cell="s" :size="11" /> {{ sums.unchecked }} not checked</li>
      <li v-if="sums.missing"><CellGlyph cell="n" :size="11" /> {{ sums.missing }} missing</li>
    </ul>
    <div class="row spread quiet head">
      <span>{{ results.clocked ? 'Hand-ins going astray at each step' : 'Hand-ins failing each case' }}</span><span class="mono">{{
        results.cases
      }}</span>
    </div>
    <div class="mono names" :title="results.inputs.join(' ')">{{ heads(results.inputs).join(' ') }}</div>
    <div class="cases">
      <button
        v-for="(label, i) in results.case_labels"
        :key="label"
        type="button"
        :class="{ chosen: chosen === i, quiet: !results.case_failures[i] }"
        :disabled="!results.case_failures[i]"
        :title="`show who fails ${label}`"
        @click="emit('filter', chosen === i ? null : i)"
      >
        <code>{{ label }}</code>
        <span class="track"><i :style="{ width: `${(100 * results.case_failures[i]) / most}%` }"></i></span>
        <span class="n">{{ results.case_failures[i] || '' }}</span>
      </button>
    </div>
    <footer class="quiet small">
      <template v-if="results.checked_at">Checked {{ clock(results.checked_at) }}, spec v{{ results.version }}</template>
      <template v-if="results.waiting"> · {{ results.waiting }} waiting</template>
    </footer>
  </aside>
</template>

<style scoped>
.class {
  display: flex;
  flex-direction: column;
  gap: 8px;
  overflow: hidden;
}
.bar {
  display: flex;
  gap: 2px;
  height: 9px;
}
.bar i {
  border-radius: 2px;
}
.bar .pass {
  background: var(--pass);
}
.bar .undef {
  background: var(--undef);
}
.bar .fail {
  background: var(--fail);
}
.bar .ink {
  background: var(--ink);
}
.bar .none {
  background: var(--none);
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  font-size: 12px;
}
.legend svg {
  vertical-align: -1px;
  margin-right: 3px;
}
.head {
  font-size: 12px;
  padding-top: 4px;
}
.names {
  font-size: 12px;
  color: var(--ink-3);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.cases {
  overflow: auto;
  flex: 1;
  margin: 0 -6px;
}
.cases button {
  display: grid;
  grid-template-columns: minmax(0, max-content) minmax(16px, 1fr) minmax(22px, max-content);
  gap: 10px;
  align-items: center;
  width: 100%;
  padding: 1.5px 6px;
  min-height: 24px;
  border: 0;
  background: none;
  border-bottom: 1px solid var(--line-2);
  text-align: left;
  cursor: pointer;
  font-size: 12px;
}
.cases button:disabled {
  cursor: default;
  color: var(--ink-3);
}
.cases button.chosen {
  background: var(--lacquer-tint);
}
.cases code {
  font-size: 12px;
  white-space: pre;
  overflow: hidden;
  text-overflow: ellipsis;
}
.track i {
  display: block;
  height: 9px;
  background: var(--fail);
  border-radius: 1px;
}
.n {
  font: 12px var(--mono);
  text-align: right;
}
footer {
  margin-top: auto;
}
</style>
