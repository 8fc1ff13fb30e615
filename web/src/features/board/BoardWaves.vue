<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { type ComponentPublicInstance, computed, ref } from 'vue'

import type { WavesView } from '../../api/schema'
import WalkedRegion from '../../shared/WalkedRegion.vue'
import WavePicture from '../waves/WavePicture.vue'

/** The sequence of the chosen step, below the drawing: the steps around it, each change of the circuit at once. */
const props = defineProps<{ waves: WavesView[]; chosen: number | null }>()
const emit = defineEmits<{ choose: [step: number] }>()
const EACH = 34
const NAMES = 104
const host = ref<ComponentPublicInstance>()
const { width } = useElementSize(host)
const firstOf = (w: WavesView): number => w.sequences[w.sequence].first + w.offset
const shown = computed(
  () =>
    props.waves.find((w) => props.chosen !== null && props.chosen >= firstOf(w) && props.chosen < firstOf(w) + w.actions.length) ??
    props.waves[0],
)
const at = computed(() => (props.chosen === null || !shown.value ? null : props.chosen - firstOf(shown.value)))
const most = computed(() => Math.max(4, Math.floor((width.value - NAMES) / EACH)))

/** A step on or back, within the sequence. */
function step(by: number): void {
  if (!shown.value) return
  const next = (at.value ?? -by) + by
  if (next >= 0 && next < shown.value.actions.length) emit('choose', firstOf(shown.value) + next)
}
</script>

<template>
  <WalkedRegion
    v-if="shown"
    ref="host"
    class="waves"
    across
    label="waves around the chosen step; the arrow keys go a step on or back"
    @walk="step"
  >
    <WavePicture
      v-if="width"
      :waves="shown"
      :width="Math.floor(width)"
      :at="at"
      :most="most"
      @pick="(n) => emit('choose', firstOf(shown!) + n)"
    />
  </WalkedRegion>
</template>

<style scoped>
.waves {
  max-height: 46%;
  overflow: hidden auto;
  border-top: 1px solid var(--line);
  flex: none;
}
</style>
