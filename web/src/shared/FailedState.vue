<script setup lang="ts">
import { Button } from 'ant-design-vue'

/** A place that cannot be shown: why, and the way to ask once more. `inside`: what is around it is on screen. */
defineProps<{ text: string; inside?: boolean }>()
const emit = defineEmits<{ again: [] }>()
</script>

<template>
  <component :is="inside ? 'section' : 'main'" class="empty failed">
    <div role="alert">
      <h1>This place cannot be shown now</h1>
      <p>{{ text }}</p>
    </div>
    <Button type="primary" @click="emit('again')">Try again</Button>
  </component>
</template>

<style scoped>
.failed {
  display: grid;
  gap: 8px;
  justify-items: center;
}
h1 {
  font-size: 16px;
  color: var(--ink);
}
p {
  overflow-wrap: anywhere;
  max-width: 640px;
}
</style>
