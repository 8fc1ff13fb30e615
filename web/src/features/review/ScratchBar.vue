<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { computed } from 'vue'

import { count } from '../../shared/words'
import type { Scratch } from './scratch'

const props = defineProps<{ scratch: Scratch; passed: number; total: number }>()
const emit = defineEmits<{ quote: [text: string]; leave: [] }>()
const outcome = computed(() => props.scratch.outcome.value)
const error = computed(() => outcome.value?.messages.find((m) => m.severity === 'error'))
</script>

<template>
  <div class="bar" role="status">
    <b>Scratch copy</b>
    <span v-if="scratch.trouble.value" class="bad">{{ scratch.trouble.value }}</span>
    <span v-else-if="scratch.isBusy.value" class="quiet">checking…</span>
    <span v-else-if="!scratch.isChanged.value" class="quiet">as handed in; change something</span>
    <span v-else-if="outcome && outcome.status !== 'checked'" class="bad">{{
      error ? `${error.line ? `line ${error.line}: ` : ''}${error.text}` : 'cannot be run'
    }}</span>
    <span v-else-if="outcome">
      <b class="good">{{ count(outcome.turned_right.length, 'case') }}</b> {{ outcome.turned_right.length === 1 ? 'turns' : 'turn' }} right,
      <b :class="{ bad: outcome.turned_wrong.length }">{{ outcome.turned_wrong.length }}</b> wrong: {{ outcome.passed }} of
      {{ outcome.total }}
    </span>
    <span class="spring"></span>
    <Button v-if="scratch.isChanged.value && outcome" size="small" type="primary" @click="emit('quote', scratch.quote())">Quote</Button>
    <Button v-if="scratch.isChanged.value" size="small" @click="scratch.reset()">Undo</Button>
    <Button size="small" @click="emit('leave')">Leave</Button>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  gap: 8px;
  align-items: center;
  background: var(--undef-tint);
  border-radius: 6px;
  padding: 4px 10px;
  flex-wrap: wrap;
}
.spring {
  flex: 1;
}
.bad {
  color: var(--fail-text);
}
.good {
  color: var(--pass-text);
}
</style>
