<script setup lang="ts">
import { computed, ref } from 'vue'

import { shortLanguage } from './words'

export interface Chip {
  name: string
  handin_id?: number
  language?: string
  late?: boolean
  bound?: string[]
}
/** Who belongs together, as buttons; of many the first, the rest behind their number. Without a hand-in a name is only read. */
const props = defineProps<{ members: Chip[]; chosen?: number | null }>()
const emit = defineEmits<{ review: [handin: number] }>()
const FEW = 12
const isOpen = ref(false)
const shown = computed(() => {
  if (isOpen.value || props.members.length <= FEW + 2) return props.members
  const first = props.members.slice(0, FEW)
  const chosen = props.members.find((m) => m.handin_id !== undefined && m.handin_id === props.chosen)
  return chosen && !first.includes(chosen) ? [...first, chosen] : first
})
const rest = computed(() => props.members.length - shown.value.length)
</script>

<template>
  <div class="names">
    <template v-for="(m, i) in shown" :key="m.handin_id ?? `${i} ${m.name}`">
      <button
        v-if="m.handin_id !== undefined"
        type="button"
        class="chip"
        :class="{ chosen: chosen === m.handin_id }"
        :title="m.bound?.length ? `bound: ${m.bound.join(', ')}` : `review ${m.name}`"
        @click.stop="emit('review', m.handin_id)"
      >
        {{ m.name }} <small v-if="m.language">{{ shortLanguage(m.language) }}</small><small v-if="m.late" class="late">late</small
        ><small v-if="m.bound?.length">≈</small>
      </button>
      <span v-else class="chip plain">{{ m.name }}</span>
    </template>
    <button v-if="rest" type="button" class="link more" @click.stop="isOpen = true">and {{ rest }} more</button>
    <button v-else-if="isOpen" type="button" class="link more" @click.stop="isOpen = false">fewer</button>
  </div>
</template>

<style scoped>
.names {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 5px;
}
.late {
  color: var(--undef-text) !important;
}
.more {
  min-height: 24px;
  font-size: 12.5px;
}
</style>
