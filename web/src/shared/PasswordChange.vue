<script setup lang="ts">
import { InputPassword, message, Modal } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'

import { told } from './attempt'
import { FEWEST_CHARACTERS, useSession } from './session'

const props = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: [] }>()

const session = useSession()
const old = ref('')
const fresh = ref('')
const isLong = computed(() => fresh.value.length >= FEWEST_CHARACTERS)
watch(
  () => props.open,
  () => (old.value = fresh.value = ''),
)

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
