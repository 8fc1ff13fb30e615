<script setup lang="ts">
import { Button, Dropdown, Menu, MenuItem } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'

import { post } from '../api/client'
import { GATES, gateOf, lineOf, tidied, useBoard, withGate, withLine, withPlace } from '../features/board/board'
import BoardDrawing from '../features/board/BoardDrawing.vue'
import BoardStatement from '../features/board/BoardStatement.vue'
import { useChosenWires } from '../features/circuit/probes'
import SpecMessages from '../features/spec/SpecMessages.vue'
import { told } from '../shared/attempt'
import CaseTable from '../shared/CaseTable.vue'
import { useKeys } from '../shared/keys'
import { useLab } from '../shared/lab'
import TextEditor from '../shared/TextEditor.vue'

const store = useLab()
const { start, text, view, drawn, isOld, state, stated, trouble } = useBoard(() => store.taskId)
const editor = ref<InstanceType<typeof TextEditor>>()
const statement = ref<InstanceType<typeof BoardStatement>>()
const chosenCase = ref<number | null>(null)
const line = ref(0)
const steps = ref<string[]>([])

const inputs = computed(() => start.value?.ports.filter((p) => p.direction === 'in') ?? [])
const outputs = computed(() => start.value?.ports.filter((p) => p.direction === 'out') ?? [])
const rows = computed(() => view.value?.rows ?? [])
watch(rows, (now) => {
  if (now.length && !now.some((r) => r.index === chosenCase.value)) chosenCase.value = (now.find((r) => r.cell !== 'p') ?? now[0]).index
})
const { probes, columns, turnProbe } = useChosenWires(drawn)
const names = computed(() => {
  const found = new Set([...inputs.value, ...outputs.value].map((p) => p.name))
  for (const name of Object.values(drawn.value?.circuit.names ?? {})) if (!name.includes('.')) found.add(name.replace(/\[.*$/, ''))
  return [...found].sort()
})
const parts = computed(() => [
  ...(start.value?.parts ?? []),
  ...(start.value?.blocks ?? []).map((f) => f.replace(/^.*\//, '').replace(/\.\w+$/, '')),
])
const verdict = computed(() => {
  const v = view.value
  if (!v || !rows.value.length) return ''
  return v.passed === v.total ? `right in all ${v.total} cases` : `right in ${v.passed} of ${v.total} cases`
})

async function say(said: string): Promise<void> {
  await told(async () => {
    const at = await state(said, start.value?.only_gates ?? [])
    if (!at) return
    statement.value?.clear()
    line.value = at
  })
}
function choose(at: number): void {
  line.value = at
  editor.value?.goTo({ line: at, column: 1 }, false)
}
function dropLine(): void {
  if (!line.value || /^\s*(wiring|takes|gives|end)\b/.test(lineOf(text.value, line.value))) return
  text.value = withLine(text.value, line.value, null)
  line.value = 0
}
const isPart = computed(() => line.value > 0 && lineOf(text.value, line.value).includes('<-'))
function rewrite(value: string): void {
  const indent = /^\s*/.exec(lineOf(text.value, line.value))?.[0] ?? ''
  text.value = withLine(text.value, line.value, value.trim() ? indent + value.trim() : null)
}
function step(by: number): void {
  const at = rows.value.findIndex((r) => r.index === chosenCase.value)
  chosenCase.value = rows.value[Math.min(rows.value.length - 1, Math.max(0, at + by))]?.index ?? null
}
/** Keys that lie side by side, for the bits of the inputs from the left. */
const FLIPS = ['q', 'w', 'e', 'r', 't', 'u', 'i', 'o', 'p']
const bits = computed(() => inputs.value.reduce((sum, p) => sum + p.width, 0))
const canFlip = computed(() => !start.value?.clocked && start.value?.cases === 2 ** bits.value && rows.value.length === start.value?.cases)
/** The case in which one bit of the inputs is the other one. */
function flip(n: number): void {
  if (!canFlip.value || chosenCase.value === null || n >= bits.value) return
  chosenCase.value = chosenCase.value ^ (1 << (bits.value - 1 - n))
}
async function form(kind: 'two-level' | 'nand' | 'nor'): Promise<void> {
  await told(async () => {
    const made = await post(`/tasks/${store.taskId}/board/form`, { form: kind })
    text.value = made.text
    steps.value = made.steps
  })
}
function save(): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([text.value], { type: 'text/plain' }))
  link.download = `${start.value?.unit ?? 'circuit'}.wiring`
  link.click()
  URL.revokeObjectURL(link.href)
}
async function open(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) text.value = await file.text()
  input.value = ''
}
useKeys([
  { key: 's', label: 'say something to the board', act: () => statement.value?.focus() },
  { key: 'j', label: 'next case', act: () => step(1) },
  { key: 'k', label: 'case before', act: () => step(-1) },
  { key: 'Delete', label: 'take the chosen line out', act: dropLine },
  { key: 'Ctrl+z', label: 'undo, in text and drawing alike', act: () => editor.value?.undo() },
  { key: 'Ctrl+y', label: 'redo', act: () => editor.value?.redo() },
  { key: 'Ctrl+s', label: 'save the wiring list as a file', always: true, act: save },
  ...FLIPS.map((key, n) => ({ key, label: `turn input bit ${n + 1}`, act: () => flip(n) })),
])
</script>

