<script setup lang="ts">
import { computed, ref } from 'vue'

import type { SpecPreview, TableRow } from '../../api/schema'
import BaseButton from '../../shared/BaseButton.vue'
import { isLong } from '../../shared/values'
import ValueText from '../../shared/ValueText.vue'

/** What is right: every case as the sources say it together, or one of them alone. `table` is null while there never was one. */
const props = defineProps<{ table: SpecPreview | null; isOld: boolean }>()
const SHOWN = 256
const source = ref(-1)
const inputs = computed(() => props.table?.ports.filter((p) => p.direction === 'in') ?? [])
const outputs = computed(() => props.table?.ports.filter((p) => p.direction === 'out') ?? [])
const rows = computed(() => props.table?.rows.slice(0, SHOWN) ?? [])
const isClocked = computed(() => !!props.table?.sequences.length)
const isNamed = computed(() => !!props.table?.rows[0]?.label)
const apart = computed(() => rows.value.filter((r) => !r.agrees).length)
/** An output's value; where sources disagree, what each says. */
function says(row: TableRow, i: number): string {
  if (source.value >= 0) return row.sources[source.value]?.[i] ?? ''
  if (row.agrees) return row.outputs[i]
  return [...new Set(row.sources.map((s) => s[i]).filter((v) => v !== '-'))].join(' / ')
}
</script>

<template>
  <section class="compartment table">
    <div class="row spread">
      <span class="caption">What is right</span>
      <span v-if="table?.sources.length" class="row sources">
        <button type="button" :class="{ here: source === -1 }" @click="source = -1">together</button>
        <button v-for="(s, i) in table.sources" :key="s" type="button" :class="{ here: source === i }" @click="source = i">{{ s }}</button>
      </span>
    </div>
    <p v-if="apart" class="tag fail">the sources disagree in {{ apart }} of the rows shown</p>
    <div v-if="table" class="scroll" tabindex="0" role="region" aria-label="what is right, by cases" :class="{ old: isOld }">
      <table class="cases">
        <thead>
          <tr>
            <th v-if="isClocked" scope="col"><span class="unseen">step</span></th>
            <th v-if="isNamed">check</th>
            <th v-for="p in [...inputs, ...outputs]" :key="p.name" :class="{ side: p.direction === 'out' }">
              {{ p.name }}<BaseButton v-if="isLong(p)" :port="p" />
            </th>
          </tr>
        </thead>
        <tbody>
          <template v-for="r in rows" :key="r.index">
            <tr v-if="r.step?.number === 1" class="sequence">
              <th :colspan="inputs.length + outputs.length + 1">{{ r.step.sequence }}</th>
            </tr>
            <tr :class="{ apart: !r.agrees }">
              <td v-if="r.label" class="check">{{ r.label }}</td>
              <td v-if="r.step" class="number">{{ r.step.number }}</td>
              <td v-for="(v, i) in r.inputs" :key="i"><ValueText :digits="v" :port="inputs[i]" /></td>
              <td v-for="(_, i) in r.outputs" :key="`o${i}`" class="side" :class="{ care: /-/.test(says(r, i)) }">
                <ValueText :digits="says(r, i)" :port="outputs[i]" />
              </td>
            </tr>
          </template>
        </tbody>
      </table>
      <p v-if="table.cases > rows.length" class="quiet small">and {{ table.cases - rows.length }} more cases</p>
    </div>
    <p v-else class="empty">The table appears when the text has no errors.</p>
  </section>
</template>

<style scoped>
.table {
  display: flex;
  flex-direction: column;
  gap: 8px;
  min-height: 0;
}
.scroll {
  overflow: auto;
  min-height: 0;
}
.scroll thead th {
  position: sticky;
  top: 0;
  background: var(--paper);
}
table.cases .sequence th {
  text-align: left;
  color: var(--lacquer);
  padding-top: 10px;
}
table.cases .check {
  text-align: left;
}
.number {
  color: var(--ink-3);
}
.old {
  opacity: 0.55;
}
.apart td {
  background: var(--fail-tint);
  color: var(--fail-text);
}
.care {
  color: var(--ink-3);
}
.sources button {
  border: 0;
  background: none;
  border-radius: 5px;
  padding: 1px 7px;
  cursor: pointer;
  color: var(--ink-2);
  font-size: 12px;
}
.sources .here {
  background: var(--lacquer-tint);
  color: var(--lacquer);
}
.side {
  display: table-cell;
}
</style>
