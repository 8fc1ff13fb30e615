<script setup lang="ts">
import { computed } from 'vue'

import type { ClusterView } from '../../api/schema'
import SentenceText from '../../shared/SentenceText.vue'
import MemberChips from '../../shared/MemberChips.vue'

/** Hand-ins without a verdict, by what stood in the way, each with its own first trouble. */
const props = defineProps<{ clusters: ClusterView[]; chosen: string }>()
const emit = defineEmits<{ choose: [cluster: ClusterView]; review: [handin: number] }>()
const total = computed(() => props.clusters.reduce((n, c) => n + c.members.length, 0))
/** Those of a cluster by what each of them met, in the order in which that comes. */
function byTrouble(cluster: ClusterView): Record<string, ClusterView['members']> {
  const found: Record<string, ClusterView['members']> = {}
  for (const m of cluster.members) (found[m.trouble] ??= []).push(m)
  return found
}
</script>

<template>
  <article class="compartment rest">
    <h2>
      <span class="count">{{ total }}</span> not checked
    </h2>
    <div
      v-for="c in clusters"
      :key="c.key"
      class="line"
      :class="{ chosen: c.key === chosen }"
      :aria-current="c.key === chosen"
      @click="emit('choose', c)"
    >
      <span class="quiet">{{ c.title.replace('not checked: ', '') }}</span>
      <div v-for="(members, trouble) in byTrouble(c)" :key="trouble" class="stuck">
        <MemberChips :members="members" @review="(id) => emit('review', id)" />
        <SentenceText :text="String(trouble)" />
      </div>
    </div>
  </article>
</template>

<style scoped>
.rest {
  flex: 1 1 380px;
  display: flex;
  flex-direction: column;
  gap: 6px;
}
.rest h2 {
  font-size: 13px;
  font-weight: 600;
}
.rest .count {
  font-size: 20px;
  margin-right: 5px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: baseline;
  padding: 2px 4px;
  border-radius: 5px;
  cursor: pointer;
}
.stuck {
  flex-basis: 100%;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: baseline;
}
.stuck > :first-child {
  flex: 0 1 auto;
}
.line.chosen {
  background: var(--lacquer-tint);
}
</style>
