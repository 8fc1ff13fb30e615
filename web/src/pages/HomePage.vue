<script setup lang="ts">
import { Button, DatePicker, Input, message, Modal } from 'ant-design-vue'
import type { Dayjs } from 'dayjs'
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'

import { get, post, sentence } from '../api/client'
import type { Area, ClassCard, Lab } from '../api/types'
import ClassPeople from '../features/people/ClassPeople.vue'
import { useKeys } from '../shared/keys'
import TopBar from '../shared/TopBar.vue'
import { count, moment } from '../shared/words'

const classes = ref<ClassCard[] | null>(null)
const trouble = ref('')
const router = useRouter()
const newLabFor = ref<ClassCard | null>(null)
const peopleOf = ref<ClassCard | null>(null)
const newClassOpen = ref(false)
const title = ref('')
const school = ref('')
const due = ref<Dayjs | undefined>()
const rosterInput = ref<HTMLInputElement>()
const rosterFor = ref(0)

async function load(): Promise<void> {
  try {
    classes.value = await get<ClassCard[]>('/home')
  } catch (error) {
    trouble.value = sentence(error)
  }
}
onMounted(load)
useKeys([{ key: 'n', label: 'new lab', act: () => classes.value?.[0] && askLab(classes.value[0]) }])

function askLab(k: ClassCard): void {
  title.value = ''
  due.value = undefined
  newLabFor.value = k
}
async function open(lab: number, place = 'results'): Promise<void> {
  const view = await get<Lab>(`/labs/${lab}`)
  await router.push(`/lab/${lab}/task/${view.tasks[0]?.id ?? 0}/${place}`)
}
async function addLab(): Promise<void> {
  if (!newLabFor.value || !title.value.trim()) return
  try {
    const made = await post<{ id: number }>(`/classes/${newLabFor.value.id}/labs`, { title: title.value, due_at: due.value?.toISOString() ?? null })
    newLabFor.value = null
    await open(made.id, 'spec')
  } catch (error) {
    message.error(sentence(error))
  }
}
async function addClass(): Promise<void> {
  if (!title.value.trim()) return
  await post('/classes', { name: title.value, school: school.value })
  newClassOpen.value = false
  await load()
}
function askRoster(k: ClassCard): void {
  rosterFor.value = k.id
  rosterInput.value?.click()
}
async function putRoster(event: Event): Promise<void> {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (!file) return
  const form = new FormData()
  form.append('file', file)
  try {
    await post(`/classes/${rosterFor.value}/roster`, form)
    await load()
  } catch (error) {
    message.error(sentence(error))
  }
  ;(event.target as HTMLInputElement).value = ''
}
function words(areas: Area[]): string {
  const sum = (kind: string) => areas.filter((a) => a.kind === kind).reduce((n, a) => n + a.count, 0)
  const parts = [
    sum('right') && `${sum('right')} right`, sum('wrong') && `${sum('wrong')} wrong`, sum('unchecked') && `${sum('unchecked')} not checked`,
    sum('missing') && `${sum('missing')} missing`,
  ]
  return parts.filter(Boolean).join(', ')
}
</script>

