<script setup lang="ts">
import { Modal } from 'ant-design-vue'
import { computed } from 'vue'
import { useRoute } from 'vue-router'

import { ABOUT } from './about'
import { isAboutOpen } from './keys'
import { useLab } from './lab'
import { count, leftToSay, moment, outcomes } from './words'

/** What the place on screen is for, how things stand, and what its words mean. */
const route = useRoute()
const store = useLab()
const about = computed(() => ABOUT[String(route.name)])
const WHICH: Record<string, string> = { last: 'the last one counts', first: 'the first one counts', best: 'the best one counts' }
/** How the lab on screen stands. */
const facts = computed<[string, string][]>(() => {
  const lab = route.params.lab ? store.lab : null
  const task = store.task
  if (!lab || !task) return []
  return [
    ['due', lab.due_at ? moment(lab.due_at) : 'no due date'],
    ['attempts', WHICH[lab.which_attempt] ?? lab.which_attempt],
    ['late', lab.late_share ? `${Math.round(100 * lab.late_share)} % of the mark` : 'costs nothing'],
    ['handed in', `${lab.handed_in} of ${count(lab.students, 'student')}${lab.unsettled ? `, ${lab.unsettled} not settled` : ''}`],
    ['this task', `${outcomes(task)}${task.unchecked ? `, ${task.unchecked} not checked` : ''}; ${leftToSay(task)}`],
    ['its spec', task.is_right ? `version ${task.version}` : 'has errors'],
    ['letters', `${lab.sent} released`],
  ]
})
</script>

<template>
  <Modal v-if="about" v-model:open="isAboutOpen" title="About this place" :footer="null" :width="520">
    <p>{{ about.text }}</p>
    <dl v-if="facts.length" class="facts">
      <template v-for="[what, how] in facts" :key="what">
        <dt>{{ what }}</dt>
        <dd>{{ how }}</dd>
      </template>
    </dl>
    <dl v-if="about.words.length" class="words">
      <template v-for="[word, meaning] in about.words" :key="word">
        <dt>{{ word }}</dt>
        <dd>{{ meaning }}</dd>
      </template>
    </dl>
  </Modal>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: 120px minmax(0, 1fr);
  gap: 3px 12px;
  margin: 10px 0 0;
  padding-top: 8px;
  border-top: 1px solid var(--line-2);
}
dt {
  color: var(--ink-2);
  overflow-wrap: anywhere;
}
.words dt {
  color: var(--lacquer);
  font-weight: 600;
}
dd {
  margin: 0;
}
</style>
