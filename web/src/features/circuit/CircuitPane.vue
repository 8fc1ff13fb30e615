<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { computed, ref, shallowRef, watch } from 'vue'

import type { CaseRow, CircuitPart, CircuitPin, HandView, ReviewView } from '../../api/schema'
import { useKeys } from '../../shared/keys'
import CircuitDrawing from './CircuitDrawing.vue'
import HandDrive from './HandDrive.vue'
import type { Layout } from './layout'
import { digitsOf, fanIn, type Indexed, shortValue, wireName } from './model'
import { useSymbols } from './symbolSetting'

const props = defineProps<{
  at: Indexed | null
  trouble: string
  review: ReviewView
  rows: CaseRow[]
  files: { path: string; text: string }[]
  text: (path: string) => string
  taskId: number
  chosenCase: number | null
  probes: number[]
  lines: { file: string; from: number; to: number } | null
  /** Lays a circuit out; what a text says of its looks is known to whoever draws it. */
  layOut: (at: Indexed, folded: Set<number>, only: Set<number> | null) => Promise<Layout | null>
}>()
const emit = defineEmits<{
  probe: [pin: number]
  part: [part: CircuitPart]
  source: [file: string, line: number]
  edit: [file: string, line: number, text: string]
}>()

const layout = shallowRef<Layout | null>(null)
const folded = ref(new Set<number>())
const backFrom = ref<number | null>(null)
const isByHand = ref(false)
const byHand = shallowRef<HandView | null>(null)
const isBusy = ref(false)
const { symbols, turnSymbols } = useSymbols()
const drawing = ref<InstanceType<typeof CircuitDrawing>>()
const MANY = 24
const VERY_MANY = 60

const place = computed(() => (byHand.value ? 0 : Math.max(0, props.at?.circuit.cases.indexOf(props.chosenCase ?? -1) ?? 0)))
const digits = computed(() => byHand.value?.digits ?? props.at?.circuit.digits ?? {})
const outputs = computed(() => props.at?.circuit.parts.filter((p) => p.kind === 'output') ?? [])
const chosen = computed(() => {
  const found = new Set<number>()
  const l = props.lines
  if (!l || !props.at) return found
  for (const p of props.at.circuit.parts) {
    if (p.file !== l.file || p.kind === 'unit' || p.kind === 'input' || p.kind === 'output') continue
    if (p.line <= l.to && (p.kind === 'process' ? p.end_line : p.line) >= l.from) found.add(p.id)
  }
  return found
})
const explains = computed(() => new Set(props.at?.circuit.explains ?? []))
/** Pins whose wires are not what they should be in the chosen case: outputs, and wires that the reference has too. */
const astray = computed(() => {
  const found = new Map<number, string>()
  if (!props.at) return found
  const row = props.rows.find((r) => r.index === props.chosenCase)
  for (const part of outputs.value) {
    const ours = props.review.binding.find((b) => b.theirs === part.label)?.ours ?? part.label
    const n = props.review.outputs.indexOf(ours)
    const hand = byHand.value?.outputs.find((o) => o.name === ours)
    if (byHand.value ? hand?.wrong : n >= 0 && row?.wrong[n]) {
      found.set(part.pins[0].id, (byHand.value ? hand?.expected : row?.expected[n]) ?? '')
      for (const start of props.at.from.get(part.pins[0].id) ?? []) found.set(start, '')
    }
  }
  if (!byHand.value && props.chosenCase !== null)
    for (const k of props.at.circuit.likeness) if (k.differs.includes(props.chosenCase)) found.set(k.pin, k.name)
  return found
})

async function redraw(): Promise<void> {
  if (!props.at || props.at.circuit.trouble) {
    layout.value = null
    return
  }
  isBusy.value = true
  const only = backFrom.value === null ? null : fanIn(props.at, backFrom.value)
  const found = await props.layOut(props.at, folded.value, only)
  if (found) layout.value = found
  isBusy.value = false
}
watch(
  () => props.at,
  (at) => {
    backFrom.value = null
    isByHand.value = false
    byHand.value = null
    // A large design begins with its boxes folded, a very large one with what its first wrong output depends on.
    folded.value = new Set(at && at.circuit.parts.length > MANY ? at.circuit.parts.filter((p) => p.kind === 'unit').map((p) => p.id) : [])
    if (at && at.circuit.parts.length > VERY_MANY)
      backFrom.value = outputs.value.find((p) => astray.value.has(p.pins[0].id))?.pins[0].id ?? null
    void redraw()
  },
  { immediate: true },
)
watch(backFrom, redraw)

