<script setup lang="ts">
import { Button, InputPassword, message, Modal } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'

import { get, remove } from '../api/client'
import type { SessionView } from '../api/schema'
import { told } from './attempt'
import { FEWEST_CHARACTERS, useSession } from './session'
import { moment } from './words'

const props = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: [] }>()

const session = useSession()
const old = ref('')
const fresh = ref('')
const sessions = ref<SessionView[]>([])
const isLong = computed(() => fresh.value.length >= FEWEST_CHARACTERS)
watch(
  () => props.open,
  async (isOpen) => {
    old.value = fresh.value = ''
    if (isOpen) await look()
  },
)
async function look(): Promise<void> {
  await told(async () => (sessions.value = await get('/me/sessions')))
}
async function end(session: SessionView): Promise<void> {
  if (await told(() => remove(`/me/sessions/${session.key}`))) await look()
}
/** Which browser, on what, as far as it says. */
function named(browser: string): string {
  const what = /(Firefox|Edg|Chromium|Chrome|Safari)/.exec(browser)?.[1]?.replace('Edg', 'Edge') ?? 'a browser'
  const where = /(Windows|Mac OS X|Android|iPhone|Linux)/.exec(browser)?.[1]
  return where ? `${what} on ${where}` : what
}

async function change(): Promise<void> {
  if (!(await told(() => session.changePassword(old.value, fresh.value)))) return
  message.success('the password is changed; other sessions have ended')
  emit('close')
}
</script>

<template>
  <Modal
    :open="open"
    title="Another password"
    ok-text="Change it"
    :ok-button-props="{ disabled: !isLong || !old }"
    :width="380"
    @ok="change"
    @cancel="emit('close')"
  >
    <form class="form" @submit.prevent="isLong && change()">
      <label>The one you have now<InputPassword v-model:value="old" name="old-password" autocomplete="current-password" /></label>
      <label
        >The new one, {{ FEWEST_CHARACTERS }} characters or more<InputPassword
          v-model:value="fresh"
          name="new-password"
          autocomplete="new-password"
      /></label>
    </form>
    <h3>Where you are signed in</h3>
    <div v-for="s in sessions" :key="s.key" class="session">
      <span
        >{{ named(s.browser) }}<small v-if="s.started_at"> since {{ moment(s.started_at) }}</small></span
      >
      <span v-if="s.is_this" class="tag">here</span>
      <Button v-else size="small" @click="end(s)">End</Button>
    </div>
  </Modal>
</template>

<style scoped>
.form {
  display: grid;
  gap: 12px;
  padding: 6px 0;
}
h3 {
  margin: 14px 0 4px;
  font-size: 13px;
}
.session {
  display: flex;
  gap: 8px;
  align-items: center;
  justify-content: space-between;
  padding: 4px 0;
  border-top: 1px solid var(--line-2);
}
label {
  display: grid;
  gap: 3px;
  color: var(--ink-2);
}
</style>
