<script setup lang="ts">
import { computed, ref } from 'vue'

import type { IntakeView } from '../../api/schema'
import SentenceText from '../../shared/SentenceText.vue'
import { count, moment } from '../../shared/words'
import DropTimes from './DropTimes.vue'

/** What came in so far and when, what of it was left out, and who is missing. */
const props = defineProps<{ intake: IntakeView; titles: Map<number, string>; may: boolean }>()
const emit = defineEmits<{ changed: [] }>()
const SHOWN = 12
const NAMED = 40
const chosenId = ref(0)
const chosen = computed(() => props.intake.drops.find((d) => d.id === chosenId.value))
const leftOut = computed(() => props.intake.drops.flatMap((d) => d.left_out.map((text) => `${d.name}: ${text}`)))
const WORDS: Record<string, string> = {
  upload: 'received at its upload',
  archive: 'received as the zip says',
  given: 'received as you said',
}
</script>

<template>
  <aside class="side">
    <slot />
    <div v-if="intake.drops.length" class="compartment">
      <div class="caption">Drops</div>
      <div v-for="d in intake.drops" :key="d.id" class="small one" :data-drop="d.id">
        <code>{{ d.name }}</code>
        <span class="quiet">
          {{ moment(d.at) }}, {{ count(d.files, 'file') }}<template v-if="d.task_id">, for {{ titles.get(d.task_id) }}</template></span
        >
        <button v-if="may" type="button" class="chip" :class="{ ask: !d.is_confirmed }" @click="chosenId = d.id">
          {{ d.is_confirmed ? WORDS[d.times] : 'when was it received? nobody is late yet' }}
        </button>
      </div>
    </div>
    <div v-if="leftOut.length" class="compartment">
      <div class="caption">Left out</div>
      <p v-for="text in leftOut.slice(0, SHOWN)" :key="text" class="small quiet wrap"><SentenceText :text="text" /></p>
      <p v-if="leftOut.length > SHOWN" class="small quiet">and {{ leftOut.length - SHOWN }} more</p>
    </div>
    <div v-if="intake.missing.length" class="compartment">
      <div class="caption">{{ intake.missing.length }} missing</div>
      <div class="names">
        <span v-for="s in intake.missing.slice(0, NAMED)" :key="s.id" class="chip plain" :title="s.number">{{ s.name }}</span>
        <span v-if="intake.missing.length > NAMED" class="small quiet">and {{ intake.missing.length - NAMED }} more</span>
      </div>
    </div>
    <div v-if="intake.excused.length" class="compartment">
      <div class="caption">{{ intake.excused.length }} excused</div>
      <div class="names">
        <span v-for="s in intake.excused" :key="s.id" class="chip plain" :title="s.reason">{{ s.name }}</span>
      </div>
    </div>
    <DropTimes v-if="chosen" :drop="chosen" @changed="emit('changed')" @close="chosenId = 0" />
  </aside>
</template>

<style scoped>
.side {
  display: flex;
  flex-direction: column;
  gap: var(--gap);
  overflow: auto;
}
.one {
  padding: 3px 0;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 6px;
  align-items: baseline;
}
.one .chip {
  white-space: normal;
  text-align: left;
}
.names {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin-top: 6px;
}
.ask {
  border-color: var(--undef);
  color: var(--undef-text);
}
.wrap {
  overflow-wrap: anywhere;
}
</style>