<template>
  <p v-if="trouble" class="trouble">{{ trouble }}</p>
  <main v-if="start" class="page">
    <section class="compartment text" aria-label="text">
      <div class="row spread">
        <span class="caption">Text</span>
        <span class="row">
          <label class="file">Open<input type="file" accept=".wiring,.txt" @change="open" /></label>
          <Button size="small" @click="save">Save <span class="k">Ctrl+S</span></Button>
        </span>
      </div>
      <TextEditor
        ref="editor"
        language="wiring"
        label="wiring list"
        :text="text"
        :messages="view?.messages ?? []"
        @change="(value) => (text = value)"
        @line="(at) => (line = at)"
      />
      <SpecMessages :messages="view?.messages ?? []" fine="Everything is connected." @go="(m) => editor?.goTo(m)" />
    </section>
    <section class="compartment middle" aria-label="drawing">
      <BoardDrawing
        :at="drawn"
        :view="view"
        :is-old="isOld"
        :ports="start.ports"
        :chosen-case="chosenCase"
        :line="line"
        :probes="probes"
        :text="text"
        :limits="{ gates: start.max_gates, levels: start.max_levels }"
        @line="choose"
        @probe="turnProbe"
        @place="(at, x, y) => (text = withPlace(text, at, x, y))"
        @tidy="text = tidied(text)"
      />
      <div v-if="isPart" class="chosen-line">
        <span class="number mono">{{ line }}</span>
        <input
          class="mono"
          :value="lineOf(text, line).trim()"
          aria-label="the chosen line"
          spellcheck="false"
          @change="rewrite(($event.target as HTMLInputElement).value)"
        />
        <span v-if="gateOf(text, line)" class="kinds" role="group" aria-label="another gate">
          <button
            v-for="g in GATES"
            :key="g"
            type="button"
            class="kind"
            :class="{ own: g === gateOf(text, line) }"
            :aria-pressed="g === gateOf(text, line)"
            @click="text = withGate(text, line, g)"
          >
            {{ g }}
          </button>
        </span>
        <Button size="small" @click="dropLine">Take out <span class="k">Del</span></Button>
      </div>
      <BoardStatement ref="statement" :names="names" :parts="parts" :trouble="stated.trouble" :hint="stated.hint" @say="say" />
    </section>
    <section class="compartment cases-side" aria-label="cases">
      <div class="row spread">
        <span class="caption" :class="{ good: view && view.passed === view.total && rows.length }">{{ verdict || 'Cases' }}</span>
        <Dropdown v-if="!start.clocked" :trigger="['click']">
          <Button size="small">Form ▾</Button>
          <template #overlay>
            <Menu>
              <MenuItem key="two-level" @click="form('two-level')">Two levels</MenuItem>
              <MenuItem key="nand" @click="form('nand')">NAND alone</MenuItem>
              <MenuItem key="nor" @click="form('nor')">NOR alone</MenuItem>
            </Menu>
          </template>
        </Dropdown>
      </div>
      <p v-if="canFlip" class="small quiet flips">
        <template v-for="n in Math.min(bits, FLIPS.length)" :key="n"
          ><kbd>{{ FLIPS[n - 1] }}</kbd></template
        >
        turn the inputs
      </p>
      <div class="scroll" tabindex="0" role="region" aria-label="table of cases">
        <CaseTable
          v-if="rows.length"
          :inputs="inputs.map((p) => p.name)"
          :outputs="outputs.map((p) => p.name)"
          :rows="rows"
          :chosen="chosenCase"
          :probes="columns"
          glyphs
          @choose="(n) => (chosenCase = n)"
        />
        <p v-else class="empty">The table fills as soon as the text can be run.</p>
        <p v-if="view && rows.length && rows.length < view.total" class="small quiet">{{ rows.length }} of {{ view.total }} cases shown</p>
      </div>
      <ol v-if="steps.length" class="steps small">
        <li v-for="(s, i) in steps" :key="i">{{ s.replaceAll('`', '') }}</li>
      </ol>
    </section>
  </main>
  <p v-else-if="!trouble" class="empty">Loading…</p>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(240px, 300px) minmax(0, 1fr) minmax(240px, 320px);
  gap: var(--gap);
  padding: var(--gap);
  flex: 1;
  min-height: 0;
}
.compartment {
  display: flex;
  flex-direction: column;
  gap: 8px;
  min-height: 0;
  min-width: 0;
}
.text > :deep(.editor) {
  flex: 1;
  min-height: 0;
}
.scroll {
  flex: 1;
  min-height: 0;
  overflow: auto;
}
.chosen-line {
  display: flex;
  gap: 8px;
  align-items: center;
}
.chosen-line input {
  flex: 1;
  min-width: 80px;
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 3px 8px;
  font-size: 12.5px;
  background: var(--rice);
}
.number {
  color: var(--ink-3);
  font-size: 12px;
}
.kinds {
  display: flex;
}
.kind {
  border: 1px solid var(--line);
  border-right-width: 0;
  background: var(--paper);
  font: 12px var(--mono);
  padding: 3px 6px;
  cursor: pointer;
  min-height: 24px;
}
.kind:first-child {
  border-radius: 6px 0 0 6px;
}
.kind:last-child {
  border-radius: 0 6px 6px 0;
  border-right-width: 1px;
}
.kind.own {
  background: var(--lacquer-tint);
  color: var(--lacquer);
  font-weight: 600;
}
.good {
  color: var(--pass-text);
}
.flips {
  margin: 0;
}
kbd {
  display: inline-block;
  min-width: 18px;
  text-align: center;
  border: 1px solid var(--line);
  border-radius: 4px;
  font: 12px var(--mono);
  margin-right: 3px;
  background: var(--rice);
}
.steps {
  margin: 0;
  padding-left: 20px;
  max-height: 30%;
  overflow: auto;
  border-top: 1px solid var(--line);
  padding-top: 6px;
}
</style>
