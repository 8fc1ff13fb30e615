<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { computed, onBeforeUnmount, onMounted, reactive, ref, watch } from 'vue'

import { post } from '../../api/client'
import type { HandMove, HandView } from '../../api/schema'
import { useResource } from '../../shared/resource'
import { count } from '../../shared/words'

/** An input as it is set by hand: digits leftmost first, and how its value is written. */
interface Input {
  name: string
  digits: string
  keys: string[]
  typed: string | null
}

const props = defineProps<{
  taskId: number
  handin: number
  ports: { name: string; width: number; radix: string; signed: boolean }[]
  clock: string
  start: string[] | null
  files: { path: string; text: string }[]
  probes: { name: string; value: string }[]
}>()
const emit = defineEmits<{ state: [state: HandView | null]; leave: [] }>()
/** Keys near each other, for the digits from the left of the first input on. */
const ROW = 'asdfghjklqwertyuiopvbnm'.split('')
const MOST_KEYED = 4
const inputs = reactive<Input[]>([])
const moves = ref<HandMove[]>([])
const {
  data: state,
  trouble: unheard,
  isLoading: isBusy,
  reload,
} = useResource(
  (signal) => post(`/tasks/${props.taskId}/review/${props.handin}/hand`, { moves: moves.value, files: props.files }, { signal }),
  { lazy: true },
)
/** Why what was typed is no value. */
const refusal = ref('')
const trouble = computed(() => refusal.value || unheard.value || state.value?.trouble)

const driven = computed(() => inputs.filter((i) => i.name !== props.clock))

function begin(): void {
  const free = [...ROW]
  inputs.splice(
    0,
    inputs.length,
    ...props.ports.map((p, n) => {
      const digits = props.start?.[n] && props.start[n].length === p.width ? props.start[n] : '0'.repeat(p.width)
      const keys = p.name !== props.clock && p.width <= MOST_KEYED && free.length >= p.width ? free.splice(0, p.width) : []
      return { name: p.name, digits, keys, typed: null }
    }),
  )
  moves.value = []
  void move('.')
}
/** Make a move: the inputs as they are now, and what the clock does. All moves are made anew from power-up. */
async function move(action: HandMove['action']): Promise<void> {
  moves.value.push({ inputs: inputs.map((i) => i.digits), action })
  if (moves.value.length > 400) moves.value.splice(1, moves.value.length - 400)
  const found = await reload()
  if (found) emit('state', found)
}
const NEXT: Record<string, string> = { 0: '1', 1: '0', x: '1', z: '1' }
const STRANGE: Record<string, string> = { 0: 'x', 1: 'x', x: 'z', z: '0' }
function turn(input: Input, at: number, strange: boolean): void {
  const now = input.digits[at]
  input.digits = input.digits.slice(0, at) + (strange ? STRANGE : NEXT)[now] + input.digits.slice(at + 1)
  void move('.')
}
function written(input: Input): string {
  const port = props.ports.find((p) => p.name === input.name)
  if (/[xz]/.test(input.digits) || !port || port.radix === 'bin') return input.digits
  const number = BigInt('0b' + input.digits)
  if (port.radix === 'hex') return '0x' + number.toString(16)
  return String(port.signed && input.digits[0] === '1' ? number - (1n << BigInt(port.width)) : number)
}
/** A value in any radix: 0b…, 0x…, decimal with a sign, or digits of 0 1 x z. */
function type(input: Input, text: string): void {
  const width = input.digits.length
  const port = props.ports.find((p) => p.name === input.name)
  const plain = text.trim().toLowerCase().replaceAll('_', '')
  try {
    if (/^(0b)?[01xz]+$/.test(plain) && (plain.startsWith('0b') || port?.radix === 'bin' || /[xz]/.test(plain))) {
      const digits = plain.replace('0b', '')
      input.digits = (digits.length === 1 && /[xz]/.test(digits) ? digits.repeat(width) : digits.padStart(width, '0')).slice(-width)
    } else {
      const number = plain.startsWith('-') ? -BigInt(plain.slice(1)) : BigInt(plain)
      const wrapped = ((number % (1n << BigInt(width))) + (1n << BigInt(width))) % (1n << BigInt(width))
      if (number >= 1n << BigInt(width) || number < -(1n << BigInt(width - 1))) throw new RangeError()
      input.digits = wrapped.toString(2).padStart(width, '0')
    }
  } catch {
    refusal.value = `${text} is no value of ${width} bits`
    return
  }
  refusal.value = ''
  void move('.')
}
function onKey(event: KeyboardEvent): void {
  if ((event.target as HTMLElement).closest('input, textarea, .cm-editor') || event.ctrlKey || event.metaKey || event.altKey) return
  if (event.key === 'Escape') {
    event.stopImmediatePropagation()
    emit('leave')
    return
  }
  if (event.key === ' ' && props.clock) {
    event.preventDefault()
    event.stopImmediatePropagation()
    void move('c')
    return
  }
  for (const input of driven.value) {
    const at = input.keys.indexOf(event.key.toLowerCase())
    if (at >= 0) {
      event.preventDefault()
      event.stopImmediatePropagation()
      turn(input, at, event.shiftKey)
      return
    }
  }
}
watch(() => [props.handin, props.taskId], begin)
onMounted(() => {
  window.addEventListener('keydown', onKey, true)
  begin()
})
onBeforeUnmount(() => {
  window.removeEventListener('keydown', onKey, true)
  emit('state', null)
})
</script>

