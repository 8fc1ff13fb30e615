<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { ReviewView } from '../../api/schema'
import TextEditor from '../../shared/TextEditor.vue'
import type { Scratch } from './scratch'

const props = defineProps<{ review: ReviewView; scratch: Scratch; file: string }>()
const chosen = ref(props.file || props.review.files[0]?.path || '')
watch(
  () => props.file,
  (path) => path && (chosen.value = path),
)
const language = computed(() => (/\.vhdl?$/i.test(chosen.value) ? 'vhdl' : /\.wiring$/i.test(chosen.value) ? 'wiring' : 'verilog'))
const messages = computed(() => props.scratch.outcome.value?.messages.filter((m) => m.file === chosen.value) ?? [])
</script>

<template>
  <div class="scratch">
    <div class="tabs" role="tablist">
      <button
        v-for="f in review.files"
        :key="f.path"
        type="button"
        role="tab"
        :aria-selected="f.path === chosen"
        :class="{ here: f.path === chosen }"
        @click="chosen = f.path"
      >
        {{ f.path }}
      </button>
    </div>
    <TextEditor
      :key="chosen"
      class="text"
      :text="scratch.text(chosen)"
      :messages="messages"
      :language="language"
      label="scratch copy"
      @change="(t) => scratch.set(chosen, t)"
    />
  </div>
</template>

<style scoped>
.scratch {
  display: flex;
  flex-direction: column;
  flex: 1;
  min-height: 0;
}
.tabs {
  display: flex;
  gap: 2px;
  flex-wrap: wrap;
  border-bottom: 1px solid var(--line);
}
.tabs button {
  border: 0;
  background: none;
  padding: 4px 10px;
  cursor: pointer;
  font: 12px var(--mono);
  color: var(--ink-2);
  border-radius: 6px 6px 0 0;
}
.tabs .here {
  background: var(--lacquer-tint);
  color: var(--lacquer);
}
.text {
  flex: 1;
  min-height: 0;
}
</style>
