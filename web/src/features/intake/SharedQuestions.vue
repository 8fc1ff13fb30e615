<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { computed, ref } from 'vue'

import type { IntakeEntry } from '../../api/schema'
import { count } from '../../shared/words'

/** Questions that several hand-ins ask alike, each with one answer for all of them. */
const props = defineProps<{ entries: IntakeEntry[]; titles: Map<number, string> }>()
const emit = defineEmits<{ choose: [task: number, unit: string, handins: IntakeEntry[], told: (done: number) => void] }>()
const FEWEST = 2
const questions = computed(() => {
  const found = new Map<string, { task: number; unit: string; entries: IntakeEntry[] }>()
  for (const entry of props.entries)
    for (const t of entry.aside === null ? entry.tasks : [])
      for (const unit of t.leftover) {
        const key = `${t.task_id} ${unit}`
        const known = found.get(key) ?? { task: t.task_id, unit, entries: [] }
        known.entries.push(entry)
        found.set(key, known)
      }
  return [...found.values()].filter((q) => q.entries.length >= FEWEST).sort((a, b) => b.entries.length - a.entries.length)
})
/** Which question is being answered, and for how many it is done. */
const working = ref<{ key: string; done: number } | null>(null)
function answer(q: { task: number; unit: string; entries: IntakeEntry[] }): void {
  const key = `${q.task} ${q.unit}`
  working.value = { key, done: 0 }
  emit('choose', q.task, q.unit, q.entries, (done) => (working.value = done < q.entries.length ? { key, done } : null))
}
</script>

<template>
  <div v-if="questions.length" class="compartment questions">
    <p v-for="q in questions" :key="`${q.task} ${q.unit}`" class="row spread question">
      <span
        >{{ count(q.entries.length, 'hand-in') }} for {{ titles.get(q.task) }} {{ q.entries.length === 1 ? 'has' : 'have' }} nothing by the
        name that is asked for, but <code>{{ q.unit }}</code>.</span
      >
      <span v-if="working?.key === `${q.task} ${q.unit}`" class="quiet" role="status">{{ working.done }} of {{ q.entries.length }}</span>
      <Button v-else size="small" :disabled="working !== null" @click="answer(q)">It is that, in all {{ q.entries.length }}</Button>
    </p>
  </div>
</template>

<style scoped>
.questions {
  display: grid;
  gap: 6px;
  border-color: var(--undef);
}
.question {
  flex-wrap: wrap;
}
</style>
