<script setup lang="ts">
import { Button, Input, message, Modal } from 'ant-design-vue'
import { useDebounceFn } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import { onBeforeRouteLeave, useRouter } from 'vue-router'

import { get, post, put, sentence } from '../api/client'
import type { SpecPreview, SpecView, TableRow } from '../api/types'
import CatchRate from '../features/spec/CatchRate.vue'
import CoverageGrid from '../features/spec/CoverageGrid.vue'
import EffectPanel from '../features/spec/EffectPanel.vue'
import PinBox from '../features/spec/PinBox.vue'
import TextEditor from '../shared/TextEditor.vue'
import { useKeys } from '../shared/keys'
import { useLab } from '../shared/lab'
import { count, moment } from '../shared/words'

const store = useLab()
const router = useRouter()
const saved = ref<SpecView | null>(null)
const text = ref('')
const preview = ref<SpecPreview | null>(null)
/** The last text that gave a table: it stays to be looked at while the next one is typed. */
const table = ref<SpecPreview | null>(null)
/** The text that `preview` is of. */
const shownText = ref('')
const trouble = ref('')
const source = ref(-1)
const editor = ref<InstanceType<typeof TextEditor>>()
const isTaskOpen = ref(false)
const isEffectOpen = ref(false)
const taskTitle = ref('')
const isChanged = computed(() => saved.value !== null && text.value !== saved.value.text)

onMounted(async () => {
  try {
    saved.value = await get<SpecView>(`/tasks/${store.taskId}/spec`)
    text.value = saved.value.text
    preview.value = saved.value.preview
    shownText.value = text.value
  } catch (error) {
    trouble.value = sentence(error)
  }
})
watch(preview, (found) => {
  if (found?.rows.length) table.value = found
})
let latest = 0
const look = useDebounceFn(async () => {
  const mine = ++latest
  const asked = text.value
  try {
    const found = await post<SpecPreview>(`/tasks/${store.taskId}/spec/preview`, { text: asked })
    if (mine !== latest) return
    preview.value = found
    shownText.value = asked
  } catch (error) {
    trouble.value = sentence(error)
  }
}, 250)
function change(value: string): void {
  text.value = value
  void look()
}
/** A version by which somebody was checked is not replaced before it was seen what that changes. */
function askSave(): void {
  if (!isChanged.value) return
  if (saved.value?.used && preview.value?.is_right) isEffectOpen.value = true
  else void save()
}
async function save(): Promise<void> {
  if (!isChanged.value) return
  try {
    saved.value = await put<SpecView>(`/tasks/${store.taskId}/spec`, { text: text.value })
    preview.value = saved.value.preview
    await store.refresh()
    message.success(`kept as version ${saved.value.version}`)
  } catch (error) {
    message.error(sentence(error))
  }
}
async function addTask(): Promise<void> {
  if (!taskTitle.value.trim() || !store.lab) return
  const made = await post<{ id: number }>(`/labs/${store.lab.id}/tasks`, { title: taskTitle.value })
  isTaskOpen.value = false
  await router.push(`/lab/${store.lab.id}/task/${made.id}/spec`)
}
async function addFile(event: Event, provided: boolean): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file) return
  const form = new FormData()
  form.append('file', file)
  try {
    const before = saved.value?.version
    saved.value = await post<SpecView>(`/tasks/${store.taskId}/files?provided=${provided}`, form)
    message.success(saved.value.version === before ? `${file.name} stands beside the spec` : `${file.name} makes this version ${saved.value.version}: the class is to be checked again`, 8)
    await store.refresh()
    void look()
  } catch (error) {
    message.error(sentence(error))
  }
  input.value = ''
}
useKeys([{ key: 'Ctrl+s', label: 'save the spec', always: true, act: askSave }])
onBeforeRouteLeave(() => !isChanged.value || window.confirm('The spec was changed and not saved. Leave it?'))

