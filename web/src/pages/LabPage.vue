<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { sentence } from '../api/client'
import FindStudent from '../features/lab/FindStudent.vue'
import LabTerms from '../features/lab/LabTerms.vue'
import { useKeys } from '../shared/keys'
import { leftToSay, outcomes } from '../shared/words'
import { useLab } from '../shared/lab'
import FailedState from '../shared/FailedState.vue'
import LongWork from '../shared/LongWork.vue'
import TopBar from '../shared/TopBar.vue'
import Choice from '../shared/Choice.vue'

const route = useRoute()
const router = useRouter()
const store = useLab()
const trouble = ref('')
const termsOpen = ref(false)
const changes = ref(0)
const finder = ref<InstanceType<typeof FindStudent>>()

async function openLab(): Promise<void> {
  const { lab, task } = route.params
  if (!lab || !task) return
  store.taskId = Number(task)
  try {
    await store.open(Number(lab))
    trouble.value = ''
  } catch (error) {
    trouble.value = sentence(error)
  }
}
watch(() => [route.params.lab, route.params.task], openLab, { immediate: true })

/** Room for the names of tasks in the bar. */
const isRoomy = useMediaQuery('(min-width: 1180px)')
const here = computed(() => (route.name === 'board' ? 'spec' : String(route.name)))
/** Where one is, for the window's title and for who hears the page: review, Lock-gate interlock, Lab 1. */
const whereabouts = computed(() => [String(route.name), store.task?.title, store.lab?.title].filter(Boolean).join(', '))
watch(whereabouts, (now) => (document.title = `${now} · Obento`), { immediate: true })

const places = computed(() => {
  const lab = store.lab
  const task = store.task
  if (!lab || !task) return []
  const isChecked = task.right + task.wrong + task.against_rules + task.unchecked > 0
  return [
    { name: 'spec', title: 'Spec', note: task.is_right ? `version ${task.version}` : 'has errors' },
    { name: 'intake', title: 'Intake', note: lab.unsettled ? `${lab.unsettled} to settle` : `${lab.handed_in} of ${lab.students}` },
    { name: 'results', title: 'Results', note: isChecked ? outcomes(task) : 'nothing checked' },
    {
      name: 'review',
      title: 'Review',
      note: isChecked ? leftToSay(task) : 'nothing yet',
    },
    { name: 'feedback', title: 'Feedback', note: `${lab.sent} of ${lab.students} released` },
  ]
})
/** What comes next in a lab to which nobody has handed in anything. */
const next = computed(() => {
  const lab = store.lab
  if (!lab || lab.handed_in || lab.unsettled || !store.may('manage')) return null
  if (!store.task?.is_right)
    return here.value === 'spec' ? null : { text: 'First this task is to be said without errors.', place: 'spec', act: 'To the spec' }
  if (here.value === 'spec')
    return { text: 'Once this says what you ask for: drop what was handed in.', place: 'intake', act: 'To the intake' }
  return null
})
/** Marks may be others now: what is on screen is read again. */
async function afterChange(): Promise<void> {
  await store.refresh()
  changes.value++
}
function go(name: string): void {
  void router.push({ name, params: { lab: route.params.lab, task: route.params.task } })
}
function toTask(id: unknown): void {
  const name = route.name === 'review' ? 'results' : String(route.name)
  void router.push({ name, params: { lab: route.params.lab, task: String(id) } })
}
function nextTask(): void {
  const tasks = store.lab?.tasks ?? []
  const at = tasks.findIndex((t) => t.id === store.taskId)
  if (tasks.length > 1) toTask(tasks[(at + 1) % tasks.length].id)
}
useKeys([
  { key: '1', label: 'spec', act: () => go('spec') },
  { key: '2', label: 'intake', act: () => go('intake') },
  { key: '3', label: 'results', act: () => go('results') },
  { key: '4', label: 'review', act: () => go('review') },
  { key: '5', label: 'feedback', act: () => go('feedback') },
  { key: 'n', label: 'next task', act: nextTask },
  { key: 'd', label: 'due date, attempts, extensions', act: () => (termsOpen.value = true) },
])
</script>

