<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { ref } from 'vue'

/** Where a zip is dropped or chosen. `progress` is what is being done with one. */
defineProps<{ progress: string }>()
const emit = defineEmits<{ files: [files: File[]] }>()
const isOver = ref(false)
const input = ref<HTMLInputElement>()

function take(files: FileList | null | undefined): void {
  isOver.value = false
  emit('files', Array.from(files ?? []))
  if (input.value) input.value.value = ''
}
defineExpose({ choose: () => input.value?.click() })
</script>

<template>
  <div
    class="compartment drop"
    :class="{ over: isOver }"
    @dragover.prevent="isOver = true"
    @dragleave="isOver = false"
    @drop.prevent="take($event.dataTransfer?.files)"
  >
    <b>{{ progress || 'Drop a zip here' }}</b>
    <p class="quiet small">one folder, zip or file for each student; numbers and names find their owners</p>
    <Button size="small" @click="input?.click()">Choose <span class="k">u</span></Button>
    <input ref="input" type="file" name="drop" multiple hidden @change="take(($event.target as HTMLInputElement).files)" />
  </div>
</template>

<style scoped>
.drop {
  border-style: dashed;
  border-color: var(--none);
  text-align: center;
  display: grid;
  gap: 8px;
  justify-items: center;
  padding: 22px 14px;
}
.drop.over {
  border-color: var(--lacquer);
  background: var(--lacquer-tint);
}
.k {
  opacity: 0.7;
  font: 11px var(--mono);
  margin-left: 4px;
}
</style>
