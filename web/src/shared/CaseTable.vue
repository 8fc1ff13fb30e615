<script setup lang="ts">
import { computed, onMounted, onUpdated, ref } from 'vue'

import type { CaseRow } from '../api/schema'
import type { Probe } from './probe'
import CellGlyph from './CellGlyph.vue'
import BaseButton from './BaseButton.vue'
import { showsBits } from './bits'
import { isLong, roomOf, type PortKind } from './values'
import ValueText from './ValueText.vue'
import { heads } from './words'

const props = defineProps<{
  inputs: string[]
  outputs: string[]
  rows: CaseRow[]
  /** The ports of both, where their values may be long. */
  ports?: PortKind[]
  /** Whether shortened names of inputs are explained below. */
  legend?: boolean
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
/** As many characters as stand beside each other in a pane; and as many outputs as may be asked for first. */
const ROOM = 64
const FEW = 3
const ports = computed(() => new Map(props.ports?.map((p) => [p.name, p])))
const inputHeads = computed(() => (props.full ? props.inputs : heads(props.inputs)))
const isShortened = computed(() => props.legend && inputHeads.value.some((h, i) => h !== props.inputs[i]))
const isRoomy = computed(() => {
  const room = (name: string): number => roomOf(ports.value.get(name), name, showsBits.value)
  const inputs = props.inputs.reduce((sum, name, i) => sum + Math.max(room(name), inputHeads.value[i].length) + 2, 0)
  return (
    props.inputs.length + props.outputs.length > WIDE || inputs + props.outputs.reduce((sum, name) => sum + 2 * room(name) + 2, 0) > ROOM
  )
})
/** Where there is little room: inputs that are the same in all these rows, said once above them. */
const same = computed(() => {
  if (!isRoomy.value || props.rows.length < 2) return []
  return props.inputs
    .map((name, at) => ({ name, digits: props.rows[0].inputs[at], at }))
    .filter(({ digits, at }) => props.rows.every((r) => r.inputs[at] === digits))
})
/** Inputs, then outputs. Where these are too many for one look, outputs stand first, and of many those that are wrong. */
const columns = computed<Column[]>(() => {
  const told = new Set(same.value.map((s) => s.at))
  const inputs = props.inputs
    .map((name, at) => ({ key: `i${at}`, name, head: inputHeads.value[at], at, isInput: true }))
    .filter((c) => !told.has(c.at))
  const outputs = isNamed.value ? [] : props.outputs.map((name, at) => ({ key: `o${at}`, name, head: name, at, isInput: false }))
  if (!isRoomy.value) return [...inputs, ...outputs]
  const wrong = outputs.filter((o) => props.rows.some((r) => r.wrong[o.at]))
  if (props.inputs.length + props.outputs.length > WIDE) return [...(wrong.length ? wrong : outputs.slice(0, FEW)), ...inputs]
  return [...wrong, ...outputs.filter((o) => !wrong.includes(o)), ...inputs]
})
/** What stays in sight at the left while a wide table is moved: what comes before the values, and the first outputs. */
const table = ref<HTMLTableElement>()
const stays = computed(() => (isRoomy.value ? [props.glyphs, isClocked.value, isNamed.value].filter(Boolean).length + 1 : 0))
function place(): void {
  const cells = [...(table.value?.tHead?.rows[0]?.cells ?? [])]
  let left = 0
  for (const [n, cell] of cells.slice(0, stays.value).entries()) {
    table.value?.style.setProperty(`--left-${n}`, `${left}px`)
    left += cell.offsetWidth
  }
}
onMounted(place)
onUpdated(place)
/** How a cell that stays is marked, by its place among those at the left. */
function stay(n: number): Record<string, boolean> {
  return { stays: n < stays.value, [`at-${n}`]: n < stays.value }
}
const before = computed(() => [props.glyphs, isClocked.value, isNamed.value].filter(Boolean).length)
</script>

<template>
  <p v-if="same.length" class="same">
    {{ words?.['in-all-rows'] ?? 'in all of these' }}
    <span v-for="s in same" :key="s.name" class="one"
      ><i>{{ s.name }}</i> <code><ValueText :digits="s.digits" :port="ports.get(s.name)" /></code
    ></span>
  </p>
  <table ref="table" class="cases" :class="{ roomy: isRoomy }">
    <thead>
      <tr>
        <th v-if="glyphs" scope="col" :class="stay(0)">
          <span class="unseen">{{ words?.outcome ?? 'outcome' }}</span>
        </th>
        <th v-if="isClocked" class="step" :class="stay(glyphs ? 1 : 0)">{{ words?.step ?? 'step' }}</th>
        <th v-if="isNamed" class="step" :class="stay(before - 1)">check</th>
        <th v-for="(c, n) in columns" :key="c.key" :class="[{ side: !c.isInput }, stay(before + n)]" :title="c.name" scope="col">
          {{ c.head
          }}<template v-if="isLong(ports.get(c.name)) || !c.isInput"
            ><br /><BaseButton v-if="isLong(ports.get(c.name))" :port="ports.get(c.name)!" /><span v-if="!c.isInput" class="eg">
              {{ words?.['expected-got'] ?? 'exp got' }}</span
            ></template
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
        <td v-if="glyphs" :class="[{ follows: row.step?.follows }, stay(0)]" :title="MARK[turned?.get(row.index) ?? '']?.title ?? ''">
          <i v-if="turned?.get(row.index)" class="turned" :class="turned.get(row.index)">{{
            MARK[turned.get(row.index) ?? ''].sign
          }}</i><CellGlyph :cell="row.cell" :size="11" />
        </td>
        <td v-if="row.step" class="step" :class="stay(glyphs ? 1 : 0)" :title="row.step.sequence">
          {{ row.step.sequence }} <b>{{ row.step.number }}</b>
        </td>
        <td v-if="isNamed" class="name" :class="stay(before - 1)">{{ row.label }}</td>
        <td v-for="(c, n) in columns" :key="c.key" :class="[{ side: !c.isInput }, stay(before + n)]">
          <ValueText v-if="c.isInput" :digits="row.inputs[c.at]" :port="ports.get(c.name)" />
          <template v-else-if="row.wrong[c.at]"
            ><ValueText :digits="row.expected[c.at]" :port="ports.get(c.name)" :expected="row.actual[c.at]" />{{ ' ' }}
            <b :class="{ undef: /[xz]/.test(row.actual[c.at]) }"
              ><ValueText :digits="row.actual[c.at]" :port="ports.get(c.name)" :expected="row.expected[c.at]" /></b
          ></template>
          <ValueText v-else :digits="row.expected[c.at]" :port="ports.get(c.name)" />
        </td>
        <td v-for="p in probes" :key="p.pin" class="side probe">{{ p.values.get(row.index) ?? '' }}</td>
        <td v-if="runs" class="side run">{{ row.run === 'fresh' ? '' : row.run.replace('[0]', '') }}</td>
      </tr>
    </tbody>
  </table>
  <p v-if="isShortened" class="same">
    <span v-for="(name, i) in inputs" :key="name" class="one"
      ><b>{{ inputHeads[i] }}</b> {{ name }}</span
    >
  </p>
</template>

<style scoped>
thead th {
  position: sticky;
  top: 0;
  z-index: 2;
  background: var(--paper);
}
.roomy .stays {
  position: sticky;
  z-index: 1;
  background: var(--paper);
}
.roomy thead .stays {
  z-index: 3;
}
.roomy .at-0 {
  left: var(--left-0, 0);
}
.roomy .at-1 {
  left: var(--left-1, 0);
}
.roomy .at-2 {
  left: var(--left-2, 0);
}
.roomy .at-3 {
  left: var(--left-3, 0);
}
.same {
  margin: 0 0 4px;
  font-size: 12px;
  color: var(--ink-2);
}
.same .one {
  display: inline-block;
  margin-left: 8px;
}
.same i {
  font-style: normal;
  color: var(--ink-3);
}
@media print {
  thead th,
  .roomy .stays {
    position: static;
  }
}
.eg {
  font-weight: 400;
  color: var(--ink-3);
}
tr.chosen td {
  background: var(--lacquer-tint);
}
.run {
  font: 12px var(--sans);
  color: var(--undef-text);
}
.step {
  text-align: left;
  font: 12px var(--sans);
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
