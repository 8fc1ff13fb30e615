<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { ref } from 'vue'

/** Where a zip is dropped or chosen: for the whole lab, or for one task. `progress` is what is being done with one. */
const props = defineProps<{ progress: string; tasks: { id: number; title: string }[] }>()
const emit = defineEmits<{ files: [files: File[], task: number | null] }>()
const over = ref<number | null | undefined>()
const input = ref<HTMLInputElement>()
let chosenFor: number | null = null

function take(files: FileList | null | undefined, task: number | null): void {
  over.value = undefined
  emit('files', Array.from(files ?? []), task)
  if (input.value) input.value.value = ''
}
function choose(task: number | null = null): void {
  chosenFor = task
  input.value?.click()
}
defineExpose({ choose: () => choose(props.tasks.length === 1 ? props.tasks[0]!.id : null) })
</script>

<template>
  <div
    class="compartment drop"
    :class="{ over: over === null }"
    @dragover.prevent="over = null"
    @dragleave="over = undefined"
    @drop.prevent="take($event.dataTransfer?.files, null)"
  >
    <b>{{ progress || 'Drop a zip here' }}</b>
    <p class="quiet small">
      one folder, zip or file for each student; numbers and names find their owners{{ tasks.length > 1 ? ', units find their tasks' : '' }}
    </p>
    <Button size="small" @click="choose()">Choose <span class="k">u</span></Button>
    <template v-if="tasks.length > 1">
      <p class="quiet small">or for one task only, as course pages export them:</p>
      <button
        v-for="t in tasks"
        :key="t.id"
        type="button"
        class="one"
        :class="{ over: over === t.id }"
        :data-drop-task="t.id"
        @click="choose(t.id)"
        @dragover.prevent.stop="over = t.id"
        @dragleave.stop="over = undefined"
        @drop.prevent.stop="take($event.dataTransfer?.files, t.id)"
      >
        {{ t.title }}
      </button>
    </template>
    <input ref="input" type="file" name="drop" multiple hidden @change="take(($event.target as HTMLInputElement).files, chosenFor)" />
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
  padding: 18px 14px;
}
.over {
  border-color: var(--lacquer) !important;
  background: var(--lacquer-tint) !important;
}
.one {
  width: 100%;
  border: 1px dashed var(--none);
  border-radius: 7px;
  background: none;
  padding: 6px 8px;
  cursor: pointer;
  font: inherit;
  color: inherit;
}
.k {
  opacity: 0.7;
  font: 12px var(--mono);
  margin-left: 4px;
}
</style>
