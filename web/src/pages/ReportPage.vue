<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { useRoute, useRouter } from 'vue-router'

import { get, written } from '../api/client'
import CellGlyph from '../shared/CellGlyph.vue'
import { useKeys } from '../shared/keys'
import { useLab } from '../shared/lab'
import { useResource } from '../shared/resource'
import SentenceText from '../shared/SentenceText.vue'
import { mark } from '../shared/words'
import { BASE } from '../shared/base'

/** One page for the lecture: what the class got wrong, without names. */
const store = useLab()
const route = useRoute()
const router = useRouter()
const { data: report, trouble } = useResource((signal) => get(`/labs/${store.labId}/report`, { signal, query: { group: store.group } }), {
  on: [() => store.group, () => store.finished],
})
function print(): void {
  window.print()
}
useKeys([
  { key: 'p', label: 'print the report', act: print },
  { key: 'Escape', label: 'back to feedback', always: true, act: () => void router.push({ name: 'feedback', params: route.params }) },
])
</script>

<template>
  <p v-if="trouble" class="trouble">{{ trouble }}</p>
  <main v-if="report" class="page report">
    <header class="row spread">
      <div>
        <h1>{{ report.lab }}</h1>
        <p class="quiet">
          {{ report.school }} · {{ report.class_name }} · {{ store.group ? `group ${store.group}, ` : '' }}{{ report.students }} students
        </p>
      </div>
      <div class="row acts">
        <a :href="`${BASE}/api/labs/${route.params.lab}/report.csv${written({ group: store.group || undefined })}`" class="small">CSV</a
        ><Button size="small" @click="print">Print <span class="key">p</span></Button>
      </div>
    </header>
    <section v-if="report.teach_again.length" class="compartment again">
      <div class="caption">To be taught again</div>
      <ol>
        <li v-for="m in report.teach_again" :key="m.task + m.text">
          <b>{{ m.count }} of {{ m.of }}</b> <SentenceText :text="m.text" /> <span class="quiet small">{{ m.task }}</span>
        </li>
      </ol>
    </section>
    <section v-for="t in report.tasks" :key="t.title" class="compartment task">
      <div class="first">
        <h2>{{ t.title }}</h2>
        <ul class="sums">
          <li><CellGlyph cell="p" :size="11" /> {{ t.right }} right</li>
          <li><CellGlyph cell="f" :size="11" /> {{ t.wrong }} wrong</li>
          <li v-if="t.unchecked"><CellGlyph cell="s" :size="11" /> {{ t.unchecked }} not checked</li>
          <li v-if="t.missing"><CellGlyph cell="n" :size="11" /> {{ t.missing }} missing</li>
        </ul>
        <div class="caption small">
          Marks of {{ t.total }}<span v-if="t.middle !== null" class="quiet">, middle {{ mark(t.middle) }}</span>
        </div>
        <div class="bars" role="img" :aria-label="`marks in tenths: ${t.histogram.join(', ')}`">
          <div v-for="(n, i) in t.histogram" :key="i" :title="`${i * 10} to ${i * 10 + 10} %: ${n}`">
            <span>{{ n || '' }}</span><i :style="{ height: `${(46 * n) / Math.max(1, ...t.histogram)}px` }"></i>
          </div>
        </div>
        <div class="scale mono small quiet">
          <span>0</span><span>{{ t.total }}</span>
        </div>
      </div>
      <div>
        <div class="caption small">Commonest mistakes</div>
        <p v-if="!t.mistakes.length" class="quiet">None.</p>
        <div v-for="m in t.mistakes" :key="m.text" class="line">
          <b class="mono">{{ m.count }}</b><span class="track"><i :style="{ width: `${(100 * m.count) / m.of}%` }"></i></span
          ><SentenceText :text="m.text" />
        </div>
      </div>
      <div>
        <div class="caption small">Hardest cases</div>
        <p v-if="!t.hardest.length" class="quiet">Every case was right in every hand-in.</p>
        <div v-for="c in t.hardest" :key="c.label" class="line">
          <b class="mono">{{ c.failed }}</b><span class="track"><i :style="{ width: `${(100 * c.failed) / c.of}%` }"></i></span
          ><code>{{ c.label }}</code>
        </div>
      </div>
    </section>
  </main>
  <main v-else-if="!trouble" class="empty" aria-busy="true">Loading…</main>
</template>

<style scoped>
.page {
  padding: var(--gap);
  display: flex;
  flex-direction: column;
  gap: var(--gap);
  overflow: auto;
  flex: 1;
  min-height: 0;
}
header {
  padding: 2px 4px;
}
h1 {
  font-size: 18px;
  font-weight: 600;
}
h2 {
  font-size: 14px;
  font-weight: 600;
}
.again ol {
  margin: 4px 0 0;
  padding-left: 20px;
}
.again li {
  padding: 2px 0;
}
.again b {
  color: var(--fail-text);
}
.task {
  display: grid;
  grid-template-columns: 220px minmax(0, 1.35fr) minmax(0, 1fr);
  gap: 22px;
  break-inside: avoid;
}
.first {
  display: grid;
  gap: 5px;
  align-content: start;
}
.sums {
  display: flex;
  flex-wrap: wrap;
  gap: 0 12px;
  font-size: 12px;
}
.sums svg {
  vertical-align: -1px;
}
.bars {
  display: grid;
  grid-template-columns: repeat(10, 1fr);
  gap: 3px;
  align-items: end;
  height: 66px;
  border-bottom: 1px solid var(--ink-2);
}
.bars div {
  display: grid;
  justify-items: center;
  align-content: end;
}
.bars span {
  font: 12px var(--mono);
  color: var(--ink-2);
}
.bars i {
  display: block;
  width: 100%;
  background: var(--lacquer-2);
  border-radius: 2px 2px 0 0;
}
.scale {
  display: flex;
  justify-content: space-between;
}
.line {
  display: grid;
  grid-template-columns: 22px 70px 1fr;
  gap: 8px;
  align-items: center;
  padding: 2px 0;
  border-bottom: 1px solid var(--line-2);
}
.line b {
  text-align: right;
  color: var(--fail-text);
}
.track {
  background: var(--line-2);
  border-radius: 2px;
}
.track i {
  display: block;
  height: 8px;
  background: var(--fail);
  border-radius: 2px;
  min-width: 2px;
}
.line code {
  font-size: 12px;
  white-space: pre;
  overflow: hidden;
  text-overflow: ellipsis;
}
@media print {
  .acts {
    display: none;
  }
  .page {
    overflow: visible;
  }
  .compartment {
    border-color: #999;
  }
  i {
    print-color-adjust: exact;
  }
}
</style>
