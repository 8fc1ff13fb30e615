<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { computed, ref } from 'vue'

import { useKeys } from '../../shared/keys'
import { callOf, GATES, gateOf, lineOf, withGate, withGiven, withInvertedInput, withInvertedOutput, withLine, withOneMore } from './lines'
import { withGroup, withNamed, withTurn } from './looks'

const props = defineProps<{ text: string; lines: number[]; names: string[] }>()
const emit = defineEmits<{ change: [text: string]; block: [name: string]; open: []; drop: [] }>()
const line = computed(() => props.lines[props.lines.length - 1])
const call = computed(() => callOf(lineOf(props.text, line.value)))
const blockName = ref('')
/** Which input takes the name of a wire that is pointed at. */
const wanting = ref(-1)

/** Whether the chosen line uses a block that stands in this text. */
const isBlock = computed(() => !!call.value && new RegExp(`^\\s*wiring\\s+${call.value.name}\\b`, 'm').test(props.text))
/** Whether one may say of its inputs how many there are. */
const isOpenEnded = computed(() => !!call.value && (GATES.includes(call.value.name) || call.value.name === 'select'))

function rewrite(value: string): void {
  const indent = /^\s*/.exec(lineOf(props.text, line.value))?.[0] ?? ''
  emit('change', withLine(props.text, line.value, value.trim() ? indent + value.trim() : null))
}
/** A wire that was pointed at goes to the input that wants one; whether there was such an input. */
function point(name: string): boolean {
  if (wanting.value < 0 || !call.value?.given[wanting.value]) return false
  emit('change', withGiven(props.text, line.value, wanting.value, name))
  wanting.value = -1
  return true
}
function group(): void {
  emit('change', withGroup(props.text, props.lines, blockName.value.trim()))
  blockName.value = ''
}
const one = (act: (text: string, line: number) => string): void => {
  if (props.lines.length === 1) emit('change', act(props.text, line.value))
}
useKeys([
  { key: 'n', label: 'invert the chosen part', act: () => one(withInvertedOutput) },
  { key: '+', label: 'one input more', act: () => isOpenEnded.value && one(withOneMore) },
  {
    key: '-',
    label: 'one input less',
    act: () => isOpenEnded.value && one((text, at) => withGiven(text, at, (call.value?.given.length ?? 1) - 1, null)),
  },
  { key: 'f', label: 'turn the chosen part', act: () => one(withTurn) },
])
defineExpose({ point })
</script>

<template>
  <div class="chosen-line">
    <template v-if="lines.length > 1">
      <span class="small">{{ lines.length }} lines</span>
      <form class="row" @submit.prevent="emit('block', blockName.trim())">
        <input v-model="blockName" class="mono name" aria-label="name of the block or group" placeholder="name" />
        <Button size="small" html-type="submit" :disabled="!blockName.trim()">Make a block</Button>
        <Button size="small" :disabled="!blockName.trim()" @click="group">Frame them</Button>
      </form>
    </template>
    <template v-else>
      <span class="number mono">{{ line }}</span>
      <input
        class="mono"
        :value="lineOf(text, line).trim()"
        aria-label="the chosen line"
        spellcheck="false"
        @change="rewrite(($event.target as HTMLInputElement).value)"
      />
      <Button v-if="isBlock" size="small" @click="emit('open')">Open up</Button>
    </template>
    <Button size="small" @click="emit('drop')">Take out <span class="k">Del</span></Button>
  </div>
  <div v-if="lines.length === 1 && call" class="chosen-line acts">
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
    <Button size="small" @click="emit('change', withInvertedOutput(text, line))">Invert <span class="k">n</span></Button>
    <Button size="small" @click="emit('change', withTurn(text, line))">Turn <span class="k">f</span></Button>
    <Button
      size="small"
      title="draw what it drives as a name at both ends, or as a line again"
      @click="emit('change', withNamed(text, line))"
      >As a name</Button
    >
  </div>
</template>

<style scoped>
.chosen-line {
  display: flex;
  gap: 8px;
  align-items: center;
}
.acts {
  flex-wrap: wrap;
  gap: 6px;
}
.chosen-line form {
  flex: 1;
}
.chosen-line > input {
  flex: 1;
  min-width: 80px;
}
.chosen-line input {
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 3px 8px;
  font-size: 12.5px;
  background: var(--rice);
}
.chosen-line input.name {
  max-width: 180px;
}
.number {
  color: var(--ink-3);
  font-size: 12px;
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
