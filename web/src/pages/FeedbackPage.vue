<script setup lang="ts">
import { Button, message, Popconfirm } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { get, post } from '../api/client'
import type { FeedbackStudent } from '../api/schema'
import { openClusters } from '../features/feedback/clusters'
import CommentList from '../features/feedback/CommentList.vue'
import LetterSheet from '../features/feedback/LetterSheet.vue'
import MarksExport from '../features/feedback/MarksExport.vue'
import { useRelease } from '../features/feedback/release'
import ReleaseList from '../features/feedback/ReleaseList.vue'
import StudentTable from '../features/feedback/StudentTable.vue'
import FailedState from '../shared/FailedState.vue'
import { told } from '../shared/attempt'
import { useKeys } from '../shared/keys'
import LongWork from '../shared/LongWork.vue'
import { useLab } from '../shared/lab'
import { useResource } from '../shared/resource'
import { useWork } from '../shared/work'
import { count } from '../shared/words'

const store = useLab()
const route = useRoute()
const router = useRouter()
const chosen = ref<number | null>(null)
const side = ref<'students' | 'comments'>('students')
const { data: view, trouble, reload } = useResource((signal) => get(`/labs/${store.labId}/feedback`, { signal }), { lazy: true })
const letter = useResource(
  async (signal) => {
    const of = chosen.value ?? 0
    return { of, text: await get(`/labs/${store.labId}/letters/${of}`, { signal }) }
  },
  { lazy: true },
)
const { release, withdraw, asked, isBusy, releasing } = useRelease(() => store.labId, afterSending)
const drafting = useWork()
/** The students of the group that is looked at; null without one. */
const inGroup = computed(() => {
  if (!store.group) return null
  const ids = new Set(store.who.filter((w) => w.group === store.group).map((w) => w.student_id))
  return view.value?.students.filter((s) => ids.has(s.student_id)) ?? []
})
const shown = computed(() => view.value && { ...view.value, students: inGroup.value ?? view.value.students })
const student = computed(() => view.value?.students.find((s) => s.student_id === chosen.value) ?? null)
const ready = computed(() => view.value?.students.some((s) => s.handin_id !== null))
const clusters = computed(() => openClusters(view.value))
const said = computed(() => clusters.value.filter((x) => x.cluster.comment.trim()).length)

async function load(): Promise<void> {
  const students = (await reload())?.students ?? []
  await choose(student.value ?? students.find((s) => s.sum !== null && s.open_comments) ?? students[0])
}
void load()
watch(() => store.finished, load)
async function afterSending(): Promise<void> {
  await load()
  await store.refresh()
}
async function choose(s: FeedbackStudent | undefined): Promise<void> {
  if (!s) return
  chosen.value = s.student_id
  await letter.reload()
}
async function draftAll(): Promise<void> {
  await told(async () => {
    const done = await drafting.during((key) => post(`/labs/${store.labId}/drafts`, undefined, { work: key }))
    message.success(`${count(done.drafted, 'comment')} drafted`)
    await afterSending()
  })
}
function walk(by: number): void {
  const list = shown.value?.students ?? []
  const at = list.findIndex((s) => s.student_id === chosen.value)
  void choose(list[Math.max(0, Math.min(list.length - 1, at + by))])
}
function review(): void {
  const handin = student.value?.handin_id
  if (handin) void router.push({ name: 'review', params: { ...route.params, handin: String(handin) } })
}
useKeys([
  { key: 'ArrowDown', label: 'next student', act: () => walk(1) },
  { key: 'ArrowUp', label: 'student before', act: () => walk(-1) },
  { key: 'Enter', label: 'open the review', act: review },
])
</script>

<template>
  <FailedState v-if="trouble && !view" :text="trouble" @again="load" />
  <p v-else-if="trouble" class="trouble">{{ trouble }}</p>
  <LongWork v-if="drafting.isShown" label="drafted" :done="drafting.done" :total="drafting.total" @cancel="drafting.stop" />
  <main v-if="view" class="page">
    <section class="compartment list">
      <div class="row spread">
        <span class="sides">
          <button type="button" :class="{ here: side === 'students' }" @click="side = 'students'">
            Students {{ shown?.students.length }}
          </button>
          <button type="button" :class="{ here: side === 'comments' }" @click="side = 'comments'">
            Comments {{ said }} of {{ clusters.length }}
          </button>
        </span>
        <span class="row">
          <RouterLink :to="{ name: 'report', params: route.params }" class="small">Class report</RouterLink>
          <MarksExport :lab-id="store.labId" :group="store.group" />
          <Popconfirm v-if="view.sent" title="Take back the letters nobody has opened?" ok-text="Take back" @confirm="withdraw"
            ><Button size="small" :disabled="!store.may('release')">Take back unread</Button></Popconfirm
          >
          <Button
            size="small"
            type="primary"
            :disabled="!ready || !store.may('release')"
            @click="asked = inGroup ? inGroup.map((s) => s.student_id) : null"
            >Release{{ store.group ? ` group ${store.group}` : ' all' }}</Button
          >
        </span>
      </div>
      <StudentTable v-if="side === 'students' && shown" :view="shown" :chosen="chosen" @choose="choose" />
      <CommentList
        v-else
        :clusters="clusters"
        @look="(x) => choose(x.students[0])"
        @kept="load"
        @draft="draftAll"
        @release="(x) => (asked = x.students.map((s) => s.student_id))"
      />
    </section>
    <section class="preview">
      <div v-if="student" class="row spread">
        <span class="caption">The letter as {{ student.name.split(' ')[0] }} will see it</span>
        <Button v-if="student.handin_id" size="small" :disabled="!store.may('release')" @click="asked = [student.student_id]"
          >Release this one</Button
        >
      </div>
      <p v-if="letter.trouble.value" class="trouble">{{ letter.trouble.value }}</p>
      <LetterSheet v-else-if="letter.data.value?.of === chosen" :letter="letter.data.value.text" />
    </section>
  </main>
  <main v-else-if="!trouble" class="empty" aria-busy="true">Loading…</main>
  <ReleaseList
    v-if="asked !== undefined && store.lab"
    :lab-id="store.labId"
    :class-id="store.lab.class_id"
    :task-id="store.taskId"
    :only="asked"
    :busy="isBusy"
    :releasing="releasing"
    @release="release"
    @close="asked = undefined"
  />
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 1.05fr) minmax(0, 1fr);
  gap: var(--gap);
  padding: var(--gap);
  flex: 1;
  min-height: 0;
}
.list {
  display: flex;
  flex-direction: column;
  gap: 8px;
  min-height: 0;
}
.preview {
  overflow: auto;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.sides button {
  border: 0;
  background: none;
  border-radius: 5px;
  padding: 2px 9px;
  cursor: pointer;
  color: var(--ink-2);
}
.sides .here {
  background: var(--lacquer-tint);
  color: var(--lacquer);
  font-weight: 600;
}
.trouble {
  margin: 10px;
}
</style>
