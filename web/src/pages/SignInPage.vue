<script setup lang="ts">
import { Button, Input, InputPassword } from 'ant-design-vue'
import { ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { useAttempt } from '../shared/attempt'
import DoorForm from '../shared/DoorForm.vue'
import { useSession } from '../shared/session'

const email = ref('')
const password = ref('')
const { trouble, isBusy, attempt } = useAttempt()
const session = useSession()
const router = useRouter()
const route = useRoute()

function submit(): Promise<void> {
  return attempt(async () => {
    await session.signIn(email.value, password.value)
    const next = String(route.query.next ?? '/')
    await router.push(next.startsWith('/') && !next.startsWith('//') ? next : '/')
  })
}
</script>

<template>
  <DoorForm :trouble="trouble" @submit="submit">
    <label>E-mail<Input v-model:value="email" name="email" autocomplete="username" autofocus /></label>
    <label
      >Password<InputPassword v-model:value="password" name="password" autocomplete="current-password" :visibility-toggle="false"
    /></label>
    <Button type="primary" html-type="submit" :loading="isBusy" block>Sign in</Button>
  </DoorForm>
</template>
