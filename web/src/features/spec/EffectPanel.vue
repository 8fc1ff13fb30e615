<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'

import { get, post, sentence } from '../../api/client'
import type { Effect } from '../../api/schema'
import LongWork from '../../shared/LongWork.vue'
import { count, mark } from '../../shared/words'

const props = defineProps<{ taskId: number; text: string }>()
const emit = defineEmits<{ done: [changed: number] }>()
const effects = ref<Effect[]>([])
const total = ref(0)
const trouble = ref('')
const AT_ONCE = 20
const isLeft = ref(false)

/** The class is checked by the new text some at a time, so that one sees how far it is and can leave it. */
async function look(): Promise<void> {
  try {
    const results = await get(`/tasks/${props.taskId}/results`)
    const ids = results.clusters.flatMap((c) => c.members.map((m) => m.handin_id))
    total.value = ids.length
    for (let i = 0; i < ids.length && !isLeft.value; i += AT_ONCE) {
      const found = await post(`/tasks/${props.taskId}/spec/effects`, { text: props.text, handin_ids: ids.slice(i, i + AT_ONCE) })
      effects.value.push(...found.effects)
    }
    if (!isLeft.value) emit('done', changed.value.length)
  } catch (error) {
    trouble.value = sentence(error)
  }
}
onMounted(look)
onBeforeUnmount(() => (isLeft.value = true))
const WORDS: Record<string, string> = { right: 'right', rules: 'right, against the rules', wrong: 'wrong', unchecked: 'not checked' }
const isSame = (e: Effect): boolean =>
  e.kind === e.new_kind && e.passed === e.new_passed && e.total === e.new_total && e.mark === e.new_mark
const changed = computed(() =>
  effects.value.filter((e) => !isSame(e)).sort((a, b) => (a.new_mark ?? 0) - (a.mark ?? 0) - ((b.new_mark ?? 0) - (b.mark ?? 0))),
)
const turned = computed(() => changed.value.filter((e) => e.kind !== e.new_kind).length)
const remarked = computed(() => changed.value.filter((e) => e.mark !== e.new_mark).length)
</script>

<template>
  <div class="effect">
    <p v-if="trouble" class="bad">{{ trouble }}</p>
    <p v-else-if="isLeft" class="quiet">Left after {{ effects.length }} of {{ count(total, 'hand-in') }}: what is below is not all.</p>
    <LongWork v-else-if="effects.length < total" label="checked anew" :done="effects.length" :total="total" @cancel="isLeft = true" />
    <p v-else-if="!total">Nobody has been checked by this spec yet.</p>
    <p v-else-if="!changed.length"><b>Nothing changes</b> for any of {{ count(total, 'hand-in') }}.</p>
    <p v-else>
      <b>{{ count(turned, 'verdict') }}</b> and <b>{{ count(remarked, 'mark') }}</b> of {{ count(total, 'hand-in') }} would change.
    </p>
    <div v-if="changed.length" class="scroll" tabindex="0" role="region" aria-label="what would change">
      <table>
        <thead>
          <tr>
            <th scope="col"><span class="unseen">who</span></th>
            <th>now</th>
            <th>then</th>
            <th class="n">mark now</th>
            <th class="n">then</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="e in changed" :key="e.handin_id" :data-effect="e.handin_id">
            <td>
              <b>{{ e.name }}</b>
            </td>
            <td>
              {{ WORDS[e.kind] }} <span class="quiet mono">{{ e.passed }}/{{ e.total }}</span>
            </td>
            <td :class="{ turned: e.kind !== e.new_kind }">
              {{ WORDS[e.new_kind] }} <span class="quiet mono">{{ e.new_passed }}/{{ e.new_total }}</span>
            </td>
            <td class="n mono">{{ mark(e.mark) }}</td>
            <td class="n mono" :class="{ turned: e.mark !== e.new_mark }">{{ mark(e.new_mark) }}{{ e.by_hand ? '*' : '' }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="changed.some((e) => e.by_hand)" class="quiet small">* set by hand, stays</p>
  </div>
</template>

<style scoped>
.effect {
  display: grid;
  gap: 8px;
}
.scroll {
  max-height: 380px;
  overflow: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-size: 12px;
  color: var(--ink-2);
  position: sticky;
  top: 0;
  background: var(--paper);
  padding: 2px 6px;
}
td {
  border-top: 1px solid var(--line-2);
  padding: 3px 6px;
}
.n {
  text-align: right;
}
.turned {
  color: var(--fail-text);
  font-weight: 600;
}
.bad {
  color: var(--fail-text);
}
</style>
