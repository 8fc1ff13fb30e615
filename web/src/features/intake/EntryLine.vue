<script setup lang="ts">
import { Button, Select } from 'ant-design-vue'
import { ref } from 'vue'

import type { IntakeEntry, NameBinding } from '../../api/schema'
import { count, moment } from '../../shared/words'
import WhichFile from './WhichFile.vue'

/** One hand-in: whose it is, and what each task takes from it. */
defineProps<{ entry: IntakeEntry; titles: Map<number, string>; people: { value: number; label: string }[]; running: boolean }>()
const emit = defineEmits<{ settle: [students: number[]]; agree: [task: number, binding: NameBinding]; check: []; review: [task: number] }>()
const owners = ref<number[]>([])
const STATES: Record<string, string> = {
  checked: 'pass',
  unreadable: 'fail',
  no_unit: 'fail',
  ports: 'fail',
  stopped: 'fail',
  empty: 'fail',
}
</script>

<template>
  <article class="entry" :class="{ open: !entry.settled }" :data-handin="entry.handin_id">
    <div class="cell label">
      <code>{{ entry.label }}</code>
      <span class="quiet small"
        >{{ count(entry.files.length, 'file') }}, {{ moment(entry.received_at)
        }}<template v-if="entry.attempts > 1">, attempt {{ entry.attempt }}</template></span
      >
      <span v-if="entry.late" class="tag undef">late</span>
    </div>
    <div class="cell person">
      <template v-if="entry.who"
        ><b>{{ entry.who }}</b
        ><span v-if="entry.team" class="tag">team</span><span v-else class="quiet small mono">{{ entry.number }}</span></template
      >
      <template v-else>
        <span v-for="p in entry.proposals" :key="p.id"
          ><button type="button" class="chip" @click="emit('settle', [p.id])">{{ p.name }}?</button></span
        >
        <Select
          v-model:value="owners"
          mode="multiple"
          size="small"
          :options="people"
          option-filter-prop="label"
          placeholder="whose is it?"
          class="who"
        />
        <Button v-if="owners.length" size="small" type="primary" @click="emit('settle', owners)">{{
          owners.length > 1 ? 'A team' : 'Theirs'
        }}</Button>
      </template>
    </div>
    <div class="tasks">
      <div v-for="t in entry.tasks" :key="t.task_id" class="task">
        <span class="cell small quiet">{{ titles.get(t.task_id) }}</span>
        <span class="cell" :class="t.language ? '' : 'gap'">{{ t.language || '–' }}</span>
        <span class="cell mono" :class="t.unit ? '' : 'gap'">{{ t.unit || '–' }}</span>
        <span class="cell ports" :class="STATES[t.status]">
          <template v-if="t.status === 'checked'">
            <template v-if="t.binding.some((b) => !b.agreed)">
              <button
                v-for="b in t.binding.filter((x) => !x.agreed)"
                :key="b.ours"
                type="button"
                class="chip ask"
                :title="`${b.how}: agree for everyone`"
                @click="emit('agree', t.task_id, b)"
              >
                <code>{{ b.theirs }}</code> is <code>{{ b.ours }}</code>? <small>agree</small>
              </button>
            </template>
            <template v-else-if="t.binding.length"
              ><span v-for="b in t.binding" :key="b.ours" class="small"
                ><code>{{ b.theirs }}</code> as <code>{{ b.ours }}</code>
              </span></template
            >
            <template v-else>all by name</template>
          </template>
          <WhichFile v-else-if="t.twice.length" :handin="entry.handin_id" :task="t.task_id" :twice="t.twice" @chosen="emit('check')" />
          <button v-else type="button" class="why" @click="emit('review', t.task_id)">{{ t.message }}</button>
        </span>
      </div>
      <div v-if="!entry.tasks.length" class="task">
        <span class="cell quiet">{{ running ? 'being checked…' : 'not checked yet' }}</span>
      </div>
    </div>
  </article>
</template>

<style scoped>
.entry > .cell,
.task > .cell {
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: 7px;
  padding: 4px 8px;
  min-width: 0;
  overflow-wrap: anywhere;
}
.label {
  display: flex;
  flex-wrap: wrap;
  gap: 0 8px;
  align-content: center;
  align-items: baseline;
}
.label code {
  font-size: 12px;
  flex-basis: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
}
.person {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 6px;
  align-content: center;
  align-items: baseline;
}
.open .person:has(.who) {
  border-color: var(--undef);
}
.who {
  width: 100%;
}
.tasks {
  display: grid;
  gap: 4px;
}
.task {
  display: grid;
  grid-template-columns: 156px 62px 122px minmax(0, 1fr);
  gap: 4px;
}
.task .cell {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 4px;
  font-size: 12px;
}
.gap {
  color: var(--ink-3);
}
.ports.pass {
  color: var(--pass-text);
}
.ports.fail {
  border-color: var(--fail);
}
.chip {
  white-space: normal;
}
.ports .chip {
  display: inline-block;
  text-align: left;
}
.ask {
  border-color: var(--undef);
  color: var(--undef-text);
}
.why {
  border: 0;
  background: none;
  padding: 0;
  color: var(--fail-text);
  cursor: pointer;
  text-align: left;
}
.entry {
  display: grid;
  grid-template-columns: 200px 180px minmax(0, 1fr);
  gap: 4px;
}
</style>
