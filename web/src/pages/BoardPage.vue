<script setup lang="ts">
import { Button, Dropdown, Menu, MenuItem, message } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'

import { get, post } from '../api/client'
import type { BoardStart, BoardView } from '../api/schema'
import { partedNames, useBeside } from '../features/board/beside'
import BesideDrawing from '../features/board/BesideDrawing.vue'
import { type BoardSource, languageOf, useBoard, verdictOf } from '../features/board/board'
import BoardDesk from '../features/board/BoardDesk.vue'
import BoardWaves from '../features/board/BoardWaves.vue'
import BoardLink from '../features/board/BoardLink.vue'
import { FLIPS, useCases } from '../features/board/cases'
import KnownBlocks from '../features/board/KnownBlocks.vue'
import { useChosenWires } from '../features/circuit/probes'
import { told } from '../shared/attempt'
import CaseTable from '../shared/CaseTable.vue'
import { useLab } from '../shared/lab'

const store = useLab()
const source = (): BoardSource<BoardStart, BoardView> => {
  const path = `/tasks/${store.taskId}/board` as const
  return {
    place: path,
    subject: `task ${store.taskId}/board`,
    begin: (signal) => get(path, { signal }),
    first: (start) => start.text,
    tryOut: (text, signal) => post(path, { text }, { signal }),
    state: (text, said) => post(`${path}/state`, { text, ...said }),
  }
}
const board = useBoard(source)
const { start, text, view, ran, drawn, isOld, trouble } = board
const steps = ref<string[]>([])
const isLinkOpen = ref(false)
const areBlocksOpen = ref(false)

const inputs = computed(() => start.value?.ports.filter((p) => p.direction === 'in') ?? [])
const outputs = computed(() => start.value?.ports.filter((p) => p.direction === 'out') ?? [])
const bits = computed(() => inputs.value.reduce((sum, p) => sum + p.width, 0))
const {
  other,
  view: both,
  drawn: pair,
  said: besideSaid,
} = useBeside(
  () => store.taskId,
  () => text.value,
)
/** While another circuit stands beside it, the cases are those in which both were looked at. */
const rows = computed(() => both.value?.one.rows ?? ran.value?.rows ?? [])
const { chosenCase, canFlip } = useCases(
  rows,
  () => (start.value?.clocked ? 0 : (start.value?.cases ?? 0)),
  () => bits.value,
  () => rows.value.find((r) => r.cell !== 'p')?.index,
)
const { probes, columns, turnProbe } = useChosenWires(drawn)
const wrong = computed(() => {
  const row = rows.value.find((r) => r.index === chosenCase.value)
  return new Map(outputs.value.flatMap((p, n) => (row?.wrong[n] ? [[p.name, row.expected[n]] as const] : [])))
})
const besidePlace = computed(() => Math.max(0, pair.value?.other.circuit.cases.indexOf(chosenCase.value ?? -1) ?? 0))
const parted = computed(() => (pair.value ? partedNames(pair.value.one, pair.value.other, besidePlace.value) : undefined))
watch(both, (now, before) => {
  if (now && !before && now.parts_in.length) chosenCase.value = now.parts_in[0]
})
/** The cases in which the two part, marked in the table. */
const apart = computed(() => (both.value ? new Map(both.value.parts_in.map((n) => [n, 'apart' as const])) : undefined))
const fileField = ref<HTMLInputElement>()
function keepBeside(): void {
  other.value = { name: 'as it was', text: text.value, language: 'wiring' }
}
async function openBeside(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) other.value = { name: file.name, text: await file.text(), language: languageOf(file.name) }
  input.value = ''
}
const verdict = computed(() => {
  const v = view.value
  if (!v || isOld.value || !rows.value.length) return ''
  return verdictOf(v.passed, v.total, start.value?.clocked)
})
/** The circuit as a file of the task: a model that the spec may name, or a block that every hand-in may use. */
async function keep(provided: boolean): Promise<void> {
  await put(`${start.value?.unit ?? 'circuit'}.wiring`, text.value, provided)
}
async function put(name: string, written: string, provided: boolean): Promise<void> {
  await told(async () => {
    const body = new FormData()
    body.append('file', new File([written], name, { type: 'text/plain' }))
    const before = store.task?.version
    const found = await post(`/tasks/${store.taskId}/files`, body, { query: { provided } })
    const how = provided ? 'may be used by every hand-in' : `stands beside the spec; the spec names it by model = "${name}"`
    const anew = found.version !== before ? `; this makes version ${found.version}: the class is to be checked again` : ''
    message.success(`${name} ${how}${anew}`, 8)
    await store.refresh()
  })
}
/** A file of another task becomes a block of this one. */
async function takeBlock(name: string, written: string): Promise<void> {
  areBlocksOpen.value = false
  await put(name, written, true)
  if (start.value && !start.value.blocks.includes(name)) start.value.blocks.push(name)
}
async function form(kind: 'two-level' | 'nand' | 'nor'): Promise<void> {
  await told(async () => {
    const made = await post(`/tasks/${store.taskId}/board/form`, { form: kind })
    text.value = made.text
    steps.value = made.steps
  })
}
</script>