const inputs = computed(() => table.value?.ports.filter((p) => p.direction === 'in') ?? [])
const outputs = computed(() => table.value?.ports.filter((p) => p.direction === 'out') ?? [])
const shownRows = computed(() => table.value?.rows.slice(0, 256) ?? [])
const isClocked = computed(() => !!table.value?.sequences.length)
const isNamed = computed(() => !!table.value?.rows[0]?.label)
const isOld = computed(() => table.value !== preview.value)
const apart = computed(() => shownRows.value.filter((r) => !r.agrees).length)
/** An output's value; where sources disagree, what each says. */
function says(row: TableRow, i: number): string {
  if (source.value >= 0) return row.sources[source.value]?.[i] ?? ''
  if (row.agrees) return row.outputs[i]
  return [...new Set(row.sources.map((s) => s[i]).filter((v) => v !== '-'))].join(' / ')
}
const problems = computed(() => preview.value?.messages ?? [])
</script>

<template>
  <p v-if="trouble" class="trouble">{{ trouble }}</p>
  <main v-else-if="saved && preview" class="page">
    <section class="compartment text">
      <div class="row spread">
        <span class="caption">Text <span class="quiet">version {{ saved.version }}{{ isChanged ? (saved.used ? ', saving makes a new one' : ', changed') : '' }}</span></span>
        <span class="row">
          <label class="file">Beside it<input type="file" accept=".v,.sv,.vhd,.vhdl,.wiring,.csv" @change="(e) => addFile(e, false)" /></label>
          <label class="file">Provided file<input type="file" @change="(e) => addFile(e, true)" /></label>
          <Button size="small" @click="((isTaskOpen = true), (taskTitle = ''))">New task</Button>
          <Button size="small" type="primary" :disabled="!isChanged" @click="askSave">Save <span class="k">Ctrl+S</span></Button>
        </span>
      </div>
      <p v-if="saved.frozen_late" class="since small quiet">The files beside this version were frozen on {{ moment(saved.frozen_late) }}, after it was first used.</p>
      <p v-if="saved.is_older && saved.used" class="since small quiet">This version is read as when it was first used; once it is changed and saved, by today's rules.</p>
      <TextEditor ref="editor" language="toml" label="spec text" :text="text" :messages="problems" @change="change" />
      <ul class="messages" aria-live="polite">
        <li v-if="!problems.some((m) => m.severity !== 'note')" class="ok">All sources agree.</li>
        <li v-for="(m, i) in problems" :key="i" :class="m.severity">
          <button type="button" @click="editor?.goTo(m)"><span v-if="m.line" class="mono">{{ m.line }}:{{ m.column }}</span> {{ m.text }}<span v-if="m.hint" class="quiet"> ({{ m.hint }})</span></button>
        </li>
      </ul>
    </section>
    <section class="compartment table">
      <div class="row spread">
        <span class="caption">What is right</span>
        <span v-if="table?.sources.length" class="row sources">
          <button type="button" :class="{ here: source === -1 }" @click="source = -1">together</button>
          <button v-for="(s, i) in table.sources" :key="s" type="button" :class="{ here: source === i }" @click="source = i">{{ s }}</button>
        </span>
      </div>
      <p v-if="apart" class="tag fail">the sources disagree in {{ apart }} of the rows shown</p>
      <div v-if="table" class="scroll" :class="{ old: isOld }">
        <table class="cases">
          <thead>
            <tr><th v-if="isClocked"></th><th v-if="isNamed">check</th><th v-for="p in inputs" :key="p.name">{{ p.name }}</th><th v-for="p in outputs" :key="p.name" class="side">{{ p.name }}</th></tr>
          </thead>
          <tbody>
            <template v-for="r in shownRows" :key="r.index">
            <tr v-if="r.step?.number === 1" class="sequence"><th :colspan="inputs.length + outputs.length + 1">{{ r.step.sequence }}</th></tr>
            <tr :class="{ apart: !r.agrees }">
              <td v-if="r.label" class="check">{{ r.label }}</td>
              <td v-if="r.step" class="number">{{ r.step.number }}</td>
              <td v-for="(v, i) in r.inputs" :key="i">{{ v }}</td>
              <td v-for="(_, i) in r.outputs" :key="`o${i}`" class="side" :class="{ care: /-/.test(says(r, i)) }">{{ says(r, i) === '-' ? '–' : says(r, i) }}</td>
            </tr>
            </template>
          </tbody>
        </table>
        <p v-if="table.cases > shownRows.length" class="quiet small">and {{ table.cases - shownRows.length }} more cases</p>
      </div>
      <p v-else class="empty">The table appears when the text has no errors.</p>
    </section>
    <section class="compartment side">
      <div class="caption">Interface</div>
      <PinBox v-if="table?.ports.length" :unit="table.unit" :ports="table.ports" />
      <p v-else class="quiet">no ports yet</p>
      <div class="caption">{{ isClocked ? 'Steps' : 'Cases' }}</div>
      <p v-if="table && isClocked">{{ count(table.cases, 'step') }} in {{ count(table.sequences.length, 'sequence') }}</p>
      <CoverageGrid v-if="table?.coverage" :coverage="table.coverage" />
      <p v-if="table && !isClocked">{{ count(table.cases, 'case') }}, <span :class="{ warn: table.uncovered }">{{ table.uncovered ? `${table.uncovered} covered by no source` : 'every one covered' }}</span></p>
      <p v-for="(n, name) in preview.groups" :key="name" class="row spread"><span>{{ name }}</span><span class="mono">{{ n }}</span></p>
      <template v-if="table && !isClocked && !isNamed">
        <div class="caption">Catch rate</div>
        <CatchRate :task-id="store.taskId" :text="preview.is_right ? shownText : ''" @line="(line) => editor?.goTo({ line, column: 1 })" />
      </template>
      <div class="caption">Sources</div>
      <p v-for="s in preview.sources" :key="s">{{ s }}</p>
      <p v-if="preview.sources.length > 1 && preview.is_right" class="tag pass">agree on every case</p>
    </section>
    <Modal v-model:open="isEffectOpen" title="What the new version would change" :ok-text="`Save as version ${saved.version + 1}`" cancel-text="Go on writing" :width="640" destroy-on-close @ok="((isEffectOpen = false), save())">
      <EffectPanel :task-id="store.taskId" :text="text" />
    </Modal>
    <Modal v-model:open="isTaskOpen" title="New task in this lab" ok-text="Make it" @ok="addTask"><Input v-model:value="taskTitle" name="task-title" placeholder="title" @press-enter="addTask" /></Modal>
  </main>
  <p v-else class="empty">Loading…</p>
