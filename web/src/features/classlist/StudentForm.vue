<script setup lang="ts">
import { Checkbox, Input, message, Modal, Textarea } from 'ant-design-vue'
import { computed } from 'vue'

import { post, put, remove, ServerTrouble } from '../../api/client'
import type { StudentLine } from '../../api/schema'
import { useAttempt } from '../../shared/attempt'
import DraftNote from '../../shared/DraftNote.vue'
import { useFormDraft } from '../../shared/formDraft'

/** One line of the class list, a new one or one that is there; `again` gives it as it is by now. */
const props = defineProps<{ classId: number; student: StudentLine | null; again: () => Promise<StudentLine | undefined> }>()
const emit = defineEmits<{ kept: []; close: [] }>()
const { trouble, isBusy, attempt } = useAttempt()
const { form, from, isChanged, drop, said, done } = useFormDraft(
  () => `class ${props.classId}/student ${props.student?.id ?? 'new'}`,
  () => ({
    number: props.student?.number ?? '',
    name: props.student?.name ?? '',
    email: props.student?.email ?? '',
    group: props.student?.group ?? '',
    team: props.student?.team ?? '',
    remarks: props.student?.remarks ?? '',
    is_out: Boolean(props.student?.left_at),
    over: props.student?.version ?? '',
  }),
)
const isReady = computed(() => form.number.trim() !== '' && form.name.trim() !== '')

function erase(): void {
  const student = props.student
  if (!student) return
  Modal.confirm({
    title: `Erase ${student.name} for good?`,
    content:
      'Hand-ins of their own, letters, marks, notes and the name, wherever it stands, are deleted and cannot be had back. ' +
      'What a team handed in stays with the team.',
    okText: 'Erase for good',
    okType: 'danger',
    cancelText: 'Leave it',
    onOk: () =>
      attempt(async () => {
        await remove(`/classes/${props.classId}/students/${student.id}`)
        message.success('erased; the protocol names nobody')
        emit('kept')
        emit('close')
      }),
  })
}
function keep(): Promise<void> {
  const kept = said()
  return attempt(async () => {
    if (!props.student) await post(`/classes/${props.classId}/students`, { ...form })
    else {
      try {
        await put(`/classes/${props.classId}/students/${props.student.id}`, { ...form })
      } catch (error) {
        // What was typed stays, and goes over what somebody else wrote when it is kept once more.
        if (error instanceof ServerTrouble && error.status === 409) form.over = (await props.again())?.version ?? ''
        throw error
      }
    }
    done(kept)
    emit('kept')
    emit('close')
  })
}
</script>

<template>
  <Modal
    open
    :title="student ? student.name : 'One more student'"
    ok-text="Keep"
    :ok-button-props="{ disabled: !isReady, loading: isBusy }"
    :width="520"
    @ok="keep"
    @cancel="emit('close')"
  >
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <DraftNote v-if="isChanged" :from="from" @drop="drop" @keep="isReady && keep()" />
    <form class="form" @submit.prevent="isReady && keep()">
      <label>Number<Input v-model:value="form.number" name="student-number" :maxlength="100" /></label>
      <label>Name<Input v-model:value="form.name" name="student-name" :maxlength="200" /></label>
      <label class="wide">Address<Input v-model:value="form.email" name="student-email" :maxlength="200" /></label>
      <label>Group<Input v-model:value="form.group" name="student-group" :maxlength="100" /></label>
      <label
        >Team<Input v-model:value="form.team" name="student-team" :maxlength="200" placeholder="all with the same word hand in together"
      /></label>
      <label class="wide">Remarks<Textarea v-model:value="form.remarks" name="student-remarks" :rows="2" :maxlength="2000" /></label>
      <Checkbox v-if="student" v-model:checked="form.is_out" name="student-out" class="wide"
        >out of the class: not missing any more, what was handed in stays</Checkbox
      >
      <p v-if="student" class="wide">
        <button type="button" class="link danger" @click="erase">Erase for good</button>
        <span class="quiet small">hand-ins, letters, marks and the name, everywhere; nothing of it comes back</span>
      </p>
      <button type="submit" hidden></button>
    </form>
  </Modal>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px 14px;
}
.form label {
  display: grid;
  gap: 2px;
  color: var(--ink-2);
}
.wide {
  grid-column: 1 / -1;
}
</style>
