<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { Button, Dropdown, Menu, MenuItem, message } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'

import { get, post } from '../api/client'
import type { ClassCard } from '../api/schema'
import FirstSteps from '../features/home/FirstSteps.vue'
import BinList from '../features/home/BinList.vue'
import LabTray from '../features/home/LabTray.vue'
import NewClass from '../features/home/NewClass.vue'
import NewLab from '../features/home/NewLab.vue'
import { takeAway } from '../features/home/TakeAway'
import ClassPeople from '../features/people/ClassPeople.vue'
import FailedState from '../shared/FailedState.vue'
import { told } from '../shared/attempt'
import { useKeys } from '../shared/keys'
import { useResource } from '../shared/resource'
import TopBar from '../shared/TopBar.vue'
import { count } from '../shared/words'

const router = useRouter()
const { data: classes, trouble, reload } = useResource((signal) => get('/home', { signal }))
const newLabFor = ref(0)
const peopleOf = ref<ClassCard | null>(null)
const isClassOpen = ref(false)
useKeys([{ key: 'n', label: 'new lab', act: () => (newLabFor.value = classes.value?.[0]?.id ?? 0) }])

async function open(lab: number, place = 'results'): Promise<void> {
  await told(async () => {
    const view = await get(`/labs/${lab}`)
    if (router.currentRoute.value.name !== 'home') return // a second click, answered after the first one led on
    await router.push(`/lab/${lab}/task/${view.tasks[0]?.id ?? 0}/${place}`)
  })
}
const bin = ref<InstanceType<typeof BinList>>()
async function gone(): Promise<void> {
  await Promise.all([reload(), bin.value?.reload()])
}
async function copyClass(k: ClassCard): Promise<void> {
  const made = await told(() => post(`/classes/${k.id}/copy`, { name: `${k.name}, once more` }))
  if (!made) return
  message.success('made: its labs, specs, comments and terms, without people')
  await reload()
}
async function madeClass(): Promise<void> {
  isClassOpen.value = false
  await reload()
}
const isSampleComing = ref(false)
async function sample(): Promise<void> {
  isSampleComing.value = true
  if (await told(() => post('/sample-class'))) await reload()
  isSampleComing.value = false
}
/** While something is being checked, what is shown follows it; not for ever, since a spec with errors has none checked. In ms. */
const AGAIN = 2500
const FOLLOWED = 600_000
const since = performance.now()
const isWaiting = computed(() =>
  classes.value?.some((k) => k.labs.some((lab) => lab.tasks.some((t) => t.areas.some((a) => a.kind === 'waiting')))),
)
useIntervalFn(() => isWaiting.value && performance.now() - since < FOLLOWED && void reload(), AGAIN)
/** Until its first letter is out, a class is led. */
const isFirst = (k: ClassCard): boolean => !k.students || !k.labs.length || (k.labs.length === 1 && !k.labs[0].sent)
const mayManage = (k: ClassCard): boolean => k.rights.includes('manage')
function askRoster(k: ClassCard): void {
  void router.push({ name: 'class-list', params: { class: String(k.id) } })
}
</script>

<template>
  <TopBar />
  <main class="home">
    <FailedState v-if="trouble && !classes" inside :text="trouble" @again="reload" />
    <p v-else-if="trouble" class="trouble">{{ trouble }}</p>
    <section v-for="k in classes ?? []" :key="k.id">
      <div class="row spread head">
        <h1>
          {{ k.name }} <span class="quiet">{{ k.school }}</span>
        </h1>
        <div class="row">
          <span class="quiet">{{ count(k.students, 'student') }}</span>
          <Dropdown v-if="mayManage(k)" :trigger="['click']">
            <Button size="small" :aria-label="`more for ${k.name}`">More</Button>
            <template #overlay>
              <Menu>
                <MenuItem key="copy" @click="copyClass(k)">Once more, for the next year</MenuItem>
                <MenuItem key="away" @click="takeAway('class', k.id, k.name, gone)">Take away</MenuItem>
              </Menu>
            </template>
          </Dropdown>
          <Button size="small" @click="peopleOf = k">People</Button>
          <Button size="small" @click="askRoster(k)">{{ k.students || !mayManage(k) ? 'Class list' : 'Load class list' }}</Button>
          <Button v-if="mayManage(k)" size="small" type="primary" @click="newLabFor = k.id">New lab <span class="n">n</span></Button>
        </div>
      </div>
      <div class="labs">
        <LabTray v-for="lab in k.labs" :key="lab.id" :lab="lab" @open="open(lab.id)" />
        <FirstSteps
          v-if="mayManage(k) && isFirst(k)"
          :of="k"
          @list="askRoster(k)"
          @lab="newLabFor = k.id"
          @place="(place) => open(k.labs[0].id, place)"
        />
      </div>
    </section>
    <div v-if="classes && !classes.length" class="compartment empty first">
      <h2>No class yet</h2>
      <p>Make one, and its first steps are led; colleagues can let you into theirs.</p>
      <Button type="primary" @click="isClassOpen = true">New class</Button>
      <p>Or look first: a made-up class with four labs, checked. Nobody in it is real, no mail goes out, and you can take it away again.</p>
      <Button :loading="isSampleComing" @click="sample">A class to play with</Button>
    </div>
    <div v-if="classes?.length" class="row">
      <Button size="small" @click="isClassOpen = true">New class</Button>
      <Button size="small" :loading="isSampleComing" title="made up, with four labs: nobody in it is real" @click="sample"
        >A class to play with</Button
      >
    </div>
    <BinList ref="bin" @changed="reload" />
    <ClassPeople v-if="peopleOf" :of="peopleOf" @changed="reload" @close="peopleOf = null" />
    <NewLab :class-id="newLabFor" @made="(lab) => open(lab, 'spec')" @close="newLabFor = 0" />
    <NewClass :open="isClassOpen" @made="madeClass" @close="isClassOpen = false" />
  </main>
</template>

<style scoped>
.home {
  padding: 14px;
  max-width: 1280px;
  margin: 0 auto;
  display: grid;
  gap: 20px;
  justify-items: start;
}
section {
  width: 100%;
}
.head {
  margin-bottom: 10px;
}
h1 {
  font-size: 17px;
  font-weight: 600;
}
h1 span {
  font-weight: 400;
  font-size: 13px;
  margin-left: 8px;
}
.labs {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(390px, 1fr));
  gap: var(--gap);
}
.n {
  opacity: 0.7;
  font: 12px var(--mono);
  margin-left: 4px;
}
.first {
  justify-self: center;
  margin-top: 60px;
  display: grid;
  gap: 10px;
  justify-items: center;
  max-width: 460px;
}
</style>
