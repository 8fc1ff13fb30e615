<script setup lang="ts">
import { Button, message, Modal, Popover, Textarea } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'

import { get, put, sentence, ServerTrouble } from '../../api/client'
import type { DraftView } from '../../api/schema'
import DraftNote from '../../shared/DraftNote.vue'
import { useDraft } from '../../shared/drafts'

const props = defineProps<{
  taskId: number
  cluster: string
  handinId: number
  label: string
  /** What the field is for, where no label stands above it. */
  about?: string
  text: string
  version: number
  rows?: number
  name: string
  button: string
  add?: string
  before?: { text: string; version: number; lab: string } | null
}>()
const emit = defineEmits<{ kept: [of: { cluster: string; handin: number }, text: string, version: number] }>()
const version = ref(props.version)
const isBusy = ref(false)
const subject = computed(() => `task ${props.taskId}/${props.handinId ? `note ${props.handinId}` : `comment ${props.cluster}`}`)
const {
  text: draft,
  isChanged,
  from,
  drop,
  done,
} = useDraft(
  () => subject.value,
  () => props.text,
)
watch(
  () => [props.cluster, props.handinId, props.text, props.version],
  () => (version.value = props.version),
)
const PLACEHOLDERS = [
  ['{name}', 'first name'],
  ['{line}', 'the line to be changed, or where their output gets its value'],
  ['{when}', 'when it fails'],
  ['{right}', 'right cases'],
  ['{total}', 'compared cases'],
  ['{mark}', 'their mark'],
  ['{file}', 'their file'],
  ['{change}', 'the smallest change of theirs that makes it right'],
  ['{rule}', 'the rules they break'],
  ['{message}', 'the first error in theirs'],
]
async function keep(): Promise<void> {
  isBusy.value = true
  const [about, of, text] = [subject.value, { cluster: props.cluster, handin: props.handinId }, draft.value]
  try {
    const body = { text, version: version.value, handin_id: of.handin }
    const saved = await put(`/tasks/${props.taskId}/comments/${encodeURIComponent(of.cluster || '-')}`, body)
    done(about, text)
    if (about === subject.value) version.value = saved.version
    emit('kept', of, text, saved.version)
    message.success('kept')
  } catch (error) {
    if (error instanceof ServerTrouble && error.status === 409 && about === subject.value) return clash(error)
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
    onCancel: () => {
      done(subject.value, draft.value)
      emit('kept', { cluster: props.cluster, handin: props.handinId }, String(error.body.text), Number(error.body.version))
    },
  })
}
const offered = ref<DraftView | null>(null)
const isBankOpen = ref(false)
watch(
  () => [props.cluster, props.taskId],
  () => (offered.value = null),
)
/** A draft from what was found, and what was said of such mistakes before. */
async function offer(): Promise<DraftView | null> {
  try {
    offered.value ??= await get(`/tasks/${props.taskId}/drafts/${encodeURIComponent(props.cluster)}`)
  } catch (error) {
    message.error(sentence(error))
  }
  return offered.value
}
async function takeDraft(): Promise<void> {
  const found = await offer()
  if (found?.text) insert(found.text)
  else if (found) message.info('there is nothing to be said of these')
}
function take(text: string): void {
  isBankOpen.value = false
  insert(text)
}
function insert(word: string): void {
  draft.value += (draft.value && !draft.value.endsWith(' ') ? ' ' : '') + word
}
/** What somebody wants to have quoted. */
watch(
  () => props.add,
  (text) => text && insert(text),
)
defineExpose({ keep })
</script>

<template>
  <div class="comment">
    <div class="row spread">
      <span class="caption">{{ label }}</span><slot />
    </div>
    <Textarea
      v-model:value="draft"
      :name="name"
      :aria-label="about || label"
      :auto-size="{ minRows: rows ?? 4, maxRows: 12 }"
      @keydown.ctrl.enter="keep"
      @keydown.meta.enter="keep"
    />
    <DraftNote :from="from" @keep="keep" @drop="drop" />
    <p v-if="before && !draft.trim()" class="small before">
      <span class="quiet">{{ before.lab ? `in ${before.lab}` : `by version ${before.version}` }} it was:</span> {{ before.text }}
      <button type="button" class="link" @click="insert(before.text)">take it</button>
    </p>
    <div v-if="cluster && !draft.trim()" class="row offers">
      <Button size="small" @click="takeDraft">Draft</Button>
      <Popover v-model:open="isBankOpen" trigger="click" placement="bottomLeft">
        <template #content>
          <div class="bank">
            <p v-if="offered && !offered.bank.length" class="quiet">Nothing was said of other mistakes so far.</p>
            <button v-for="b in offered?.bank ?? []" :key="b.text" type="button" @click="take(b.text)">
              <span class="quiet small">{{ b.place }}{{ b.same_kind ? ', the same kind of mistake' : '' }}</span
              >{{ b.text }}
            </button>
          </div>
        </template>
        <Button size="small" @click="offer">From before</Button>
      </Popover>
    </div>
    <div v-if="cluster || draft" class="words">
      <button v-for="[word, what] in PLACEHOLDERS" :key="word" type="button" :title="what" @click="insert(word)">{{ word }}</button>
    </div>
    <div class="row">
      <Button :type="isChanged ? 'primary' : 'default'" size="small" :disabled="!isChanged" :loading="isBusy" @click="keep">{{
        button
      }}</Button>
      <span v-if="isChanged" class="quiet small">Ctrl+Enter</span><span v-else-if="text" class="tag pass">kept</span>
    </div>
  </div>
</template>

<style scoped>
.comment {
  display: grid;
  gap: 6px;
}
.before {
  border-left: 3px solid var(--line);
  padding-left: 8px;
  overflow-wrap: anywhere;
}
.offers {
  gap: 6px;
  justify-content: flex-start;
}
.bank {
  display: grid;
  gap: 6px;
  width: 360px;
  max-height: 320px;
  overflow: auto;
}
.bank button {
  border: 1px solid var(--line);
  border-radius: 6px;
  background: var(--paper);
  text-align: left;
  padding: 6px 9px;
  cursor: pointer;
  display: grid;
  gap: 2px;
}
.bank button:hover {
  border-color: var(--lacquer);
}
.words {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.words button {
  border: 0;
  background: var(--rice);
  border-radius: 4px;
  padding: 0 6px;
  font: 12px/24px var(--mono);
  color: var(--ink-2);
  cursor: pointer;
}
.words button:hover {
  color: var(--lacquer);
}
</style>