<template>
  <p v-if="trouble" class="trouble">{{ trouble }}</p>
  <BoardDesk
    v-if="start"
    :board="board"
    :chosen-case="chosenCase"
    :probes="probes"
    :wrong="wrong"
    :parted="parted"
    :caption="store.task?.title ?? ''"
    @probe="turnProbe"
  >
    <template #beside>
      <BoardWaves
        v-if="ran?.waves.length && !other"
        :waves="ran.waves"
        :chosen="chosenCase"
        :class="{ old: isOld }"
        @choose="(n) => (chosenCase = n)"
      />
      <BesideDrawing
        v-if="other"
        :name="other.name"
        :said="besideSaid"
        :same="both?.differs === 0"
        :at="pair?.other ?? null"
        :place="besidePlace"
        :parted="parted ?? new Set()"
        :ports="start.ports"
        @close="other = null"
      />
    </template>
    <template #drawing-tools>
      <Dropdown :trigger="['click']">
        <Button size="small">Beside ▾</Button>
        <template #overlay>
          <Menu>
            <MenuItem key="now" @click="keepBeside">this circuit as it is now, to change it</MenuItem>
            <MenuItem key="file" @click="fileField?.click()">a file, in any language…</MenuItem>
          </Menu>
        </template>
      </Dropdown>
      <input ref="fileField" name="beside" type="file" hidden accept=".wiring,.txt,.v,.sv,.vhd,.vhdl" @change="openBeside" />
    </template>
    <template #tools>
      <Dropdown v-if="store.may('manage')" :trigger="['click']">
        <Button size="small">For ▾</Button>
        <template #overlay>
          <Menu>
            <MenuItem key="link" @click="isLinkOpen = true">a board for students…</MenuItem>
            <MenuItem key="model" @click="keep(false)">keep it beside the spec, as a model</MenuItem>
            <MenuItem key="known" @click="areBlocksOpen = true">take a block from another task…</MenuItem>
            <MenuItem key="block" @click="keep(true)">give it to every hand-in, as a block</MenuItem>
          </Menu>
        </template>
      </Dropdown>
    </template>
    <template #cases>
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
        <kbd v-for="n in Math.min(bits, FLIPS.length)" :key="n">{{ FLIPS[n - 1] }}</kbd> turn the inputs
      </p>
      <div class="scroll" :class="{ old: isOld }" tabindex="0" role="region" aria-label="table of cases">
        <CaseTable
          v-if="rows.length"
          :inputs="inputs.map((p) => p.name)"
          :outputs="outputs.map((p) => p.name)"
          :ports="start.ports"
          legend
          :rows="rows"
          :chosen="chosenCase"
          :probes="columns"
          glyphs
          :turned="apart"
          @choose="(n) => (chosenCase = n)"
        />
        <p v-else class="empty">The table fills as soon as the text can be run.</p>
        <p v-if="ran && rows.length < ran.total" class="small quiet">
          {{ rows.length }} of {{ ran.total }} {{ start.clocked ? 'steps' : 'cases' }} shown
        </p>
      </div>
      <ol v-if="steps.length" class="steps small">
        <li v-for="(s, i) in steps" :key="i">{{ s.replaceAll('`', '') }}</li>
      </ol>
    </template>
  </BoardDesk>
  <main v-else-if="!trouble" class="empty" aria-busy="true">Loading…</main>
  <BoardLink v-if="isLinkOpen" :task-id="store.taskId" :text="text" @close="isLinkOpen = false" />
  <KnownBlocks
    v-if="areBlocksOpen"
    :task-id="store.taskId"
    :blocks="start?.blocks ?? []"
    @close="areBlocksOpen = false"
    @take="takeBlock"
  />
</template>

<style scoped>
.old {
  opacity: 0.55;
}
.scroll {
  flex: 1;
  min-height: 0;
  overflow: auto;
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
