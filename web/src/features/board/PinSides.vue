<script setup lang="ts">
import { Button, Popover } from 'ant-design-vue'
import { computed } from 'vue'

import { labelOf } from './lines'
import { looksOf, type Side, withSide } from './looks'

/** Which side of a box each of its pins is on. */
const props = defineProps<{ text: string; line: number; pins: { name: string; side: Side }[] }>()
const emit = defineEmits<{ change: [text: string] }>()
const SIDES: [Side, string][] = [
  ['left', '←'],
  ['above', '↑'],
  ['below', '↓'],
  ['right', '→'],
]
const said = computed(() => looksOf(props.text).sides)
const sideOf = (pin: { name: string; side: Side }): Side => said.value.get(`${labelOf(props.text, props.line)}.${pin.name}`) ?? pin.side
</script>

<template>
  <Popover trigger="click" placement="top">
    <Button size="small">Sides ▾</Button>
    <template #content>
      <table class="sides">
        <tbody>
          <tr v-for="pin in pins" :key="pin.name">
            <th scope="row" class="mono">{{ pin.name }}</th>
            <td>
              <span role="group" :aria-label="`side of ${pin.name}`">
                <button
                  v-for="[side, arrow] in SIDES"
                  :key="side"
                  type="button"
                  :class="{ own: sideOf(pin) === side }"
                  :aria-pressed="sideOf(pin) === side"
                  :aria-label="`${pin.name}: ${side}`"
                  @click="emit('change', withSide(text, line, pin.name, side))"
                >
                  {{ arrow }}
                </button>
              </span>
            </td>
          </tr>
        </tbody>
      </table>
    </template>
  </Popover>
</template>

<style scoped>
.sides {
  display: block;
  max-height: 50vh;
  overflow: auto;
}
th {
  text-align: left;
  font-weight: 500;
  padding-right: 14px;
}
button {
  border: 1px solid var(--line);
  background: var(--paper);
  min-width: 28px;
  min-height: 26px;
  cursor: pointer;
}
button.own {
  background: var(--lacquer-tint);
  border-color: var(--lacquer);
  color: var(--lacquer);
}
</style>