<template>
  <div class="hand" aria-label="inputs by hand">
    <div class="inputs">
      <div v-for="input in driven" :key="input.name" class="input">
        <span class="name mono">{{ input.name }}</span>
        <span class="digits">
          <button
            v-for="(d, k) in input.keys.length ? input.digits : ''"
            :key="k"
            type="button"
            class="digit mono"
            :class="`is-${d}`"
            :title="`${input.name}: click or press ${input.keys[k]}; with shift x and z`"
            :aria-label="`${input.name} digit ${input.digits.length - 1 - k} is ${d}`"
            @click="turn(input, k, $event.shiftKey)"
          >
            {{ d }}<small class="key">{{ input.keys[k] }}</small>
          </button>
          <input
            v-if="input.digits.length > 1"
            class="typed mono"
            :value="written(input)"
            :aria-label="`value of ${input.name}`"
            :size="Math.max(4, written(input).length)"
            @change="type(input, ($event.target as HTMLInputElement).value)"
          />
        </span>
      </div>
      <div v-if="clock" class="input">
        <span class="name mono">{{ clock }}</span>
        <span
          ><Button size="small" @click="move('c')">Pulse <span class="key">space</span></Button></span
        >
      </div>
    </div>
    <table v-if="state" class="outputs mono">
      <thead>
        <tr>
          <th scope="col"><span class="unseen">output</span></th>
          <th>got</th>
          <th>expected</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="o in state.outputs" :key="o.name" :class="{ bad: o.wrong }" :data-output="o.name">
          <td>{{ o.name }}</td>
          <td>
            <b>{{ o.got }}</b>
          </td>
          <td>{{ o.expected === '-' ? '–' : o.expected }}</td>
        </tr>
        <tr v-for="p in probes" :key="p.name" class="probe" :data-probe="p.name">
          <td>{{ p.name }}</td>
          <td>
            <b>{{ p.value }}</b>
          </td>
          <td></td>
        </tr>
      </tbody>
    </table>
    <div class="side">
      <span v-if="trouble" class="bad">{{ trouble }}</span>
      <span v-else class="quiet small"
        >{{
          clock
            ? `${count(moves.filter((m) => m.action === 'c').length, 'pulse')} since power-up`
            : `${count(moves.length - 1, 'move')} since power-up`
        }}{{ isBusy ? ' …' : '' }}</span
      >
      <span class="row">
        <Button size="small" @click="begin">Power up anew</Button>
        <Button size="small" @click="emit('leave')">Leave <span class="key">Esc</span></Button>
      </span>
    </div>
  </div>
</template>

<style scoped>
.hand {
  display: flex;
  gap: 14px;
  align-items: flex-start;
  background: var(--lacquer-tint);
  border-radius: 6px;
  padding: 6px 10px;
  flex-wrap: wrap;
}
.inputs {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  flex: 1;
}
.input {
  display: grid;
  gap: 2px;
}
.name {
  font-size: 12px;
  color: var(--ink-2);
}
.digits {
  display: flex;
  gap: 2px;
  align-items: center;
}
.digit {
  border: 1px solid var(--line);
  background: var(--paper);
  border-radius: 4px;
  padding: 1px 6px;
  cursor: pointer;
  font-size: 14px;
  display: inline-flex;
  gap: 4px;
  align-items: baseline;
}
.digit.is-1 {
  background: var(--ink);
  color: var(--paper);
  border-color: var(--ink);
}
.digit.is-x,
.digit.is-z {
  border-color: var(--undef);
  color: var(--undef-text);
  border-style: dashed;
}
.digit small {
  font-size: 12px;
  opacity: 0.75;
}
.typed {
  border: 1px solid var(--line);
  border-radius: 4px;
  padding: 1px 5px;
  margin-left: 4px;
  background: var(--paper);
}
.outputs {
  border-collapse: collapse;
  font-size: 12.5px;
}
.outputs th {
  font: 400 12px var(--sans);
  color: var(--ink-2);
  text-align: left;
  padding: 0 8px;
}
.outputs .probe td {
  color: var(--lacquer);
}
.outputs td {
  padding: 0 8px;
}
.key {
  margin-left: 4px;
}
.bad {
  color: var(--fail-text);
}
.side {
  display: grid;
  gap: 4px;
  justify-items: end;
}
</style>
