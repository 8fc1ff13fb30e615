<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { message } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import { get, post, put } from '../api/client'
import type { IntakeEntry, NameBinding } from '../api/schema'
import DropBox from '../features/intake/DropBox.vue'
import DropHistory from '../features/intake/DropHistory.vue'
import SharedQuestions from '../features/intake/SharedQuestions.vue'
import EntryLine from '../features/intake/EntryLine.vue'
import FailedState from '../shared/FailedState.vue'
import { told } from '../shared/attempt'
import { useInSight } from '../shared/inSight'
import { useKeys } from '../shared/keys'
import LongWork from '../shared/LongWork.vue'
import { useLab } from '../shared/lab'
import { useResource } from '../shared/resource'
import { useWork } from '../shared/work'
import { count } from '../shared/words'

const store = useLab()
const router = useRouter()
const progress = ref('')
const taking = useWork()
const box = ref<InstanceType<typeof DropBox>>()
const { data: intake, trouble, reload } = useResource((signal) => get(`/labs/${store.labId}/intake`, { signal }), { lazy: true })

async function load(): Promise<void> {
  await reload()
  await store.refresh()
}
void load()
watch(() => store.finished, load)

async function take(files: File[], task: number | null): Promise<void> {
  const lab = store.labId // whatever is on screen by the time it is taken in
  for (const file of files) {
    progress.value = `taking in ${file.name}`
    const form = new FormData()
    form.append('file', file)
    await told(async () => {
      const came = await taking.during((key) =>
        task === null ? post(`/labs/${lab}/drops`, form, { work: key }) : post(`/tasks/${task}/drops`, form, { work: key }),
      )
      message.success(`${count(came.new_attempts, 'new attempt')}${came.repeated ? `, ${came.repeated} known already` : ''}`)
      for (const note of came.notes) message.warning(note, 20)
    })
  }
  progress.value = ''
  if (lab !== store.labId) return
  await load()
  await store.check()
}
async function settle(entry: IntakeEntry, student_ids: number[]): Promise<void> {
  if (student_ids.length && (await told(() => put(`/handins/${entry.handin_id}/owner`, { student_ids })))) await load()
}
async function agree(task: number, b: NameBinding): Promise<void> {
  if (await told(() => post(`/tasks/${task}/consents`, { ours: b.ours, theirs: b.theirs }))) await load()
}
/** One answer for all who ask the same; the class is checked once, when all of them have it. */
async function choose(task: number, unit: string, entries: IntakeEntry[], tell?: (done: number) => void): Promise<void> {
  const found = await told(async () => {
    const spec = await get(`/tasks/${task}/spec`)
    let done = 0
    for (const entry of entries) {
      await put(`/handins/${entry.handin_id}/tasks/${task}/choice`, { ours: spec.preview.unit, theirs: unit })
      tell?.(++done)
    }
  })
  tell?.(entries.length)
  if (found) await store.check()
}
async function aside(entry: IntakeEntry, reason: string | null): Promise<void> {
  if (await told(() => put(`/handins/${entry.handin_id}/aside`, { reason }))) await load()
}
function review(task: number, entry: IntakeEntry): void {
  void router.push(`/lab/${store.labId}/task/${task}/review/${entry.handin_id}`)
}
const people = computed(() => (intake.value?.students ?? []).map((s) => ({ value: s.id, label: `${s.name} ${s.number}` })))
const shown = computed(() => (intake.value?.entries ?? []).filter((e) => !store.group || e.group === store.group || !e.who))
/** Headings and lines, one below the other. */
type Line = { title: string; entry: null } | { title: ''; entry: IntakeEntry }
const lines = computed(() => {
  const groups = [
    { title: 'to look at', entries: shown.value.filter((e) => !e.settled) },
    { title: 'settled', entries: shown.value.filter((e) => e.settled && e.aside === null) },
    { title: 'put aside', entries: shown.value.filter((e) => e.aside !== null) },
  ]
  return groups.flatMap(({ title, entries }): Line[] =>
    entries.length ? [{ title: `${entries.length} ${title}`, entry: null }, ...entries.map((entry): Line => ({ title: '', entry }))] : [],
  )
})
const scroller = ref<HTMLElement>()
const head = ref<HTMLElement>()
const { height: before } = useElementSize(head)
const {
  shown: inSight,
  above,
  below,
  measure,
} = useInSight(() => lines.value, {
  box: () => scroller.value,
  height: 36,
  gap: 5,
  before: () => before.value + 5,
})
const titles = computed(() => new Map(store.lab?.tasks.map((t) => [t.id, t.title])))
useKeys([
  { key: 'u', label: 'choose a zip', act: () => box.value?.choose() },
  { key: 'r', label: 'check what is new', act: () => void store.check() },
])
</script>

