<script setup lang="ts">
import { Button, Input, InputNumber, Popover } from 'ant-design-vue'
import { ref, watch } from 'vue'

import { put } from '../../api/client'
import type { ReviewView } from '../../api/schema'
import { told } from '../../shared/attempt'
import { mark } from '../../shared/words'

/** The mark, and setting another one by hand with its reason. */
const props = defineProps<{ review: ReviewView; taskId: number }>()
const emit = defineEmits<{ marked: [] }>()
const value = ref<number | undefined>()
const reason = ref('')
const isOpen = ref(false)
watch(
  () => [props.review.handin_id, props.review.mark],
  () => {
    value.value = props.review.mark ?? undefined
    reason.value = ''
  },
  { immediate: true },
)
async function keep(wanted: number | null): Promise<void> {
  const path = `/handins/${props.review.handin_id}/tasks/${props.taskId}/mark` as const
  if (!(await told(() => put(path, { value: wanted, reason: reason.value })))) return
  isOpen.value = false
  emit('marked')
}
function override(): void {
  if (reason.value.trim() && value.value !== undefined) void keep(value.value)
}
</script>

<template>
  <Popover v-model:open="isOpen" trigger="click" placement="bottomRight">
    <template #content>
      <div class="override">
        <label>Mark<InputNumber v-model:value="value" name="mark" :min="0" :step="0.5" /></label>
        <label
          >Why<Input v-model:value="reason" name="reason" placeholder="the reason stays in the ledger" @press-enter="override"
        /></label>
        <div class="row">
          <Button type="primary" size="small" :disabled="!reason.trim() || value === undefined" @click="override">Override</Button
          ><Button size="small" @click="keep(null)">Back to computed</Button>
        </div>
      </div>
    </template>
    <button type="button" class="mark mono" :title="review.mark_reason">{{ mark(review.mark) }} / {{ review.max_mark }}</button>
  </Popover>
</template>

<style scoped>
.mark {
  border: 1px solid var(--line);
  background: var(--paper);
  border-radius: 6px;
  padding: 2px 10px;
  cursor: pointer;
  font-size: 14px;
}
.override {
  display: grid;
  gap: 8px;
  width: 250px;
}
.override label {
  display: grid;
  gap: 2px;
  color: var(--ink-2);
}
</style>
