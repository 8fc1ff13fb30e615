<script setup lang="ts">
import { Button, Input, InputNumber, message, Popover } from 'ant-design-vue'
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { get, put, sentence } from '../api/client'
import type { LineNote, Repair, Results, Review } from '../api/types'
import CommentBox from '../features/review/CommentBox.vue'
import CircuitPane from '../features/circuit/CircuitPane.vue'
import { warmUp } from '../features/circuit/layout'
import { useProbes } from '../features/circuit/probes'
import WaveView from '../features/waves/WaveView.vue'
import SmallestChange from '../features/review/SmallestChange.vue'
import { useScratch } from '../features/review/scratch'
import ScratchBar from '../features/review/ScratchBar.vue'
import ScratchPane from '../features/review/ScratchPane.vue'
import SourceView from '../features/review/SourceView.vue'
import CaseTable from '../shared/CaseTable.vue'
import { useKeys } from '../shared/keys'
import { useLab } from '../shared/lab'
import SentenceText from '../shared/SentenceText.vue'
import { mark, moment, shortLanguage } from '../shared/words'

const store = useLab()
const route = useRoute()
const router = useRouter()
const review = ref<Review | null>(null)
const changes = ref<Repair['changes']>([])
/** What is said of lines: the findings, and at its own line what would make every case right. */
const notes = computed<LineNote[]>(() => [
  ...(review.value?.notes ?? []),
  ...changes.value.map((c) => ({ file: c.file, line: c.line, severity: 'change', text: `${c.text.replaceAll('`', '')} makes every case right` })),
])
const order = ref<number[]>([])
const trouble = ref('')
const isEmpty = ref(false)
const chosenCase = ref<number | null>(null)
const value = ref<number | undefined>()
const reason = ref('')
const isMarkOpen = ref(false)

const handin = computed(() => Number(route.params.handin) || 0)
const VIEWS = { circuit: { label: 'Circuit', key: 'g' }, waves: { label: 'Waves', key: 'w' }, output: { label: 'Output', key: 'o' }, source: { label: 'Source', key: 's' } }
type CentreView = keyof typeof VIEWS
const chosenView = ref<CentreView | null>(null)
const views = computed<CentreView[]>(() => [
  ...(review.value?.clocked && review.value.status === 'checked' && review.value.language !== 'vcd' ? (['waves'] as const) : []),
  ...(review.value?.output ? (['output'] as const) : []),
  ...(review.value?.status === 'checked' && !review.value.output && review.value.language !== 'vcd' ? (['circuit'] as const) : []),
  'source',
])
const centre = computed<CentreView>(() => {
  if (chosenView.value && views.value.includes(chosenView.value)) return chosenView.value
  return views.value.find((v) => v !== 'circuit') ?? 'source'  // a circuit is drawn when somebody asks for it
})
/** How a hand-in is clocked is worth a word even where every step is right. */
const CLOCKING = ['ripple-clock', 'race', 'start-values']
const clocking = computed(() => review.value?.messages.filter((m) => CLOCKING.includes(m.code) && !review.value?.findings.includes(m.text)) ?? [])
/** What was done with a hand-in that its writer may not expect, whatever the verdict. */
const REMARKS = ['power-up', 'left-out', 'copy-read', 'wrong-suffix', 'provided', 'not-taken', 'unused-unit']
const remarks = computed(() => review.value?.messages.filter((m) => REMARKS.includes(m.code) && m.severity !== 'error') ?? [])
onMounted(() => window.setTimeout(() => void warmUp(), 300))
const scratch = useScratch(() => store.taskId, review)
const isScratch = ref(false)
const { at: circuit, trouble: circuitTrouble, probes, columns, turnProbe, open: openCircuit, again } = useProbes(() => store.taskId, review, scratch.files)
watch(() => scratch.outcome.value, (o) => (!o || o.status === 'checked') && again())
const lines = ref<{ file: string; from: number; to: number } | null>(null)
watch(centre, (c) => c === 'circuit' && void openCircuit(), { immediate: true })
/** With a scratch copy the table shows what that does. */
const rows = computed(() => (scratch.outcome.value?.status === 'checked' ? scratch.outcome.value.rows : (review.value?.rows ?? [])))
const isWrong = computed(() => new Set(review.value?.rows.filter((r) => 'fus'.includes(r.cell)).map((r) => r.index)))
const wrong = computed(() => rows.value.filter((r) => isWrong.value.has(r.index) || 'fus'.includes(r.cell)))
const rest = computed(() => rows.value.filter((r) => !isWrong.value.has(r.index) && !'fus'.includes(r.cell)))

async function load(): Promise<void> {
  try {
    if (!order.value.length) {
      const results = await get<Results>(`/tasks/${store.taskId}/results`)
      order.value = results.clusters.flatMap((c) => c.members.map((m) => m.handin_id))
    }
    if (!handin.value) {
      if (order.value[0]) await router.replace({ params: { ...route.params, handin: String(order.value[0]) } })
      else isEmpty.value = true
      return
    }
    review.value = await get<Review>(`/tasks/${store.taskId}/review/${handin.value}`)
    chosenCase.value = wrong.value[0]?.index ?? null
    lines.value = null
    isScratch.value = false
    if (centre.value === 'circuit') void openCircuit()
    value.value = review.value.mark ?? undefined
    reason.value = ''
    trouble.value = ''
    if (route.query.comment) {
      await nextTick()
      focusComment()
    }
  } catch (error) {
    trouble.value = sentence(error)
  }
}
watch(handin, load, { immediate: true })

function focusComment(): void {
  document.querySelector<HTMLTextAreaElement>('textarea[name=comment]')?.focus()
}
function walk(by: number): void {
  const at = order.value.indexOf(handin.value)
  const next = order.value[at + by]
  if (next) void router.push({ params: { ...route.params, handin: String(next) } })
}
function walkCase(by: number): void {
  const list = wrong.value.length ? wrong.value : rest.value
  const at = list.findIndex((r) => r.index === chosenCase.value)
  const next = list[Math.max(0, Math.min(list.length - 1, at + by))]
  if (!next) return
  chosenCase.value = next.index
  void nextTick(() => document.querySelector('tr.chosen')?.scrollIntoView({ block: 'nearest' }))
}
async function keepMark(lift = false): Promise<void> {
  try {
    await put(`/handins/${handin.value}/tasks/${store.taskId}/mark`, { value: lift ? null : value.value, reason: reason.value })
    isMarkOpen.value = false
    await load()
  } catch (error) {
    message.error(sentence(error))
  }
}
async function kept(text: string, version: number): Promise<void> {
  if (review.value) Object.assign(review.value, { comment: text, comment_version: version })
  await store.refresh()
}
function keptNote(text: string, version: number): void {
  if (review.value) Object.assign(review.value, { note: text, note_version: version })
}
function toSource(file: string, line: number): void {
  lines.value = { file, from: line, to: line }
  chosenView.value = 'source'
}
/** A line tried otherwise, from below the drawing. */
function tryLine(file: string, line: number, text: string): void {
  scratch.setLine(file, line, text)
  isScratch.value = true
}
function tryOut(): void {
  isScratch.value = true
  chosenView.value = 'source'
}
function leaveScratch(): void {
  scratch.reset()
  isScratch.value = false
}
/** What a second attempt turned, in words and on demand in the table. */
const isSinceShown = ref(false)
const since = computed(() => {
  const s = review.value?.since
  if (!s) return ''
  if (!s.is_known) return `attempt ${s.attempt} was not checked by this spec`
  if (s.status !== 'checked') return `attempt ${s.attempt} could not be checked`
  if (!s.turned_right.length && !s.turned_wrong.length) return `as attempt ${s.attempt}`
  return `since attempt ${s.attempt}: ${s.turned_right.length} right, ${s.turned_wrong.length} wrong`
})
const turned = computed(() => {
  if (scratch.outcome.value || !isSinceShown.value) return scratch.turned.value
  const found = new Map<number, 'right' | 'wrong'>()
  for (const i of review.value?.since?.turned_right ?? []) found.set(i, 'right')
  for (const i of review.value?.since?.turned_wrong ?? []) found.set(i, 'wrong')
  return found
})
const quoted = ref('')
async function quote(text: string): Promise<void> {
  quoted.value = ''
  await nextTick()
  quoted.value = text
  focusComment()
}
useKeys([
  { key: ']', label: 'next hand-in', act: () => walk(1) },
  { key: '[', label: 'hand-in before', act: () => walk(-1) },
  { key: '.', label: 'next failing case', act: () => walkCase(1) },
  { key: ',', label: 'failing case before', act: () => walkCase(-1) },
  { key: 'w', label: 'waves', act: () => (chosenView.value = 'waves') },
  { key: 'o', label: 'what the bench printed', act: () => (chosenView.value = 'output') },
  { key: 's', label: 'source', act: () => (chosenView.value = 'source') },
  { key: 'g', label: 'circuit', act: () => (chosenView.value = 'circuit') },
  { key: 'e', label: 'try a change in a scratch copy', act: tryOut },
  { key: 'c', label: 'write the comment', act: focusComment },
  { key: 'Escape', label: 'back to results', always: true, act: () => void router.push({ name: 'results', query: { cluster: review.value?.cluster } }) },
])
</script>

<template>
  <p v-if="trouble" class="trouble">{{ trouble }}</p>
  <div v-else-if="isEmpty" class="empty">
    <h2>Nothing to review yet</h2>
    <p>What is handed in and checked is read here, one by one, beside its specification.</p>
    <Button type="primary" @click="router.push({ name: 'intake', params: { lab: route.params.lab, task: route.params.task } })">To the intake</Button>
  </div>
  <template v-else-if="review">
    <div class="who">
      <h1>{{ review.name }}</h1>
      <span class="mono quiet">attempt {{ review.attempt }} of {{ review.attempts }}, {{ moment(review.received_at) }}</span>
      <span v-if="review.late" class="tag undef">late</span>
      <span v-if="review.status === 'checked'" class="tag" :class="review.passed === review.total ? 'pass' : 'fail'">{{ review.passed }} of {{ review.total }}</span>
      <span v-else class="tag fail">not checked</span>
      <button v-if="review.since" type="button" class="since" :class="{ on: isSinceShown }" :disabled="!review.since.is_known || review.since.status !== 'checked'" @click="isSinceShown = !isSinceShown">{{ since }}</button>
      <span v-if="review.same.length > 1" class="quiet">and {{ review.same.length - 1 }} behave the same</span>
      <span class="keys quiet"><span class="key">[</span> <span class="key">]</span> hand-in <span class="key">,</span> <span class="key">.</span> failing case</span>
      <Popover v-model:open="isMarkOpen" trigger="click" placement="bottomRight">
        <template #content>
          <div class="override">
            <label>Mark<InputNumber v-model:value="value" name="mark" :min="0" :step="0.5" /></label>
            <label>Why<Input v-model:value="reason" name="reason" placeholder="the reason stays in the ledger" @press-enter="keepMark()" /></label>
            <div class="row"><Button type="primary" size="small" :disabled="!reason.trim() || value === undefined" @click="keepMark()">Override</Button><Button size="small" @click="keepMark(true)">Back to computed</Button></div>
          </div>
        </template>
        <button type="button" class="mark mono" :title="review.mark_reason">{{ mark(review.mark) }} / {{ review.max_mark }}</button>
      </Popover>
    </div>
    <main class="page">
      <section class="compartment left">
        <div class="row spread"><span class="caption">{{ scratch.outcome.value?.status === 'checked' ? 'Cases with the change' : 'Cases' }}</span><span class="quiet small">failing first</span></div>
        <div class="scroll">
          <template v-if="wrong.length">
            <CaseTable :inputs="review.inputs" :outputs="review.outputs" :rows="wrong" glyphs :runs="wrong.some((r) => r.run !== 'fresh')" :chosen="chosenCase" :probes="columns" :turned="turned" @choose="(i) => (chosenCase = i)" />
          </template>
          <p v-if="rest.length" class="quiet small part">{{ rest.length }} right or not compared</p>
          <CaseTable v-if="rest.length" :inputs="review.inputs" :outputs="review.outputs" :rows="rest" glyphs :chosen="chosenCase" :probes="columns" :turned="turned" @choose="(i) => (chosenCase = i)" />
          <p v-if="review.more_rows" class="quiet small">and {{ review.more_rows }} more</p>
          <p v-if="!review.rows.length" class="quiet">No case was run.</p>
        </div>
      </section>
      <section class="compartment middle">
        <div v-if="views.length > 1" class="views" role="tablist">
          <button v-for="v in views" :key="v" type="button" role="tab" :aria-selected="centre === v" :class="{ here: centre === v }" @click="chosenView = v">{{ VIEWS[v].label }} <span class="key">{{ VIEWS[v].key }}</span></button>
          <button v-if="review.status === 'checked' && !isScratch && review.language !== 'vcd'" type="button" class="try" @click="tryOut">Try a change <span class="key">e</span></button>
        </div>
        <ScratchBar v-if="isScratch" :scratch="scratch" :passed="review.passed" :total="review.total" @quote="quote" @leave="leaveScratch" />
        <pre v-if="centre === 'output'" class="output" tabindex="0" aria-label="what the bench printed">{{ review.output }}</pre>
        <WaveView v-else-if="centre === 'waves'" :task-id="store.taskId" :handin="review.handin_id" :step="chosenCase" @step="(i) => (chosenCase = i)" />
        <CircuitPane
          v-else-if="centre === 'circuit'" :at="circuit" :trouble="circuitTrouble" :review="review" :rows="rows" :files="scratch.files.value" :text="scratch.text" :task-id="store.taskId" :chosen-case="chosenCase" :probes="probes" :lines="lines"
          @probe="turnProbe" @part="(p) => (lines = p.line ? { file: p.file, from: p.line, to: Math.max(p.line, p.end_line) } : null)" @source="toSource" @edit="tryLine"
        />
        <ScratchPane v-else-if="isScratch" :review="review" :scratch="scratch" :file="lines?.file ?? ''" />
        <SourceView v-else :files="review.files" :notes="notes" :stretch="lines" @line="(file, line) => (lines = { file, from: line, to: line })" />
      </section>
      <section class="compartment right">
        <div class="caption">Why</div>
        <div v-for="f in review.findings" :key="f" class="finding"><SentenceText :text="f" /></div>
        <div v-for="r in review.rules" :key="r" class="finding rule"><SentenceText :text="r" /></div>
        <SmallestChange v-if="review.status === 'checked' && review.passed < review.total && !review.output" :task-id="store.taskId" :handin="review.handin_id" @found="(found) => (changes = found)" />
        <template v-if="review.status !== 'checked'">
          <div v-for="m in review.messages.filter((x) => x.severity === 'error')" :key="m.text + m.line" class="finding"><SentenceText :text="(m.line ? `line ${m.line}: ` : '') + m.text + (m.hint ? ` (${m.hint})` : '')" /></div>
        </template>
        <div v-for="m in clocking" :key="m.code + m.line" class="finding rule"><SentenceText :text="(m.line ? `line ${m.line}: ` : '') + m.text" /></div>
        <p v-if="review.status === 'checked' && !review.findings.length && !review.rules.length" class="quiet">Right on every compared case.</p>
        <p v-if="review.binding.length" class="small quiet">read as: <span v-for="b in review.binding" :key="b.ours"><code>{{ b.theirs }}</code> → <code>{{ b.ours }}</code> ({{ b.how }}) </span></p>
        <p v-for="m in remarks" :key="m.code + m.text" class="small quiet remark"><SentenceText :text="(m.line ? `line ${m.line}: ` : '') + m.text" /></p>
        <CommentBox
          class="say" label="What to say" name="comment" :add="quoted" :task-id="store.taskId" :cluster="review.cluster" :handin-id="0" :text="review.comment"
          :version="review.comment_version" :button="review.same.length > 1 ? `Keep for all ${review.same.length}` : 'Keep'" @kept="kept"
        ><span class="quiet small">{{ review.same.length > 1 ? `to all ${review.same.length}` : '' }}</span></CommentBox>
        <div v-if="review.same.length > 1" class="chips">
          <button v-for="m in review.same" :key="m.handin_id" type="button" class="chip" :class="{ chosen: m.handin_id === review.handin_id }" @click="router.push({ params: { ...route.params, handin: String(m.handin_id) } })">
            {{ m.name }} <small>{{ shortLanguage(m.language) }}</small>
          </button>
        </div>
        <CommentBox
          :label="`Only ${review.name.split(' ')[0]}`" name="note" :task-id="store.taskId" cluster="" :handin-id="review.handin_id" :text="review.note" :rows="2"
          :version="review.note_version" button="Keep the note" @kept="keptNote"
        />
        <p class="small quiet">The letter adds their own failing rows, the mark and how to see it again.</p>
      </section>
    </main>
  </template>
  <p v-else class="empty">Loading…</p>
</template>

<style scoped>
.who { display: flex; align-items: center; gap: 12px; padding: 8px 16px 0; white-space: nowrap; overflow: hidden; }
h1 { font-size: 16px; font-weight: 600; }
.since { border: 1px solid var(--line); background: var(--paper); border-radius: 6px; padding: 1px 8px; font-size: 12px; cursor: pointer; color: var(--ink-2); }
.since.on { border-color: var(--lacquer); color: var(--lacquer); }
.keys { margin-left: auto; font-size: 12px; }
.mark { border: 1px solid var(--line); background: var(--paper); border-radius: 6px; padding: 2px 10px; cursor: pointer; font-size: 14px; }
.page { display: grid; grid-template-columns: minmax(250px, max-content) 1fr 300px; gap: var(--gap); padding: 8px var(--gap) var(--gap); flex: 1; min-height: 0; }
.left, .middle { display: flex; flex-direction: column; gap: 8px; min-height: 0; max-width: 430px; }
.middle { max-width: none; padding-top: 8px; }
.views { display: flex; gap: 4px; }
.views button { border: 0; background: none; padding: 2px 8px 4px; border-bottom: 2px solid transparent; cursor: pointer; color: var(--ink-2); }
.views .try { margin-left: auto; color: var(--lacquer); }
.views button.here { border-color: var(--lacquer); color: var(--ink); font-weight: 600; }
.output { flex: 1; overflow: auto; margin: 0; font: 12.5px/1.5 var(--mono); background: var(--rice); border-radius: 6px; padding: 8px 10px; }
.scroll { overflow: auto; scrollbar-gutter: stable; flex: 1; min-height: 0; }
.scroll :deep(tr) { cursor: pointer; }
.part { padding: 8px 4px 3px; }
.right { overflow: auto; display: flex; flex-direction: column; gap: 10px; }
.finding { border-left: 3px solid var(--fail); padding-left: 9px; }
.finding.rule { border-color: var(--undef); }
.chips { display: flex; flex-wrap: wrap; gap: 5px; }
.override { display: grid; gap: 8px; width: 250px; }
.override label { display: grid; gap: 2px; color: var(--ink-2); }
.trouble { margin: 10px; }
</style>