<template>
  <FailedState v-if="trouble && !intake" :text="trouble" @again="load" />
  <p v-else-if="trouble" class="trouble">{{ trouble }}</p>
  <LongWork v-if="taking.isShown" label="taking in" :done="taking.done" :total="taking.total" @cancel="taking.stop" />
  <main v-if="intake" class="page">
    <DropHistory :intake="intake" :titles="titles" :may="store.may('work')" @changed="load"
      ><DropBox v-if="store.may('work')" ref="box" :progress="progress" :tasks="store.lab?.tasks ?? []" @files="take"
    /></DropHistory>
    <section ref="scroller" class="lines" tabindex="0" aria-label="hand-ins">
      <div ref="head" class="column">
        <div class="line heads small quiet">
          <span>handed in as</span><span>person</span><span>task</span><span>language</span><span>unit</span><span>ports</span>
        </div>
        <SharedQuestions v-if="store.may('work')" :entries="shown" :titles="titles" @choose="choose" />
      </div>
      <div class="column" :style="{ paddingTop: `${above}px`, paddingBottom: `${below}px` }">
        <template v-for="{ row: { title, entry: e }, at } in inSight" :key="e ? e.handin_id : title">
          <h2 v-if="!e" :ref="measure" :data-index="at">{{ title }}</h2>
          <EntryLine
            v-else
            :ref="measure"
            :data-index="at"
            :entry="e"
            :titles="titles"
            :people="people"
            :running="!!store.run"
            :may="store.may('work')"
            @settle="(ids) => settle(e, ids)"
            @agree="agree"
            @choose="(task, unit) => choose(task, unit, [e])"
            @aside="(reason) => aside(e, reason)"
            @changed="load"
            @check="store.check"
            @review="(task) => review(task, e)"
          />
        </template>
      </div>
      <div v-if="!intake.entries.length" class="compartment empty">
        <h2>Nothing has been handed in</h2>
        Drop the class's zip at the left.
      </div>
    </section>
  </main>
  <main v-else-if="!trouble" class="empty" aria-busy="true">Loading…</main>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: 236px 1fr;
  gap: var(--gap);
  padding: var(--gap);
  flex: 1;
  min-height: 0;
}
/* The columns of each line, as wide as there is room for. */
.lines {
  overflow: hidden auto;
  --label: 200px;
  --person: 180px;
  --task: 156px;
  --language: 62px;
  --unit: 122px;
}
@media (max-width: 1180px) {
  .lines {
    --label: 132px;
    --person: 132px;
    --task: 104px;
    --language: 56px;
    --unit: 96px;
  }
}
.lines,
.column {
  display: flex;
  flex-direction: column;
  gap: 5px;
}
h2 {
  font-size: 13px;
  font-weight: 600;
  margin-top: 6px;
}
.heads {
  display: grid;
  gap: 4px;
}
.line.heads {
  grid-template-columns: var(--label) var(--person) var(--task) var(--language) var(--unit) minmax(0, 1fr);
}
.heads span {
  padding-left: 9px;
}
.trouble {
  margin: 10px;
}
</style>
