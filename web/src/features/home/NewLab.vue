<script setup lang="ts">
import { DatePicker, Input, Modal } from 'ant-design-vue'
import type { Dayjs } from 'dayjs'
import { ref, watch } from 'vue'

import { post } from '../../api/client'
import { told } from '../../shared/attempt'

/** `classId` is the class that gets a new lab; 0 while nobody asks for one. */
const props = defineProps<{ classId: number }>()
const emit = defineEmits<{ made: [lab: number]; close: [] }>()
const title = ref('')
const due = ref<Dayjs | undefined>()
watch(
  () => props.classId,
  () => {
    title.value = ''
    due.value = undefined
  },
)
async function make(): Promise<void> {
  if (!title.value.trim()) return
  await told(async () => {
    const made = await post(`/classes/${props.classId}/labs`, { title: title.value, due_at: due.value?.toISOString() ?? null })
    emit('made', made.id)
  })
}
</script>

<template>
  <Modal :open="!!classId" title="New lab" ok-text="Make it" @ok="make" @cancel="emit('close')">
    <div class="form">
      <label>Title<Input v-model:value="title" name="lab-title" @press-enter="make" /></label>
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
