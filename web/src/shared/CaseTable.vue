<script setup lang="ts">
import { computed } from 'vue'

import type { CaseRow } from '../api/schema'
import type { Probe } from './probe'
import CellGlyph from './CellGlyph.vue'
import { heads } from './words'

const props = defineProps<{
  inputs: string[]
  outputs: string[]
  rows: CaseRow[]
  glyphs?: boolean
  chosen?: number | null
  runs?: boolean
  full?: boolean
  probes?: Probe[]
  turned?: Map<number, 'right' | 'wrong' | 'apart'>
  /** The words of a letter in another language. */
  words?: Record<string, string>
}>()
const emit = defineEmits<{ choose: [index: number] }>()
const isClocked = computed(() => props.rows.some((r) => r.step))
const isNamed = computed(() => props.rows.some((r) => r.label))

interface Column {
  key: string
  name: string
  head: string
  at: number
  isInput: boolean
}
const MARK: Record<string, { sign: string; title: string }> = {
  right: { sign: '↑', title: 'turns right with the change' },
  wrong: { sign: '↓', title: 'turns wrong with the change' },
  apart: { sign: '≠', title: 'here the two circuits part' },
}
const WIDE = 24
const FEW = 3
/** Inputs, then outputs. Where these are too many for one look, the outputs that are wrong stand first, and no others. */
const columns = computed<Column[]>(() => {
  const inputHeads = props.full ? props.inputs : heads(props.inputs)
  const inputs = props.inputs.map((name, at) => ({ key: `i${at}`, name, head: inputHeads[at], at, isInput: true }))
  const outputs = isNamed.value ? [] : props.outputs.map((name, at) => ({ key: `o${at}`, name, head: name, at, isInput: false }))
  if (inputs.length + outputs.length <= WIDE) return [...inputs, ...outputs]
  const wrong = outputs.filter((o) => props.rows.some((r) => r.wrong[o.at]))
  return [...(wrong.length ? wrong : outputs.slice(0, FEW)), ...inputs]
})
</script>

<template>
  <table class="cases">
    <thead>
      <tr>
        <th v-if="glyphs" scope="col">
          <span class="unseen">{{ words?.outcome ?? 'outcome' }}</span>
        </th>
        <th v-if="isClocked" class="step">{{ words?.step ?? 'step' }}</th>
        <th v-if="isNamed" class="step">check</th>
        <th v-for="c in columns" :key="c.key" :class="{ side: !c.isInput }" :title="c.name" scope="col">
          {{ c.head
          }}<template v-if="!c.isInput"
            ><br /><span class="eg">{{ words?.['expected-got'] ?? 'exp got' }}</span></template
          >
        </th>
        <th v-for="p in probes" :key="p.pin" class="side probe" :title="p.name" scope="col">{{ p.name }}</th>
        <th v-if="runs" class="side">{{ words?.run ?? 'run' }}</th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="row in rows"
        :key="row.index"
        :class="{ chosen: chosen === row.index }"
        :data-case="row.index"
        :aria-selected="chosen === row.index"
        @click="emit('choose', row.index)"
      >
        <td v-if="glyphs" :class="{ follows: row.step?.follows }" :title="MARK[turned?.get(row.index) ?? '']?.title ?? ''">
          <i v-if="turned?.get(row.index)" class="turned" :class="turned.get(row.index)">{{
            MARK[turned.get(row.index) ?? ''].sign
          }}</i><CellGlyph :cell="row.cell" :size="11" />
        </td>
        <td v-if="row.step" class="step" :title="row.step.sequence">
          {{ row.step.sequence }} <b>{{ row.step.number }}</b>
        </td>
        <td v-if="isNamed" class="name">{{ row.label }}</td>
        <td v-for="c in columns" :key="c.key" :class="{ side: !c.isInput }">
          <template v-if="c.isInput">{{ row.inputs[c.at] }}</template>
          <template v-else-if="row.wrong[c.at]"
            >{{ row.expected[c.at] }} <b :class="{ undef: /[xz]/.test(row.actual[c.at]) }">{{ row.actual[c.at] }}</b></template
          >
          <template v-else>{{ row.expected[c.at] === '-' ? '–' : row.expected[c.at] }}</template>
        </td>
        <td v-for="p in probes" :key="p.pin" class="side probe">{{ p.values.get(row.index) ?? '' }}</td>
        <td v-if="runs" class="side run">{{ row.run === 'fresh' ? '' : row.run.replace('[0]', '') }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.eg {
  font-weight: 400;
  color: var(--ink-3);
}
tr.chosen td {
  background: var(--lacquer-tint);
}
.run {
  font: 11px var(--sans);
  color: var(--undef-text);
}
.step {
  text-align: left;
  font: 11.5px var(--sans);
  color: var(--ink-2);
  max-width: 96px;
  overflow: hidden;
  text-overflow: ellipsis;
}
table.cases .step b {
  color: var(--ink);
  font: 12.5px var(--mono);
}
table.cases .name {
  text-align: left;
  font: 12.5px var(--sans);
}
.turned {
  font: 700 12px var(--mono);
  font-style: normal;
  color: var(--pass-text);
  margin-right: 2px;
}
.turned.wrong,
.turned.apart {
  color: var(--fail-text);
}
.probe {
  color: var(--lacquer);
  max-width: 72px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.follows {
  opacity: 0.4;
}
td svg {
  vertical-align: -1px;
}
</style>
