<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { computed } from 'vue'

import type { ClassCard } from '../../api/schema'

/** The way of a new class, from its list to the first letters: what is done, what comes now, and the button for it. */
const props = defineProps<{ of: ClassCard }>()
const emit = defineEmits<{ list: []; lab: []; place: [place: string] }>()
const lab = computed(() => props.of.labs[0])
const STEPS = [
  {
    title: 'The class list',
    text: 'a CSV with a number and a name for each student, in any order of columns; addresses, if letters are to be mailed',
  },
  { title: 'A lab', text: 'a title and a due date; each of its tasks is checked by a spec of its own' },
  {
    title: 'What is asked',
    text: 'the spec: ports, and equations, a table, steps or a design of yours; begin with one of the texts that stand there',
  },
  { title: 'What was handed in', text: "the course page's zip as it is, dropped in Intake; whose is whose is found by names and numbers" },
  { title: 'The results', text: 'who is right, who is wrong in the same way, and why; a comment for each kind of mistake, then letters' },
]
const ACTS = ['Load class list', 'New lab', 'Write the spec', 'To the intake', 'See the results']
const done = computed(() => {
  const { students, labs } = props.of
  const isIn = !!lab.value?.handed_in
  return [students > 0, labs.length > 0, !!lab.value?.is_begun, isIn, false]
})
const now = computed(() => done.value.indexOf(false))
function act(): void {
  if (now.value === 0) emit('list')
  else if (now.value === 1) emit('lab')
  else emit('place', ['spec', 'intake', 'results'][now.value - 2])
}
</script>

<template>
  <ol class="compartment steps" aria-label="the first steps of a class">
    <li v-for="(s, i) in STEPS" :key="s.title" :class="{ done: done[i], now: i === now }" :aria-current="i === now ? 'step' : undefined">
      <span class="at" aria-hidden="true">{{ done[i] ? '·' : i + 1 }}</span>
      <span
        ><b>{{ s.title }}</b
        ><span v-if="done[i]" class="quiet"> is there</span><span v-else class="quiet">: {{ s.text }}</span></span
      >
      <Button v-if="i === now" size="small" type="primary" @click="act">{{ ACTS[i] }}</Button>
    </li>
  </ol>
</template>

<style scoped>
.steps {
  grid-column: 1 / -1;
  display: grid;
  gap: 2px;
  margin: 0;
  list-style: none;
  max-width: 900px;
}
li {
  display: grid;
  grid-template-columns: 22px minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
  padding: 5px 8px;
  border-left: 3px solid transparent;
  min-height: 36px;
}
li.now {
  border-left-color: var(--lacquer);
  background: var(--lacquer-tint);
}
.at {
  font: 600 13px var(--mono);
  color: var(--lacquer);
  text-align: center;
}
.done {
  color: var(--ink-2);
}
.done b {
  font-weight: 500;
}
</style>
