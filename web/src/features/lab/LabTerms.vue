<script setup lang="ts">
import { Button, DatePicker, Input, InputNumber, message, Modal, Segmented } from 'ant-design-vue'
import dayjs, { type Dayjs } from 'dayjs'
import { computed, watch } from 'vue'
import { useRouter } from 'vue-router'

import { get, post, put, ServerTrouble } from '../../api/client'
import type { LabTerms as Terms } from '../../api/schema'
import { takeAway } from '../home/TakeAway'
import { told } from '../../shared/attempt'
import DraftNote from '../../shared/DraftNote.vue'
import { useFormDraft } from '../../shared/formDraft'
import { useLab } from '../../shared/lab'
import { useResource } from '../../shared/resource'
import { count, moment } from '../../shared/words'
import Choice from '../../shared/Choice.vue'

const props = defineProps<{ labId: number; open: boolean }>()
const emit = defineEmits<{ close: []; changed: [] }>()

const { data: terms, trouble, reload } = useResource((signal) => get(`/labs/${props.labId}/terms`, { signal }), { lazy: true })
/** What is being changed, until it is kept. Of the version that it was begun over. */
const saved = () => ({
  title: terms.value?.title ?? '',
  due: terms.value?.due_at ? `${terms.value.due_at}Z` : null,
  which: terms.value?.which_attempt ?? ('last' as Terms['which_attempt']),
  share: terms.value?.late_share ?? 0,
  step: terms.value?.late_step ?? ('once' as Terms['late_step']),
  grace: terms.value?.late_grace ?? 0,
  cap: terms.value?.late_cap ?? 1,
  over: terms.value?.version ?? '',
})
const { form, from, isChanged, drop, said, done } = useFormDraft(() => (terms.value ? `lab ${props.labId}/terms` : ''), saved)
const more = useFormDraft(
  () => `lab ${props.labId}/more time`,
  () => ({ student: null as number | null, until: null as string | null, reason: '' }),
)
const excusing = useFormDraft(
  () => `lab ${props.labId}/excuse`,
  () => ({ student: null as number | null, reason: '' }),
)
/** A date that is kept as a text, as the field has it. */
const asDate = (form: Record<string, unknown>, key: string) =>
  computed({
    get: () => (typeof form[key] === 'string' ? dayjs(form[key]) : undefined),
    set: (value: Dayjs | undefined) => (form[key] = value?.toISOString() ?? null),
  })
const asChoice = (form: { student: number | null }) =>
  computed({ get: () => form.student ?? undefined, set: (id: number | undefined) => (form.student = id ?? null) })
const student = asChoice(more.form)
const ill = asChoice(excusing.form)
const due = asDate(form, 'due')
const until = asDate(more.form, 'until')
/** The first is shown, any can be typed. */
const FORMATS = ['ddd D MMM YYYY, HH:mm', 'D MMM YYYY, HH:mm', 'D MMM YYYY HH:mm', 'YYYY-MM-DD HH:mm']
const ATTEMPTS = [
  { value: 'last', label: 'the last' },
  { value: 'first', label: 'the first' },
  { value: 'best', label: 'the best' },
]

watch(
  () => props.open,
  (isOpen) => isOpen && void reload(),
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
  const kept = said()
  const body = {
    title: form.title,
    due_at: form.due,
    which_attempt: form.which,
    late_share: form.share,
    late_step: form.step,
    late_grace: form.grace ?? 0,
    late_cap: form.cap,
    over: form.over,
  }
  const sent = await send(async () => {
    try {
      return await put(`/labs/${props.labId}/terms`, body)
    } catch (error) {
      // What was typed stays, and goes over what somebody else wrote when it is kept once more.
      if (error instanceof ServerTrouble && error.status === 409) form.over = (await reload())?.version ?? ''
      throw error
    }
  })
  if (!sent) return
  done(kept)
  emit('close')
}
function moreTime(id: number, due_at: string | null, why: string, over: string | null): Promise<boolean> {
  return send(() => put(`/labs/${props.labId}/extensions/${id}`, { due_at, reason: why, over }))
}
async function extend(): Promise<void> {
  const { student, until, reason } = more.form
  if (!student || !until) return
  const kept = more.said()
  if (await moreTime(student, until, reason, null)) {
    more.done(kept)
    more.drop()
  }
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
const notExcused = computed(() => {
  const excused = new Set(terms.value?.excused.map((e) => e.student_id))
  return (terms.value?.students ?? []).filter((s) => !excused.has(s.id)).map((s) => ({ value: s.id, label: `${s.name} ${s.number}` }))
})
async function excuse(id: number, why: string | null, over: string | null): Promise<void> {
  const kept = excusing.said()
  const sent = await told(() => put(`/labs/${props.labId}/excused/${id}`, { reason: why, over }))
  if (sent && why !== null) {
    excusing.done(kept)
    excusing.drop()
  }
  if (sent) emit('changed')
  await reload()
}
async function takeBack(id: number, over: string): Promise<void> {
  await moreTime(id, null, '', over)
  await reload()
}
</script>

<template>
  <Modal :open="open" title="Due date, attempts, extensions" :width="760" ok-text="Keep" @ok="save" @cancel="emit('close')">
    <div v-if="terms" class="two">
      <section class="form">
        <DraftNote v-if="isChanged" :from="from" @drop="drop" @keep="save" />
        <label>Title<Input v-model:value="form.title" name="lab-title" /></label>
        <label>Due<DatePicker v-model:value="due" show-time :format="FORMATS" class="full" /></label>
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
          <Button size="small" @click="takeBack(e.student_id, `${e.due_at}Z`)">Take back</Button>
        </div>
        <p v-if="!terms.extensions.length" class="quiet">Nobody has more time.</p>
        <div class="form give">
          <DraftNote v-if="more.isChanged.value" :from="more.from.value" @drop="more.drop" @keep="extend" />
          <Choice
            v-model:value="student"
            :options="free"
            show-search
            option-filter-prop="label"
            placeholder="who"
            label="student"
            class="full"
          />
          <DatePicker v-model:value="until" show-time :format="FORMATS" placeholder="until" class="full" />
          <Input
            v-model:value="more.form.reason"
            name="reason"
            placeholder="why (stays with the lab)"
            :maxlength="500"
            @press-enter="extend"
          />
          <Button :disabled="!more.form.student || !more.form.until" @click="extend">Give more time</Button>
        </div>
        <h3>Excused</h3>
        <div v-for="e in terms.excused" :key="e.student_id" class="given" :data-excused="e.student_id">
          <div>
            <b>{{ e.name }}</b> <small class="quiet">{{ e.reason }}</small>
          </div>
          <Button size="small" @click="excuse(e.student_id, null, e.reason)">Take back</Button>
        </div>
        <p v-if="!terms.excused.length" class="quiet">Nobody is: whoever hands in nothing is missing.</p>
        <div class="form give">
          <DraftNote
            v-if="excusing.isChanged.value"
            :from="excusing.from.value"
            @drop="excusing.drop"
            @keep="excusing.form.student && excuse(excusing.form.student, excusing.form.reason, null)"
          />
          <Choice
            v-model:value="ill"
            :options="notExcused"
            show-search
            option-filter-prop="label"
            placeholder="who need not hand in"
            label="excused student"
            class="full"
          />
          <Input v-model:value="excusing.form.reason" name="excuse-reason" placeholder="why (stays with the lab)" :maxlength="500" />
          <Button :disabled="!excusing.form.student" @click="excuse(excusing.form.student ?? 0, excusing.form.reason, null)">Excuse</Button>
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
