<script setup lang="ts">
import { Button, Input, InputPassword } from 'ant-design-vue'
import { ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { sentence } from '../api/client'
import { useSession } from '../shared/session'

const email = ref('')
const password = ref('')
const trouble = ref('')
const isBusy = ref(false)
const session = useSession()
const router = useRouter()
const route = useRoute()

async function submit(): Promise<void> {
  isBusy.value = true
  trouble.value = ''
  try {
    await session.signIn(email.value, password.value)
    const next = String(route.query.next ?? '/')
    await router.push(next.startsWith('/') && !next.startsWith('//') ? next : '/')
  } catch (error) {
    trouble.value = sentence(error)
  } finally {
    isBusy.value = false
  }
}
</script>

<template>
  <main class="door">
    <form class="compartment" @submit.prevent="submit">
      <svg width="34" height="31" viewBox="0 0 22 20" aria-hidden="true">
        <rect width="11" height="20" rx="2.500" fill="#f3c49b" /><rect x="13" width="8" height="8" rx="2" fill="#5b2a4e" />
        <circle cx="17" cy="15" r="4.600" fill="#c9b3c3" />
      </svg>
      <h1>obento</h1>
      <label>E-mail<Input v-model:value="email" name="email" autocomplete="username" autofocus /></label>
      <label>Password<InputPassword v-model:value="password" name="password" autocomplete="current-password" :visibility-toggle="false" /></label>
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <Button type="primary" html-type="submit" :loading="isBusy" block>Sign in</Button>
    </form>
  </main>
</template>

<style scoped>
.door { min-height: 100%; display: grid; place-items: center; }
form { width: 300px; display: grid; gap: 12px; padding: 26px 26px 28px; }
h1 { font-size: 20px; font-weight: 600; margin-top: -6px; }
label { display: grid; gap: 3px; color: var(--ink-2); }
</style>
