<script setup lang="ts">
import { computed } from 'vue'

import type { FeedbackView, FeedbackStudent } from '../../api/schema'
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
const MAILS = { '': '', waiting: 'mail waits', sent: 'mailed', failed: 'mail failed', 'no address': 'no address' }
const WORDS = { none: '', released: 'released', read: 'read', withdrawn: 'taken back' }
</script>

<template>
  <WalkedRegion class="scroll" label="students; the arrow keys go from one to the next" @walk="walk">
    <table>
      <thead>
        <tr>
          <th scope="col"><span class="unseen">student</span></th>
          <th v-for="t in view.tasks" :key="t.id" class="n">{{ t.title }}</th>
          <th class="n">sum</th>
          <th scope="col"><span class="unseen">letter</span></th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="s in view.students"
          :key="s.student_id"
          :class="{ chosen: s.student_id === chosen }"
          :data-student="s.student_id"
          @click="emit('choose', s)"
        >
          <td>
            <b>{{ s.name }}</b> <span v-if="twice.has(s.name)" class="mono quiet small">{{ s.number }}</span>
            <span v-if="s.excused !== null" class="tag" :title="s.excused">excused</span><span v-if="s.team" class="tag">team</span
            ><span v-if="s.late" class="tag undef">late</span>
          </td>
          <td v-for="(m, i) in s.marks" :key="i" class="n mono" :class="{ held: s.held[i] }" :title="s.by_hand[i] ? 'set by hand' : ''">
            {{ s.handin_id === null || (m === null && !s.held[i]) ? '–' : mark(m) }}{{ s.by_hand[i] ? '*' : '' }}
          </td>
          <td class="n mono">
            <b>{{ s.sum === null ? '' : mark(s.sum) }}</b>
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
        </tr>
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
tr.chosen td {
  background: var(--lacquer-tint);
}
tbody tr {
  cursor: pointer;
}
</style>
