<script setup lang="ts">
import { computed } from 'vue'

import type { ReviewView } from '../../api/schema'
import { moment } from '../../shared/words'
import { sinceText } from './cases'
import MarkBox from './MarkBox.vue'

/** Who this is, which attempt, how it went, and the mark. */
const props = defineProps<{ review: ReviewView; taskId: number; isSinceShown: boolean }>()
const emit = defineEmits<{ since: []; marked: [] }>()
const isComparable = computed(() => props.review.since?.is_known && props.review.since.status === 'checked')
</script>

<template>
  <section class="who" aria-label="whose it is">
    <h1>{{ review.name }}</h1>
    <span class="mono quiet">attempt {{ review.attempt }} of {{ review.attempts }}, {{ moment(review.received_at) }}</span>
    <span v-if="review.late" class="tag undef">late</span>
    <span v-if="review.status === 'checked'" class="tag" :class="review.passed === review.total ? 'pass' : 'fail'"
      >{{ review.passed }} of {{ review.total }}</span
    >
    <span v-else class="tag fail">not checked</span>
    <button v-if="review.since" type="button" class="since" :class="{ on: isSinceShown }" :disabled="!isComparable" @click="emit('since')">
      {{ sinceText(review.since) }}
    </button>
    <span v-if="review.same.length > 1" class="quiet">and {{ review.same.length - 1 }} behave the same</span>
    <span class="keys quiet"
      ><span class="key">[</span> <span class="key">]</span> hand-in <span class="key">,</span> <span class="key">.</span> failing
      case</span
    >
    <MarkBox :review="review" :task-id="taskId" @marked="emit('marked')" />
  </section>
</template>

<style scoped>
.who {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 8px 16px 0;
  white-space: nowrap;
  overflow: hidden;
}
@media (max-width: 860px) {
  .who {
    flex-wrap: wrap;
  }
}
h1 {
  font-size: 16px;
  font-weight: 600;
}
.since {
  border: 1px solid var(--line);
  background: var(--paper);
  border-radius: 6px;
  padding: 1px 8px;
  font-size: 12px;
  cursor: pointer;
  color: var(--ink-2);
}
.since.on {
  border-color: var(--lacquer);
  color: var(--lacquer);
}
.keys {
  margin-left: auto;
  font-size: 12px;
}
</style>
