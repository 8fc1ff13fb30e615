<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { computed, nextTick, ref } from 'vue'

import type { BoardStart, LearnerStart } from '../../api/schema'
import { told } from '../../shared/attempt'
import { useKeys } from '../../shared/keys'
import TextEditor from '../../shared/TextEditor.vue'
import { wireName } from '../circuit/model'
import SpecMessages from '../spec/SpecMessages.vue'
import { GATES, gateOf, type Heard, lineOf, tidied, type useBoard, withGate, withLine, withPlace } from './board'
import BoardDrawing from './BoardDrawing.vue'
import BoardStatement from './BoardStatement.vue'
import { asPng, asSvg, saveAs } from './picture'

type Board = ReturnType<typeof useBoard<BoardStart | LearnerStart, Heard>>
type Language = 'wiring' | 'v' | 'sv' | 'vhd'

const props = defineProps<{
  board: Board
  chosenCase: number | null
  probes: number[]
  wrong: Map<string, string>
  /** What stands under a picture, before the date. */
  caption: string
  language?: Language
}>()
const emit = defineEmits<{ probe: [pin: number]; language: [language: Language] }>()
const { start, text, view, drawn, isOld, state, stated } = props.board
const editor = ref<InstanceType<typeof TextEditor>>()
const statement = ref<InstanceType<typeof BoardStatement>>()
const middle = ref<HTMLElement>()
/** Numbers of the chosen lines, the last one chosen at the end. */
const lines = ref<number[]>([])
const line = computed(() => lines.value[lines.value.length - 1] ?? 0)
const blockName = ref('')

