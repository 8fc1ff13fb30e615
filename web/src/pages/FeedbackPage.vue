<script setup lang="ts">
import { Button, message, Modal, Popconfirm } from 'ant-design-vue'
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { get, post, sentence } from '../api/client'
import type { Cluster, Feedback, FeedbackStudent, Letter, Released } from '../api/types'
import LetterSheet from '../features/feedback/LetterSheet.vue'
import MarksExport from '../features/feedback/MarksExport.vue'
import CommentBox from '../features/review/CommentBox.vue'
import { useKeys } from '../shared/keys'
import { useLab } from '../shared/lab'
import SentenceText from '../shared/SentenceText.vue'
import { count, mark } from '../shared/words'

const store = useLab()
const route = useRoute()
const router = useRouter()
const view = ref<Feedback | null>(null)
const letter = ref<Letter | null>(null)
const student = ref<FeedbackStudent | null>(null)
const side = ref<'students' | 'comments'>('students')
const trouble = ref('')

async function load(): Promise<void> {
  try {
    view.value = await get<Feedback>(`/labs/${store.lab?.id}/feedback`)
    if (!student.value) await choose(view.value.students.find((s) => s.sum !== null && s.open_comments) ?? view.value.students[0])
    else await choose(view.value.students.find((s) => s.student_id === student.value?.student_id) ?? view.value.students[0])
  } catch (error) {
    trouble.value = sentence(error)
  }
}
onMounted(load)
watch(() => store.finished, load)
async function choose(s: FeedbackStudent | undefined): Promise<void> {
  if (!s) return
  student.value = s
  letter.value = await get<Letter>(`/labs/${store.lab?.id}/letters/${s.student_id}`)
}
async function release(ids: number[] | null): Promise<void> {
  try {
    const done = await post<Released>(`/labs/${store.lab?.id}/release`, { student_ids: ids })
    message.success(`${count(done.letters, 'letter')} released${done.unchanged ? `, ${done.unchanged} unchanged` : ''}`)
    await load()
    await store.refresh()
  } catch (error) {
    message.error(sentence(error))
  }
}
const open = computed(() => view.value?.students.filter((s) => s.open_comments).length ?? 0)
const ready = computed(() => view.value?.students.filter((s) => s.handin_id !== null).length ?? 0)
function askRelease(): void {
  Modal.confirm({
    title: `Send ${count(ready.value, 'letter')}?`,
    content: open.value ? `${count(open.value, 'student')} would get a letter without a comment on a mistake.` : 'Every mistake has its comment.',
    okText: 'Send them',
    onOk: () => release(null),
  })
}
function studentsOf(cluster: Cluster): FeedbackStudent[] {
  const ids = new Set(cluster.members.map((m) => m.handin_id))
  return view.value?.students.filter((s) => s.handin_id !== null && ids.has(s.handin_id)) ?? []
}
function askReleaseOf(cluster: Cluster): void {
  const students = studentsOf(cluster)
  const unsaid = students.filter((s) => s.open_comments).length
  Modal.confirm({
    title: `Send ${count(students.length, 'letter')}?`,
    content: unsaid ? `${count(unsaid, 'student')} of them would get a letter without a comment on another mistake.` : 'Every mistake of theirs has its comment.',
    okText: 'Send them',
    onOk: () => release(students.map((s) => s.student_id)),
  })
}
async function draftAll(): Promise<void> {
  try {
    const done = await post<{ drafted: number }>(`/labs/${store.lab?.id}/drafts`)
    message.success(`${count(done.drafted, 'comment')} drafted`)
    await load()
    await store.refresh()
  } catch (error) {
    message.error(sentence(error))
  }
}
async function withdraw(): Promise<void> {
  const done = await post<Released>(`/labs/${store.lab?.id}/withdraw`)
  message.success(`${count(done.letters, 'letter')} taken back`)
  await load()
}
function walk(by: number): void {
  const list = view.value?.students ?? []
  const at = list.findIndex((s) => s.student_id === student.value?.student_id)
  void choose(list[Math.max(0, Math.min(list.length - 1, at + by))])
}
const WORDS = { none: '', released: 'sent', read: 'read', withdrawn: 'taken back' }
const openClusters = computed(() =>
  (view.value?.tasks ?? []).flatMap((t) => t.clusters.filter((c) => c.kind !== 'right').map((cluster) => ({ task: t, cluster }))),
)
useKeys([
  { key: 'ArrowDown', label: 'next student', act: () => walk(1) },
  { key: 'ArrowUp', label: 'student before', act: () => walk(-1) },
  { key: 'Enter', label: 'open the review', act: () => student.value?.handin_id && void router.push({ name: 'review', params: { ...route.params, handin: String(student.value.handin_id) } }) },
])
</script>

