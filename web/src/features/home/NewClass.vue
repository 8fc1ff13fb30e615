<script setup lang="ts">
import { Input, Modal } from 'ant-design-vue'
import { ref, watch } from 'vue'

import { post } from '../../api/client'
import { told } from '../../shared/attempt'

const props = defineProps<{ open: boolean }>()
const emit = defineEmits<{ made: []; close: [] }>()
const name = ref('')
const school = ref('')
watch(
  () => props.open,
  () => (name.value = ''),
)

async function make(): Promise<void> {
  if (!name.value.trim()) return
  if (await told(() => post('/classes', { name: name.value, school: school.value }))) emit('made')
}
</script>

<template>
  <Modal :open="open" title="New class" ok-text="Make it" @ok="make" @cancel="emit('close')">
    <div class="form">
      <label>Name<Input v-model:value="name" name="class-name" /></label>
      <label>School<Input v-model:value="school" name="school" /></label>
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
