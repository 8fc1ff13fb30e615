<script setup lang="ts">
import { Button, Input, Modal } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'

import { post } from '../api/client'
import { useSpecDraft } from '../features/spec/draft'
import { EXAMPLES, exampleText } from '../features/spec/examples'
import EffectPanel from '../features/spec/EffectPanel.vue'
import SpecMessages from '../features/spec/SpecMessages.vue'
import SpecSide from '../features/spec/SpecSide.vue'
import SpecVersions from '../features/spec/SpecVersions.vue'
import SpecTable from '../features/spec/SpecTable.vue'
import { told } from '../shared/attempt'
import DraftNote from '../shared/DraftNote.vue'
import { useDraft } from '../shared/drafts'
import { useKeys } from '../shared/keys'
import { useLab } from '../shared/lab'
import TextEditor from '../shared/TextEditor.vue'
import { moment } from '../shared/words'

const store = useLab()
const router = useRouter()
const { saved, text, from, dropDraft, preview, shownText, table, isChanged, trouble, unheard, change, save, addFile } = useSpecDraft(
  () => store.taskId,
  store.refresh,
)
const editor = ref<InstanceType<typeof TextEditor>>()
const isTaskOpen = ref(false)
const isEffectOpen = ref(false)
const areVersionsOpen = ref(false)
const newTask = useDraft(
  () => `lab ${store.labId}/task`,
  () => '',
)

/** Nothing was written yet, and nobody checked: there are texts to begin with. What was taken from them may be exchanged. */
const isNew = computed(
  () =>
    saved.value?.version === 1 &&
    !saved.value.used &&
    store.may('manage') &&
    (!isChanged.value || EXAMPLES.some((e) => text.value === exampleText(e, store.task?.title ?? ''))),
)
/** A version by which somebody was checked is not replaced before it was seen what that changes. */
function askSave(): void {
  if (!isChanged.value) return
  if (saved.value?.used && preview.value?.is_right) isEffectOpen.value = true
  else void save()
}
async function addTask(): Promise<void> {
  const title = newTask.text.value
  if (!title.trim()) return
  await told(async () => {
    const made = await post(`/labs/${store.labId}/tasks`, { title })
    newTask.drop()
    isTaskOpen.value = false
    await router.push(`/lab/${store.labId}/task/${made.id}/spec`)
  })
}
async function take(event: Event, provided: boolean): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) await addFile(file, provided)
  input.value = ''
}
function toBoard(): void {
  void router.push({ name: 'board', params: { lab: store.labId, task: store.taskId } })
}
useKeys([
  { key: 'Ctrl+s', label: 'save the spec', always: true, act: askSave },
  { key: 'b', label: 'the board: a circuit for this task', act: toBoard },
])
</script>

<template>
  <p v-if="trouble" class="trouble">{{ trouble }}</p>
  <main v-if="saved && preview" class="page">
    <section class="compartment text">
      <div class="row spread head">
        <span class="caption"
          >Text
          <span class="quiet"
            >version {{ saved.version }}{{ isChanged ? (saved.used ? ', saving makes a new one' : ', changed') : '' }}</span
          ></span
        >
        <span class="row head">
          <label class="file" title="a file beside the spec that it names: a model, a bench, a table of vectors"
            >+ file it names<input type="file" accept=".v,.sv,.vhd,.vhdl,.wiring,.csv" @change="(e) => take(e, false)"
          /></label>
          <label class="file" title="a file that is given to every hand-in: a block or a package of the course"
            >+ file for all<input type="file" @change="(e) => take(e, true)"
          /></label>
          <Button size="small" @click="toBoard">Board <span class="k">b</span></Button>
          <Button v-if="saved.version > 1" size="small" @click="areVersionsOpen = true">Versions</Button>
          <Button v-if="store.may('manage')" size="small" @click="isTaskOpen = true">New task</Button>
          <Button size="small" type="primary" :disabled="!isChanged || !store.may('manage')" @click="askSave"
            >Save <span class="k">Ctrl+S</span></Button
          >
        </span>
      </div>
      <p v-if="isNew" class="since small row begin">
        Begin with
        <button v-for="e in EXAMPLES" :key="e.key" type="button" class="link" @click="change(exampleText(e, store.task?.title ?? ''))">
          {{ e.label }}
        </button>
      </p>
      <DraftNote :from="from" @keep="askSave" @drop="dropDraft" />
      <p v-if="saved.frozen_late" class="since small quiet">
        The files beside this version were frozen on {{ moment(saved.frozen_late) }}, after it was first used.
      </p>
      <p v-if="saved.is_older && saved.used" class="since small quiet">
        This version is read as when it was first used; once it is changed and saved, by today's rules.
      </p>
      <TextEditor ref="editor" language="toml" label="spec text" :text="text" :messages="preview.messages" @change="change" />
      <p v-if="unheard" class="trouble">{{ unheard }}</p>
      <SpecMessages :messages="preview.messages" @go="(m) => editor?.goTo(m)" />
    </section>
    <SpecTable :table="table" :is-old="table !== preview" />
    <SpecSide
      :table="table"
      :preview="preview"
      :task-id="store.taskId"
      :text="shownText"
      @line="(line) => editor?.goTo({ line, column: 1 })"
    />
    <Modal
      v-model:open="isEffectOpen"
      title="What the new version would change"
      :ok-text="`Save as version ${saved.version + 1}`"
      cancel-text="Go on writing"
      :width="640"
      destroy-on-close
      @ok="((isEffectOpen = false), save())"
    >
      <EffectPanel :task-id="store.taskId" :text="text" />
    </Modal>
    <Modal v-model:open="isTaskOpen" title="New task in this lab" ok-text="Make it" @ok="addTask"
      ><Input v-model:value="newTask.text.value" name="task-title" placeholder="title" @press-enter="addTask"
    /></Modal>
    <SpecVersions v-if="areVersionsOpen" :task-id="store.taskId" :text="text" @take="change" @close="areVersionsOpen = false" />
  </main>
  <main v-else-if="!trouble" class="empty" aria-busy="true">Loading…</main>
</template>

<style scoped>
.head {
  flex-wrap: wrap;
}
.begin {
  flex-wrap: wrap;
  gap: 2px 10px;
}
.begin .link {
  min-height: 24px;
  margin: 0;
}
.since {
  margin: 4px 0 0;
}
.page {
  display: grid;
  grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr) 250px;
  gap: var(--gap);
  padding: var(--gap);
  flex: 1;
  min-height: 0;
}
.text {
  display: flex;
  flex-direction: column;
  gap: 8px;
  min-height: 0;
}
.text > :deep(.editor) {
  flex: 1;
  min-height: 0;
}
.trouble {
  margin: 10px;
}
</style>
