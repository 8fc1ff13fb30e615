<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { get } from '../api/client'
import type { ClusterView } from '../api/schema'
import ClassPanel from '../features/results/ClassPanel.vue'
import ClusterCompartment from '../features/results/ClusterCompartment.vue'
import RowsFace from '../features/results/RowsFace.vue'
import { ofGroup } from '../features/results/group'
import { useSelection } from '../features/results/selection'
import ClusterLine from '../features/results/ClusterLine.vue'
import FailedState from '../shared/FailedState.vue'
import MemberChips from '../shared/MemberChips.vue'
import { tellApart } from '../features/results/apart'
import UncheckedCompartment from '../features/results/UncheckedCompartment.vue'
import { useKeys } from '../shared/keys'
import { useLab } from '../shared/lab'
import { useResource } from '../shared/resource'

const store = useLab()
const route = useRoute()
const router = useRouter()
const { data: everything, trouble, reload } = useResource((signal) => get(`/tasks/${store.taskId}/results`, { signal }), { lazy: true })
const results = computed(() => everything.value && ofGroup(everything.value, store.group ? store.inGroup : null, groupNames.value))
const groupNames = computed(() => new Set(store.who.filter((w) => w.group === store.group).map((w) => w.name)))
const selection = useSelection(results, String(route.query.cluster ?? ''))
const { filter, shown, chosenKey, chosenHandin, choose, chooseHandin, step, stepMember } = selection
const face = ref(route.query.face === 'rows' ? 'rows' : 'tray')

async function load(): Promise<void> {
  if (await reload()) selection.keep()
}
void load()
watch(() => store.finished, load)

const walked = computed(() => shown.value.filter((c) => c.kind !== 'unchecked'))
/** More than a dozen are lines, and the chosen one is open. */
const MOST_OPEN = 12
const isFolded = computed(() => walked.value.length > MOST_OPEN)
const apart = computed(() => (results.value ? tellApart(results.value) : new Map<string, string>()))
const unchecked = computed(() => shown.value.filter((c) => c.kind === 'unchecked'))
const order = computed(() => (results.value?.clusters ?? []).flatMap((c) => c.members.map((m) => m.handin_id)))
const emptiness = computed(() => {
  const waiting = results.value?.waiting ?? 0
  if (store.run) return { title: 'The check is running', text: 'Clusters appear here when it is done.' }
  if (waiting) return { title: `${waiting} hand-ins wait to be checked`, text: '' }
  return { title: 'Nothing has been handed in yet', text: 'Drop a zip in Intake.' }
})

function review(handin: number, toComment = false): void {
  void router.push({ name: 'review', params: { ...route.params, handin: String(handin) }, query: toComment ? { comment: '1' } : {} })
}
function openChosen(toComment = false): void {
  if (chosenHandin.value) review(chosenHandin.value, toComment)
}
function setFace(value: string): void {
  face.value = value
  void router.replace({ query: value === 'rows' ? { face: 'rows' } : {} })
}
/** The more people, the more room; those that are right have a row of their own. */
function sizeOf(c: ClusterView): { flexGrow: number; flexBasis: string } {
  if (c.kind !== 'wrong') return { flexGrow: 100, flexBasis: '100%' }
  return { flexGrow: 2 + c.members.length, flexBasis: c.members.length > 2 ? '470px' : '300px' }
}
useKeys([
  { key: 'ArrowDown', label: 'next cluster', act: () => step(1) },
  { key: 'ArrowUp', label: 'cluster before', act: () => step(-1) },
  { key: 'ArrowRight', label: 'next hand-in of the cluster', act: () => stepMember(1) },
  { key: 'ArrowLeft', label: 'hand-in before', act: () => stepMember(-1) },
  { key: 'Enter', label: 'review', act: () => openChosen() },
  { key: 'c', label: 'write the comment', act: () => openChosen(true) },
  { key: 't', label: 'tray or rows', act: () => setFace(face.value === 'tray' ? 'rows' : 'tray') },
  { key: 'r', label: 'check what is new', act: () => void store.check() },
])
</script>

