<script setup lang="ts">
import { Button, InputPassword } from 'ant-design-vue'
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'

import { get } from '../api/client'
import { useAttempt } from '../shared/attempt'
import DoorForm from '../shared/DoorForm.vue'
import { FEWEST_CHARACTERS, useSession } from '../shared/session'

const props = defineProps<{ token: string }>()
const who = ref<{ name: string; email: string } | null>(null)
const password = ref('')
const { trouble, isBusy, attempt } = useAttempt()
const session = useSession()
const router = useRouter()

onMounted(() =>
  attempt(async () => {
    who.value = await get(`/invitation/${props.token}`)
  }),
)
function submit(): Promise<void> {
  return attempt(async () => {
    await session.accept(props.token, password.value)
    await router.push('/')
  })
}
</script>

<template>
  <DoorForm :trouble="trouble" @submit="submit">
    <template v-if="who">
      <p>
        Welcome, <b>{{ who.name }}</b>. You sign in as {{ who.email }}.
      </p>
      <label
        >A password, {{ FEWEST_CHARACTERS }} characters or more<InputPassword
          v-model:value="password"
          name="password"
          autocomplete="new-password"
          autofocus
      /></label>
      <Button type="primary" html-type="submit" :disabled="password.length < FEWEST_CHARACTERS" :loading="isBusy" block
        >Set it and sign in</Button
      >
    </template>
  </DoorForm>
</template>
