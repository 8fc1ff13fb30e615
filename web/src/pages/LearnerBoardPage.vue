<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { get, post } from '../api/client'
import type { LearnerStart, LearnerView } from '../api/schema'
import { type BoardSource, type Language, useBoard, verdictOf } from '../features/board/board'
import BoardDesk from '../features/board/BoardDesk.vue'
import BoardWaves from '../features/board/BoardWaves.vue'
import { FLIPS, useCases } from '../features/board/cases'
import { useChosenWires } from '../features/circuit/probes'
import { heads } from '../shared/words'
import Choice from '../shared/Choice.vue'

const props = defineProps<{ token: string }>()
const LANGUAGES = [
  { value: 'wiring', label: 'circuit' },
  { value: 'v', label: 'Verilog' },
  { value: 'sv', label: 'SystemVerilog' },
  { value: 'vhd', label: 'VHDL' },
]
const language = ref<Language>((localStorage.getItem(`board/${props.token}/language`) as Language) || 'wiring')
const name = ref(localStorage.getItem('board/name') ?? '')
/** Tells this browser from others behind the same address. */
const who = localStorage.getItem('board/who') ?? Math.random().toString(36).slice(2)
localStorage.setItem('board/who', who)
watch(name, (now) => localStorage.setItem('board/name', now))
watch(language, (now) => localStorage.setItem(`board/${props.token}/language`, now))

const path = `/board/${props.token}` as const
const source = (): BoardSource<LearnerStart, LearnerView> => ({
  place: path,
  subject: `board ${props.token}/${language.value}`,
  begin: (signal) => get(path, { signal }),
  first: (start) => (language.value === 'wiring' ? start.text : ''),
  tryOut: (text, signal) => post(path, { text, language: language.value, who }, { signal }),
  state: (text, said) => post(`/sentence/${props.token}`, { text, ...said, who }),
})
const board = useBoard(source)
const { start, view, ran, drawn, isOld, trouble } = board
const inputs = computed(() => start.value?.ports.filter((p) => p.direction === 'in') ?? [])
const outputs = computed(() => start.value?.ports.filter((p) => p.direction === 'out') ?? [])
const inputHeads = computed(() => heads(inputs.value.map((p) => p.name)))
const bits = computed(() => inputs.value.reduce((sum, p) => sum + p.width, 0))
const rows = computed(() => ran.value?.rows ?? [])
const { chosenCase, canFlip } = useCases(
  rows,
  () => (start.value?.clocked ? 0 : (view.value?.cases ?? 0)),
  () => bits.value,
  () => undefined,
)
const { probes, columns, turnProbe } = useChosenWires(drawn)
const none = new Map<string, string>()
const verdict = computed(() => {
  const v = view.value
  if (!v || isOld.value || v.passed === null || v.total === null || !rows.value.length) return 'What it does'
  return verdictOf(v.passed, v.total, start.value?.clocked)
})
document.title = 'Obento'
watch(start, (found) => found && (document.title = `${found.title}: board`))
</script>

<template>
  <div class="learner">
    <header class="head">
      <h1>{{ start?.title ?? 'Board' }}</h1>
      <label class="row small"
        >written in <Choice v-model:value="language" size="small" :options="LANGUAGES" label="written in" class="language"
      /></label>
      <label class="row small">your name, for pictures <input v-model="name" autocomplete="name" maxlength="80" /></label>
    </header>
    <p v-if="trouble" class="trouble">{{ trouble }}</p>
    <BoardDesk
      v-if="start"
      :board="board"
      :chosen-case="chosenCase"
      :probes="probes"
      :wrong="none"
      :caption="[start.title, name].filter(Boolean).join(', ')"
      :language="language"
      @probe="turnProbe"
      @language="(now) => (language = now)"
    >
      <template #beside>
        <BoardWaves
          v-if="ran?.waves.length"
          :waves="ran.waves"
          :chosen="chosenCase"
          :class="{ old: isOld }"
          @choose="(n) => (chosenCase = n)"
        />
      </template>
      <template #cases>
        <span class="caption" :class="{ good: view?.total && view.passed === view.total }">{{ verdict }}</span>
        <p v-if="start.tells === 'nothing'" class="small quiet flips">Whether that is right you judge yourself, by the task.</p>
        <p v-if="canFlip" class="small quiet flips">
          <kbd v-for="n in Math.min(bits, FLIPS.length)" :key="n">{{ FLIPS[n - 1] }}</kbd> turn the inputs
        </p>
        <div class="scroll" :class="{ old: isOld }" tabindex="0" role="region" aria-label="table of cases">
          <table v-if="rows.length" class="cases">
            <thead>
              <tr>
                <th v-if="start.tells === 'rows'" scope="col"><span class="unseen">right or wrong</span></th>
                <th v-for="(p, i) in inputs" :key="p.name" scope="col" :title="p.name">{{ inputHeads[i] }}</th>
                <th v-for="p in outputs" :key="p.name" scope="col" class="side" :title="p.name">{{ p.name }}</th>
                <th v-for="p in columns" :key="p.pin" scope="col" class="side probe">{{ p.name }}</th>
              </tr>
            </thead>
            <tbody>
              <tr
                v-for="r in rows"
                :key="r.index"
                :class="{ chosen: r.index === chosenCase }"
                :aria-selected="r.index === chosenCase"
                :data-case="r.index"
                @click="chosenCase = r.index"
              >
                <td v-if="start.tells === 'rows'" :class="r.right ? 'good' : 'bad'">{{ r.right ? 'right' : 'wrong' }}</td>
                <td v-for="(v, i) in r.inputs" :key="`i${i}`">{{ v }}</td>
                <td v-for="(v, i) in r.outputs" :key="`o${i}`" class="side">{{ v }}</td>
                <td v-for="p in columns" :key="p.pin" class="side probe">{{ p.values.get(r.index) ?? '' }}</td>
              </tr>
            </tbody>
          </table>
          <p v-else class="empty">The table fills as soon as the text can be run.</p>
          <p v-if="ran && rows.length < ran.cases" class="small quiet">
            the first {{ rows.length }} of {{ ran.cases }} {{ start.clocked ? 'steps' : 'cases' }}
          </p>
        </div>
        <p class="small quiet">What is here stays in this browser. Save it as a file to hand it in.</p>
      </template>
    </BoardDesk>
    <main v-else-if="!trouble" class="empty" aria-busy="true">Loading…</main>
  </div>
</template>

<style scoped>
.old {
  opacity: 0.55;
}
.learner {
  display: flex;
  flex-direction: column;
  height: 100vh;
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  align-items: center;
  padding: 10px 16px 0;
}
.head h1 {
  margin: 0;
  flex: 1;
  font-size: 17px;
}
.head label {
  gap: 6px;
}
.head input {
  border: 1px solid var(--none);
  border-radius: 6px;
  padding: 3px 8px;
  font-size: 12.5px;
}
.language {
  min-width: 118px;
}
.scroll {
  flex: 1;
  min-height: 0;
  overflow: auto;
}
.good {
  color: var(--pass-text);
}
.bad {
  color: var(--fail-text);
}
tr.chosen td {
  background: var(--lacquer-tint);
}
.flips {
  margin: 0;
}
kbd {
  display: inline-block;
  min-width: 18px;
  text-align: center;
  border: 1px solid var(--line);
  border-radius: 4px;
  font: 12px var(--mono);
  margin-right: 3px;
  background: var(--rice);
}
</style>
