<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'

import type { LineNote } from '../../api/schema'
import SentenceText from '../../shared/SentenceText.vue'
import { pieces, wordsOf } from './highlight'

const props = defineProps<{
  files: { path: string; text: string }[]
  notes: LineNote[]
  stretch?: { file: string; from: number; to: number } | null
}>()
const emit = defineEmits<{ line: [file: string, line: number] }>()
const chosen = ref(0)
const body = ref<HTMLElement>()
const file = computed(() => props.files[chosen.value])
const lines = computed(() => (file.value?.text ?? '').replaceAll('\r', '').replace(/\n$/, '').split('\n').slice(0, 5000))
const byLine = computed(() => {
  const found = new Map<number, LineNote[]>()
  for (const n of props.notes) if (n.file === file.value?.path) found.set(n.line, [...(found.get(n.line) ?? []), n])
  return found
})
const words = computed(() => wordsOf(file.value?.path ?? '', file.value?.text ?? ''))
watch(
  () => props.files,
  async () => {
    const first = props.notes.find((n) => n.severity !== 'note' && n.severity !== 'change')
    chosen.value = Math.max(
      0,
      props.files.findIndex((f) => f.path === first?.file),
    )
    await nextTick()
    body.value?.querySelector('.marked')?.scrollIntoView({ block: 'center' })
  },
  { immediate: true },
)
/** Lines chosen elsewhere come into sight. */
watch(
  () => props.stretch,
  async (lines) => {
    if (!lines) return
    chosen.value = Math.max(
      0,
      props.files.findIndex((f) => f.path === lines.file),
    )
    await nextTick()
    body.value?.querySelector('.chosen')?.scrollIntoView({ block: 'nearest' })
  },
  { immediate: true },
)
function isChosen(number: number): boolean {
  return !!props.stretch && props.stretch.file === file.value?.path && number >= props.stretch.from && number <= props.stretch.to
}
</script>

<template>
  <div class="source">
    <div class="tabs" role="tablist">
      <button
        v-for="(f, i) in files"
        :key="f.path"
        type="button"
        role="tab"
        :aria-selected="i === chosen"
        :class="{ here: i === chosen }"
        @click="chosen = i"
      >
        {{ f.path }}
      </button>
    </div>
    <div ref="body" class="text" tabindex="0" role="region" aria-label="source">
      <template v-for="(line, i) in lines" :key="i">
        <div
          class="line"
          :class="{ marked: byLine.has(i + 1), chosen: isChosen(i + 1), [byLine.get(i + 1)?.[0]?.severity ?? '']: true }"
          @click="emit('line', file?.path ?? '', i + 1)"
        >
          <i>{{ i + 1 }}</i>
          <pre><span v-for="(p, k) in pieces(line, words)" :key="k" :class="p.kind">{{ p.text }}</span></pre>
        </div>
        <p v-for="(n, k) in byLine.get(i + 1) ?? []" :key="`n${k}`" class="note" :class="`is-${n.severity}`">
          <SentenceText :text="n.text" />
        </p>
      </template>
    </div>
  </div>
</template>

<style scoped>
.source {
  display: flex;
  flex-direction: column;
  min-height: 0;
  flex: 1;
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
  overflow: auto;
  flex: 1;
  padding: 6px 0;
  font: 12.5px/1.55 var(--mono);
  font-feature-settings: 'zero' 1;
}
.line {
  display: flex;
}
.line i {
  flex: none;
  width: 40px;
  padding-right: 10px;
  text-align: right;
  color: var(--ink-3);
  font-style: normal;
  user-select: none;
}
.line pre {
  margin: 0;
  font: inherit;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
.chosen {
  box-shadow: inset 3px 0 var(--lacquer);
  background: var(--lacquer-tint);
}
.marked.finding,
.marked.error {
  background: var(--fail-tint);
}
.marked.warning {
  background: var(--undef-tint);
}
.marked.change {
  background: var(--pass-tint);
}
.note {
  margin: 0 0 2px 40px;
  padding: 1px 8px;
  font: 12px/1.45 var(--sans);
  border-left: 2px solid var(--fail);
  color: var(--fail-text);
}
.note.is-warning {
  border-color: var(--undef);
  color: var(--undef-text);
}
.note.is-change {
  border-color: var(--pass);
  color: var(--pass-text);
}
.note.is-note {
  border-color: var(--none);
  color: var(--ink-2);
}
.word {
  color: var(--lacquer);
  font-weight: 600;
}
.comment {
  color: var(--ink-3);
}
</style>
