<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { computed } from 'vue'

import type { ClusterView, ResultsView } from '../../api/schema'
import CaseStrip from '../../shared/CaseStrip.vue'
import CaseTable from '../../shared/CaseTable.vue'
import SentenceText from '../../shared/SentenceText.vue'
import { mark } from '../../shared/words'
import MemberChips from '../../shared/MemberChips.vue'

const props = defineProps<{
  cluster: ClusterView
  results: ResultsView
  chosen: boolean
  wide: boolean
  member: number | null
  apart?: string
}>()
const emit = defineEmits<{ choose: []; review: [handin: number]; comment: [] }>()

/** Small compartments show fewer rows, so that a screenful shows more of the class. */
const rows = computed(() => props.cluster.rows.slice(0, props.cluster.members.length > 2 ? 4 : 2))
const more = computed(() => props.cluster.total - props.cluster.passed - rows.value.length)
</script>

<template>
  <article
    class="compartment cluster"
    :class="[cluster.kind, { chosen, wide }]"
    :data-cluster="cluster.key"
    :aria-current="chosen"
    tabindex="-1"
    @click="emit('choose')"
  >
    <div class="row spread top">
      <h2>
        <span class="count">{{ cluster.members.length }}</span> {{ cluster.kind === 'wrong' && cluster.members.length > 1 ? 'alike: ' : ''
        }}<SentenceText :text="cluster.title" />
      </h2>
      <div class="row">
        <button v-if="!cluster.comment.trim() && cluster.kind !== 'right'" type="button" class="tag todo" @click.stop="emit('comment')">
          write a comment
        </button>
        <span v-else-if="cluster.comment.trim()" class="tag pass">comment kept</span>
        <span v-if="cluster.kind !== 'unchecked'" class="mono quiet">{{ cluster.mark === null ? '' : mark(cluster.mark) }}</span>
      </div>
    </div>
    <div class="body">
      <div class="why">
        <CaseStrip v-if="cluster.kind === 'wrong' && cluster.strip" :cells="cluster.strip" :shares="cluster.strip_shares" />
        <p v-for="s in cluster.sentences.slice(0, 2)" :key="s"><SentenceText :text="s" /></p>
        <p v-if="apart" class="quiet"><SentenceText :text="apart" /></p>
        <MemberChips :members="cluster.members" :chosen="chosen ? member : null" @review="(id) => emit('review', id)" />
        <div v-if="chosen && cluster.kind !== 'right'" class="row acts">
          <Button type="primary" size="small" @click.stop="emit('review', member ?? cluster.members[0].handin_id)"
            >Review <span class="k">⏎</span></Button
          >
          <Button size="small" @click.stop="emit('comment')">Comment <span class="k">c</span></Button>
        </div>
      </div>
      <div v-if="cluster.kind === 'wrong' && cluster.rows.length" class="rows">
        <CaseTable :inputs="results.inputs" :outputs="results.outputs" :ports="results.ports" :rows="rows" />
        <p v-if="more" class="quiet more">and {{ more }} more</p>
      </div>
    </div>
  </article>
</template>

<style scoped>
.cluster {
  min-width: 0;
  max-width: 100%;
  cursor: pointer;
  display: flex;
  flex-direction: column;
  gap: 7px;
  transition: border-color 0.12s;
}
.cluster.chosen {
  border-color: var(--lacquer);
  box-shadow: inset 0 0 0 1px var(--lacquer);
}
.top {
  align-items: flex-start;
  flex-wrap: nowrap;
}
.top > .row {
  margin-left: auto;
  flex: none;
}
.top h2 {
  min-width: 0;
}
.more {
  font-size: 12px;
  padding: 3px 6px 0;
}
h2 {
  font-size: 13px;
  font-weight: 600;
  line-height: 22px;
}
.count {
  font-size: 20px;
  margin-right: 5px;
  vertical-align: -1px;
}
.wrong .count {
  color: var(--fail-text);
}
.rules .count {
  color: var(--undef-text);
}
.right .count {
  color: var(--pass-text);
}
.body {
  display: flex;
  gap: 18px;
  align-items: flex-start;
  flex-wrap: wrap;
}
.why {
  flex: 1 1 215px;
  min-width: 0;
  display: grid;
  gap: 7px;
}
.rows {
  flex: 0 1 auto;
  max-width: 100%;
  min-width: 0;
  overflow-x: auto;
}
.acts {
  padding-top: 2px;
}
.k {
  opacity: 0.7;
  font: 12px var(--mono);
  margin-left: 5px;
}
</style>
