<script setup lang="ts">
import { Button, Checkbox, Popover } from 'ant-design-vue'
import { computed, ref } from 'vue'

import { get, written } from '../../api/client'
import { told } from '../../shared/attempt'
import { BASE } from '../../shared/base'

const props = defineProps<{ labId: number; group: string }>()
const all = ref<string[]>([])
const wanted = ref<string[]>([])
const isOpen = ref(false)

async function load(): Promise<void> {
  await told(async () => {
    const found = await get(`/labs/${props.labId}/marks/columns`)
    const kept = (JSON.parse(localStorage.getItem('marks-columns') ?? '[]') as string[]).filter((c) => found.columns.includes(c))
    wanted.value = kept.length ? kept : found.usual
    all.value = [...wanted.value, ...found.columns.filter((c) => !wanted.value.includes(c))]
  })
}
function turn(column: string): void {
  wanted.value = all.value.filter((c) => (c === column ? !wanted.value.includes(c) : wanted.value.includes(c)))
  keep()
}
function up(column: string): void {
  const at = all.value.indexOf(column)
  if (at < 1) return
  all.value = [...all.value.slice(0, at - 1), column, all.value[at - 1], ...all.value.slice(at + 1)]
  wanted.value = all.value.filter((c) => wanted.value.includes(c))
  keep()
}
function keep(): void {
  localStorage.setItem('marks-columns', JSON.stringify(wanted.value))
}
const query = computed(() => written({ column: wanted.value, group: props.group || undefined }))
</script>

<template>
  <Popover v-model:open="isOpen" trigger="click" placement="bottomRight" @open-change="(o: boolean) => o && load()">
    <template #content>
      <div class="columns" aria-label="columns of the table of marks">
        <div v-for="c in all" :key="c" class="column">
          <Checkbox :checked="wanted.includes(c)" @change="turn(c)">{{ c }}</Checkbox>
          <button type="button" :aria-label="`${c} further to the left`" title="further to the left" @click="up(c)">↑</button>
        </div>
      </div>
      <div class="row files">
        <a :href="`${BASE}/api/labs/${labId}/marks.csv${query}`">CSV</a>
        <a :href="`${BASE}/api/labs/${labId}/marks.xlsx${query}`">XLSX</a>
      </div>
    </template>
    <Button size="small">Marks…</Button>
  </Popover>
</template>

<style scoped>
.columns {
  display: grid;
  gap: 1px;
  max-height: 340px;
  overflow: auto;
  width: 280px;
}
.column {
  display: flex;
  justify-content: space-between;
}
.column button {
  border: 0;
  background: none;
  cursor: pointer;
  color: var(--ink-2);
}
.files {
  gap: 14px;
  padding-top: 8px;
  border-top: 1px solid var(--line);
  margin-top: 6px;
  font-weight: 600;
}
</style>
