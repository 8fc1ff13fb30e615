<script setup lang="ts">
import { Button, Checkbox, Input, message, Modal, Popconfirm, Segmented } from 'ant-design-vue'
import { computed, ref } from 'vue'

import { get, post, put, remove } from '../../api/client'
import type { ClassCard, PersonView } from '../../api/schema'
import { told } from '../../shared/attempt'
import DraftNote from '../../shared/DraftNote.vue'
import { useFormDraft } from '../../shared/formDraft'
import { useResource } from '../../shared/resource'
import { useSession } from '../../shared/session'
import Choice from '../../shared/Choice.vue'

const props = defineProps<{ of: ClassCard }>()
const emit = defineEmits<{ changed: []; close: [] }>()

type Role = PersonView['role']
const session = useSession()
const { data: people, trouble, reload } = useResource((signal) => get(`/classes/${props.of.id}/people`, { signal }))
const { form, from, isChanged, drop, said, done } = useFormDraft(
  () => `class ${props.of.id}/colleague`,
  () => ({ name: '', email: '', role: 'ta' as Role }),
)
const link = ref('')
const linkFor = ref('')
const tasRelease = ref(props.of.tas_release)
const tasManage = ref(props.of.tas_manage)
const language = ref(props.of.language)
const languages = computed(() => Object.entries(props.of.languages).map(([value, label]) => ({ value, label })))
const mayManage = computed(() => props.of.rights.includes('manage'))
const ROLES: { value: Role; label: string; title: string }[] = [
  { value: 'lecturer', label: 'lecturer', title: 'terms, specs, people, letters, and all that a TA does' },
  { value: 'ta', label: 'TA', title: 'takes in, checks, comments, marks' },
  { value: 'reader', label: 'reader', title: 'looks at everything, changes nothing' },
]
const WORDS: Record<Role, string> = { lecturer: 'lecturer', ta: 'TA', reader: 'reader' }

/** Also who is not let in shows as they are by now: somebody else may have seen to them. */
async function invite(who: { name: string; email: string; role: Role; over: Role | null }): Promise<boolean> {
  const sent = await told(async () => {
    const made = await post(`/classes/${props.of.id}/people`, who)
    link.value = made.link
    linkFor.value = who.name
    if (!made.link) {
      message.success(made.mailed ? `a link is on its way to ${who.email}` : `${who.name} finds the class after the next sign-in`)
    }
  })
  await reload()
  return sent
}
async function add(): Promise<void> {
  const kept = said()
  if (!(await invite({ ...form, over: null }))) return
  done(kept)
  drop()
}
async function setRights(): Promise<void> {
  const rights = { tas_release: tasRelease.value, tas_manage: tasManage.value, language: language.value }
  const kept = await told(() => put(`/classes/${props.of.id}/rights`, rights))
  if (kept) emit('changed')
}
async function takeOff(person: PersonView): Promise<void> {
  if (await told(() => remove(`/classes/${props.of.id}/people/${person.id}`))) await reload()
}
async function copy(): Promise<void> {
  await navigator.clipboard.writeText(link.value)
  message.success('copied')
}
</script>

<template>
  <Modal open :title="`Who works on ${of.name}`" :footer="null" :width="560" @cancel="emit('close')">
    <p v-if="trouble" class="trouble">{{ trouble }}</p>
    <div v-for="p in people ?? []" :key="p.id" class="person" :data-person="p.email">
      <div>
        <b>{{ p.name }}</b> <span class="quiet">{{ p.email }}</span>
      </div>
      <Choice
        v-if="mayManage"
        :value="p.role"
        :options="ROLES"
        size="small"
        class="role"
        :label="`role of ${p.name}`"
        @change="(chosen: unknown) => invite({ ...p, role: chosen as Role, over: p.role })"
      />
      <span v-else class="tag">{{ WORDS[p.role] }}</span>
      <Button v-if="!p.joined && mayManage" size="small" @click="invite({ ...p, over: p.role })">New link</Button>
      <Popconfirm
        v-if="p.id !== session.me?.id && mayManage"
        :title="`Take ${p.name} off this class?`"
        ok-text="Take off"
        @confirm="takeOff(p)"
        ><Button size="small">Take off</Button></Popconfirm
      >
    </div>
    <form v-if="mayManage" class="add" @submit.prevent="add">
      <DraftNote v-if="isChanged" :from="from" class="wide" @drop="drop" @keep="add" />
      <Input v-model:value="form.name" name="colleague-name" placeholder="first and last name" />
      <Input v-model:value="form.email" name="colleague-email" type="email" placeholder="e-mail" />
      <Segmented v-model:value="form.role" :options="ROLES" />
      <Button type="primary" html-type="submit" :disabled="!form.name.trim() || !form.email.includes('@')">Add</Button>
    </form>
    <div v-if="mayManage" class="rights">
      <Checkbox v-model:checked="tasRelease" name="tas-release" @change="setRights">TAs release letters</Checkbox>
      <Checkbox v-model:checked="tasManage" name="tas-manage" @change="setRights">TAs set terms, specs and people</Checkbox>
      <label class="row"
        >letters in <Choice v-model:value="language" :options="languages" size="small" class="role" label="letters in" @change="setRights"
      /></label>
    </div>
    <div v-if="link" class="link">
      <p>Pass this on to {{ linkFor }}. It sets a password, once, within seven days, and is shown only now; it was mailed as well:</p>
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
.person > div:first-child {
  flex: 1;
  min-width: 0;
}
.wide {
  grid-column: 1 / -1;
}
.add {
  display: grid;
  grid-template-columns: 1fr 1fr auto auto;
  gap: 8px;
  margin-top: 14px;
  align-items: center;
}
.role {
  width: 104px;
}
.rights {
  margin-top: 14px;
  display: flex;
  flex-wrap: wrap;
  gap: 10px 18px;
  white-space: nowrap;
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
