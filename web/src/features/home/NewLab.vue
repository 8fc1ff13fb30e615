<script setup lang="ts">
import { DatePicker, Input, Modal } from 'ant-design-vue'
import dayjs, { type Dayjs } from 'dayjs'
import { computed } from 'vue'

import { post } from '../../api/client'
import { told } from '../../shared/attempt'
import DraftNote from '../../shared/DraftNote.vue'
import { useFormDraft } from '../../shared/formDraft'

/** `classId` is the class that gets a new lab; 0 while nobody asks for one. */
const props = defineProps<{ classId: number }>()
const emit = defineEmits<{ made: [lab: number]; close: [] }>()
const { form, from, isChanged, drop, said, done } = useFormDraft(
  () => (props.classId ? `class ${props.classId}/lab` : ''),
  () => ({ title: '', due: null as string | null }),
)
const due = computed({
  get: () => (form.due ? dayjs(form.due) : undefined),
  set: (value: Dayjs | undefined) => (form.due = value?.toISOString() ?? null),
})

async function make(): Promise<void> {
  if (!form.title.trim()) return
  const kept = said()
  await told(async () => {
    const made = await post(`/classes/${props.classId}/labs`, { title: form.title, due_at: form.due })
    done(kept)
    drop()
    emit('made', made.id)
  })
}
</script>

<template>
  <Modal :open="!!classId" title="New lab" ok-text="Make it" @ok="make" @cancel="emit('close')">
    <div class="form">
      <DraftNote v-if="isChanged" :from="from" @drop="drop" @keep="make" />
      <label>Title<Input v-model:value="form.title" name="lab-title" @press-enter="make" /></label>
      <label>Due<DatePicker v-model:value="due" show-time format="ddd D MMM YYYY, HH:mm" style="width: 100%" /></label>
    </div>
  </Modal>
</template>

<style scoped>
.form {
  display: grid;
  gap: 12px;
  padding: 6px 0;
}
.form label {
  display: grid;
  gap: 3px;
  color: var(--ink-2);
}
</style>
