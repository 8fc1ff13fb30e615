<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { computed, onMounted, ref, shallowRef, watch } from 'vue'

import type { CircuitPart, PortView } from '../../api/schema'
import { useKeys } from '../../shared/keys'
import CircuitDrawing from '../circuit/CircuitDrawing.vue'
import { type Layout, warmUp } from '../circuit/layout'
import { fanIn, type Indexed } from '../circuit/model'
import { useSymbols } from '../circuit/symbolSetting'
import { pinsNamed } from './beside'
import { type Heard } from './board'
import { labelOf } from './lines'
import { type Looks, looksOf } from './looks'
import { useSaidLayout } from './saidLayout'

const props = defineProps<{
  at: Indexed | null
  view: Heard | null
  /** What outputs should be in the chosen case, by their names, where they are something else. */
  wrong: Map<string, string>
  isOld: boolean
  text: string
  ports: PortView[]
  chosenCase: number | null
  lines: number[]
  probes: number[]
  limits: { gates: number | null; levels: number | null }
  /** Names of wires that do not carry what those of another circuit do. */
  parted?: Set<string>
}>()
const emit = defineEmits<{
  line: [line: number, isMore: boolean]
  probe: [pin: number]
  place: [line: number, x: number, y: number]
  tidy: []
  point: [name: string, isOutput: boolean]
  lines: [lines: number[]]
  fold: [line: number, isFolded: boolean]
  remark: [line: number, x: number, y: number]
}>()
const layout = shallowRef<Layout | null>(null)
const looks = computed<Looks>(() => looksOf(props.text))
const { symbols, turnSymbols } = useSymbols()
const drawing = ref<InstanceType<typeof CircuitDrawing>>()

/** The circuit that is on screen: the newest one as soon as it is laid out, so that a drawing and its layout are of one circuit. */
const shown = shallowRef<Indexed | null>(null)
const place = computed(() => Math.max(0, shown.value?.circuit.cases.indexOf(props.chosenCase ?? -1) ?? 0))
const chosen = computed(
  () =>
    new Set(
      shown.value?.circuit.parts
        .filter((p) => props.lines.includes(p.line) && !['input', 'output'].includes(p.kind) && p.within < 0)
        .map((p) => p.id),
    ),
)
const explains = computed(() => new Set(props.isOld ? [] : (shown.value?.circuit.explains ?? [])))
const portMap = computed(() => new Map(props.ports.map((p) => [p.name, p])))
/** Outputs that are not what they should be in the chosen case, with what they should be. */
const astray = computed(() => {
  const at = shown.value
  if (!at || props.isOld) return new Map<number, string>()
  const found = props.parted ? pinsNamed(at, props.parted) : new Map<number, string>()
  for (const part of at.circuit.parts.filter((p) => p.kind === 'output')) {
    const wanted = props.wrong.get(part.label)
    if (wanted === undefined) continue
    found.set(part.pins[0].id, wanted)
    for (const from of at.from.get(part.pins[0].id) ?? []) found.set(from, '')
  }
  return found
})
const size = computed(() => {
  const v = props.view
  if (!v || props.isOld) return ''
  const gates = `${v.gates} ${v.gates === 1 ? 'part' : 'parts'}${props.limits.gates === null ? '' : ` of ${props.limits.gates} allowed`}`
  const levels = `${v.levels} ${v.levels === 1 ? 'level' : 'levels'}${props.limits.levels === null ? '' : ` of ${props.limits.levels}`}`
  return `${gates}, ${levels}`
})
const broken = computed(() => (props.isOld ? [] : (props.view?.rules.filter((r) => !r.ok) ?? [])))

