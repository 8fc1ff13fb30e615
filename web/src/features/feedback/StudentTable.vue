<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { FeedbackView, FeedbackStudent } from '../../api/schema'
import { useInSight } from '../../shared/inSight'
import RoomRow from '../../shared/RoomRow.vue'
import WalkedRegion from '../../shared/WalkedRegion.vue'
import { count, mark } from '../../shared/words'

/** Everybody with their marks, and how far their letter is. */
const props = defineProps<{ view: FeedbackView; chosen: number | null }>()
const emit = defineEmits<{ choose: [student: FeedbackStudent] }>()
/** Names that more than one has: their numbers tell them apart. */
const twice = computed(() => {
  const names = props.view.students.map((s) => s.name)
  return new Set(names.filter((name, at) => names.indexOf(name) !== at))
})
function walk(by: number): void {
  const all = props.view.students
  const next = all[Math.max(0, Math.min(all.length - 1, all.findIndex((s) => s.student_id === props.chosen) + by))]
  if (next) emit('choose', next)
}
/** The row of headings, which stays in sight. */
const HEAD = 24
const region = ref<InstanceType<typeof WalkedRegion>>()
const { shown, above, below, measure, show } = useInSight(() => props.view.students, {
  box: () => region.value?.$el as HTMLElement | undefined,
  height: 26,
  before: () => HEAD,
})
watch(
  () => props.chosen,
  (id) => show(props.view.students.findIndex((s) => s.student_id === id)),
)
function titleOf(s: FeedbackStudent, task: number): string {
  if (s.held[task]) return 'held: it was not checked; a mark given in the review counts'
  return s.by_hand[task] ? 'set by hand' : ''
}
const MAILS = { '': '', waiting: 'mail waits', sent: 'mailed', failed: 'mail failed', 'no address': 'no address' }
const WORDS = { none: '', released: 'released', read: 'read', withdrawn: 'taken back' }
</script>

<template>
  <WalkedRegion ref="region" class="scroll" label="students; the arrow keys go from one to the next" @walk="walk">
    <table :aria-rowcount="view.students.length + 1">
      <thead>
        <tr>
          <th scope="col" class="name"><span class="unseen">student</span></th>
          <th v-for="t in view.tasks" :key="t.id" class="n">{{ t.title }}</th>
          <th scope="col"><span class="unseen">letter</span></th>
          <th class="n sum">sum</th>
        </tr>
      </thead>
      <tbody>
        <RoomRow :height="above" />
        <tr
          v-for="{ row: s, at } in shown"
          :key="s.student_id"
          :ref="measure"
          :data-index="at"
          :aria-rowindex="at + 2"
          :class="{ chosen: s.student_id === chosen }"
          :data-student="s.student_id"
          @click="emit('choose', s)"
        >
          <td class="name">
            <b>{{ s.name }}</b> <span v-if="twice.has(s.name)" class="mono quiet small">{{ s.number }}</span>
            <span v-if="s.excused !== null" class="tag" :title="s.excused">excused</span><span v-if="s.team" class="tag">team</span
            ><span v-if="s.late" class="tag undef">late</span>
          </td>
          <td v-for="(m, i) in s.marks" :key="i" class="n mono" :class="{ held: s.held[i] }" :title="titleOf(s, i)">
            {{ s.handin_id === null || (m === null && !s.held[i]) ? '–' : mark(m) }}{{ s.by_hand[i] ? '*' : '' }}
          </td>
          <td class="state">
            <span v-if="s.open_comments" class="tag undef">{{ count(s.open_comments, 'comment') }} open</span>
            <span
              v-if="MAILS[s.mail]"
              class="tag"
              :class="{ fail: s.mail === 'failed' || s.mail_trouble, undef: s.mail === 'no address' }"
              :title="s.mail_trouble"
              >{{ MAILS[s.mail] }}</span
            >
            <span v-if="WORDS[s.letter]" class="tag pass">{{ WORDS[s.letter] }}</span><span v-if="s.outdated" class="tag fail"
              >changed since</span
            >
          </td>
          <td class="n mono sum">
            <b>{{ s.sum === null ? '' : mark(s.sum) }}</b>
          </td>
        </tr>
        <RoomRow :height="below" />
      </tbody>
    </table>
    <p v-if="!view.students.length" class="empty">Nobody is on the class list yet. Load it from the class's page.</p>
  </WalkedRegion>
</template>

<style scoped>
.scroll {
  overflow: auto;
  min-height: 0;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  font-size: 12px;
  font-weight: 600;
  color: var(--ink-2);
  text-align: left;
  position: sticky;
  top: 0;
  background: var(--paper);
  padding: 2px 6px;
}
td {
  border-top: 1px solid var(--line-2);
  padding: 3px 6px;
}
td b {
  font-weight: 500;
}
.n {
  text-align: right;
}
/* Of many tasks, who it is and the sum stay in sight. */
.name,
.sum {
  position: sticky;
  background: var(--paper);
  z-index: 1;
}
.name {
  left: 0;
}
.sum {
  right: 0;
}
th.name,
th.sum {
  z-index: 2;
}
.held {
  color: var(--undef-text);
}
.state .tag {
  margin-left: 4px;
}
.state {
  text-align: right;
  white-space: nowrap;
}
tbody tr {
  scroll-margin-top: 24px;
}
tr.chosen td {
  background: var(--lacquer-tint);
}
tbody tr {
  cursor: pointer;
}
</style>
