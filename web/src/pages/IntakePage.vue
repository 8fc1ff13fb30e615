<script setup lang="ts">
import { Button, message, Select } from 'ant-design-vue'
import { computed, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import { get, post, put, sentence } from '../api/client'
import type { DropResult, Intake, IntakeEntry, NameBinding } from '../api/types'
import WhichFile from '../features/lab/WhichFile.vue'
import { useKeys } from '../shared/keys'
import { useLab } from '../shared/lab'
import { count, moment } from '../shared/words'

const store = useLab()
const router = useRouter()
const intake = ref<Intake | null>(null)
const trouble = ref('')
const isOver = ref(false)
const progress = ref('')
const last = ref<DropResult | null>(null)
const input = ref<HTMLInputElement>()
const owners = ref<Record<number, number[]>>({})

async function load(): Promise<void> {
  try {
    intake.value = await get<Intake>(`/labs/${store.lab?.id}/intake`)
    await store.refresh()
  } catch (error) {
    trouble.value = sentence(error)
  }
}
onMounted(load)
watch(() => store.finished, load)

async function take(files: FileList | null): Promise<void> {
  isOver.value = false
  for (const file of Array.from(files ?? [])) {
    progress.value = `taking in ${file.name}`
    const form = new FormData()
    form.append('file', file)
    try {
      last.value = await post<DropResult>(`/labs/${store.lab?.id}/drops`, form)
      message.success(`${count(last.value.new_attempts, 'new attempt')}${last.value.repeated ? `, ${last.value.repeated} known already` : ''}`)
    } catch (error) {
      message.error(sentence(error), 8)
    }
  }
  progress.value = ''
  if (input.value) input.value.value = ''
  await load()
  await store.check()
}
async function settle(entry: IntakeEntry, ids?: number[]): Promise<void> {
  const students = ids ?? owners.value[entry.handin_id] ?? []
  if (!students.length) return
  try {
    await put(`/handins/${entry.handin_id}/owner`, { student_ids: students })
    await load()
  } catch (error) {
    message.error(sentence(error))
  }
}
async function agree(task: number, b: NameBinding): Promise<void> {
  await post(`/tasks/${task}/consents`, { ours: b.ours, theirs: b.theirs })
  await load()
}
const options = computed(() => (intake.value?.students ?? []).map((s) => ({ value: s.id, label: `${s.name} ${s.number}` })))
const unsettled = computed(() => intake.value?.entries.filter((e) => !e.settled) ?? [])
const settled = computed(() => intake.value?.entries.filter((e) => e.settled) ?? [])
const leftOut = computed(() => (intake.value?.drops ?? []).flatMap((d) => d.left_out.map((text) => `${d.name}: ${text}`)))
function taskTitle(id: number): string {
  return store.lab?.tasks.find((t) => t.id === id)?.title ?? ''
}
function state(status: string): string {
  return { checked: 'pass', unreadable: 'fail', no_unit: 'fail', ports: 'fail', stopped: 'fail', empty: 'fail' }[status] ?? ''
}
useKeys([
  { key: 'u', label: 'choose a zip', act: () => input.value?.click() },
  { key: 'r', label: 'check what is new', act: () => void store.check() },
])
</script>

<template>
  <p v-if="trouble" class="trouble">{{ trouble }}</p>
  <main v-else-if="intake" class="page">
    <aside class="side">
      <div
        class="compartment drop" :class="{ over: isOver }" @dragover.prevent="isOver = true" @dragleave="isOver = false"
        @drop.prevent="take($event.dataTransfer?.files ?? null)"
      >
        <b>{{ progress || 'Drop a zip here' }}</b>
        <p class="quiet small">one folder, zip or file for each student; numbers and names find their owners</p>
        <Button size="small" @click="input?.click()">Choose <span class="k">u</span></Button>
        <input ref="input" type="file" name="drop" multiple hidden @change="take(($event.target as HTMLInputElement).files)" />
      </div>
      <div v-if="intake.drops.length" class="compartment">
        <div class="caption">Drops</div>
        <p v-for="d in intake.drops" :key="d.at" class="small"><code>{{ d.name }}</code> <span class="quiet">{{ moment(d.at) }}, {{ count(d.files, 'file') }}</span></p>
      </div>
      <div v-if="leftOut.length" class="compartment">
        <div class="caption">Left out</div>
        <p v-for="text in leftOut.slice(0, 12)" :key="text" class="small quiet wrap">{{ text }}</p>
        <p v-if="leftOut.length > 12" class="small quiet">and {{ leftOut.length - 12 }} more</p>
      </div>
      <div v-if="intake.missing.length" class="compartment">
        <div class="caption">{{ intake.missing.length }} missing</div>
        <span v-for="s in intake.missing.slice(0, 40)" :key="s.id" class="chip plain">{{ s.name }}</span>
      </div>
    </aside>
    <section class="lines">
      <div class="line heads small quiet"><span>handed in as</span><span>person</span><span>task</span><span>language</span><span>unit</span><span>ports</span></div>
      <template v-for="(group, g) in [unsettled, settled]" :key="g">
        <h2 v-if="group.length">{{ g === 0 ? `${group.length} to look at` : `${group.length} settled` }}</h2>
        <article v-for="e in group" :key="e.handin_id" class="entry" :class="{ open: g === 0 }" :data-handin="e.handin_id">
          <div class="cell label">
            <code>{{ e.label }}</code>
            <span class="quiet small">{{ count(e.files.length, 'file') }}, {{ moment(e.received_at) }}<template v-if="e.attempts > 1">, attempt {{ e.attempt }}</template></span>
            <span v-if="e.late" class="tag undef">late</span>
          </div>
          <div class="cell person">
            <template v-if="e.who"><b>{{ e.who }}</b><span v-if="e.team" class="tag">team</span><span v-else class="quiet small mono">{{ e.number }}</span></template>
            <template v-else>
              <span v-for="p in e.proposals" :key="p.id"><button type="button" class="chip" @click="settle(e, [p.id])">{{ p.name }}?</button></span>
              <Select v-model:value="owners[e.handin_id]" mode="multiple" size="small" :options="options" option-filter-prop="label" placeholder="whose is it?" class="who" @change="() => undefined" />
              <Button v-if="owners[e.handin_id]?.length" size="small" type="primary" @click="settle(e)">{{ owners[e.handin_id].length > 1 ? 'A team' : 'Theirs' }}</Button>
            </template>
          </div>
          <div class="tasks">
            <div v-for="t in e.tasks" :key="t.task_id" class="task">
              <span class="cell small quiet">{{ taskTitle(t.task_id) }}</span>
              <span class="cell" :class="t.language ? '' : 'gap'">{{ t.language || '–' }}</span>
              <span class="cell mono" :class="t.unit ? '' : 'gap'">{{ t.unit || '–' }}</span>
              <span class="cell ports" :class="state(t.status)">
                <template v-if="t.status === 'checked'">
                  <template v-if="t.binding.some((b) => !b.agreed)">
                    <button v-for="b in t.binding.filter((x) => !x.agreed)" :key="b.ours" type="button" class="chip ask" :title="`${b.how}: agree for everyone`" @click="agree(t.task_id, b)"><code>{{ b.theirs }}</code> is <code>{{ b.ours }}</code>? <small>agree</small></button>
                  </template>
                  <template v-else-if="t.binding.length"><span v-for="b in t.binding" :key="b.ours" class="small"><code>{{ b.theirs }}</code> as <code>{{ b.ours }}</code> </span></template>
                  <template v-else>all by name</template>
                </template>
                <WhichFile v-else-if="t.twice.length" :handin="e.handin_id" :task="t.task_id" :twice="t.twice" @chosen="store.check()" />
                <button v-else type="button" class="why" @click="router.push(`/lab/${store.lab?.id}/task/${t.task_id}/review/${e.handin_id}`)">{{ t.message }}</button>
              </span>
            </div>
            <div v-if="!e.tasks.length" class="task"><span class="cell quiet">{{ store.run ? 'being checked…' : 'not checked yet' }}</span></div>
          </div>
        </article>
      </template>
      <div v-if="!intake.entries.length" class="compartment empty"><h2>Nothing has been handed in</h2>Drop the class's zip at the left.</div>
    </section>
  </main>
  <p v-else class="empty">Loading…</p>
</template>

<style scoped>
.page { display: grid; grid-template-columns: 236px 1fr; gap: var(--gap); padding: var(--gap); flex: 1; min-height: 0; }
.side { display: flex; flex-direction: column; gap: var(--gap); overflow: auto; }
.drop { border-style: dashed; border-color: var(--none); text-align: center; display: grid; gap: 8px; justify-items: center; padding: 22px 14px; }
.drop.over { border-color: var(--lacquer); background: var(--lacquer-tint); }
.wrap { overflow-wrap: anywhere; }
.lines { overflow: hidden auto; display: flex; flex-direction: column; gap: 5px; }
h2 { font-size: 13px; font-weight: 600; margin-top: 6px; }
.line.heads, .entry { display: grid; grid-template-columns: 200px 180px minmax(0, 1fr); gap: 4px; }
.line.heads { grid-template-columns: 200px 180px 156px 62px 122px minmax(0, 1fr); }
.heads span { padding-left: 9px; }
.entry > .cell, .task > .cell { background: var(--paper); border: 1px solid var(--line); border-radius: 7px; padding: 4px 8px; min-width: 0; overflow-wrap: anywhere; }
.label { display: flex; flex-wrap: wrap; gap: 0 8px; align-content: center; align-items: baseline; }
.label code { font-size: 12px; flex-basis: 100%; overflow: hidden; text-overflow: ellipsis; }
.person { display: flex; flex-wrap: wrap; gap: 4px 6px; align-content: center; align-items: baseline; }
.open .person:has(.who) { border-color: var(--undef); }
.who { width: 100%; }
.tasks { display: grid; gap: 4px; }
.task { display: grid; grid-template-columns: 156px 62px 122px minmax(0, 1fr); gap: 4px; }
.task .cell { display: flex; align-items: center; flex-wrap: wrap; gap: 4px; font-size: 12px; }
.gap { color: var(--ink-3); }
.ports.pass { color: var(--pass-text); }
.ports.fail { border-color: var(--fail); }
.chip { white-space: normal; }
.ports .chip { display: inline-block; text-align: left; }
.ask { border-color: var(--undef); color: var(--undef-text); }
.why { border: 0; background: none; padding: 0; color: var(--fail-text); cursor: pointer; text-align: left; }
.k { opacity: 0.7; font: 11px var(--mono); margin-left: 4px; }
.trouble { margin: 10px; }
</style>