<template>
  <div class="shell">
    <TopBar>
      <h1 class="unseen">{{ whereabouts }}</h1>
      <template v-if="store.lab">
        <button type="button" class="lab" title="due date, attempts, extensions (d)" @click="termsOpen = true">
          {{ store.lab.title }}</button><span class="slash">/</span>
        <span v-if="store.lab.tasks.length < 3 && isRoomy" class="tasks">
          <button
            v-for="t in store.lab.tasks"
            :key="t.id"
            type="button"
            :class="{ here: t.id === store.taskId }"
            :aria-current="t.id === store.taskId ? 'true' : undefined"
            :title="t.title"
            @click="toTask(t.id)"
          >
            {{ t.title }}
          </button>
        </span>
        <Choice
          v-else
          :value="store.taskId"
          :options="store.lab.tasks.map((t) => ({ value: t.id, label: t.title }))"
          size="small"
          class="pick"
          label="task"
          @change="toTask"
        />
      </template>
      <button v-if="store.lab" type="button" class="lab find" title="find a student (/)" @click="finder?.open()">Find <kbd>/</kbd></button>
      <Choice
        v-if="store.groups.length > 1"
        v-model:value="store.group"
        :options="[{ value: '', label: 'all groups' }, ...store.groups.map((g) => ({ value: g, label: `group ${g}` }))]"
        size="small"
        class="group"
        label="group"
      />
      <template #places>
        <nav class="places" aria-label="Places">
          <button
            v-for="p in places"
            :key="p.name"
            type="button"
            :class="{ here: p.name === here }"
            :aria-current="p.name === here ? 'page' : undefined"
            :data-place="p.name"
            :title="p.note"
            @click="go(p.name)"
          >
            <b>{{ p.title }}</b><small>{{ p.note }}</small>
          </button>
        </nav>
      </template>
    </TopBar>
    <LongWork v-if="store.run" label="checking" :done="store.run.done" :total="store.run.total" @cancel="store.cancel" />
    <FailedState v-if="trouble && !store.lab" :text="trouble" @again="openLab" />
    <p v-else-if="trouble" class="trouble">{{ trouble }}</p>
    <p v-if="store.lab && !store.may('work')" class="notice">You look at this class as a reader: nothing you type here is kept.</p>
    <p v-if="next" class="notice row" role="status">
      {{ next.text }} <button type="button" class="link" @click="go(next.place)">{{ next.act }}</button>
    </p>
    <RouterView v-if="store.lab && store.task" :key="String(route.params.task) + String(route.name) + changes" />
    <FindStudent ref="finder" />
    <LabTerms v-if="store.lab" :lab-id="store.lab.id" :open="termsOpen" @close="termsOpen = false" @changed="afterChange" />
  </div>
</template>

<style scoped>
.shell {
  height: 100%;
  display: flex;
  flex-direction: column;
}
.lab {
  color: #eadfe7;
  background: none;
  border: 0;
  padding: 3px 0;
  cursor: pointer;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  flex: 0 100 auto;
  min-width: 36px;
}
.lab:hover {
  color: #fff;
  text-decoration: underline;
}
.slash {
  opacity: 0.5;
}
.tasks {
  display: flex;
  gap: 2px;
  min-width: 0;
  overflow: hidden;
}
.tasks button {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  background: none;
  border: 0;
  border-radius: 5px;
  color: #eadfe7;
  padding: 3px 8px;
  cursor: pointer;
  white-space: nowrap;
}
.tasks button.here {
  flex-shrink: 0.1;
  color: #fff;
  font-weight: 600;
  background: rgb(255 255 255 / 12%);
}
.pick {
  width: 200px;
  min-width: 110px;
  flex: 0 1 auto;
}
.group {
  flex: 0 1 108px;
  min-width: 56px;
}
.find {
  flex: none;
  margin-left: auto;
}
.find kbd {
  font: 12px var(--mono);
  opacity: 0.7;
}
.places {
  display: flex;
  align-items: stretch;
}
@media (max-width: 1100px) {
  .places button {
    padding: 0 9px;
    min-width: 0;
  }
  .places small {
    max-width: 128px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
}
.places button {
  display: grid;
  align-content: center;
  gap: 0;
  text-align: left;
  padding: 0 14px;
  border: 0;
  border-left: 1px solid rgb(255 255 255 / 12%);
  background: none;
  color: #eadfe7;
  cursor: pointer;
  line-height: 1.25;
  min-width: 92px;
}
.places b {
  font-weight: 600;
  color: #fff;
}
.places small {
  font-size: 12px;
  white-space: nowrap;
}
.places .here {
  background: var(--rice);
  color: var(--lacquer);
}
.places .here b {
  color: var(--lacquer);
}
.trouble {
  margin: 10px;
}
.notice {
  padding: 5px 14px;
  background: var(--lacquer-tint);
  border-bottom: 1px solid var(--line);
}
</style>
