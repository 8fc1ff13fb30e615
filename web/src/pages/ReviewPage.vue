<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { nextTick, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import type { RepairView } from '../api/schema'
import { warmUp } from '../features/circuit/layout'
import { useProbes } from '../features/circuit/probes'
import { useCases } from '../features/review/cases'
import CasesPane from '../features/review/CasesPane.vue'
import { type CentreView, useCentre, VIEWS } from '../features/review/centre'
import CentrePane from '../features/review/CentrePane.vue'
import { useReview } from '../features/review/review'
import ReviewHead from '../features/review/ReviewHead.vue'
import { useScratch } from '../features/review/scratch'
import WhyPane from '../features/review/WhyPane.vue'
import FailedState from '../shared/FailedState.vue'
import { isAnythingUnkept } from '../shared/drafts'
import { closeInnermost } from '../shared/innermost'
import { useKeys } from '../shared/keys'
import { useLab } from '../shared/lab'

const WARM_UP_AFTER = 300
const store = useLab()
const route = useRoute()
const router = useRouter()
const { review, isStale, trouble, isEmpty, load, again, go, walk } = useReview(
  () => store.taskId,
  () => store.inGroup,
  shown,
)
const scratch = useScratch(() => store.taskId, review)
const cases = useCases(review, scratch)
const { views, centre, chosenView } = useCentre(review)
const circuit = useProbes(() => store.taskId, review, scratch.files)
const isScratch = ref(false)
const changes = ref<RepairView['changes']>([])
const quoted = ref('')

onMounted(() => window.setTimeout(() => void warmUp(), WARM_UP_AFTER))
watch(
  () => scratch.outcome.value,
  (o) => (!o || o.status === 'checked') && circuit.again(),
)
watch(() => store.finished, again)
watch([centre, review], () => centre.value === 'circuit' && void circuit.open(), { immediate: true })

function shown(): void {
  cases.chooseFirst()
  isScratch.value = false
  if (route.query.comment) void nextTick(focusComment)
}
function focusComment(): void {
  document.querySelector<HTMLTextAreaElement>('textarea[name=comment]')?.focus()
}
function show(view: CentreView): void {
  chosenView.value = view
}
function openScratch(): void {
  scratch.takeUp()
  isScratch.value = true
}
function tryOut(): void {
  openScratch()
  chosenView.value = 'source'
}
function leaveScratch(): void {
  scratch.leave()
  isScratch.value = false
}
async function quote(text: string): Promise<void> {
  quoted.value = ''
  await nextTick()
  quoted.value = text
  focusComment()
}
/** What was kept shows where it belongs, whoever is on screen by now. */
async function keptComment(cluster: string, comment: string, comment_version: number): Promise<void> {
  if (review.value?.cluster === cluster) review.value = { ...review.value, comment, comment_version }
  await store.refresh()
}
function keptNote(handin: number, note: string, note_version: number): void {
  if (review.value?.handin_id === handin) review.value = { ...review.value, note, note_version }
}
useKeys([
  { key: ']', label: 'next hand-in', act: () => walk(1) },
  { key: '[', label: 'hand-in before', act: () => walk(-1) },
  { key: '.', label: 'next failing case', act: () => cases.walkCase(1) },
  { key: ',', label: 'failing case before', act: () => cases.walkCase(-1) },
  ...Object.entries(VIEWS).map(([view, { key, says }]) => ({ key, label: says, act: () => show(view as CentreView) })),
  { key: 'e', label: 'try a change in a scratch copy', act: tryOut },
  { key: 'c', label: 'write the comment', act: focusComment },
  {
    key: 'Escape',
    label: 'back to results',
    always: true,
    act: () => {
      if (!closeInnermost() && !isAnythingUnkept.value) void router.push({ name: 'results', query: { cluster: review.value?.cluster } })
    },
  },
])
</script>

<template>
  <FailedState v-if="trouble && !review" :text="trouble" @again="again" />
  <p v-else-if="trouble" class="trouble">{{ trouble }}</p>
  <div v-if="isEmpty" class="empty">
    <h2>Nothing to review yet</h2>
    <p v-if="store.run">The class is being checked; what comes of it shows here by itself.</p>
    <p v-else>What is handed in and checked is read here, one by one, beside its specification.</p>
    <Button type="primary" @click="router.push({ name: 'intake', params: { lab: route.params.lab, task: route.params.task } })"
      >To the intake</Button
    >
  </div>
  <template v-else-if="review">
    <ReviewHead
      :review="review"
      :inert="isStale"
      :task-id="store.taskId"
      :is-since-shown="cases.isSinceShown.value"
      @since="cases.isSinceShown.value = !cases.isSinceShown.value"
      @marked="load"
    />
    <main class="page" :inert="isStale" :class="{ stale: isStale }">
      <CasesPane
        :review="review"
        :cases="cases"
        :probes="circuit.columns.value"
        :is-scratch="scratch.outcome.value?.status === 'checked'"
      />
      <CentrePane
        :review="review"
        :task-id="store.taskId"
        :views="views"
        :centre="centre"
        :cases="cases"
        :scratch="scratch"
        :is-scratch="isScratch"
        :circuit="circuit"
        :changes="changes"
        @view="show"
        @try="openScratch"
        @leave="leaveScratch"
        @quote="quote"
      />
      <WhyPane
        :review="review"
        :task-id="store.taskId"
        :quoted="quoted"
        @changes="(found) => (changes = found)"
        @comment="keptComment"
        @note="keptNote"
        @go="go"
      />
    </main>
  </template>
  <main v-else-if="!trouble" class="empty" aria-busy="true">Loading…</main>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(250px, max-content) 1fr 300px;
  gap: var(--gap);
  padding: 8px var(--gap) var(--gap);
  flex: 1;
  min-height: 0;
}
.stale {
  opacity: 0.5;
}
.trouble {
  margin: 10px;
}
</style>
