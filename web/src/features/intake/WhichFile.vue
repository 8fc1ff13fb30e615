<script setup lang="ts">
import { Button, Modal } from 'ant-design-vue'
import { computed, ref } from 'vue'

import { get, put } from '../../api/client'
import { told } from '../../shared/attempt'
import { useResource } from '../../shared/resource'

/** A unit stands differently in several files: which of them is meant? */
const props = defineProps<{ handin: number; task: number; twice: { unit: string; files: string[] }[] }>()
const emit = defineEmits<{ chosen: [] }>()
const isOpen = ref(false)
const {
  data: texts,
  trouble,
  reload,
} = useResource((signal) => get(`/handins/${props.handin}/tasks/${props.task}/twice`, { signal }), { lazy: true })

async function look(): Promise<void> {
  isOpen.value = true
  if (!texts.value) await reload()
}
async function choose(unit: string, path: string): Promise<void> {
  const choice = { ours: `@file:${unit}`, theirs: path }
  if (!(await told(() => put(`/handins/${props.handin}/tasks/${props.task}/choice`, choice)))) return
  isOpen.value = false
  emit('chosen')
}
/** Lines of a file that no other of the files that hold the unit has. */
const own = computed(() => {
  const found = new Map<string, Set<string>>()
  for (const t of texts.value ?? []) {
    const others = new Set(
      (texts.value ?? []).filter((o) => o.unit === t.unit && o.path !== t.path).flatMap((o) => o.text.split('\n').map((l) => l.trim())),
    )
    found.set(t.unit + t.path, new Set(t.text.split('\n').filter((l) => l.trim() && !others.has(l.trim()))))
  }
  return found
})
</script>

<template>
  <div class="which">
    <p v-for="t in twice" :key="t.unit">
      <span
        >Which <code>{{ t.unit }}</code> counts?</span
      >
      <button v-for="path in t.files" :key="path" type="button" class="chip ask" :data-file="path" @click="choose(t.unit, path)">
        {{ path }}
      </button>
      <button type="button" class="link" @click="look">look at them</button>
    </p>
    <Modal v-model:open="isOpen" title="The same unit in several files" :footer="null" :width="1120" destroy-on-close>
      <p class="quiet small">
        Lines that only one of them has are shaded. What is chosen holds for this hand-in; it is checked again at once.
      </p>
      <p v-if="trouble" class="trouble">{{ trouble }}</p>
      <div class="texts">
        <figure v-for="t in texts ?? []" :key="t.unit + t.path">
          <figcaption>
            <code>{{ t.path }}</code> <Button size="small" @click="choose(t.unit, t.path)">This one counts</Button>
          </figcaption>
          <pre><span v-for="(line, i) in t.text.split('\n')" :key="i" :class="{ own: own.get(t.unit + t.path)?.has(line) }">{{ line }}
</span></pre>
        </figure>
      </div>
    </Modal>
  </div>
</template>

<style scoped>
.which {
  min-width: 0;
  width: 100%;
}
.which p {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  align-items: center;
  color: var(--ink);
}
.ask {
  border-color: var(--undef);
  color: var(--undef-text);
  font-family: var(--mono);
  overflow-wrap: anywhere;
  white-space: normal;
  text-align: left;
}
.texts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(320px, 1fr));
  gap: 8px;
  margin-top: 6px;
}
figure {
  margin: 0;
  border: 1px solid var(--line);
  border-radius: 6px;
  min-width: 0;
}
figcaption {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 8px;
  padding: 4px 8px;
  border-bottom: 1px solid var(--line);
  font-size: 12px;
  overflow-wrap: anywhere;
}
pre {
  margin: 0;
  padding: 4px 0;
  max-height: 56vh;
  overflow: auto;
  font: 12px/1.5 var(--mono);
}
pre span {
  padding: 0 8px;
  display: block;
  min-height: 1.5em;
  width: max-content;
  min-width: 100%;
}
.own {
  background: var(--undef-tint);
}
</style>
