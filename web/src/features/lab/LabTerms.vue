<script setup lang="ts">
import { Button, DatePicker, Input, InputNumber, message, Modal, Segmented, Select } from 'ant-design-vue'
import dayjs, { type Dayjs } from 'dayjs'
import { computed, ref, watch } from 'vue'

import { get, put, sentence } from '../../api/client'
import type { LabTerms } from '../../api/types'
import { count, moment } from '../../shared/words'

const props = defineProps<{ labId: number; open: boolean }>()
const emit = defineEmits<{ close: []; changed: [] }>()

const terms = ref<LabTerms | null>(null)
const due = ref<Dayjs | undefined>()
const student = ref<number | undefined>()
const until = ref<Dayjs | undefined>()
const reason = ref('')
/** The first is shown, any can be typed. */
const FORMATS = ['ddd D MMM YYYY, HH:mm', 'D MMM YYYY, HH:mm', 'D MMM YYYY HH:mm', 'YYYY-MM-DD HH:mm']
const ATTEMPTS = [{ value: 'last', label: 'the last' }, { value: 'first', label: 'the first' }, { value: 'best', label: 'the best' }]

async function load(): Promise<void> {
  try {
    terms.value = await get<LabTerms>(`/labs/${props.labId}/terms`)
    due.value = terms.value.due_at ? dayjs(`${terms.value.due_at}Z`) : undefined
  } catch (error) {
    message.error(sentence(error))
  }
}
watch(() => props.open, (isOpen) => isOpen && load())

const percent = computed({
  get: () => Math.round(100 * (terms.value?.late_share ?? 0)),
  set: (value: number) => terms.value && (terms.value.late_share = (value ?? 0) / 100),
})
const free = computed(() => {
  const extended = new Set(terms.value?.extensions.map((e) => e.student_id))
  return (terms.value?.students ?? []).filter((s) => !extended.has(s.id)).map((s) => ({ value: s.id, label: `${s.name} ${s.number}` }))
})

/** Say it to the server, then what came of it. */
async function send(path: string, body: unknown): Promise<boolean> {
  try {
    const { marks } = await put<{ marks: number }>(`/labs/${props.labId}/${path}`, body)
    message.success(marks ? `${count(marks, 'mark')} changed` : 'no mark changes')
    emit('changed')
    return true
  } catch (error) {
    message.error(sentence(error))
    return false
  }
}
async function save(): Promise<void> {
  const t = terms.value
  if (!t) return
  const body = { title: t.title, due_at: due.value?.toISOString() ?? null, which_attempt: t.which_attempt, late_share: t.late_share }
  if (await send('terms', body)) emit('close')
}
async function extend(): Promise<void> {
  if (!student.value || !until.value) return
  if (!(await send(`extensions/${student.value}`, { due_at: until.value.toISOString(), reason: reason.value }))) return
  student.value = undefined
  reason.value = ''
  await load()
}
async function takeBack(id: number): Promise<void> {
  if (await send(`extensions/${id}`, { due_at: null })) await load()
}
</script>

<template>
  <Modal :open="open" title="Due date, attempts, extensions" :width="760" ok-text="Keep" @ok="save" @cancel="emit('close')">
    <div v-if="terms" class="two">
      <section class="form">
        <label>Title<Input v-model:value="terms.title" name="lab-title" /></label>
        <label>Due<DatePicker v-model:value="due" show-time :format="FORMATS" class="full" /></label>
        <div class="field"><span>Of several attempts counts</span><Segmented v-model:value="terms.which_attempt" :options="ATTEMPTS" /></div>
        <label>Late costs<InputNumber v-model:value="percent" name="late-share" :min="0" :max="100" addon-after="% of the mark" class="full" /></label>
        <p class="quiet">{{ count(terms.late, 'hand-in is', 'hand-ins are') }} late as it stands. Marks follow at once; what you entered by hand stays.</p>
      </section>
      <section class="extensions">
        <h3>More time</h3>
        <div v-for="e in terms.extensions" :key="e.student_id" class="given" :data-extension="e.student_id">
          <div><b>{{ e.name }}</b> until {{ moment(e.due_at) }}<small v-if="e.reason" class="quiet">{{ e.reason }}</small></div>
          <Button size="small" @click="takeBack(e.student_id)">Take back</Button>
        </div>
        <p v-if="!terms.extensions.length" class="quiet">Nobody has more time.</p>
        <div class="form give">
          <Select v-model:value="student" :options="free" show-search option-filter-prop="label" placeholder="who" aria-label="student" class="full" />
          <DatePicker v-model:value="until" show-time :format="FORMATS" placeholder="until" class="full" />
          <Input v-model:value="reason" name="reason" placeholder="why (stays with the lab)" :maxlength="500" @press-enter="extend" />
          <Button :disabled="!student || !until" @click="extend">Give more time</Button>
        </div>
      </section>
    </div>
    <p v-else class="quiet">Loading…</p>
  </Modal>
</template>

<style scoped>
.two { display: grid; grid-template-columns: 1fr 1fr; gap: 26px; padding: 6px 0; }
.form { display: grid; gap: 12px; align-content: start; }
.form label, .field { display: grid; gap: 3px; color: var(--ink-2); justify-items: start; }
.full { width: 100%; }
h3 { font-size: 13px; font-weight: 600; margin-bottom: 6px; }
.given { display: flex; justify-content: space-between; align-items: center; gap: 8px; padding: 6px 0; border-bottom: 1px solid var(--line); }
.given small { display: block; }
.give { gap: 8px; margin-top: 14px; }
</style>
