<script setup lang="ts">
import { watch } from 'vue'

import { get } from '../../api/client'
import type { RepairView } from '../../api/schema'
import { useResource } from '../../shared/resource'
import SentenceText from '../../shared/SentenceText.vue'
import { count } from '../../shared/words'

/** What to write instead of what, so that every case is right: looked for while the person reads on. */
const props = defineProps<{ taskId: number; handin: number }>()
const emit = defineEmits<{ found: [changes: RepairView['changes']] }>()
/** A help, not a verdict: where it cannot be found nothing is said. */
const {
  data: repair,
  isLoading,
  reload,
  clear,
} = useResource((signal) => get(`/tasks/${props.taskId}/review/${props.handin}/repair`, { signal }), { lazy: true })
watch(
  () => props.handin,
  async () => {
    clear()
    emit('found', [])
    const found = await reload()
    if (found) emit('found', found.changes)
  },
  { immediate: true },
)
</script>

<template>
  <p v-if="isLoading" class="quiet small">looking for the smallest change…</p>
  <div v-else-if="repair?.changes.length" class="change">
    <p class="small">{{ repair.changes.length > 1 ? 'Any of these changes alone makes' : 'One change makes' }} every case right:</p>
    <p v-for="c in repair.changes" :key="c.line + c.text">
      <b>line {{ c.line }}</b> <SentenceText :text="c.text" />
    </p>
  </div>
  <p v-else-if="repair?.is_known && repair.tried" class="quiet small">
    No single change makes every case right ({{ count(repair.tried, 'change') }} tried{{ repair.is_whole ? '' : ', not all' }}).
  </p>
</template>

<style scoped>
.change {
  border-left: 3px solid var(--pass);
  padding-left: 9px;
}
</style>