const names = computed(() => {
  const found = new Set(start.value?.ports.map((p) => p.name))
  for (const name of Object.values(drawn.value?.circuit.names ?? {})) if (!name.includes('.')) found.add(name.replace(/\[.*$/, ''))
  return [...found].sort()
})
const parts = computed(() => [
  ...(start.value?.parts ?? []),
  ...(start.value?.blocks ?? []).map((f) => f.replace(/^.*\//, '').replace(/\.\w+$/, '')),
])
const isWiring = computed(() => (props.language ?? 'wiring') === 'wiring')
const mode = computed(() => (isWiring.value ? 'wiring' : props.language === 'vhd' ? 'vhdl' : 'verilog'))

async function say(said: string): Promise<void> {
  await told(async () => {
    const at = await state(said)
    if (!at) return
    statement.value?.clear()
    lines.value = [at]
  })
}
function choose(at: number, isMore: boolean): void {
  lines.value = !isMore ? [at] : lines.value.includes(at) ? lines.value.filter((n) => n !== at) : [...lines.value, at]
  editor.value?.goTo({ line: at, column: 1 }, false)
}
/** A wire is pointed at: while something is being said its name goes there, else it becomes a column of the table. */
function touch(id: number): void {
  const at = drawn.value
  const pin = at?.pin.get(id)
  const name = at && pin ? wireName(at, pin) : ''
  if (statement.value?.isBegun() && /^[A-Za-z_][\w$]*(\[[\d.]+\])?$/.test(name)) statement.value.point(name, false)
  else emit('probe', id)
}
function dropLine(): void {
  if (!isPart.value) return
  let left = text.value
  for (const n of [...lines.value].sort((a, b) => b - a)) left = withLine(left, n, null)
  text.value = left
  lines.value = []
}
/** The chosen lines become a block of their own. */
async function makeBlock(): Promise<void> {
  await told(async () => {
    const at = await state(blockName.value.trim(), 'block', lines.value)
    if (!at) return
    lines.value = [at]
    blockName.value = ''
  })
}
async function openBlock(): Promise<void> {
  await told(async () => {
    if (await state('', 'open', [line.value])) lines.value = []
  })
}
/** Whether the chosen line uses a block that stands in this text. */
const isBlock = computed(() => {
  const used = /<-\s*([A-Za-z_][\w$]*)\s*\(/.exec(lineOf(text.value, line.value))?.[1]
  return !!used && new RegExp(`^\\s*wiring\\s+${used}\\b`, 'm').test(text.value)
})
const isPart = computed(() => isWiring.value && line.value > 0 && lineOf(text.value, line.value).includes('<-'))
function rewrite(value: string): void {
  const indent = /^\s*/.exec(lineOf(text.value, line.value))?.[0] ?? ''
  text.value = withLine(text.value, line.value, value.trim() ? indent + value.trim() : null)
}
function save(): void {
  saveAs(`${start.value?.unit ?? 'circuit'}.${props.language ?? 'wiring'}`, new Blob([text.value], { type: 'text/plain' }))
}
async function open(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) {
    const ending = file.name.replace(/^.*\./, '').toLowerCase()
    const language = { v: 'v', sv: 'sv', vhd: 'vhd', vhdl: 'vhd' }[ending] as Language | undefined
    if (props.language) emit('language', language ?? 'wiring')
    text.value = await file.text()
  }
  input.value = ''
}
/** The drawing as a file, with whose it is and when it was made. */
async function picture(kind: 'svg' | 'png'): Promise<void> {
  lines.value = [] // what is chosen is nothing of the circuit
  await nextTick()
  const svg = middle.value?.querySelector<SVGSVGElement>('.drawing > svg')
  if (!svg) return
  const written = asSvg(svg, `${props.caption}, ${new Date().toISOString().slice(0, 10)}`)
  const data = kind === 'svg' ? new Blob([written], { type: 'image/svg+xml' }) : await asPng(written)
  if (data) saveAs(`${start.value?.unit ?? 'circuit'}.${kind}`, data)
}
useKeys([
  { key: 's', label: 'say something to the board', act: () => statement.value?.focus() },
  { key: 'Delete', label: 'take the chosen line out', act: dropLine },
  { key: 'Ctrl+z', label: 'undo, in text and drawing alike', act: () => editor.value?.undo() },
  { key: 'Ctrl+y', label: 'redo', act: () => editor.value?.redo() },
  { key: 'Ctrl+s', label: 'save the text as a file', always: true, act: save },
])
</script>

<template>
  <main v-if="start" class="desk">
    <section class="compartment text" aria-label="text">
      <div class="row spread">
        <span class="caption">Text</span>
        <span class="row">
          <slot name="tools"></slot>
          <label class="file">Open<input type="file" accept=".wiring,.txt,.v,.sv,.vhd,.vhdl" @change="open" /></label>
          <Button size="small" @click="save">Save <span class="k">Ctrl+S</span></Button>
        </span>
      </div>
      <TextEditor
        ref="editor"
        :key="mode"
        :language="mode"
        :label="isWiring ? 'wiring list' : 'source'"
        :text="text"
        :messages="view?.messages ?? []"
        @change="(value) => (text = value)"
        @line="(at) => (lines = [at])"
      />
      <SpecMessages
        :messages="view?.messages ?? []"
        :fine="isWiring ? 'Everything is connected.' : 'It can be run.'"
        @go="(m) => editor?.goTo(m)"
      />
    </section>
    <section ref="middle" class="compartment" aria-label="drawing">
      <BoardDrawing
        :at="drawn"
        :view="view"
        :is-old="isOld"
        :ports="start.ports"
        :chosen-case="chosenCase"
        :lines="lines"
        :probes="probes"
        :text="text"
        :wrong="wrong"
        :limits="{ gates: start.max_gates, levels: start.max_levels }"
        @line="choose"
        @probe="touch"
        @point="(name, isOutput) => statement?.point(name, isOutput)"
        @place="(at, x, y) => (text = withPlace(text, at, x, y))"
        @tidy="text = tidied(text)"
      >
        <template #tools>
          <Button size="small" @click="picture('svg')">SVG</Button>
          <Button size="small" @click="picture('png')">PNG</Button>
        </template>
      </BoardDrawing>
      <div v-if="isPart" class="chosen-line">
        <span v-if="lines.length > 1" class="small">{{ lines.length }} lines</span>
        <span v-else class="number mono">{{ line }}</span>
        <input
          v-if="lines.length === 1"
          class="mono"
          :value="lineOf(text, line).trim()"
          aria-label="the chosen line"
          spellcheck="false"
          @change="rewrite(($event.target as HTMLInputElement).value)"
        />
        <span v-if="lines.length === 1 && gateOf(text, line)" class="kinds" role="group" aria-label="another gate">
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
        <Button v-if="isBlock && lines.length === 1" size="small" @click="openBlock">Open up</Button>
        <form v-if="lines.length > 1" class="row" @submit.prevent="makeBlock">
          <input v-model="blockName" class="mono name" aria-label="name of the block" placeholder="name" />
          <Button size="small" html-type="submit" :disabled="!blockName.trim()">Make a block</Button>
        </form>
        <Button size="small" @click="dropLine">Take out <span class="k">Del</span></Button>
      </div>
      <BoardStatement
        v-if="isWiring"
        ref="statement"
        :names="names"
        :parts="parts"
        :trouble="stated.trouble"
        :hint="stated.hint"
        @say="say"
      />
    </section>
    <section class="compartment cases-side" aria-label="cases"><slot name="cases"></slot></section>
  </main>
</template>

<style scoped>
.chosen-line form {
  flex: 1;
}
.chosen-line input.name {
  max-width: 180px;
}
.cases-side {
  min-width: 250px;
}
.cases-side :deep(.empty) {
  width: 220px;
  padding: 24px 0;
}
.desk {
  display: grid;
  grid-template-columns: 292px minmax(0, 1fr) fit-content(430px);
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
</style>
