<script setup lang="ts">
import { Button, DatePicker, Input, InputNumber, message, Modal, Segmented, Select } from 'ant-design-vue'
import dayjs, { type Dayjs } from 'dayjs'
import { computed, reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import { get, post, put } from '../../api/client'
import type { LabTerms as Terms } from '../../api/schema'
import { takeAway } from '../home/TakeAway'
import { told } from '../../shared/attempt'
import { useLab } from '../../shared/lab'
import { useResource } from '../../shared/resource'
import { count, moment } from '../../shared/words'

const props = defineProps<{ labId: number; open: boolean }>()
const emit = defineEmits<{ close: []; changed: [] }>()

const { data: terms, trouble, reload } = useResource((signal) => get(`/labs/${props.labId}/terms`, { signal }), { lazy: true })
/** What is being changed, until it is kept. */
const form = reactive({
  title: '',
  due: undefined as Dayjs | undefined,
  which: 'last' as Terms['which_attempt'],
  share: 0,
  step: 'once' as Terms['late_step'],
  grace: 0,
  cap: 1,
})
const student = ref<number | undefined>()
const until = ref<Dayjs | undefined>()
const reason = ref('')
/** The first is shown, any can be typed. */
const FORMATS = ['ddd D MMM YYYY, HH:mm', 'D MMM YYYY, HH:mm', 'D MMM YYYY HH:mm', 'YYYY-MM-DD HH:mm']
const ATTEMPTS = [
  { value: 'last', label: 'the last' },
  { value: 'first', label: 'the first' },
  { value: 'best', label: 'the best' },
]

watch(
  () => props.open,
  async (isOpen) => {
    const found = isOpen ? await reload() : null
    if (!found) return
    form.title = found.title
    form.due = found.due_at ? dayjs(`${found.due_at}Z`) : undefined
    form.which = found.which_attempt
    form.share = found.late_share
    form.step = found.late_step
    form.grace = found.late_grace
    form.cap = found.late_cap
  },
)

const inHundred = (key: 'share' | 'cap') =>
  computed({
    get: () => Math.round(100 * form[key]),
    set: (value: number) => (form[key] = (value ?? 0) / 100),
  })
const percent = inHundred('share')
const most = inHundred('cap')
const STEPS = [
  { value: 'once', label: 'once' },
  { value: 'hour', label: 'each hour begun' },
  { value: 'day', label: 'each day begun' },
]
const free = computed(() => {
  const extended = new Set(terms.value?.extensions.map((e) => e.student_id))
  return (terms.value?.students ?? []).filter((s) => !extended.has(s.id)).map((s) => ({ value: s.id, label: `${s.name} ${s.number}` }))
})

/** Say it to the server, then what came of it. */
function send(change: () => Promise<{ marks: number }>): Promise<boolean> {
  return told(async () => {
    const { marks } = await change()
    message.success(marks ? `${count(marks, 'mark')} changed` : 'no mark changes')
    emit('changed')
  })
}
async function save(): Promise<void> {
  const body = {
    title: form.title,
    due_at: form.due?.toISOString() ?? null,
    which_attempt: form.which,
    late_share: form.share,
    late_step: form.step,
    late_grace: form.grace ?? 0,
    late_cap: form.cap,
    over: terms.value?.version ?? '',
  }
  if (await send(() => put(`/labs/${props.labId}/terms`, body))) emit('close')
}
function moreTime(id: number, due_at: string | null, why: string): Promise<boolean> {
  return send(() => put(`/labs/${props.labId}/extensions/${id}`, { due_at, reason: why }))
}
async function extend(): Promise<void> {
  if (!student.value || !until.value) return
  if (!(await moreTime(student.value, until.value.toISOString(), reason.value))) return
  student.value = undefined
  reason.value = ''
  await reload()
}
const store = useLab()
const router = useRouter()
function leave(): void {
  store.leave()
  void router.push('/')
}
async function copy(): Promise<void> {
  await told(async () => {
    const made = await post(`/labs/${props.labId}/copy`, { name: `${form.title}, once more`.slice(0, 200) })
    const lab = await get(`/labs/${made.id}`)
    emit('close')
    message.success('made: specs, comments and terms, without people')
    await router.push(`/lab/${made.id}/task/${lab.tasks[0]?.id ?? 0}/spec`)
  })
}
const ill = ref<number | undefined>()
const illness = ref('')
const notExcused = computed(() => {
  const excused = new Set(terms.value?.excused.map((e) => e.student_id))
  return (terms.value?.students ?? []).filter((s) => !excused.has(s.id)).map((s) => ({ value: s.id, label: `${s.name} ${s.number}` }))
})
async function excuse(id: number, why: string | null): Promise<void> {
  if (!(await told(() => put(`/labs/${props.labId}/excused/${id}`, { reason: why })))) return
  ill.value = undefined
  illness.value = ''
  emit('changed')
  await reload()
}
async function takeBack(id: number): Promise<void> {
  if (await moreTime(id, null, '')) await reload()
}
</script>

<template>
  <Modal :open="open" title="Due date, attempts, extensions" :width="760" ok-text="Keep" @ok="save" @cancel="emit('close')">
    <div v-if="terms" class="two">
      <section class="form">
        <label>Title<Input v-model:value="form.title" name="lab-title" /></label>
        <label>Due<DatePicker v-model:value="form.due" show-time :format="FORMATS" class="full" /></label>
        <div class="field"><span>Of several attempts counts</span><Segmented v-model:value="form.which" :options="ATTEMPTS" /></div>
        <label
          >Late costs<InputNumber v-model:value="percent" name="late-share" :min="0" :max="100" addon-after="% of the mark" class="full"
        /></label>
        <Segmented v-model:value="form.step" :options="STEPS" />
        <div class="pair">
          <label>Grace<InputNumber v-model:value="form.grace" name="late-grace" :min="0" addon-after="minutes" class="full" /></label>
          <label v-if="form.step !== 'once'"
            >At most<InputNumber v-model:value="most" name="late-cap" :min="0" :max="100" addon-after="%" class="full"
          /></label>
        </div>
        <div class="row this">
          <Button size="small" title="specs, comments and terms, without people" @click="copy">Once more for next year</Button>
          <Button size="small" @click="takeAway('lab', labId, form.title, leave)">Take this lab away</Button>
          <Button
            v-if="store.task && (store.lab?.tasks.length ?? 0) > 1"
            size="small"
            @click="takeAway('task', store.taskId, store.task.title, leave)"
            >Take {{ store.task.title }} away</Button
          >
        </div>
        <p class="quiet">
          {{ count(terms.late, 'hand-in is', 'hand-ins are') }} late as it stands. Marks follow at once; what you entered by hand stays.
        </p>
      </section>
      <section class="extensions">
        <h3>More time</h3>
        <div v-for="e in terms.extensions" :key="e.student_id" class="given" :data-extension="e.student_id">
          <div>
            <b>{{ e.name }}</b> until {{ moment(e.due_at) }}<small v-if="e.reason" class="quiet">{{ e.reason }}</small>
          </div>
          <Button size="small" @click="takeBack(e.student_id)">Take back</Button>
        </div>
        <p v-if="!terms.extensions.length" class="quiet">Nobody has more time.</p>
        <div class="form give">
          <Select
            v-model:value="student"
            :options="free"
            show-search
            option-filter-prop="label"
            placeholder="who"
            aria-label="student"
            class="full"
          />
          <DatePicker v-model:value="until" show-time :format="FORMATS" placeholder="until" class="full" />
          <Input v-model:value="reason" name="reason" placeholder="why (stays with the lab)" :maxlength="500" @press-enter="extend" />
          <Button :disabled="!student || !until" @click="extend">Give more time</Button>
        </div>
        <h3>Excused</h3>
        <div v-for="e in terms.excused" :key="e.student_id" class="given" :data-excused="e.student_id">
          <div>
            <b>{{ e.name }}</b> <small class="quiet">{{ e.reason }}</small>
          </div>
          <Button size="small" @click="excuse(e.student_id, null)">Take back</Button>
        </div>
        <p v-if="!terms.excused.length" class="quiet">Nobody is: whoever hands in nothing is missing.</p>
        <div class="form give">
          <Select
            v-model:value="ill"
            :options="notExcused"
            show-search
            option-filter-prop="label"
            placeholder="who need not hand in"
            aria-label="excused student"
            class="full"
          />
          <Input v-model:value="illness" name="excuse-reason" placeholder="why (stays with the lab)" :maxlength="500" />
          <Button :disabled="!ill" @click="excuse(ill ?? 0, illness)">Excuse</Button>
        </div>
      </section>
    </div>
    <p v-else-if="trouble" class="trouble">{{ trouble }}</p>
    <p v-else class="quiet">Loading…</p>
  </Modal>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 26px;
  padding: 6px 0;
}
.form {
  display: grid;
  gap: 12px;
  align-content: start;
}
.form label,
.field {
  display: grid;
  gap: 3px;
  color: var(--ink-2);
  justify-items: start;
}
.full {
  width: 100%;
}
.this {
  flex-wrap: wrap;
  gap: 6px;
  justify-content: flex-start;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
.extensions h3:not(:first-child) {
  margin-top: 16px;
}
h3 {
  font-size: 13px;
  font-weight: 600;
  margin-bottom: 6px;
}
.given {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 8px;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
.given small {
  display: block;
}
.give {
  gap: 8px;
  margin-top: 14px;
}
</style>