function fold(id: number): void {
  const next = new Set(folded.value)
  if (!next.delete(id)) next.add(id)
  folded.value = next
  void redraw()
}
/** Folded boxes that are in sight: those inside of other folded ones are not. */
const shut = computed(() => {
  const at = props.at
  if (!at) return []
  return [...folded.value].filter((id) => {
    for (let box = at.part.get(at.part.get(id)?.within ?? -1); box; box = at.part.get(box.within))
      if (folded.value.has(box.id)) return false
    return true
  })
})
/** Open one level more; once everything is open, fold everything. */
function turnFolds(): void {
  const next = new Set(folded.value)
  for (const id of shut.value) next.delete(id)
  folded.value = shut.value.length ? next : new Set(props.at?.circuit.parts.filter((p) => p.kind === 'unit').map((p) => p.id))
  void redraw()
}
/** Backwards from the next output: wrong ones first, then all of it again. */
function back(): void {
  const wrong = outputs.value.filter((p) => astray.value.has(p.pins[0].id))
  const list = (wrong.length ? wrong : outputs.value).map((p) => p.pins[0].id)
  const at = backFrom.value === null ? -1 : list.indexOf(backFrom.value)
  backFrom.value = list[at + 1] ?? null
}
/** What the probes are while inputs are set by hand. */
const probed = computed(() =>
  props.probes.flatMap((id) => {
    const pin = props.at?.pin.get(id)
    return pin && props.at && byHand.value
      ? [{ name: wireName(props.at, pin), value: shortValue(digitsOf(pin, byHand.value.digits, 0)) }]
      : []
  }),
)
useKeys([
  { key: 'b', label: 'backwards from a wrong output', act: back },
  { key: 'h', label: 'drive the inputs by hand', act: () => (isByHand.value = !!props.at && !props.at.circuit.trouble) },
  { key: 'f', label: 'open one level of boxes more, or fold them', act: turnFolds },
  { key: '0', label: 'the whole drawing', act: () => drawing.value?.fit() },
])

/** The lines of the chosen part, to be read and tried. */
const excerpt = computed(() => {
  const l = props.lines
  const file = l && props.review.files.find((f) => f.path === l.file)
  if (!l || !file) return null
  const all = props.text(l.file).replaceAll('\r', '').split('\n')
  return {
    file: l.file,
    lines: all.slice(l.from - 1, Math.min(l.to, l.from + 4)).map((text, i) => ({ number: l.from + i, text })),
    more: Math.max(0, l.to - l.from - 4),
  }
})
const caption = computed(() => {
  if (backFrom.value !== null) return `backwards from ${props.at?.owner.get(backFrom.value)?.label}`
  const parts = props.at?.circuit.parts.filter((p) => !['input', 'output', 'unit'].includes(p.kind)).length ?? 0
  return `${parts} ${parts === 1 ? 'part' : 'parts'}`
})
const likely = computed(() => {
  const at = props.at
  if (!at) return ''
  const last = new Set(at.circuit.wires.filter((w) => at.owner.get(w.end)?.kind === 'output').map((w) => w.start))
  const named = (id: number): string => `${wireName(at, at.pin.get(id) as CircuitPin)} (line ${at.owner.get(id)?.line})`
  const names = at.circuit.explains.map(named)
  if (!names.length) return ''
  if (at.circuit.explains.every((id) => last.has(id))) return `nothing before ${names.join(' or ')} explains it alone: look there`
  return names.length === 1
    ? `another value on ${names[0]} alone would make every case right`
    : `another value on any of ${names.join(', ')} alone would make every case right`
})
const differs = computed(
  () =>
    props.at?.circuit.likeness.filter(
      (k) => k.how === 'name' && k.count && props.at?.owner.get(k.pin)?.kind !== 'output' && !props.review.outputs.includes(k.name),
    ) ?? [],
)
const portsOfTheirs = computed(
  () => new Map(props.review.ports.map((p) => [props.review.binding.find((b) => b.ours === p.name)?.theirs ?? p.name, p])),
)
const inputPorts = computed(() => props.review.ports.filter((p) => p.direction === 'in'))
/** The chosen case's inputs, to begin with by hand. */
const startDigits = computed(() => {
  const at = props.at
  if (!at || props.review.clocked) return null
  return inputPorts.value.map((p) => {
    const theirs = props.review.binding.find((b) => b.ours === p.name)?.theirs ?? p.name
    const part = at.circuit.parts.find((x) => x.kind === 'input' && x.label === theirs)
    return part ? digitsOf(part.pins[0], at.circuit.digits, place.value) : ''
  })
})
</script>

