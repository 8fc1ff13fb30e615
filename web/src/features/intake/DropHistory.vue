<script setup lang="ts">
import { computed } from 'vue'

import type { IntakeView } from '../../api/schema'
import { count, moment } from '../../shared/words'

/** What came in so far, what of it was left out, and who is missing. */
const props = defineProps<{ intake: IntakeView }>()
const SHOWN = 12
const NAMED = 40
const leftOut = computed(() => props.intake.drops.flatMap((d) => d.left_out.map((text) => `${d.name}: ${text}`)))
</script>

<template>
  <aside class="side">
    <slot />
    <div v-if="intake.drops.length" class="compartment">
      <div class="caption">Drops</div>
      <p v-for="d in intake.drops" :key="d.at" class="small">
        <code>{{ d.name }}</code> <span class="quiet">{{ moment(d.at) }}, {{ count(d.files, 'file') }}</span>
      </p>
    </div>
    <div v-if="leftOut.length" class="compartment">
      <div class="caption">Left out</div>
      <p v-for="text in leftOut.slice(0, SHOWN)" :key="text" class="small quiet wrap">{{ text }}</p>
      <p v-if="leftOut.length > SHOWN" class="small quiet">and {{ leftOut.length - SHOWN }} more</p>
    </div>
    <div v-if="intake.missing.length" class="compartment">
      <div class="caption">{{ intake.missing.length }} missing</div>
      <span v-for="s in intake.missing.slice(0, NAMED)" :key="s.id" class="chip plain">{{ s.name }}</span>
    </div>
  </aside>
</template>

<style scoped>
.side {
  display: flex;
  flex-direction: column;
  gap: var(--gap);
  overflow: auto;
}
.wrap {
  overflow-wrap: anywhere;
}
</style>
