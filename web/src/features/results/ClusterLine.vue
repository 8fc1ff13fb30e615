<script setup lang="ts">
import type { ClusterView } from '../../api/schema'
import CaseStrip from '../../shared/CaseStrip.vue'
import SentenceText from '../../shared/SentenceText.vue'
import { mark } from '../../shared/words'

/** A cluster in one line, where there are many: it opens when it is chosen. */
defineProps<{ cluster: ClusterView; apart?: string }>()
const emit = defineEmits<{ choose: [] }>()
/** As many cases as have room beside the sentence. */
const FEW = 32
</script>

<template>
  <button type="button" class="compartment folded" :data-cluster="cluster.key" @click="emit('choose')">
    <span class="count" :class="cluster.kind">{{ cluster.members.length }}</span>
    <span class="title"><SentenceText :text="cluster.title" /></span>
    <CaseStrip
      v-if="cluster.kind === 'wrong' && cluster.strip.length <= FEW && !cluster.strip_shares.length"
      :cells="cluster.strip"
      :shares="[]"
    />
    <span class="quiet small apart"
      ><SentenceText :text="cluster.sentences[0] ?? ''" /><template v-if="apart">; <SentenceText :text="apart" /></template
    ></span>
    <span class="tags">
      <span v-if="cluster.comment.trim()" class="tag pass">comment kept</span>
      <span v-else-if="cluster.kind !== 'right'" class="tag todo">no comment</span>
      <span class="mono quiet">{{ cluster.mark === null ? '' : mark(cluster.mark) }}</span>
    </span>
  </button>
</template>

<style scoped>
.folded {
  flex: 1 1 100%;
  display: flex;
  flex-flow: row nowrap;
  align-items: baseline;
  gap: 8px;
  padding: 5px 12px;
  min-height: 32px;
  text-align: left;
  font: inherit;
  color: inherit;
  cursor: pointer;
}
.folded:hover {
  border-color: var(--lacquer-2);
}
.count {
  flex: none;
  min-width: 28px;
  font-size: 16px;
  font-weight: 600;
  text-align: right;
  color: var(--fail-text);
}
.count.right {
  color: var(--pass-text);
}
.count.rules {
  color: var(--undef-text);
}
.title {
  flex: none;
  max-width: 40%;
  font-weight: 600;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.folded :deep(.strip) {
  flex: none;
  flex-wrap: nowrap;
  align-self: center;
}
.apart {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.tags {
  margin-left: auto;
  flex: none;
  display: flex;
  gap: 8px;
  align-items: baseline;
}
</style>
