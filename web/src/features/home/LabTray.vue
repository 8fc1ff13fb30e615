<script setup lang="ts">
import type { Area, LabCard } from '../../api/schema'
import CellGlyph from '../../shared/CellGlyph.vue'
import { count, moment } from '../../shared/words'

/** A lab as a box: the more hand-ins, the larger their compartment. */
defineProps<{ lab: LabCard }>()
const emit = defineEmits<{ open: [] }>()
const LEAST = 26
/** Signs beside the numbers, so that no colour is needed. */
const SIGNS: Record<string, string> = { right: 'p', wrong: 'f', unchecked: 's' }
const EACH = 9
const KINDS = { right: 'right', wrong: 'wrong', unchecked: 'not checked', missing: 'missing' }

function words(areas: Area[]): string {
  const sum = (kind: string): number => areas.filter((a) => a.kind === kind).reduce((n, a) => n + a.count, 0)
  return Object.entries(KINDS)
    .filter(([kind]) => sum(kind))
    .map(([kind, word]) => `${sum(kind)} ${word}`)
    .join(', ')
}
</script>

<template>
  <button type="button" class="compartment lab" @click="emit('open')">
    <div class="row spread">
      <b>{{ lab.title }}</b><span class="quiet small">{{ lab.due_at ? `due ${moment(lab.due_at)}` : 'no due date' }}</span>
    </div>
    <div class="tray" :aria-label="words(lab.areas)">
      <i
        v-for="(area, i) in lab.areas"
        :key="i"
        :class="area.kind"
        :style="{ flexGrow: area.count, flexBasis: `${Math.max(LEAST, area.count * EACH)}px` }"
        ><span v-if="SIGNS[area.kind]" aria-hidden="true"><CellGlyph :cell="SIGNS[area.kind]" :size="9" /></span>{{ area.count }}</i
      >
      <i v-if="!lab.areas.length" class="missing" style="flex-grow: 1">nothing yet</i>
    </div>
    <div class="row spread small quiet">
      <span>{{ lab.tasks.join(' · ') }}</span>
    </div>
    <div class="row spread small">
      <span>{{ lab.handed_in }} of {{ lab.students }} handed in</span><span>{{ count(lab.sent, 'letter') }} out</span>
    </div>
  </button>
</template>

<style scoped>
.lab {
  display: grid;
  gap: 8px;
  text-align: left;
  cursor: pointer;
  font: inherit;
}
.lab:hover {
  border-color: var(--lacquer-2);
}
.tray {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  background: var(--rice);
  border: 1px solid var(--line);
  border-radius: 7px;
  padding: 4px;
  min-height: 96px;
  align-content: stretch;
}
.tray i {
  font: 600 13px var(--sans);
  display: grid;
  place-content: center;
  justify-items: center;
  border-radius: 4px;
  min-height: 40px;
  color: var(--ink-2);
  background: var(--paper);
}
.tray i.right {
  background: var(--pass-tint);
  color: var(--pass-text);
}
.tray i.wrong {
  background: var(--fail-tint);
  color: var(--fail-text);
}
.tray i.rules {
  background: var(--undef-tint);
  color: var(--undef-text);
}
.tray i.unchecked {
  background: var(--ink-tint);
  color: var(--ink);
}
.tray i.missing {
  background: none;
  border: 1px dashed var(--none);
}
</style>
