<script setup lang="ts">
import type { Letter } from '../../api/schema'
import SentenceText from '../../shared/SentenceText.vue'
import WavePicture from '../waves/WavePicture.vue'
import CaseTable from '../../shared/CaseTable.vue'
import { mark, moment } from '../../shared/words'

defineProps<{ letter: Letter }>()
</script>

<template>
  <article class="letter">
    <header>
      <div>
        <small>{{ letter.school }} · {{ letter.class_name }}</small>
        <h1>{{ letter.lab }}</h1>
      </div>
      <div v-if="letter.mark !== null" class="sum">
        <b>{{ mark(letter.mark) }}</b> of {{ letter.total }}
      </div>
    </header>
    <p>
      For {{ letter.student }}<template v-if="letter.team.length">, handed in with {{ letter.team.join(' and ') }}</template
      >.
      <template v-if="letter.attempt"
        >Attempt {{ letter.attempt }}, received {{ moment(letter.received_at) }}{{ letter.late ? ' (late)' : '' }}.</template
      >
      <template v-if="letter.excused"> You are excused from this lab: {{ letter.excused }}.</template>
      <template v-if="letter.corrects"> This letter corrects the one you got before.</template>
    </p>
    <section v-for="t in letter.tasks" :key="t.title">
      <div class="head">
        <h2>{{ t.title }}</h2>
        <span v-if="t.mark !== null" class="mono"
          >{{ mark(t.mark) }} of {{ t.total }}<template v-if="t.late"> ({{ t.late }})</template></span
        ><span v-else-if="t.attempt || !letter.excused" class="held">{{ t.attempt ? 'no mark yet: ' : '' }}{{ t.held }}</span>
      </div>
      <p v-if="t.attempt && !letter.attempt" class="quiet small">
        attempt {{ t.attempt }}, received {{ moment(t.received_at ?? null) }}{{ t.is_late ? ' (late)' : '' }}
      </p>
      <p v-if="t.compared" class="count">
        {{ t.passed }} of {{ t.compared }} {{ t.rows[0]?.step ? 'steps' : 'cases' }} right<template v-if="t.passed === t.compared"
          >. Well done.</template
        >
      </p>
      <p v-if="t.comment" class="say"><SentenceText :text="t.comment" /></p>
      <p v-if="t.note" class="say"><SentenceText :text="t.note" /></p>
      <ul v-if="t.messages.length" class="messages">
        <li v-for="m in t.messages" :key="m">{{ m }}</li>
      </ul>
      <template v-if="t.rows.length">
        <WavePicture v-if="t.waves" :waves="t.waves" />
        <div class="rows">
          <CaseTable :inputs="t.inputs" :outputs="t.outputs" :rows="t.rows" glyphs full :runs="t.rows.some((r) => r.run !== 'fresh')" />
        </div>
        <p v-if="t.more > 0" class="quiet small">and {{ t.more }} more {{ t.rows[0]?.step ? 'steps' : 'cases' }} that are not right</p>
        <p class="again"><b>To see it again:</b> {{ t.again }}</p>
      </template>
      <p v-if="t.bound.length" class="quiet small">{{ t.bound.join('; ') }}</p>
      <p class="quiet small foot">Checked against version {{ t.spec_version }} of the task.</p>
    </section>
  </article>
</template>

<style scoped>
.letter {
  background: var(--paper);
  max-width: 660px;
  padding: 26px 32px 30px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  font-size: 14px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: end;
  border-bottom: 2px solid var(--lacquer);
  padding-bottom: 8px;
}
h1 {
  font-size: 20px;
  font-weight: 600;
}
h2 {
  font-size: 15px;
  font-weight: 600;
}
.sum b {
  font-size: 24px;
  color: var(--lacquer);
}
section {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 7px;
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  border-bottom: 1px solid var(--line);
}
.letter > *,
section > * {
  min-width: 0;
}
.rows {
  justify-self: start;
  max-width: 100%;
  overflow-x: auto;
}
.held {
  color: var(--undef-text);
}
.say {
  white-space: pre-wrap;
}
.messages li {
  font: 12.5px var(--mono);
  color: var(--fail-text);
  overflow-wrap: anywhere;
}
.again {
  background: var(--rice);
  border-radius: 6px;
  padding: 6px 10px;
  font-size: 13px;
}
.foot {
  border-top: 0;
}
@media print {
  .letter {
    border: 0;
    max-width: none;
  }
}
</style>
