<script setup lang="ts">
import type { MessageView } from '../../api/schema'
import SentenceText from '../../shared/SentenceText.vue'

/** What is wrong with the text, or that nothing is. */
defineProps<{ messages: MessageView[]; fine?: string }>()
const emit = defineEmits<{ go: [message: MessageView] }>()
</script>

<template>
  <ul class="messages" aria-live="polite">
    <li v-if="!messages.some((m) => m.severity !== 'note')" class="ok">{{ fine ?? 'All sources agree.' }}</li>
    <li v-for="(m, i) in messages" :key="i" :class="m.severity">
      <button type="button" @click="emit('go', m)">
        <span v-if="m.line" class="mono">{{ m.line }}:{{ m.column }}</span> <SentenceText :text="m.text" /><span
          v-if="m.hint"
          class="quiet"
        >
          (<SentenceText :text="m.hint" />)</span
        >
      </button>
    </li>
  </ul>
</template>

<style scoped>
.messages {
  max-height: 150px;
  overflow: auto;
  border-top: 1px solid var(--line-2);
  padding-top: 6px;
  display: grid;
  gap: 2px;
}
.messages button {
  border: 0;
  background: none;
  text-align: left;
  cursor: pointer;
  padding: 1px 0 1px 9px;
  border-left: 3px solid var(--none);
  width: 100%;
}
.messages .error button {
  border-color: var(--fail);
  color: var(--fail-text);
}
.messages .warning button {
  border-color: var(--undef);
  color: var(--undef-text);
}
.ok {
  color: var(--pass-text);
}
</style>
