<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { get, sentence } from '../api/client'
import type { Cluster, Results } from '../api/types'
import ClassPanel from '../features/results/ClassPanel.vue'
import ClusterCompartment from '../features/results/ClusterCompartment.vue'
import RowsFace from '../features/results/RowsFace.vue'
import { useKeys } from '../shared/keys'
import SentenceText from '../shared/SentenceText.vue'
import { useLab } from '../shared/lab'
import { shortLanguage } from '../shared/words'

const store = useLab()
const route = useRoute()
const router = useRouter()
const results = ref<Results | null>(null)
const trouble = ref('')
const face = ref(route.query.face === 'rows' ? 'rows' : 'tray')
const filter = ref<number | null>(null)
const chosenKey = ref(String(route.query.cluster ?? ''))
const chosenMember = ref<number | null>(null)

async function load(): Promise<void> {
  try {
    results.value = await get<Results>(`/tasks/${store.taskId}/results`)
    trouble.value = ''
    if (!shown.value.some((c) => c.key === chosenKey.value)) chosenKey.value = shown.value[0]?.key ?? ''
  } catch (error) {
    trouble.value = sentence(error)
  }
}
onMounted(load)
watch(() => store.finished, load)

/** A case of the class panel filters to the clusters that fail it. */
const shown = computed(() => {
  const all = results.value?.clusters ?? []
  if (filter.value === null || !results.value) return all
  return results.value.case_clusters[filter.value].map((n) => all[n])
})
const walked = computed(() => shown.value.filter((c) => c.kind !== 'unchecked'))
const unchecked = computed(() => shown.value.filter((c) => c.kind === 'unchecked'))
const order = computed(() => (results.value?.clusters ?? []).flatMap((c) => c.members.map((m) => m.handin_id)))
const chosen = computed(() => shown.value.find((c) => c.key === chosenKey.value) ?? null)

