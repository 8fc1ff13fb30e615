<script setup lang="ts">
import { Button, Input, Modal, Popover } from 'ant-design-vue'
import { computed, nextTick, ref } from 'vue'

import { put } from '../../api/client'
import type { ReviewView } from '../../api/schema'
import { told } from '../../shared/attempt'
import DraftNote from '../../shared/DraftNote.vue'
import { useDraft } from '../../shared/drafts'
import { useKeys } from '../../shared/keys'
import { numberOf } from '../../shared/numbers'
import { mark } from '../../shared/words'

/** The mark, and setting another one by hand with its reason. */
const props = defineProps<{ review: ReviewView; taskId: number }>()
const emit = defineEmits<{ marked: [] }>()
const isOpen = ref(false)
const field = ref<{ focus: () => void }>()
const subject = computed(() => `task ${props.taskId}/mark ${props.review.handin_id}`)
const typed = useDraft(
  () => `${subject.value}/value`,
  () => (props.review.mark === null ? '' : String(props.review.mark)),
)
const why = useDraft(
  () => `${subject.value}/reason`,
  () => '',
)
const value = computed(() => numberOf(typed.text.value))
const isReady = computed(() => value.value !== null && why.text.value.trim() !== '')

async function keep(wanted: number | null, beyond = false): Promise<void> {
  const [about, handin] = [subject.value, props.review.handin_id]
  const [written, reason] = [typed.text.value, why.text.value]
  const path = `/handins/${handin}/tasks/${props.taskId}/mark` as const
  if (!(await told(() => put(path, { value: wanted, reason, beyond, over: props.review.marks_by_people })))) return
  typed.done(`${about}/value`, written)
  why.done(`${about}/reason`, reason)
  if (about !== subject.value) return
  why.drop()
  isOpen.value = false
  emit('marked')
}
function override(): void {
  const wanted = value.value
  if (wanted === null || !isReady.value) return
  if (wanted <= props.review.max_mark) return void keep(wanted)
  Modal.confirm({
    title: `${wanted} of ${props.review.max_mark}?`,
    content: 'That is more than this task gives.',
    okText: 'Keep it all the same',
    cancelText: 'Go back',
    onOk: () => keep(wanted, true),
  })
}
async function open(): Promise<void> {
  isOpen.value = true
  await nextTick()
  window.setTimeout(() => field.value?.focus(), 60) // once it has come up
}
useKeys([{ key: 'm', label: 'give another mark', act: () => void open() }])
</script>

<template>
  <Popover v-model:open="isOpen" trigger="click" placement="bottomRight">
    <template #content>
      <div class="override">
        <label>Mark<Input ref="field" v-model:value="typed.text.value" name="mark" inputmode="decimal" @press-enter="override" /></label>
        <p v-if="typed.text.value && value === null" class="trouble small">a number, such as 7.5 or 7,5</p>
        <label
          >Why<Input v-model:value="why.text.value" name="reason" placeholder="the reason stays in the ledger" @press-enter="override"
        /></label>
        <div class="row">
          <Button type="primary" size="small" :disabled="!isReady" @click="override">Override</Button
          ><Button size="small" @click="keep(null)">Back to computed</Button>
        </div>
        <DraftNote :from="why.from.value" @keep="override" @drop="(why.drop(), typed.drop())" />
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
