<script setup lang="ts">
import { Button, Input, message, Modal, Popconfirm, Segmented } from 'ant-design-vue'
import { ref, watch } from 'vue'

import { get, post, remove } from '../../api/client'
import type { PersonView } from '../../api/schema'
import { told } from '../../shared/attempt'
import { useResource } from '../../shared/resource'
import { useSession } from '../../shared/session'

const props = defineProps<{ classId: number; className: string; open: boolean }>()
const emit = defineEmits<{ close: [] }>()

const session = useSession()
const { data: people, trouble, reload } = useResource((signal) => get(`/classes/${props.classId}/people`, { signal }), { lazy: true })
const name = ref('')
const email = ref('')
const role = ref<'ta' | 'lecturer'>('ta')
const link = ref('')
const linkFor = ref('')
const ROLES = [
  { value: 'ta', label: 'TA' },
  { value: 'lecturer', label: 'lecturer' },
]

watch(
  () => props.open,
  (isOpen) => {
    link.value = ''
    if (isOpen) void reload()
  },
)
async function invite(who: { name: string; email: string; role: 'ta' | 'lecturer' }): Promise<void> {
  await told(async () => {
    const made = await post(`/classes/${props.classId}/people`, who)
    link.value = made.link
    linkFor.value = who.name
    if (!made.link) message.success(`${who.name} finds the class after the next sign-in`)
    name.value = email.value = ''
    await reload()
  })
}
async function takeOff(person: PersonView): Promise<void> {
  if (await told(() => remove(`/classes/${props.classId}/people/${person.id}`))) await reload()
}
async function copy(): Promise<void> {
  await navigator.clipboard.writeText(link.value)
  message.success('copied')
}
</script>

<template>
  <Modal :open="open" :title="`Who works on ${className}`" :footer="null" :width="560" @cancel="emit('close')">
    <p v-if="trouble" class="trouble">{{ trouble }}</p>
    <div v-for="p in people ?? []" :key="p.id" class="person" :data-person="p.email">
      <div>
        <b>{{ p.name }}</b> <span class="quiet">{{ p.email }}</span>
      </div>
      <span class="tag">{{ p.role === 'ta' ? 'TA' : 'lecturer' }}</span>
      <Button v-if="!p.joined" size="small" @click="invite(p)">New link</Button>
      <Popconfirm v-if="p.id !== session.me?.id" :title="`Take ${p.name} off this class?`" ok-text="Take off" @confirm="takeOff(p)"
        ><Button size="small">Take off</Button></Popconfirm
      >
    </div>
    <form class="add" @submit.prevent="invite({ name, email, role })">
      <Input v-model:value="name" name="colleague-name" placeholder="first and last name" />
      <Input v-model:value="email" name="colleague-email" type="email" placeholder="e-mail" />
      <Segmented v-model:value="role" :options="ROLES" />
      <Button type="primary" html-type="submit" :disabled="!name.trim() || !email.includes('@')">Add</Button>
    </form>
    <div v-if="link" class="link">
      <p>Pass this on to {{ linkFor }}. It sets a password, once, within seven days, and is shown only now:</p>
      <div class="row">
        <code>{{ link }}</code><Button size="small" @click="copy">Copy</Button>
      </div>
    </div>
  </Modal>
</template>

<style scoped>
.person {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 7px 0;
  border-bottom: 1px solid var(--line);
}
.person > div {
  flex: 1;
  min-width: 0;
}
.add {
  display: grid;
  grid-template-columns: 1fr 1fr auto auto;
  gap: 8px;
  margin-top: 14px;
  align-items: center;
}
.link {
  margin-top: 14px;
  padding: 10px 12px;
  background: var(--rice);
  border-radius: 6px;
  display: grid;
  gap: 6px;
}
.link code {
  font: 12px var(--mono);
  overflow-wrap: anywhere;
  flex: 1;
}
</style>
