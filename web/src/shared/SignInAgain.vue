<script setup lang="ts">
import { InputPassword, Modal } from 'ant-design-vue'
import { ref } from 'vue'

import { useAttempt } from './attempt'
import { useSession } from './session'

/** The session has ended while somebody was at work: what is on the page stays, and can be kept after signing in. */
const session = useSession()
const password = ref('')
const { trouble, isBusy, attempt } = useAttempt()

function submit(): Promise<void> {
  return attempt(async () => {
    await session.signIn(session.me?.email ?? '', password.value)
    password.value = ''
  })
}
</script>

<template>
  <Modal
    :open="session.hasEnded"
    title="Your session has ended"
    ok-text="Sign in"
    cancel-text="Leave"
    :confirm-loading="isBusy"
    :mask-closable="false"
    :keyboard="false"
    :closable="false"
    :width="380"
    @ok="submit"
    @cancel="session.leave"
  >
    <form class="form" @submit.prevent="submit">
      <p>What you typed is still here. Sign in, then do again what you were about to do.</p>
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <label>
        Password of {{ session.me?.email }}
        <InputPassword v-model:value="password" name="password-again" autocomplete="current-password" />
      </label>
    </form>
  </Modal>
</template>

<style scoped>
.form {
  display: grid;
  gap: 12px;
  padding: 6px 0;
}
label {
  display: grid;
  gap: 3px;
  color: var(--ink-2);
}
</style>
