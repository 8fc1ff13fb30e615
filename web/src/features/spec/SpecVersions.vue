<script setup lang="ts">
import { Button, Modal } from 'ant-design-vue'
import { diffLines } from 'diff'
import { computed, ref } from 'vue'

import { get } from '../../api/client'
import { useResource } from '../../shared/resource'
import { moment } from '../../shared/words'

/** Old versions of a spec: read, compared line by line with what is in the editor, and taken up again. */
const props = defineProps<{ taskId: number; text: string }>()
const emit = defineEmits<{ take: [text: string]; close: [] }>()
const { data: versions, trouble } = useResource((signal) => get(`/tasks/${props.taskId}/spec/versions`, { signal }))
const chosen = ref<number | null>(null)
const { data: old, reload } = useResource((signal) => get(`/tasks/${props.taskId}/spec/versions/${chosen.value ?? 0}`, { signal }), {
  lazy: true,
})
const lines = computed(() =>
  old.value
    ? diffLines(old.value.text, props.text).flatMap((part) =>
        part.value
          .replace(/\n$/, '')
          .split('\n')
          .map((text) => ({ text, kind: part.added ? 'new' : part.removed ? 'old' : 'same' })),
      )
    : [],
)
const SIGNS: Record<string, string> = { new: '+', old: '-', same: ' ' }
function choose(number: number): void {
  chosen.value = number
  void reload()
}
function take(): void {
  if (old.value) emit('take', old.value.text)
  emit('close')
}
</script>

<template>
  <Modal open title="Versions of this spec" :footer="null" :width="860" @cancel="emit('close')">
    <p v-if="trouble" class="trouble">{{ trouble }}</p>
    <div class="two">
      <div class="list">
        <button v-for="v in versions ?? []" :key="v.number" type="button" :class="{ here: v.number === chosen }" @click="choose(v.number)">
          <b>version {{ v.number }}</b> <span v-if="!v.is_right" class="tag fail">has errors</span>
          <small class="quiet">{{ moment(v.at) }}{{ v.who ? `, ${v.who}` : '' }}{{ v.used ? '' : ', nobody was checked by it' }}</small>
        </button>
      </div>
      <div v-if="old" class="text">
        <div class="row spread">
          <span class="small quiet">- stands in version {{ old.number }} alone, + in the editor alone</span>
          <Button size="small" type="primary" @click="take">Take it up again</Button>
        </div>
        <pre><span v-for="(line, n) in lines" :key="n" :class="line.kind">{{ SIGNS[line.kind] }} {{ line.text }}
</span></pre>
      </div>
      <p v-else class="quiet">Choose a version to read it beside what is in the editor.</p>
    </div>
  </Modal>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 220px minmax(0, 1fr);
  gap: 14px;
}
.list {
  display: grid;
  gap: 4px;
  align-content: start;
  max-height: 60vh;
  overflow: auto;
}
.list button {
  text-align: left;
  border: 1px solid var(--line);
  border-radius: 7px;
  background: none;
  padding: 5px 9px;
  cursor: pointer;
  font: inherit;
}
.list .here {
  border-color: var(--lacquer);
  background: var(--lacquer-tint);
}
.list small {
  display: block;
}
pre {
  max-height: 56vh;
  overflow: auto;
  font: 12px/1.5 var(--mono);
}
.new {
  color: var(--pass-text);
}
.old {
  color: var(--fail-text);
}
</style>
