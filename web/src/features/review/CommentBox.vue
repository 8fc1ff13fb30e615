<script setup lang="ts">
import { Button, message, Modal, Textarea } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'

import { put, sentence, ServerTrouble } from '../../api/client'

const props = defineProps<{ taskId: number; cluster: string; handinId: number; label: string; text: string; version: number; rows?: number; name: string; button: string; add?: string }>()
const emit = defineEmits<{ kept: [text: string, version: number] }>()
const draft = ref(props.text)
const version = ref(props.version)
const isBusy = ref(false)
watch(
  () => [props.cluster, props.handinId, props.text, props.version],
  () => {
    draft.value = props.text
    version.value = props.version
  },
)
const isChanged = computed(() => draft.value !== props.text)
const PLACEHOLDERS = [
  ['{name}', 'first name'], ['{line}', 'the line where their output gets its value'], ['{when}', 'when it fails'], ['{right}', 'right cases'],
  ['{total}', 'compared cases'], ['{mark}', 'their mark'], ['{file}', 'their file'],
]
async function keep(): Promise<void> {
  isBusy.value = true
  try {
    const body = { text: draft.value, version: version.value, handin_id: props.handinId }
    const saved = await put<{ version: number }>(`/tasks/${props.taskId}/comments/${encodeURIComponent(props.cluster || '-')}`, body)
    version.value = saved.version
    emit('kept', draft.value, saved.version)
    message.success('kept')
  } catch (error) {
    if (error instanceof ServerTrouble && error.status === 409) return clash(error)
    message.error(sentence(error))
  } finally {
    isBusy.value = false
  }
}
/** Somebody else was faster: show theirs, lose neither. */
function clash(error: ServerTrouble): void {
  Modal.confirm({
    title: 'Somebody else saved this comment meanwhile',
    content: `It reads now: “${String(error.body.text)}”. Replace it by yours?`,
    okText: 'Replace theirs',
    cancelText: 'Take theirs',
    onOk: () => {
      version.value = Number(error.body.version)
      void keep()
    },
    onCancel: () => emit('kept', String(error.body.text), Number(error.body.version)),
  })
}
function insert(word: string): void {
  draft.value += (draft.value && !draft.value.endsWith(' ') ? ' ' : '') + word
}
/** What somebody wants to have quoted. */
watch(() => props.add, (text) => text && insert(text))
defineExpose({ keep })
</script>

<template>
  <div class="comment">
    <div class="row spread"><span class="caption">{{ label }}</span><slot /></div>
    <Textarea v-model:value="draft" :name="name" :auto-size="{ minRows: rows ?? 4, maxRows: 12 }" @keydown.ctrl.enter="keep" @keydown.meta.enter="keep" />
    <div class="words">
      <button v-for="[word, what] in PLACEHOLDERS" :key="word" type="button" :title="what" @click="insert(word)">{{ word }}</button>
    </div>
    <div class="row">
      <Button :type="isChanged ? 'primary' : 'default'" size="small" :disabled="!isChanged" :loading="isBusy" @click="keep">{{ button }}</Button>
      <span v-if="isChanged" class="quiet small">Ctrl+Enter</span><span v-else-if="text" class="tag pass">kept</span>
    </div>
  </div>
</template>

<style scoped>
.comment { display: grid; gap: 6px; }
.words { display: flex; flex-wrap: wrap; gap: 4px; }
.words button { border: 0; background: var(--rice); border-radius: 4px; padding: 0 5px; font: 11px/18px var(--mono); color: var(--ink-2); cursor: pointer; }
.words button:hover { color: var(--lacquer); }
</style>
