<script setup lang="ts">
import { computed } from 'vue'

import type { Area, LabCard } from '../../api/schema'
import { count, moment } from '../../shared/words'

/** A lab as a box, a row for each task: the more hand-ins behave alike, the larger their compartment. */
const props = defineProps<{ lab: LabCard }>()
const emit = defineEmits<{ open: [] }>()
const LEAST = 22
const EACH = 9
/** So many tasks stand with their compartments in full height; of more, each is a line. */
const FEW = 2
const KINDS: Record<string, string> = {
  wrong: 'wrong',
  rules: 'against the rules',
  right: 'right',
  unchecked: 'not checked',
  waiting: 'to be checked',
  missing: 'missing',
}
const isTight = computed(() => props.lab.tasks.length > FEW)
/** The kinds that there are, for the legend. */
const kinds = computed(() => {
  const there = new Set(props.lab.tasks.flatMap((t) => t.areas.map((a) => a.kind)))
  return Object.keys(KINDS).filter((kind) => there.has(kind as Area['kind']))
})

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
    <div v-for="(task, n) in lab.tasks" :key="n" class="task" :class="{ tight: isTight }">
      <span class="quiet small title" :title="task.title">{{ task.title }}</span>
      <span class="tray" role="img" :aria-label="`${task.title}: ${words(task.areas) || 'nothing yet'}`">
        <i
          v-for="(area, i) in task.areas"
          :key="i"
          :class="area.kind"
          :title="area.ways > 1 ? `${area.count} in ${area.ways} further ways` : `${area.count} ${KINDS[area.kind]}`"
          :style="{ flexGrow: area.count, flexBasis: isTight ? '16px' : `${Math.max(LEAST, area.count * EACH)}px` }"
          >{{ area.count }}{{ area.ways > 1 ? '…' : '' }}</i
        >
        <i v-if="!task.areas.length" class="missing" style="flex-grow: 1">nothing yet</i>
      </span>
    </div>
    <div v-if="kinds.length" class="legend small quiet">
      <span v-for="kind in kinds" :key="kind"><i :class="kind" aria-hidden="true"></i> {{ KINDS[kind] }}</span>
    </div>
    <div class="row spread small">
      <span>{{ lab.handed_in }} of {{ lab.students }} handed in</span><span>{{ count(lab.sent, 'letter') }} out</span>
    </div>
  </button>
</template>

<style scoped>
.lab {
  display: grid;
  gap: 6px;
  align-content: start;
  text-align: left;
  cursor: pointer;
  font: inherit;
}
.lab:hover {
  border-color: var(--lacquer-2);
}
.task {
  display: grid;
  gap: 2px;
  min-width: 0;
}
.task.tight {
  grid-template-columns: 96px minmax(0, 1fr);
  gap: 6px;
  align-items: center;
}
.title {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.tray {
  display: flex;
  gap: 3px;
  background: var(--rice);
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 3px;
  min-height: 42px;
}
.tight .tray {
  min-height: 24px;
  padding: 1px;
  gap: 1px;
}
i {
  font: 600 12px/1 var(--sans);
  display: grid;
  place-content: center;
  border-radius: 3px;
  min-width: 0;
  color: var(--ink-2);
  background: var(--paper);
  border: 0 solid transparent;
}
/* Told apart without colour: what is wrong has a cut corner, what is against the rules a double edge, what is missing a dashed one. */
i.right {
  background: var(--pass-tint);
  color: var(--pass-text);
  border-radius: 9px;
}
i.wrong {
  background: var(--fail-tint);
  color: var(--fail-text);
  clip-path: polygon(0 0, 100% 0, 100% calc(100% - 7px), calc(100% - 7px) 100%, 0 100%);
}
i.rules {
  background: var(--undef-tint);
  color: var(--undef-text);
  border: 3px double var(--undef);
}
i.unchecked {
  background: var(--ink-tint);
  color: var(--ink);
}
i.waiting {
  background: repeating-linear-gradient(135deg, var(--ink-tint) 0 3px, var(--paper) 3px 8px);
}
i.missing {
  background: none;
  border: 1px dashed var(--none);
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
}
.legend span {
  display: inline-flex;
  align-items: center;
  gap: 4px;
}
.legend i {
  width: 20px;
  height: 15px;
}
</style>
