<script setup lang="ts">
import { Modal } from 'ant-design-vue'
import { computed, nextTick, ref } from 'vue'
import { useRouter } from 'vue-router'

import { useKeys } from '../../shared/keys'
import { useLab } from '../../shared/lab'
import Choice from '../../shared/Choice.vue'

/** Finds a student by name, number or group, and goes to the review of their hand-in. */
const store = useLab()
const router = useRouter()
const isOpen = ref(false)
const field = ref<{ focus: () => void }>()
const options = computed(() =>
  store.who.map((w) => ({
    value: w.student_id,
    label: `${w.name} ${w.number}${w.group ? ` ${w.group}` : ''}`,
    handin: w.handin_id,
    disabled: w.handin_id === null,
    name: w.name,
    rest: `${w.number}${w.group ? ` · ${w.group}` : ''}${w.handin_id === null ? ' · nothing handed in' : ''}`,
  })),
)
const plain = (text: string): string => text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase()
const fits = (typed: string, option?: { label?: unknown }): boolean =>
  plain(typed)
    .split(/\s+/)
    .every((word) => plain(String(option?.label ?? '')).includes(word))

async function open(): Promise<void> {
  isOpen.value = true
  await nextTick()
  window.setTimeout(() => field.value?.focus(), 60) // once the dialog has come up
}
function go(student: unknown): void {
  const found = store.who.find((w) => w.student_id === Number(student))
  isOpen.value = false
  if (found?.handin_id) void router.push(`/lab/${store.labId}/task/${store.taskId}/review/${found.handin_id}`)
}
useKeys([{ key: '/', label: 'find a student', act: () => void open() }])
defineExpose({ open })
</script>

<template>
  <Modal :open="isOpen" title="Find a student" :footer="null" :width="480" destroy-on-close @cancel="isOpen = false">
    <Choice
      ref="field"
      show-search
      :default-open="true"
      :options="options"
      :filter-option="fits"
      :value="undefined"
      placeholder="name, number or group"
      class="find"
      label="name, number or group"
      @change="go"
    >
      <template #option="{ name, rest }"
        >{{ name }} <span class="quiet mono small">{{ rest }}</span></template
      >
    </Choice>
  </Modal>
</template>

<style scoped>
.find {
  width: 100%;
}
</style>
