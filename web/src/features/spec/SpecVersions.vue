<script setup lang="ts">
import { Button, Modal, Segmented } from 'ant-design-vue'
import { diffLines } from 'diff'
import { computed, ref, watch } from 'vue'

import { get, post } from '../../api/client'
import { useResource } from '../../shared/resource'
import { count, moment } from '../../shared/words'

/** Old versions of a spec: read, compared line by line and case by case with what is in the editor, and taken up again. */
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
const face = ref<'text' | 'cases'>('text')
const FACES = [
  { value: 'text', label: 'line by line' },
  { value: 'cases', label: 'case by case' },
]
const {
  data: compared,
  trouble: notCompared,
  reload: compare,
} = useResource((signal) => post(`/tasks/${props.taskId}/spec/versions/${chosen.value ?? 0}/cases`, { text: props.text }, { signal }), {
  lazy: true,
})
watch([face, chosen], () => face.value === 'cases' && chosen.value !== null && void compare())
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
          <Segmented v-model:value="face" :options="FACES" size="small" />
          <Button size="small" type="primary" @click="take">Take it up again</Button>
        </div>
        <template v-if="face === 'cases'">
          <p v-if="notCompared" class="trouble">{{ notCompared }}</p>
          <p v-else-if="!compared" class="quiet">Looking…</p>
          <template v-else>
            <p class="small quiet">
              {{ count(compared.shared, 'case') }} in both{{
                compared.only_then ? `, ${compared.only_then} in version ${old.number} alone` : ''
              }}{{ compared.only_now ? `, ${compared.only_now} in the editor alone` : '' }}
            </p>
            <p v-if="!compared.changed.length && compared.shared">Both expect the same in all of them.</p>
            <div v-if="compared.changed.length" class="cases-changed">
              <table class="cases">
                <thead>
                  <tr>
                    <th>case</th>
                    <th>output</th>
                    <th>version {{ old.number }}</th>
                    <th>editor</th>
                  </tr>
                </thead>
                <tbody v-for="c in compared.changed" :key="c.label">
                  <tr v-for="(o, n) in c.outputs" :key="o.name">
                    <td v-if="!n" :rowspan="c.outputs.length" class="at">{{ c.label }}</td>
                    <td>{{ o.name }}</td>
                    <td>{{ o.was || 'not there' }}</td>
                    <td>
                      <b>{{ o.now || 'not there' }}</b>
                    </td>
                  </tr>
                </tbody>
              </table>
            </div>
            <p v-if="compared.more" class="quiet">and {{ compared.more }} more</p>
          </template>
        </template>
        <p v-if="face === 'text'" class="small quiet">- stands in version {{ old.number }} alone, + in the editor alone</p>
        <pre v-if="face === 'text'"><span v-for="(line, n) in lines" :key="n" :class="line.kind">{{ SIGNS[line.kind] }} {{ line.text }}
</span></pre>
      </div>
      <p v-else class="quiet">Choose a version to read it beside what is in the editor.</p>
    </div>
  </Modal>
</template>

<style scoped>
.cases-changed {
  max-height: 50vh;
  overflow: auto;
}
.at {
  vertical-align: top;
}
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
