<script setup lang="ts">
import { useDebounceFn, useIntervalFn } from '@vueuse/core'
import { Button } from 'ant-design-vue'
import { onMounted, ref, watch } from 'vue'

import { post } from '../../api/client'
import { useResource } from '../../shared/resource'
import { count } from '../../shared/words'

const PATIENCE = 600
/** `text` is the spec as it stands in the editor, or empty while it has errors. */
const props = defineProps<{ taskId: number; text: string }>()
const emit = defineEmits<{ line: [line: number] }>()

const {
  data: rate,
  trouble,
  reload,
  isLoading,
  clear,
} = useResource(async (signal) => post(`/tasks/${props.taskId}/spec/catch-rate`, { text: props.text }, { signal }), { lazy: true })
const isOld = ref(false)
/** As long as the server gives to it, in seconds. */
const MOST = 20
/** Whole seconds since it was asked; whoever waits more than two sees them. */
const elapsed = ref(0)
const isStopped = ref(false)
useIntervalFn(() => (elapsed.value = isLoading.value ? Math.floor((performance.now() - since) / 1000) : 0), 500)
let since = 0
function stop(): void {
  clear()
  elapsed.value = 0
  isStopped.value = true
}

async function ask(): Promise<void> {
  if (!props.text) return
  since = performance.now()
  isStopped.value = false
  await reload()
  isOld.value = false
}
const later = useDebounceFn(ask, PATIENCE)
onMounted(ask)
watch(
  () => props.text,
  () => {
    isOld.value = true
    void later()
  },
)
function go(file: string, line: number): void {
  if (file.endsWith('.toml') || file === 'equations') emit('line', line)
}
</script>

<template>
  <p v-if="trouble" class="trouble">{{ trouble }}</p>
  <p v-else-if="isLoading && elapsed" class="row quiet">
    Trying likely mistakes: {{ elapsed }} s of {{ MOST }} at most <Button size="small" @click="stop">Stop</Button>
  </p>
  <p v-else-if="isStopped" class="row quiet">Not tried. <Button size="small" @click="ask">Try likely mistakes</Button></p>
  <p v-else-if="!rate" class="quiet">Trying likely mistakes…</p>
  <p v-else-if="rate.trouble" class="quiet">{{ rate.trouble }}</p>
  <div v-else-if="rate.share !== null" class="rate" :class="{ old: isOld }">
    <div class="row">
      <b class="share" :class="rate.share < 1 ? 'warn' : 'pass'">{{ Math.floor(100 * rate.share) }} %</b>
      <span class="bar" aria-hidden="true"><i :style="{ width: `${100 * rate.share}%` }" /></span>
    </div>
    <p v-if="rate.reference">
      {{ rate.caught }} of {{ count(rate.telling, 'likely mistake') }} in
      {{ rate.reference === 'equations' ? 'the equations' : rate.reference }} would be caught.
    </p>
    <p v-else-if="rate.compared === rate.cases">
      All {{ count(rate.cases, 'combination') }} are tried and compared: whatever is wrong is caught.
    </p>
    <p v-else>{{ rate.compared }} of {{ count(rate.cases, 'combination') }} are compared: whatever is wrong there is caught.</p>
    <p v-if="rate.reference && rate.compared < rate.cases" class="quiet">
      Nothing is compared in {{ rate.cases - rate.compared }} of {{ count(rate.cases, 'case') }}.
    </p>
    <p v-if="rate.missed.length" class="quiet">Missed, each with a case that would show it:</p>
    <ul v-if="rate.missed.length" aria-label="mistakes that no case catches">
      <li v-for="(m, i) in rate.missed" :key="i">
        <button type="button" :title="`missed in ${m.file}, line ${m.line}: there ${m.shows}`" @click="go(m.file, m.line)">
          <span class="quiet">line {{ m.line }}</span> {{ m.change.replaceAll('`', '') }}
          <span class="mono case">{{ m.inputs }}</span>
        </button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.rate {
  display: grid;
  gap: 6px;
}
.old {
  opacity: 0.55;
}
.share {
  font-size: 20px;
}
.share.warn {
  color: var(--undef-text);
}
.share.pass {
  color: var(--pass-text);
}
.bar {
  flex: 1;
  height: 9px;
  border-radius: 3px;
  background: var(--undef-tint);
  overflow: hidden;
  display: block;
}
.bar i {
  display: block;
  height: 100%;
  background: var(--pass);
}
ul {
  display: grid;
  gap: 2px;
  max-height: 260px;
  overflow: auto;
  padding: 0;
  margin: 0;
  list-style: none;
}
li button {
  border: 0;
  border-left: 3px solid var(--undef);
  background: none;
  padding: 2px 0 2px 8px;
  text-align: left;
  width: 100%;
  cursor: pointer;
}
.case {
  display: block;
  overflow-wrap: anywhere;
  font-size: 12px;
  color: var(--ink-2);
}
.trouble {
  margin: 0;
}
</style>
