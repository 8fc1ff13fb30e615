<script setup lang="ts">
import { ref, watch } from 'vue'

import { get } from '../../api/client'
import type { Repair } from '../../api/types'
import SentenceText from '../../shared/SentenceText.vue'
import { count } from '../../shared/words'

/** What to write instead of what, so that every case is right: looked for while the person reads on. */
const props = defineProps<{ taskId: number; handin: number }>()
const emit = defineEmits<{ found: [changes: Repair['changes']] }>()
const repair = ref<Repair | null>(null)
const isLooking = ref(false)

watch(
  () => props.handin,
  async (handin) => {
    repair.value = null
    emit('found', [])
    isLooking.value = true
    try {
      const found = await get<Repair>(`/tasks/${props.taskId}/review/${handin}/repair`)
      if (handin === props.handin) {
        repair.value = found
        emit('found', found.changes)
      }
    } catch {
      // Nothing is said where nothing was found: it is a help, not a verdict.
      repair.value = null
    }
    if (handin === props.handin) isLooking.value = false
  },
  { immediate: true },
)
</script>

<template>
  <p v-if="isLooking" class="quiet small">looking for the smallest change…</p>
  <div v-else-if="repair?.changes.length" class="change">
    <p class="small">{{ repair.changes.length > 1 ? 'Any of these changes alone makes' : 'One change makes' }} every case right:</p>
    <p v-for="c in repair.changes" :key="c.line + c.text"><b>line {{ c.line }}</b> <SentenceText :text="c.text" /></p>
  </div>
  <p v-else-if="repair?.is_known && repair.tried" class="quiet small">No single change makes every case right ({{ count(repair.tried, 'change') }} tried{{ repair.is_whole ? '' : ', not all' }}).</p>
</template>

<style scoped>
.change { border-left: 3px solid var(--pass); padding-left: 9px; }
</style>
