<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { computed, nextTick, ref } from 'vue'

import type { BoardStart, LearnerStart } from '../../api/schema'
import { told } from '../../shared/attempt'
import { useKeys } from '../../shared/keys'
import TextEditor from '../../shared/TextEditor.vue'
import { isBox, wireName } from '../circuit/model'
import SpecMessages from '../spec/SpecMessages.vue'
import { type Heard, type Language, languageOf, type useBoard } from './board'
import BoardDrawing from './BoardDrawing.vue'
import BoardStatement from './BoardStatement.vue'
import ChosenLine from './ChosenLine.vue'
import { lineOf, withLine } from './lines'
import { tidied, withFold, withPlace, withRemark, withRemarkAt } from './looks'
import { asPng, asSvg, saveAs } from './picture'

type Board = ReturnType<typeof useBoard<BoardStart | LearnerStart, Heard>>

const props = defineProps<{
  board: Board
  chosenCase: number | null
  probes: number[]
  wrong: Map<string, string>
  parted?: Set<string>
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
const chosenLine = ref<InstanceType<typeof ChosenLine>>()

const names = computed(() => {
  const found = new Set(start.value?.ports.map((p) => p.name))
  for (const name of Object.values(drawn.value?.circuit.names ?? {})) if (!name.includes('.')) found.add(name.replace(/\[.*$/, ''))
  return [...found].sort()
})
const parts = computed(() => [
  ...(start.value?.parts ?? []),
  ...(start.value?.blocks ?? []).map((f) => f.replace(/^.*\//, '').replace(/\.\w+$/, '')),
])
/** The pins of the chosen line's box; none where it is a gate. */
const pins = computed(() => {
  const box = drawn.value?.circuit.parts.find((p) => p.line === line.value && p.within < 0 && isBox(p))
  return (box?.pins ?? []).map((p) => ({ name: p.name, side: p.side === 'in' ? ('left' as const) : ('right' as const) }))
})
const isWiring = computed(() => (props.language ?? 'wiring') === 'wiring')
const mode = computed(() => (isWiring.value ? 'wiring' : props.language === 'vhd' ? 'vhdl' : 'verilog'))

/** Words in quotes are a remark; all else is put to the circuit. */
async function say(said: string): Promise<void> {
  const words = /^"([^"]*)"?$/.exec(said.trim())
  if (words) {
    text.value = withRemark(text.value, words[1], 20, 0)
    statement.value?.clear()
    return
  }
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
  const isName = /^[A-Za-z_][\w$]*(\[[\d.]+\])?$/.test(name)
  if (isName && chosenLine.value?.point(name)) return
  if (statement.value?.isBegun() && isName) statement.value.point(name, false)
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
async function makeBlock(name: string): Promise<void> {
  await told(async () => {
    const at = await state(name, 'block', lines.value)
    if (at) lines.value = [at]
  })
}
async function openBlock(): Promise<void> {
  await told(async () => {
    if (await state('', 'open', [line.value])) lines.value = []
  })
}
/** Chosen lines are copied as text, for any circuit or file; they are pasted with names of their own. */
const COPIED = 'board/copied'
function copy(): void {
  const copied = lines.value
    .map((n) => lineOf(text.value, n))
    .filter((l) => l.includes('<-'))
    .join('\n')
  if (!copied) return
  localStorage.setItem(COPIED, copied)
  void navigator.clipboard?.writeText(copied).catch(() => undefined) // not everywhere allowed; the board has it
}
async function paste(): Promise<void> {
  const copied = localStorage.getItem(COPIED)
  if (!copied || !isWiring.value) return
  await told(async () => {
    const at = await state(copied, 'paste')
    if (at) lines.value = copied.split('\n').map((_, i) => at + i)
  })
}
const isPart = computed(() => isWiring.value && line.value > 0 && lineOf(text.value, line.value).includes('<-'))
function save(): void {
  saveAs(`${start.value?.unit ?? 'circuit'}.${props.language ?? 'wiring'}`, new Blob([text.value], { type: 'text/plain' }))
}
async function open(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) {
    if (props.language) emit('language', languageOf(file.name))
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
  { key: 'Ctrl+c', label: 'copy the chosen lines', act: copy },
  { key: 'Ctrl+v', label: 'paste them here', act: () => void paste() },
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
        :parted="parted"
        :limits="{ gates: start.max_gates, levels: start.max_levels }"
        @line="choose"
        @probe="touch"
        @point="(name, isOutput) => statement?.point(name, isOutput)"
        @lines="(found) => (lines = found)"
        @fold="(at, isFolded) => (text = withFold(text, at, isFolded))"
        @place="(at, x, y) => (text = withPlace(text, at, x, y))"
        @remark="(at, x, y) => (text = withRemarkAt(text, at, x, y))"
        @tidy="text = tidied(text)"
      >
        <template #tools>
          <slot name="drawing-tools"></slot>
          <Button size="small" @click="picture('svg')">SVG</Button>
          <Button size="small" @click="picture('png')">PNG</Button>
        </template>
      </BoardDrawing>
      <slot name="beside"></slot>
      <ChosenLine
        v-if="isPart"
        ref="chosenLine"
        :text="text"
        :lines="lines"
        :names="names"
        :pins="pins"
        @change="(now) => (text = now)"
        @block="makeBlock"
        @open="openBlock"
        @drop="dropLine"
      />
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
</style>