function choose(c: Cluster): void {
  chosenKey.value = c.key
  chosenMember.value = c.members[0]?.handin_id ?? null
}
function step(by: number): void {
  const list = shown.value
  const at = list.findIndex((c) => c.key === chosenKey.value)
  const next = list[Math.max(0, Math.min(list.length - 1, at + by))]
  if (!next) return
  choose(next)
  void nextTick(() => document.querySelector('[aria-current=true]')?.scrollIntoView({ block: 'nearest' }))
}
function stepMember(by: number): void {
  const members = chosen.value?.members ?? []
  const at = members.findIndex((m) => m.handin_id === chosenMember.value)
  chosenMember.value = members[Math.max(0, Math.min(members.length - 1, Math.max(at, 0) + by))]?.handin_id ?? null
}
function review(handin: number, toComment = false): void {
  void router.push({ name: 'review', params: { ...route.params, handin: String(handin) }, query: toComment ? { comment: '1' } : {} })
}
function openChosen(toComment = false): void {
  const handin = chosenMember.value ?? chosen.value?.members[0]?.handin_id
  if (handin) review(handin, toComment)
}
function setFace(value: string): void {
  face.value = value
  void router.replace({ query: value === 'rows' ? { face: 'rows' } : {} })
}
function chooseHandin(handin: number): void {
  const c = results.value?.clusters.find((x) => x.members.some((m) => m.handin_id === handin))
  if (c) chosenKey.value = c.key
  chosenMember.value = handin
}
/** The more people, the more room; those that are right have a row of their own. */
function sizeOf(c: Cluster): { flexGrow: number; flexBasis: string } {
  if (c.kind !== 'wrong') return { flexGrow: 100, flexBasis: '100%' }
  return { flexGrow: 2 + c.members.length, flexBasis: c.members.length > 2 ? '470px' : '300px' }
}
const chosenHandin = computed(() => chosenMember.value ?? chosen.value?.members[0]?.handin_id ?? null)
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
  <p v-if="trouble" class="trouble">{{ trouble }}</p>
  <div v-else-if="results && !results.clusters.length" class="empty">
    <h2>{{ store.run ? 'The check is running' : results.waiting ? `${results.waiting} hand-ins wait to be checked` : 'Nothing has been handed in yet' }}</h2>
    <p>{{ store.run ? 'Clusters appear here when it is done.' : results.waiting ? '' : 'Drop a zip in Intake.' }}</p>
    <Button v-if="results.waiting && !store.run" type="primary" @click="store.check">Check them</Button>
    <Button v-else-if="!store.run" type="primary" @click="router.push({ name: 'intake', params: route.params })">To the intake</Button>
  </div>
  <main v-else-if="results" class="page">
    <ClassPanel :results="results" :face="face" :chosen="filter" @face="setFace" @filter="(i) => (filter = i)" />
    <RowsFace v-if="face === 'rows'" :task-id="results.task_id" :chosen="chosenHandin" :order="order" @choose="chooseHandin" @review="review" />
    <div v-else class="tray">
      <p v-if="results.waiting && !store.run" class="compartment row spread">
        <span>{{ results.waiting }} hand-ins have no outcome under this spec yet.</span><Button size="small" type="primary" @click="store.check">Check them <span class="k">r</span></Button>
      </p>
      <ClusterCompartment
        v-for="c in walked" :key="c.key" :cluster="c" :results="results" :chosen="c.key === chosenKey" :member="chosenHandin"
        :wide="c.kind !== 'wrong'" :style="sizeOf(c)"
        @choose="choose(c)" @review="review" @comment="((chosenKey = c.key), (chosenMember = null), openChosen(true))"
      />
      <article v-if="unchecked.length" class="compartment rest">
        <h2><span class="count">{{ unchecked.reduce((n, c) => n + c.members.length, 0) }}</span> not checked</h2>
        <div v-for="c in unchecked" :key="c.key" class="line" :class="{ chosen: c.key === chosenKey }" :aria-current="c.key === chosenKey" @click="choose(c)">
          <span class="quiet">{{ c.title.replace('not checked: ', '') }}</span>
          <p v-for="m in c.members" :key="m.handin_id" class="stuck">
            <button type="button" class="chip" @click.stop="review(m.handin_id)">{{ m.name }} <small>{{ shortLanguage(m.language) }}</small></button>
            <SentenceText :text="m.trouble" />
          </p>
        </div>
      </article>
      <article v-if="results.missing.length && filter === null" class="compartment rest missing">
        <h2><span class="count">{{ results.missing.length }}</span> missing</h2>
        <span v-for="name in results.missing" :key="name" class="chip plain">{{ name }}</span>
      </article>
      <p v-if="filter !== null && !shown.length" class="empty">No cluster fails this case.</p>
    </div>
  </main>
  <p v-else class="empty">Loading…</p>
</template>

<style scoped>
.page { display: grid; grid-template: minmax(0, 1fr) / 236px minmax(0, 1fr); gap: var(--gap); padding: var(--gap); flex: 1; min-height: 0; }
.tray { display: flex; flex-wrap: wrap; gap: var(--gap); align-content: flex-start; align-items: stretch; overflow: auto; min-height: 0; }
.tray > * { flex-shrink: 1; }
.rest { flex: 1 1 380px; display: flex; flex-direction: column; gap: 6px; }
.rest h2 { font-size: 13px; font-weight: 600; }
.rest .count { font-size: 20px; margin-right: 5px; }
.missing { flex-direction: row; flex-wrap: wrap; align-items: center; flex-basis: 200px; }
.line { display: flex; flex-wrap: wrap; gap: 6px; align-items: baseline; padding: 2px 4px; border-radius: 5px; cursor: pointer; }
.stuck { flex-basis: 100%; display: flex; gap: 8px; align-items: baseline; }
.stuck .chip { flex: none; }
.line.chosen { background: var(--lacquer-tint); }
.trouble { margin: 10px; }
.k { opacity: 0.7; font: 11px var(--mono); margin-left: 5px; }
</style>
