<script setup lang="ts">
import { Input, Modal } from 'ant-design-vue'

import { post } from '../../api/client'
import { told } from '../../shared/attempt'
import DraftNote from '../../shared/DraftNote.vue'
import { useFormDraft } from '../../shared/formDraft'

defineProps<{ open: boolean }>()
const emit = defineEmits<{ made: []; close: [] }>()
const { form, from, isChanged, drop, said, done } = useFormDraft(
  () => 'class/new',
  () => ({ name: '', school: '' }),
)

async function make(): Promise<void> {
  if (!form.name.trim()) return
  const kept = said()
  if (!(await told(() => post('/classes', { ...form })))) return
  done(kept)
  drop()
  emit('made')
}
</script>

<template>
  <Modal :open="open" title="New class" ok-text="Make it" @ok="make" @cancel="emit('close')">
    <div class="form">
      <DraftNote v-if="isChanged" :from="from" @drop="drop" @keep="make" />
      <label>Name<Input v-model:value="form.name" name="class-name" /></label>
      <label>School<Input v-model:value="form.school" name="school" /></label>
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
