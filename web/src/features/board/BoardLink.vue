<script setup lang="ts">
import { Button, message, Modal, Radio, RadioGroup } from 'ant-design-vue'
import { ref } from 'vue'

import { get, put, remove } from '../../api/client'
import type { LinkView } from '../../api/schema'
import { told } from '../../shared/attempt'
import { useResource } from '../../shared/resource'

const props = defineProps<{
  taskId: number
  /** What is on the board now. */
  text: string
}>()
const emit = defineEmits<{ close: [] }>()
const link = ref<LinkView | null>(null)
const tells = ref<LinkView['tells']>('nothing')
/** What they begin with; null is the empty unit. */
const begins = ref<string | null>(null)
useResource(async (signal) => take(await get(`/tasks/${props.taskId}/board/link`, { signal })))

function take(found: LinkView): LinkView {
  link.value = found
  if (found.address) tells.value = found.tells
  begins.value = found.start ?? null
  return found
}
const WAYS: { value: LinkView['tells']; title: string; gives: string }[] = [
  { value: 'nothing', title: 'nothing', gives: 'they see what their circuit does, and judge it themselves' },
  { value: 'count', title: 'how many cases are right', gives: 'with patience the right circuit can be found by trying' },
  { value: 'rows', title: 'which cases are right', gives: 'of an output of one bit that gives the whole truth table away' },
]
async function keep(): Promise<void> {
  await told(async () => void take(await put(`/tasks/${props.taskId}/board/link`, { tells: tells.value, start: begins.value })))
}
async function withdraw(): Promise<void> {
  await told(async () => {
    await remove(`/tasks/${props.taskId}/board/link`)
    if (link.value) link.value = { ...link.value, address: '' }
  })
}
async function copy(): Promise<void> {
  await told(async () => {
    await navigator.clipboard.writeText(link.value?.address ?? '')
    message.success('the link is copied')
  })
}
</script>

<template>
  <Modal open title="A board for students" :footer="null" :width="560" @cancel="emit('close')">
    <p v-if="link?.trouble" class="trouble">{{ link.trouble }}</p>
    <template v-else-if="link">
      <p>
        Whoever has the link draws and tries a circuit for this task, and saves it as a file to hand in. Cases of hidden groups are not run
        there.
      </p>
      <p class="caption">It tells of right and wrong</p>
      <RadioGroup v-model:value="tells" class="ways" @change="link.address && keep()">
        <Radio v-for="w in WAYS" :key="w.value" :value="w.value"
          >{{ w.title }} <span class="quiet small">{{ w.gives }}</span></Radio
        >
      </RadioGroup>
      <label class="row begins">
        <input
          type="checkbox"
          :checked="begins !== null"
          @change="((begins = ($event.target as HTMLInputElement).checked ? text : null), link.address && keep())"
        />
        they begin with what is on this board now
        <span v-if="begins !== null && begins !== text" class="quiet small"
          >(what was on it then: tick it anew to take over what is there now)</span
        >
      </label>
      <div v-if="link.address" class="row link">
        <input class="mono" readonly :value="link.address" aria-label="the link" @focus="($event.target as HTMLInputElement).select()" />
        <Button size="small" @click="copy">Copy</Button>
        <Button size="small" danger @click="withdraw">Withdraw</Button>
      </div>
      <Button v-else type="primary" @click="keep">Make the link</Button>
    </template>
  </Modal>
</template>

<style scoped>
.ways {
  display: grid;
  gap: 6px;
  margin: 6px 0 14px;
}
.link {
  gap: 8px;
}
.link input {
  flex: 1;
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 4px 8px;
  font-size: 12px;
  background: var(--rice);
}
.begins {
  gap: 6px;
  margin: 10px 0;
}
</style>