<template>
  <TopBar />
  <main class="home">
    <p v-if="trouble" class="trouble">{{ trouble }}</p>
    <section v-for="k in classes ?? []" :key="k.id">
      <div class="row spread head">
        <h1>{{ k.name }} <span class="quiet">{{ k.school }}</span></h1>
        <div class="row">
          <span class="quiet">{{ count(k.students, 'student') }}</span>
          <Button size="small" @click="peopleOf = k">People</Button>
          <Button size="small" @click="askRoster(k)">{{ k.students ? 'Update' : 'Load' }} class list</Button>
          <Button size="small" type="primary" @click="askLab(k)">New lab <span class="n">n</span></Button>
        </div>
      </div>
      <div class="labs">
        <button v-for="lab in k.labs" :key="lab.id" type="button" class="compartment lab" @click="open(lab.id)">
          <div class="row spread"><b>{{ lab.title }}</b><span class="quiet small">{{ lab.due_at ? `due ${moment(lab.due_at)}` : 'no due date' }}</span></div>
          <div class="tray" :aria-label="words(lab.areas)">
            <i v-for="(area, i) in lab.areas" :key="i" :class="area.kind" :style="{ flexGrow: area.count, flexBasis: `${Math.max(22, area.count * 9)}px` }">{{ area.count }}</i>
            <i v-if="!lab.areas.length" class="missing" style="flex-grow: 1">nothing yet</i>
          </div>
          <div class="row spread small quiet"><span>{{ lab.tasks.join(' · ') }}</span></div>
          <div class="row spread small"><span>{{ lab.handed_in }} of {{ lab.students }} handed in</span><span>{{ lab.sent }} letters out</span></div>
        </button>
        <div v-if="!k.students || !k.labs.length" class="compartment steps">
          <p :class="{ done: k.students }"><b>1</b> The class list: a CSV with a number and a name for each student, in any order of columns, and e-mails for the letters.</p>
          <Button v-if="!k.students" size="small" type="primary" @click="askRoster(k)">Load class list</Button>
          <p :class="{ done: k.labs.length }"><b>2</b> A lab: a specification, then the zip with what was handed in.</p>
          <Button v-if="k.students && !k.labs.length" size="small" type="primary" @click="askLab(k)">New lab</Button>
        </div>
      </div>
    </section>
    <div v-if="classes && !classes.length" class="compartment empty first">
      <h2>No class yet</h2>
      <p>Make one, load its list, and drop in what was handed in. Colleagues can let you into theirs.</p>
      <Button type="primary" @click="((newClassOpen = true), (title = ''))">New class</Button>
    </div>
    <Button v-if="classes?.length" size="small" @click="((newClassOpen = true), (title = ''))">New class</Button>
    <input ref="rosterInput" type="file" accept=".csv,text/csv" hidden @change="putRoster" />
    <ClassPeople v-if="classes" :class-id="peopleOf?.id ?? 0" :class-name="peopleOf?.name ?? ''" :open="!!peopleOf" @close="peopleOf = null" />
    <Modal :open="!!newLabFor" title="New lab" ok-text="Make it" @ok="addLab" @cancel="newLabFor = null">
      <div class="form">
        <label>Title<Input v-model:value="title" name="lab-title" @press-enter="addLab" /></label>
        <label>Due<DatePicker v-model:value="due" show-time format="ddd D MMM YYYY, HH:mm" style="width: 100%" /></label>
      </div>
    </Modal>
    <Modal v-model:open="newClassOpen" title="New class" ok-text="Make it" @ok="addClass">
      <div class="form">
        <label>Name<Input v-model:value="title" name="class-name" /></label>
        <label>School<Input v-model:value="school" name="school" /></label>
      </div>
    </Modal>
  </main>
</template>

<style scoped>
.home { padding: 14px; max-width: 1280px; margin: 0 auto; display: grid; gap: 20px; justify-items: start; }
section { width: 100%; }
.head { margin-bottom: 10px; }
h1 { font-size: 17px; font-weight: 600; }
h1 span { font-weight: 400; font-size: 13px; margin-left: 8px; }
.labs { display: grid; grid-template-columns: repeat(auto-fill, minmax(390px, 1fr)); gap: var(--gap); }
.lab { display: grid; gap: 8px; text-align: left; cursor: pointer; font: inherit; }
.lab:hover { border-color: var(--lacquer-2); }
.tray { display: flex; flex-wrap: wrap; gap: 4px; background: var(--rice); border: 1px solid var(--line); border-radius: 7px; padding: 4px; min-height: 96px; align-content: stretch; }
.tray i { font: 600 13px var(--sans); display: grid; place-items: center; border-radius: 4px; min-height: 40px; color: var(--ink-2); background: var(--paper); }
.tray i.right { background: var(--pass-tint); color: var(--pass-text); }
.tray i.wrong { background: var(--fail-tint); color: var(--fail-text); }
.tray i.rules { background: var(--undef-tint); color: var(--undef-text); }
.tray i.unchecked { background: #e4e1e7; color: var(--ink); }
.tray i.missing { background: none; border: 1px dashed var(--none); }
.n { opacity: 0.7; font: 11px var(--mono); margin-left: 4px; }
.steps { display: grid; gap: 8px; align-content: start; justify-items: start; padding: 16px; }
.steps b { color: var(--lacquer); margin-right: 5px; }
.steps .done { color: var(--ink-3); text-decoration: line-through; }
.first { justify-self: center; margin-top: 60px; display: grid; gap: 10px; justify-items: center; max-width: 460px; }
.form { display: grid; gap: 12px; padding: 6px 0; }
.form label { display: grid; gap: 3px; color: var(--ink-2); }
</style>