<template>
  <FailedState v-if="trouble && !results" :text="trouble" @again="load" />
  <p v-else-if="trouble" class="trouble">{{ trouble }}</p>
  <div v-if="results && !results.clusters.length" class="empty">
    <h2>{{ emptiness.title }}</h2>
    <p>{{ emptiness.text }}</p>
    <Button v-if="results.waiting && !store.run" type="primary" @click="store.check">Check them</Button>
    <Button v-else-if="!store.run" type="primary" @click="router.push({ name: 'intake', params: route.params })">To the intake</Button>
  </div>
  <main v-else-if="results" class="page">
    <ClassPanel :results="results" :face="face" :chosen="filter" @face="setFace" @filter="(i) => (filter = i)" />
    <RowsFace
      v-if="face === 'rows'"
      :task-id="results.task_id"
      :chosen="chosenHandin"
      :order="order"
      @choose="chooseHandin"
      @review="review"
    />
    <div v-else class="tray" :class="{ folded: isFolded }">
      <p v-if="results.waiting && !store.run" class="compartment row spread">
        <span>{{ results.waiting }} hand-ins have no outcome under this spec yet.</span
        ><Button size="small" type="primary" @click="store.check">Check them <span class="k">r</span></Button>
      </p>
      <p v-if="everything?.doubtful" class="compartment row spread doubtful" role="status">
        <span>Is the spec right? {{ everything.doubtful }}.</span
        ><Button size="small" @click="router.push({ name: 'spec', params: route.params })">Look at the spec</Button>
      </p>
      <template v-for="c in walked" :key="c.key">
        <ClusterLine v-if="isFolded && c.key !== chosenKey" :cluster="c" :apart="apart.get(c.key)" @choose="choose(c)" />
        <ClusterCompartment
          v-else
          :cluster="c"
          :results="results"
          :chosen="c.key === chosenKey"
          :member="chosenHandin"
          :wide="c.kind !== 'wrong'"
          :apart="apart.get(c.key)"
          :style="isFolded ? { flexBasis: '100%' } : sizeOf(c)"
          @choose="choose(c)"
          @review="review"
          @comment="(choose(c), openChosen(true))"
        />
      </template>
      <UncheckedCompartment v-if="unchecked.length" :clusters="unchecked" :chosen="chosenKey" @choose="choose" @review="review" />
      <article v-if="results.missing.length && filter === null" class="compartment rest missing">
        <h2>
          <span class="count">{{ results.missing.length }}</span> missing
        </h2>
        <MemberChips :members="results.missing.map((name) => ({ name }))" />
      </article>
      <p v-if="filter !== null && !shown.length" class="empty">No cluster fails this case.</p>
    </div>
  </main>
  <main v-else-if="!trouble" class="empty" aria-busy="true">Loading…</main>
</template>

<style scoped>
.page {
  display: grid;
  grid-template: minmax(0, 1fr) / 236px minmax(0, 1fr);
  gap: var(--gap);
  padding: var(--gap);
  flex: 1;
  min-height: 0;
}
.tray {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap);
  align-content: flex-start;
  align-items: stretch;
  overflow: auto;
  min-height: 0;
}
.tray.folded {
  gap: 4px;
}
.doubtful {
  flex-basis: 100%;
  border-color: var(--undef);
}
.tray > * {
  flex-shrink: 1;
}
.rest {
  flex: 1 1 380px;
  display: flex;
  flex-direction: column;
  gap: 6px;
}
.rest h2 {
  font-size: 13px;
  font-weight: 600;
}
.rest .count {
  font-size: 20px;
  margin-right: 5px;
}
.missing {
  flex-direction: row;
  flex-wrap: wrap;
  align-items: center;
  flex-basis: 200px;
}
.trouble {
  margin: 10px;
}
.k {
  opacity: 0.7;
  font: 12px var(--mono);
  margin-left: 5px;
}
</style>
