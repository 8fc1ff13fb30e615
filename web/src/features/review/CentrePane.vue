<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { LineNote, RepairView, ReviewView } from '../../api/schema'
import PartActs from '../board/PartActs.vue'
import { looksOf } from '../board/looks'
import { useSaidLayout } from '../board/saidLayout'
import { type Layout, layOut } from '../circuit/layout'
import CircuitPane from '../circuit/CircuitPane.vue'
import { type Indexed, wireName } from '../circuit/model'
import { useProbes } from '../circuit/probes'
import WaveView from '../waves/WaveView.vue'
import type { Cases } from './cases'
import { type CentreView, VIEWS } from './centre'
import type { Scratch } from './scratch'
import ScratchBar from './ScratchBar.vue'
import ScratchPane from './ScratchPane.vue'
import SourceView from './SourceView.vue'

/** What the hand-in is: its circuit, waves, printed text or source, or a scratch copy of it. */
const props = defineProps<{
  review: ReviewView
  taskId: number
  views: CentreView[]
  centre: CentreView
  cases: Cases
  scratch: Scratch
  isScratch: boolean
  circuit: ReturnType<typeof useProbes>
  changes: RepairView['changes']
}>()
const emit = defineEmits<{ view: [view: CentreView]; try: []; leave: []; quote: [text: string] }>()

interface Stretch {
  file: string
  from: number
  to: number
}
const lines = ref<Stretch | null>(null)
watch(
  () => props.review.handin_id,
  () => (lines.value = null),
)
/** What is said of lines: the findings, and at its own line what would make every case right. */
const notes = computed<LineNote[]>(() => [
  ...props.review.notes,
  ...props.changes.map((c) => ({
    file: c.file,
    line: c.line,
    severity: 'change',
    text: `${c.text.replaceAll('`', '')} makes every case right`,
  })),
])
const canTry = computed(() => props.review.status === 'checked' && !props.isScratch && props.review.language !== 'vcd')
function toSource(file: string, line: number): void {
  lines.value = { file, from: line, to: line }
  emit('view', 'source')
}
/** A line tried otherwise, from below the drawing. */
function tryLine(file: string, line: number, text: string): void {
  props.scratch.setLine(file, line, text)
  emit('try')
}
function stretchOf(part: { file: string; line: number; end_line: number }): Stretch | null {
  return part.line ? { file: part.file, from: part.line, to: Math.max(part.line, part.end_line) } : null
}
/** The drawing is changed: in the scratch copy, whose bar says what comes of it. */
function changeDrawn(now: string): void {
  if (lines.value) props.scratch.set(lines.value.file, now)
  emit('try')
}
const layOutAsSaid = useSaidLayout()
/** A drawn circuit is laid out as its text says, all else by itself. */
async function layOutHandin(at: Indexed, folded: Set<number>, only: Set<number> | null): Promise<Layout | null> {
  const files = new Set(at.circuit.parts.filter((p) => p.file && p.within < 0 && p.line).map((p) => p.file))
  const [file] = files
  if (files.size !== 1 || !file.endsWith('.wiring')) return layOut(at, folded, only)
  const text = props.scratch.text(file)
  return layOutAsSaid(at, text, looksOf(text), folded, only)
}
const acts = ref<InstanceType<typeof PartActs>>()
/** Names that a part of a drawn circuit may be given. */
const wires = computed(() => {
  const names = Object.values(props.circuit.at.value?.circuit.names ?? {}).filter((n) => !n.includes('.'))
  return [...new Set(names.map((n) => n.replace(/\[.*$/, '')))].sort()
})
/** A wire is pointed at: an input that wants one takes it, else it is looked at. */
function touch(pin: number): void {
  const at = props.circuit.at.value
  const found = at?.pin.get(pin)
  if (!at || !found || !acts.value?.point(wireName(at, found))) props.circuit.turnProbe(pin)
}
</script>

<template>
  <section class="compartment middle">
    <div v-if="views.length > 1" class="views">
      <div class="tabs" role="tablist" aria-label="what the hand-in is">
        <button
          v-for="v in views"
          :key="v"
          type="button"
          role="tab"
          :aria-selected="centre === v"
          :class="{ here: centre === v }"
          @click="emit('view', v)"
        >
          {{ VIEWS[v].label }} <span class="key">{{ VIEWS[v].key }}</span>
        </button>
      </div>
      <button v-if="canTry" type="button" class="try" @click="(emit('view', 'source'), emit('try'))">
        Try a change <span class="key">e</span>
      </button>
    </div>
    <ScratchBar
      v-if="isScratch"
      :scratch="scratch"
      :passed="review.passed"
      :total="review.total"
      @quote="(text) => emit('quote', text)"
      @leave="emit('leave')"
    />
    <p v-else-if="scratch.isLeft.value" class="small waiting" role="status">
      a scratch copy of yours is here<template v-if="scratch.from.value">, from {{ scratch.from.value }}</template
      >: <button type="button" class="link" @click="(emit('view', 'source'), emit('try'))">open it</button>
      <button type="button" class="link" @click="scratch.reset()">drop it</button>
    </p>
    <pre v-if="centre === 'output'" class="output" tabindex="0" role="region" aria-label="what the bench printed">{{ review.output }}</pre>
    <WaveView
      v-else-if="centre === 'waves'"
      :task-id="taskId"
      :handin="review.handin_id"
      :step="cases.chosenCase.value"
      @step="cases.choose"
    />
    <CircuitPane
      v-else-if="centre === 'circuit'"
      :at="circuit.at.value"
      :trouble="circuit.trouble.value"
      :review="review"
      :rows="cases.rows.value"
      :files="scratch.files.value"
      :text="scratch.text"
      :task-id="taskId"
      :chosen-case="cases.chosenCase.value"
      :probes="circuit.probes.value"
      :lines="lines"
      :lay-out="layOutHandin"
      @probe="touch"
      @part="(p) => (lines = stretchOf(p))"
      @source="toSource"
      @edit="tryLine"
    >
      <template #acts>
        <PartActs
          v-if="lines && lines.from === lines.to && lines.file.endsWith('.wiring')"
          ref="acts"
          :text="scratch.text(lines.file)"
          :line="lines.from"
          :names="wires"
          @change="changeDrawn"
        />
      </template>
    </CircuitPane>
    <ScratchPane v-else-if="isScratch" :review="review" :scratch="scratch" :file="lines?.file ?? ''" />
    <SourceView
      v-else
      :files="review.files"
      :notes="notes"
      :stretch="lines"
      @line="(file, line) => (lines = { file, from: line, to: line })"
    />
  </section>
</template>

<style scoped>
.middle {
  display: flex;
  flex-direction: column;
  gap: 8px;
  min-height: 0;
  padding-top: 8px;
}
.views,
.tabs {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.views .try {
  margin-left: auto;
}
.views button {
  border: 0;
  background: none;
  padding: 2px 8px 4px;
  border-bottom: 2px solid transparent;
  cursor: pointer;
  color: var(--ink-2);
}
.views .try {
  margin-left: auto;
  color: var(--lacquer);
}
.views button.here {
  border-color: var(--lacquer);
  color: var(--ink);
  font-weight: 600;
}
.waiting {
  color: var(--undef-text);
}
.output {
  flex: 1;
  overflow: auto;
  margin: 0;
  font: 12.5px/1.5 var(--mono);
  background: var(--rice);
  border-radius: 6px;
  padding: 8px 10px;
}
</style>
