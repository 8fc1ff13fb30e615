<script setup lang="ts">
import { Button, DatePicker, Modal } from 'ant-design-vue'
import dayjs, { type Dayjs } from 'dayjs'
import { computed } from 'vue'

import { put } from '../../api/client'
import type { AttemptView, IntakeEntry } from '../../api/schema'
import { told } from '../../shared/attempt'
import { count } from '../../shared/words'
import Choice from '../../shared/Choice.vue'

/** The attempts of one hand-in: which task each is for, when it came, and taking one out. */
const props = defineProps<{ entry: IntakeEntry; titles: Map<number, string>; people: { value: number; label: string }[] }>()
const emit = defineEmits<{ changed: []; close: [] }>()
const WHOLE_LAB = 0
const tasks = computed(() => [
  { value: WHOLE_LAB, label: 'every task whose unit it holds' },
  ...[...props.titles].map(([value, label]) => ({ value, label })),
])

async function act(work: () => Promise<unknown>): Promise<void> {
  if (await told(work)) emit('changed')
}
const forTask = (a: AttemptView, task: number): Promise<void> =>
  act(() => put(`/attempts/${a.id}/task`, { task_id: task === WHOLE_LAB ? null : task }))
async function received(a: AttemptView, at: Dayjs | string | null): Promise<void> {
  if (at) await act(() => put(`/attempts/${a.id}/received`, { at: dayjs(at).toISOString() }))
}
const give = (a: AttemptView, students: number[]): Promise<void> => act(() => put(`/attempts/${a.id}/owner`, { student_ids: students }))
</script>

<template>
  <Modal open :title="`What came from ${entry.who || entry.label}`" :footer="null" :width="820" @cancel="emit('close')">
    <p class="quiet">
      An attempt for one task never touches another. One that was dropped on the lab counts for every task whose unit it holds.
    </p>
    <div class="heads quiet small"><span>handed in as</span><span>counts for</span><span>received</span><span>belongs to</span></div>
    <div v-for="(a, n) in entry.attempts" :key="a.id" class="attempt" :data-attempt="a.id">
      <div class="name">
        <b class="mono">{{ n + 1 }}</b> <code>{{ a.label }}</code> <span class="quiet small">{{ count(a.files.length, 'file') }}</span>
        <span v-if="a.late" class="tag undef">late</span>
      </div>
      <Choice
        size="small"
        :value="a.task_id ?? WHOLE_LAB"
        :options="tasks"
        label="counts for"
        @change="(task: unknown) => forTask(a, Number(task))"
      />
      <DatePicker
        size="small"
        show-time
        format="D MMM YYYY HH:mm"
        :allow-clear="false"
        :value="dayjs(`${a.received_at}Z`)"
        aria-label="received"
        @change="(at) => received(a, at)"
      />
      <div class="row">
        <Choice
          size="small"
          :value="undefined"
          :options="people"
          show-search
          option-filter-prop="label"
          placeholder="somebody else"
          class="grow"
          label="belongs to"
          @change="(student: unknown) => give(a, [Number(student)])"
        />
        <Button v-if="entry.attempts.length > 1" size="small" title="nobody's, to be settled" @click="give(a, [])">Split off</Button>
      </div>
    </div>
  </Modal>
</template>

<style scoped>
.attempt,
.heads {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 190px 170px 220px;
  gap: 8px;
  align-items: center;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
.name {
  min-width: 0;
  overflow-wrap: anywhere;
}
.grow {
  flex: 1;
  min-width: 0;
}
</style>