/** The output from which the drawing is looked at backwards; empty while all of it is shown. */
const backFrom = ref('')
const wrongOutputs = computed(() => [...props.wrong.keys()])
/** Backwards from the next wrong output, then all of it again. */
function back(): void {
  backFrom.value = wrongOutputs.value[wrongOutputs.value.indexOf(backFrom.value) + 1] ?? ''
  void redraw()
}
function conesOf(at: Indexed, output: string): Set<number> | null {
  const part = at.circuit.parts.find((p) => p.kind === 'output' && p.label === output)
  return part ? fanIn(at, part.pins[0].id) : null
}
const layOutAsSaid = useSaidLayout()
async function redraw(): Promise<void> {
  const at = props.at
  if (!at) {
    layout.value = shown.value = null
    return
  }
  const only = backFrom.value === '' ? null : conesOf(at, backFrom.value)
  const found = await layOutAsSaid(at, props.text, looks.value, folded.value, only)
  if (!found || props.at !== at) return
  layout.value = found
  shown.value = at
}
onMounted(() => void warmUp())
const isPlaced = computed(() => looks.value.places.size > 0)
/** Blocks that are drawn without what is inside: all but those that the text shows. Inner ones are opened by hand alone. */
const opened = ref(new Set<number>())
const folded = computed(
  () =>
    new Set(
      props.at?.circuit.parts
        .filter(
          (p) => p.kind === 'unit' && !(p.within < 0 ? looks.value.unfolded.has(labelOf(props.text, p.line)) : opened.value.has(p.id)),
        )
        .map((p) => p.id),
    ),
)
/** Where a part was moved to: of a line with several the place of its last one counts. */
function move(part: CircuitPart, x: number, y: number): void {
  const same =
    layout.value?.parts.filter((p) => p.part.line === part.line && p.part.within < 0 && !['input', 'output'].includes(p.part.kind)) ?? []
  const at = same.find((p) => p.part.id === part.id)
  if (!at) return
  const last = same.reduce((a, b) => (b.x > a.x ? b : a))
  emit('place', part.line, last.x + x - at.x, last.y + y - at.y)
}
watch(
  () => props.at,
  () => {
    opened.value = new Set()
    void redraw()
  },
  { immediate: true },
)
/** Looks that change without the circuit: a text that says only how it looks is drawn at once. */
watch(
  () =>
    JSON.stringify([
      ...looks.value.turned,
      ...looks.value.unfolded,
      ...looks.value.sides,
      ...looks.value.named,
      looks.value.groups,
      looks.value.remarks,
    ]),
  () => void redraw(),
)
function fold(id: number): void {
  const part = props.at?.part.get(id)
  if (!part) return
  if (part.within < 0) {
    emit('fold', part.line, !folded.value.has(id))
    return
  }
  const next = new Set(opened.value)
  if (!next.delete(id)) next.add(id)
  opened.value = next
  void redraw()
}
/** Parts within a frame that was drawn over them. */
function within(parts: CircuitPart[]): void {
  emit('lines', [...new Set(parts.filter((p) => p.within < 0 && !['input', 'output'].includes(p.kind)).map((p) => p.line))])
}
function pick(part: CircuitPart, isMore: boolean): void {
  if (part.kind === 'input' || part.kind === 'output') {
    emit('point', part.label, part.kind === 'output')
    return
  }
  emit('line', part.line, isMore)
}
useKeys([
  { key: 'g', label: 'tidy: forget where parts were put by hand', act: () => emit('tidy') },
  { key: 'b', label: 'backwards from a wrong output', act: back },
  { key: '0', label: 'the whole drawing', act: () => drawing.value?.fit() },
])
</script>

<template>
  <div class="pane">
    <div class="bar">
      <span class="small" :class="{ quiet: !isOld }" role="status">{{
        isOld ? 'drawn as of the last text that could be read' : size || 'nothing is drawn yet'
      }}</span>
      <span v-for="r in broken" :key="r.rule" class="chip broken" :title="r.rule">{{ r.text }}</span>
      <span v-if="layout" class="took" :data-milliseconds="Math.round(layout.milliseconds)" :data-parts="layout.parts.length"></span>
      <span class="spring"></span>
      <slot name="tools"></slot>
      <Button v-if="wrongOutputs.length || backFrom" size="small" @click="back"
        >{{ backFrom ? `behind ${backFrom}` : 'Backwards' }} <span class="key">b</span></Button
      >
      <Button v-if="isPlaced" size="small" title="everything stands by itself again" @click="emit('tidy')"
        >Tidy <span class="key">g</span></Button
      >
      <Button size="small" @click="turnSymbols">Symbols <span class="key">y</span></Button>
    </div>
    <CircuitDrawing
      v-if="shown && layout"
      ref="drawing"
      :class="{ old: isOld }"
      :at="shown"
      :layout="layout"
      :digits="shown.circuit.digits"
      :place="place"
      :chosen="chosen"
      :probes="probes"
      :explains="explains"
      :astray="astray"
      :symbols="symbols"
      :ports="portMap"
      caption="the circuit on the board"
      movable
      @wire="(id) => emit('probe', id)"
      @part="pick"
      @move="move"
      @fold="fold"
      @within="within"
      @remark="(line, x, y) => emit('remark', line, x, y)"
    />
    <p v-else class="empty">Say what drives an output, or write it in the text: it is drawn here.</p>
  </div>
</template>

<style scoped>
.pane {
  display: flex;
  flex-direction: column;
  gap: 6px;
  flex: 1;
  min-height: 0;
}
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.bar .key {
  margin-left: 5px;
}
.spring {
  flex: 1;
}
.old {
  opacity: 0.55;
}
.broken {
  border-color: var(--fail);
  color: var(--fail-text);
  background: var(--fail-tint);
}
</style>
