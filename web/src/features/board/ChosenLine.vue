<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { computed, ref } from 'vue'

import { useKeys } from '../../shared/keys'
import { callOf, lineOf, withInvertedOutput, withLine } from './lines'
import { type Side, withGroup, withNamed, withTurn } from './looks'
import PartActs from './PartActs.vue'
import PinSides from './PinSides.vue'

const props = defineProps<{ text: string; lines: number[]; names: string[]; pins: { name: string; side: Side }[] }>()
const emit = defineEmits<{ change: [text: string]; block: [name: string]; open: []; drop: [] }>()
const line = computed(() => props.lines[props.lines.length - 1])
const call = computed(() => callOf(lineOf(props.text, line.value)))
const blockName = ref('')
const acts = ref<InstanceType<typeof PartActs>>()

/** Whether the chosen line uses a block that stands in this text. */
const isBlock = computed(() => !!call.value && new RegExp(`^\\s*wiring\\s+${call.value.name}\\b`, 'm').test(props.text))
function rewrite(value: string): void {
  const indent = /^\s*/.exec(lineOf(props.text, line.value))?.[0] ?? ''
  emit('change', withLine(props.text, line.value, value.trim() ? indent + value.trim() : null))
}
function group(): void {
  emit('change', withGroup(props.text, props.lines, blockName.value.trim()))
  blockName.value = ''
}
const one = (act: (text: string, line: number) => string): void => {
  if (props.lines.length === 1) emit('change', act(props.text, line.value))
}
useKeys([
  { key: '!', label: 'invert the chosen part', act: () => one(withInvertedOutput) },
  { key: '+', label: 'one input more', act: () => acts.value?.more() },
  { key: '-', label: 'one input less', act: () => acts.value?.less() },
  { key: 'f', label: 'turn the chosen part', act: () => one(withTurn) },
])
defineExpose({ point: (name: string) => acts.value?.point(name) ?? false })
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
  <PartActs v-if="lines.length === 1" ref="acts" :text="text" :line="line" :names="names" @change="(now) => emit('change', now)">
    <PinSides v-if="pins.length" :text="text" :line="line" :pins="pins" @change="(now) => emit('change', now)" />
    <Button v-else size="small" @click="emit('change', withTurn(text, line))">Turn <span class="k">f</span></Button>
    <Button
      size="small"
      title="draw what it drives as a name at both ends, or as a line again"
      @click="emit('change', withNamed(text, line))"
      >As a name</Button
    >
  </PartActs>
</template>

<style scoped>
.chosen-line {
  display: flex;
  gap: 8px;
  align-items: center;
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
</style>
