<script setup lang="ts">
import type { Letter } from '../../api/schema'
import SentenceText from '../../shared/SentenceText.vue'
import WavePicture from '../waves/WavePicture.vue'
import CaseTable from '../../shared/CaseTable.vue'
import type { Change } from './changePicture'
import SaidText from './SaidText.vue'
import { filled, type Value } from '../../shared/templates'
import { mark, moment } from '../../shared/words'

const props = defineProps<{ letter: Letter }>()
/** The letter's own words: in the language of the class, and as they were when it was released. */
const say = (key: string, values: Record<string, Value> = {}): string => filled(props.letter.words, key, values)
const WRITTEN = ['comment', 'note'] as const
function changesOf(task: Letter['tasks'][number], of: (typeof WRITTEN)[number]): Change[] {
  return task.changes.filter((c) => c.of === of)
}
const at = (iso: string | null | undefined): string => moment(iso ?? null, props.letter.language)
</script>

<template>
  <article class="letter" :lang="letter.language">
    <header>
      <div>
        <small>{{ letter.school }} · {{ letter.class_name }}</small>
        <h1>{{ letter.lab }}</h1>
      </div>
      <div v-if="letter.mark !== null" class="sum">
        <b>{{ mark(letter.mark) }}</b> {{ say('mark-of', { total: letter.total }) }}
      </div>
    </header>
    <p>
      {{ say(letter.team.length ? 'for-team' : 'for-student', { student: letter.student, team: letter.team }) }}
      <template v-if="letter.attempt">{{
        say(letter.late ? 'attempt-late' : 'attempt', { number: letter.attempt, date: at(letter.received_at) })
      }}</template>
      <template v-if="letter.excused"> {{ say('excused', { reason: letter.excused }) }}</template>
      <template v-if="letter.corrects"> {{ say('corrects') }}</template>
    </p>
    <section v-for="t in letter.tasks" :key="t.title">
      <div class="head">
        <h2>{{ t.title }}</h2>
        <span v-if="t.mark !== null" class="mono"
          >{{ mark(t.mark) }} {{ say('mark-of', { total: t.total }) }}<template v-if="t.late"> ({{ t.late }})</template></span
        ><span v-else-if="t.attempt || !letter.excused" class="held">{{
          t.attempt ? say('no-mark-yet', { reason: t.held }) : t.held
        }}</span>
      </div>
      <p v-if="t.attempt && !letter.attempt" class="quiet small">
        {{ say(t.is_late ? 'attempt-late' : 'attempt', { number: t.attempt, date: at(t.received_at) }) }}
      </p>
      <p v-if="t.compared" class="count">
        {{ say(t.rows[0]?.step ? 'steps-right' : 'cases-right', { passed: t.passed, compared: t.compared })
        }}<template v-if="t.passed === t.compared">. {{ say('well-done') }}</template>
      </p>
      <SaidText
        v-for="of in WRITTEN"
        v-show="t[of]"
        :key="of"
        class="say"
        :text="t[of]"
        :changes="changesOf(t, of)"
        :before="say('as-handed-in')"
        :after="say('instead')"
      />
      <ul v-if="t.messages.length" class="messages">
        <li v-for="m in t.messages" :key="m"><SentenceText :text="m" /></li>
      </ul>
      <template v-if="t.rows.length">
        <WavePicture v-if="t.waves" :waves="t.waves" />
        <div class="rows">
          <CaseTable
            :inputs="t.inputs"
            :outputs="t.outputs"
            :ports="t.ports"
            :rows="t.rows"
            glyphs
            full
            :runs="t.rows.some((r) => r.run !== 'fresh')"
            :words="letter.words"
          />
        </div>
        <p v-if="t.more > 0" class="quiet small">{{ say(t.rows[0]?.step ? 'more-steps' : 'more-cases', { count: t.more }) }}</p>
        <p class="again">
          <b>{{ say('see-again') }}</b> {{ t.again }}
        </p>
      </template>
      <p v-if="t.bound.length" class="quiet small">{{ t.bound.join('; ') }}</p>
      <p class="quiet small foot">{{ say('checked-against', { version: t.spec_version }) }}</p>
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
