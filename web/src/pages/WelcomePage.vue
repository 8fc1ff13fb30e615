<script setup lang="ts">
import { Button, InputPassword } from 'ant-design-vue'
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'

import { get, sentence } from '../api/client'
import DoorForm from '../shared/DoorForm.vue'
import { FEWEST_CHARACTERS, useSession } from '../shared/session'

const props = defineProps<{ token: string }>()
const who = ref<{ name: string; email: string } | null>(null)
const password = ref('')
const trouble = ref('')
const isBusy = ref(false)
const session = useSession()
const router = useRouter()

onMounted(async () => {
  try {
    who.value = await get(`/invitation/${props.token}`)
  } catch (error) {
    trouble.value = sentence(error)
  }
})
async function submit(): Promise<void> {
  isBusy.value = true
  trouble.value = ''
  try {
    await session.accept(props.token, password.value)
    await router.push('/')
  } catch (error) {
    trouble.value = sentence(error)
  } finally {
    isBusy.value = false
  }
}
</script>

<template>
  <DoorForm :trouble="trouble" @submit="submit">
    <template v-if="who">
      <p>Welcome, <b>{{ who.name }}</b>. You sign in as {{ who.email }}.</p>
      <label>A password, {{ FEWEST_CHARACTERS }} characters or more<InputPassword v-model:value="password" name="password" autocomplete="new-password" autofocus /></label>
      <Button type="primary" html-type="submit" :disabled="password.length < FEWEST_CHARACTERS" :loading="isBusy" block>Set it and sign in</Button>
    </template>
  </DoorForm>
</template>