</template>

<style scoped>
.since { margin: 4px 0 0; }
.page { display: grid; grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr) 250px; gap: var(--gap); padding: var(--gap); flex: 1; min-height: 0; }
.text { display: grid; grid-template-rows: auto 1fr auto; gap: 8px; min-height: 0; }
.messages { max-height: 150px; overflow: auto; border-top: 1px solid var(--line-2); padding-top: 6px; display: grid; gap: 2px; }
.messages button { border: 0; background: none; text-align: left; cursor: pointer; padding: 1px 0 1px 9px; border-left: 3px solid var(--none); width: 100%; }
.messages .error button { border-color: var(--fail); color: var(--fail-text); }
.messages .warning button { border-color: var(--undef); color: var(--undef-text); }
.ok { color: var(--pass-text); }
.table { display: flex; flex-direction: column; gap: 8px; min-height: 0; }
.scroll { overflow: auto; min-height: 0; }
.scroll thead th { position: sticky; top: 0; background: var(--paper); }
table.cases .sequence th { text-align: left; color: var(--lacquer); padding-top: 10px; }
table.cases .check { text-align: left; }
.number { color: var(--ink-3); }
.old { opacity: 0.55; }
.apart td { background: var(--fail-tint); color: var(--fail-text); }
.care { color: var(--ink-3); }
.side { display: flex; flex-direction: column; gap: 6px; overflow: auto; }
table .side { display: table-cell; }
.side .caption:not(:first-child) { margin-top: 10px; }
.warn { color: var(--undef-text); }
.sources button { border: 0; background: none; border-radius: 5px; padding: 1px 7px; cursor: pointer; color: var(--ink-2); font-size: 12px; }
.sources .here { background: var(--lacquer-tint); color: var(--lacquer); }
.file { font-size: 12px; color: var(--lacquer); cursor: pointer; text-decoration: underline; white-space: nowrap; }
.file input { display: none; }
.k { opacity: 0.7; font: 11px var(--mono); margin-left: 4px; }
.trouble { margin: 10px; }
</style>
