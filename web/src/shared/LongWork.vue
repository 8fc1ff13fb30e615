<script setup lang="ts">
import { Button, Progress } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'

import { leftText } from './remaining'

/** Work that takes a while: how far it is, how long it will take from here, and the way out of it. */
const props = defineProps<{ label: string; done: number; total: number }>()
const emit = defineEmits<{ cancel: [] }>()
const since = ref(performance.now())
const elapsed = ref(0)
watch(
  () => props.done,
  (now, before) => {
    if (now < before) since.value = performance.now()
    elapsed.value = performance.now() - since.value
  },
)
const share = computed(() => (props.total ? Math.round((100 * props.done) / props.total) : 0))
const left = computed(() => leftText(props.done, props.total, elapsed.value))
</script>

<template>
  <div class="work" role="status">
    <span
      >{{ label }} {{ done }} of {{ total }}<span v-if="left" class="quiet">, {{ left }}</span></span
    >
    <Progress :percent="share" :show-info="false" size="small" stroke-color="var(--lacquer)" />
    <Button size="small" @click="emit('cancel')">Cancel</Button>
  </div>
</template>

<style scoped>
.work {
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 6px 14px;
  background: var(--lacquer-tint);
  border-bottom: 1px solid var(--line);
}
.work :deep(.ant-progress) {
  flex: 1;
  margin: 0;
}
.work > span {
  white-space: nowrap;
}
</style>