<template>
  <p v-if="trouble" class="trouble">{{ trouble }}</p>
  <main v-else-if="view" class="page">
    <section class="compartment list">
      <div class="row spread">
        <span class="sides">
          <button type="button" :class="{ here: side === 'students' }" @click="side = 'students'">Students {{ view.students.length }}</button>
          <button type="button" :class="{ here: side === 'comments' }" @click="side = 'comments'">Comments {{ openClusters.filter((x) => x.cluster.comment.trim()).length }} of {{ openClusters.length }}</button>
        </span>
        <span class="row">
          <RouterLink :to="{ name: 'report', params: route.params }" class="small">Class report</RouterLink>
          <MarksExport v-if="store.lab" :lab-id="store.lab.id" />
          <Popconfirm v-if="view.sent" title="Take back the letters nobody has opened?" ok-text="Take back" @confirm="withdraw"><Button size="small">Take back unread</Button></Popconfirm>
          <Button size="small" type="primary" :disabled="!ready" @click="askRelease">Release all</Button>
        </span>
      </div>
      <div v-if="side === 'students'" class="scroll">
        <table>
          <thead><tr><th></th><th v-for="t in view.tasks" :key="t.id" class="n">{{ t.title }}</th><th class="n">sum</th><th></th></tr></thead>
          <tbody>
            <tr v-for="s in view.students" :key="s.student_id" :class="{ chosen: s.student_id === student?.student_id }" :data-student="s.student_id" @click="choose(s)">
              <td><b>{{ s.name }}</b> <span v-if="s.team" class="tag">team</span><span v-if="s.late" class="tag undef">late</span></td>
              <td v-for="(m, i) in s.marks" :key="i" class="n mono" :class="{ held: s.held[i] }" :title="s.by_hand[i] ? 'set by hand' : ''">{{ s.handin_id === null ? '–' : mark(m) }}{{ s.by_hand[i] ? '*' : '' }}</td>
              <td class="n mono"><b>{{ s.sum === null ? '' : mark(s.sum) }}</b></td>
              <td class="state"><span v-if="s.open_comments" class="tag undef">{{ count(s.open_comments, 'comment') }} open</span> <span v-if="WORDS[s.letter]" class="tag pass">{{ WORDS[s.letter] }}</span><span v-if="s.outdated" class="tag fail">changed since</span></td>
            </tr>
          </tbody>
        </table>
        <p v-if="!view.students.length" class="empty">Nobody is on the class list yet. Load it from the class's page.</p>
      </div>
      <div v-else class="scroll comments">
        <p class="row spread"><span class="quiet small">A draft says what was found; read it before it goes out.</span><Button size="small" :disabled="!openClusters.some((x) => !x.cluster.comment.trim())" @click="draftAll">Draft all open ones</Button></p>
        <div v-for="x in openClusters" :key="x.task.id + x.cluster.key" class="one">
          <p><b>{{ x.cluster.members.length }}</b> <SentenceText :text="x.cluster.title" /> <span class="quiet small">{{ x.task.title }}: {{ x.cluster.members.map((m) => m.name).slice(0, 4).join(', ') }}{{ x.cluster.members.length > 4 ? '…' : '' }}</span>
            <Button v-if="studentsOf(x.cluster).length" size="small" type="link" :disabled="!x.cluster.comment.trim()" @click="askReleaseOf(x.cluster)">Release {{ x.cluster.members.length > 1 ? 'these' : 'this one' }}</Button></p>
          <CommentBox :label="''" :name="`comment-${x.cluster.key}`" :task-id="x.task.id" :cluster="x.cluster.key" :handin-id="0" :text="x.cluster.comment" :version="x.cluster.comment_version" :rows="2" button="Keep" @kept="load" />
        </div>
      </div>
    </section>
    <section class="preview">
      <div v-if="student" class="row spread"><span class="caption">The letter as {{ student.name.split(' ')[0] }} will see it</span>
        <Button v-if="student.handin_id" size="small" @click="release([student.student_id])">Release this one</Button></div>
      <LetterSheet v-if="letter" :letter="letter" />
    </section>
  </main>
  <p v-else class="empty">Loading…</p>
</template>

<style scoped>
.page { display: grid; grid-template-columns: minmax(0, 1.05fr) minmax(0, 1fr); gap: var(--gap); padding: var(--gap); flex: 1; min-height: 0; }
.list { display: flex; flex-direction: column; gap: 8px; min-height: 0; }
.scroll { overflow: auto; min-height: 0; }
table { width: 100%; border-collapse: collapse; }
th { font-size: 11px; font-weight: 600; color: var(--ink-2); text-align: left; position: sticky; top: 0; background: var(--paper); padding: 2px 6px; }
td { border-top: 1px solid var(--line-2); padding: 3px 6px; }
td b { font-weight: 500; }
.n { text-align: right; }
.held { color: var(--undef-text); }
.state { text-align: right; white-space: nowrap; }
tr.chosen td { background: var(--lacquer-tint); }
tbody tr { cursor: pointer; }
.preview { overflow: auto; display: flex; flex-direction: column; gap: 8px; }
.comments { display: grid; gap: 14px; }
.sides button { border: 0; background: none; border-radius: 5px; padding: 2px 9px; cursor: pointer; color: var(--ink-2); }
.sides .here { background: var(--lacquer-tint); color: var(--lacquer); font-weight: 600; }
.trouble { margin: 10px; }
</style>
