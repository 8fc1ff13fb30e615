<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { computed, ref } from 'vue'

import { callOf, GATES, gateOf, lineOf, withGate, withGiven, withInvertedInput, withInvertedOutput, withOneMore } from './lines'

/** What can be done to the part of one line: another gate, other inputs, more or fewer of them, inversions. */
const props = defineProps<{ text: string; line: number; names: string[] }>()
const emit = defineEmits<{ change: [text: string] }>()
const call = computed(() => callOf(lineOf(props.text, props.line)))
/** Which input takes the name of a wire that is pointed at. */
const wanting = ref(-1)
/** Whether one may say of its inputs how many there are. */
const isOpenEnded = computed(() => !!call.value && (GATES.includes(call.value.name) || call.value.name === 'select'))

/** A wire that was pointed at goes to the input that wants one; whether there was such an input. */
function point(name: string): boolean {
  if (wanting.value < 0 || !call.value?.given[wanting.value]) return false
  emit('change', withGiven(props.text, props.line, wanting.value, name))
  wanting.value = -1
  return true
}
function more(): void {
  if (isOpenEnded.value) emit('change', withOneMore(props.text, props.line))
}
function less(): void {
  const count = call.value?.given.length ?? 0
  if (isOpenEnded.value && count > 1) emit('change', withGiven(props.text, props.line, count - 1, null))
}
defineExpose({ point, more, less })
</script>

<template>
  <div v-if="call" class="acts">
    <span v-if="gateOf(text, line)" class="kinds" role="group" aria-label="another gate">
      <button
        v-for="g in GATES"
        :key="g"
        type="button"
        class="kind"
        :class="{ own: g === gateOf(text, line) }"
        :aria-pressed="g === gateOf(text, line)"
        @click="emit('change', withGate(text, line, g))"
      >
        {{ g }}
      </button>
    </span>
    <span v-for="(g, i) in call.given" :key="i" class="given" :class="{ wanting: wanting === i }">
      <button
        type="button"
        class="turn"
        :aria-pressed="g.value.startsWith('!')"
        :aria-label="`invert ${g.pin || `input ${i + 1}`}`"
        title="invert it"
        @click="emit('change', withInvertedInput(text, line, i))"
      >
        !
      </button>
      <input
        class="mono"
        :value="g.value"
        :style="{ width: `${Math.max(3, Math.min(16, g.value.length)) + 5}ch` }"
        :aria-label="g.pin || `input ${i + 1}`"
        :title="`${g.pin || `input ${i + 1}`}: type a name, or point at a wire`"
        list="board-wires"
        spellcheck="false"
        @focus="wanting = i"
        @change="emit('change', withGiven(text, line, i, ($event.target as HTMLInputElement).value.trim() || '_'))"
        @keydown.esc="wanting = -1"
      />
      <button
        v-if="isOpenEnded && call.given.length > 1"
        type="button"
        class="turn"
        :aria-label="`take input ${i + 1} out`"
        title="one input less"
        @click="emit('change', withGiven(text, line, i, null))"
      >
        ×
      </button>
    </span>
    <datalist id="board-wires"><option v-for="n in names" :key="n" :value="n" /></datalist>
    <Button v-if="isOpenEnded" size="small" title="one input more" @click="emit('change', withOneMore(text, line))">+ input</Button>
    <Button size="small" @click="emit('change', withInvertedOutput(text, line))">Invert <span class="k">!</span></Button>
    <slot></slot>
  </div>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.kinds {
  display: flex;
}
.kind {
  border: 1px solid var(--line);
  border-right-width: 0;
  background: var(--paper);
  font: 12px var(--mono);
  padding: 3px 6px;
  cursor: pointer;
  min-height: 24px;
}
.kind:first-child {
  border-radius: 6px 0 0 6px;
}
.kind:last-child {
  border-radius: 0 6px 6px 0;
  border-right-width: 1px;
}
.kind.own {
  background: var(--lacquer-tint);
  color: var(--lacquer);
  font-weight: 600;
}
.given {
  display: inline-flex;
  border: 1px solid var(--line);
  border-radius: 6px;
  background: var(--rice);
}
.given.wanting {
  border-color: var(--lacquer);
  background: var(--lacquer-tint);
}
.given input {
  border: 0;
  background: transparent;
  padding: 2px 4px;
}
.turn {
  border: 0;
  background: transparent;
  min-width: 24px;
  min-height: 24px;
  font: 600 12px var(--mono);
  color: var(--ink-2);
  cursor: pointer;
}
.turn[aria-pressed='true'] {
  color: var(--lacquer);
}
</style>