<template>
  <div class="pane">
    <p v-if="trouble || at?.circuit.trouble" class="quiet">{{ trouble || at?.circuit.trouble }}</p>
    <template v-else-if="at">
      <HandDrive
        v-if="isByHand"
        :task-id="taskId"
        :handin="review.handin_id"
        :ports="inputPorts"
        :clock="review.clock"
        :start="startDigits"
        :files="files"
        :probes="probed"
        @state="(s) => (byHand = s)"
        @leave="isByHand = false"
      />
      <div class="bar">
        <span class="quiet small">{{ caption }}<template v-if="isBusy"> …</template></span>
        <span v-if="layout" class="took" :data-milliseconds="Math.round(layout.milliseconds)"></span>
        <button v-if="backFrom !== null" type="button" class="chip" @click="backFrom = null">all of it ✕</button>
        <span class="spring"></span>
        <Button v-if="!isByHand" size="small" @click="isByHand = true">By hand <span class="key">h</span></Button>
        <Button size="small" @click="back">Backwards <span class="key">b</span></Button>
        <Button v-if="at.circuit.parts.some((p) => p.kind === 'unit')" size="small" @click="turnFolds"
          >{{ shut.length ? 'Open' : 'Fold' }} <span class="key">f</span></Button
        >
        <Button size="small" :title="symbols === 'rectangular' ? 'distinctive shapes' : 'rectangular outlines'" @click="turnSymbols"
          >Symbols <span class="key">y</span></Button
        >
      </div>
      <CircuitDrawing
        v-if="layout"
        ref="drawing"
        :at="at"
        :layout="layout"
        :digits="digits"
        :place="place"
        :chosen="chosen"
        :probes="probes"
        :explains="explains"
        :astray="astray"
        :symbols="symbols"
        :ports="portsOfTheirs"
        :caption="`circuit of ${review.name}: ${caption}`"
        @wire="(id) => emit('probe', id)"
        @part="(p) => emit('part', p)"
        @fold="fold"
        @back="(id) => (backFrom = id)"
      />
      <p v-if="likely" class="likely small">{{ likely }}</p>
      <p v-for="k in differs" :key="k.pin" class="small quiet">
        {{ k.name }} is not that of the reference in {{ k.count }} of {{ review.total }} cases
      </p>
      <slot name="acts"></slot>
      <div v-if="excerpt" class="excerpt">
        <div v-for="l in excerpt.lines" :key="l.number" class="line">
          <button
            type="button"
            class="number mono"
            :title="`line ${l.number} in the source`"
            @click="emit('source', excerpt.file, l.number)"
          >
            {{ l.number }}
          </button>
          <input
            class="mono"
            :value="l.text"
            :aria-label="`line ${l.number}, to be tried otherwise`"
            @change="emit('edit', excerpt.file, l.number, ($event.target as HTMLInputElement).value)"
          />
        </div>
        <span class="quiet small"
          >{{ excerpt.more ? `and ${excerpt.more} more lines; ` : '' }}change a line here to see what it would do</span
        >
      </div>
    </template>
    <p v-else class="quiet">Drawing…</p>
  </div>
</template>

<style scoped>
.bar .key {
  margin-left: 5px;
}
.pane {
  display: flex;
  flex-direction: column;
  gap: 6px;
  flex: 1;
  min-height: 0;
}
.bar {
  display: flex;
  gap: 6px;
  align-items: center;
}
.spring {
  flex: 1;
}
.likely {
  border-left: 3px solid var(--lacquer);
  padding-left: 9px;
}
.excerpt {
  border-top: 1px solid var(--line);
  padding-top: 6px;
  display: grid;
  gap: 1px;
}
.line {
  display: flex;
  gap: 4px;
}
.number {
  border: 0;
  background: none;
  color: var(--ink-3);
  cursor: pointer;
  width: 32px;
  text-align: right;
  font-size: 12px;
}
.line input {
  flex: 1;
  border: 1px solid transparent;
  border-radius: 4px;
  padding: 0 4px;
  font-size: 12.5px;
  background: var(--rice);
}
.line input:focus {
  border-color: var(--lacquer);
  background: var(--paper);
  outline: none;
}
</style>
