<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { computed, ref, shallowRef, watch } from 'vue'

import type { PortView } from '../../api/schema'
import CircuitDrawing from '../circuit/CircuitDrawing.vue'
import { layOut, type Layout } from '../circuit/layout'
import { type Indexed } from '../circuit/model'
import { useSymbols } from '../circuit/symbolSetting'
import { pinsNamed } from './beside'

const props = defineProps<{
  name: string
  said: string
  same: boolean
  at: Indexed | null
  place: number
  parted: Set<string>
  ports: PortView[]
}>()
const emit = defineEmits<{ close: [] }>()
const { symbols } = useSymbols()
const layout = shallowRef<Layout | null>(null)
const folded = ref(new Set<number>())
const none = new Set<number>()
const portMap = computed(() => new Map(props.ports.map((p) => [p.name, p])))
const astray = computed(() => (props.at ? pinsNamed(props.at, props.parted) : new Map<number, string>()))
async function redraw(): Promise<void> {
  const at = props.at
  const found = at?.circuit.parts.length ? await layOut(at, folded.value, null, true) : null
  if (props.at === at) layout.value = found
}
watch(
  () => props.at,
  (at) => {
    folded.value = new Set(at?.circuit.parts.filter((p) => p.kind === 'unit').map((p) => p.id))
    void redraw()
  },
  { immediate: true },
)
function fold(id: number): void {
  const next = new Set(folded.value)
  if (!next.delete(id)) next.add(id)
  folded.value = next
  void redraw()
}
</script>

<template>
  <div class="beside" role="region" :aria-label="`beside it: ${name}`">
    <div class="row spread">
      <span class="small"
        ><b class="mono">{{ name }}</b> beside it: <span role="status" :class="same ? 'good' : 'bad'">{{ said }}</span></span
      >
      <Button size="small" @click="emit('close')">Put away</Button>
    </div>
    <CircuitDrawing
      v-if="at && layout"
      :at="at"
      :layout="layout"
      :digits="at.circuit.digits"
      :place="place"
      :chosen="none"
      :probes="[]"
      :explains="none"
      :astray="astray"
      :symbols="symbols"
      :ports="portMap"
      :caption="`the circuit ${name}`"
      @fold="fold"
    />
    <p v-else-if="at" class="quiet small">{{ at.circuit.trouble || 'nothing of it is drawn' }}</p>
  </div>
</template>

<style scoped>
.beside {
  display: flex;
  flex-direction: column;
  gap: 6px;
  flex: 1;
  min-height: 0;
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
.good {
  color: var(--pass-text);
}
.bad {
  color: var(--fail-text);
}
</style>
