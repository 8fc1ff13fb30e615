<script setup lang="ts">
import { Button, Input } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'

import { get } from '../api/client'
import type { StudentLine } from '../api/schema'
import ListPreview from '../features/classlist/ListPreview.vue'
import StudentForm from '../features/classlist/StudentForm.vue'
import FailedState from '../shared/FailedState.vue'
import { useInSight } from '../shared/inSight'
import RoomRow from '../shared/RoomRow.vue'
import { useKeys } from '../shared/keys'
import { useResource } from '../shared/resource'
import TopBar from '../shared/TopBar.vue'
import { count } from '../shared/words'

/** The class list: seen, searched, changed one by one or by file. */
const route = useRoute()
const classId = Number(route.params.class)
const { data: students, trouble, reload } = useResource((signal) => get(`/classes/${classId}/students`, { signal }))
const { data: classes } = useResource((signal) => get('/home', { signal }))
const about = computed(() => classes.value?.find((k) => k.id === classId))
const may = computed(() => about.value?.rights.includes('manage') ?? false)
const searched = ref('')
const edited = ref<StudentLine | 'new' | null>(null)
const file = ref<File | null>(null)
const input = ref<HTMLInputElement>()
const plain = (text: string): string => text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase()
const shown = computed(() => {
  const words = plain(searched.value).split(/\s+/).filter(Boolean)
  return (students.value ?? []).filter((s) => {
    const text = plain([s.name, s.number, s.email, s.group, s.team, s.remarks].join(' '))
    return words.every((w) => text.includes(w))
  })
})
/** Names that more than one has: their numbers tell them apart. */
const twice = computed(() => {
  const seen = new Map<string, number>()
  for (const s of students.value ?? []) seen.set(s.name, (seen.get(s.name) ?? 0) + 1)
  return new Set([...seen].filter(([, n]) => n > 1).map(([name]) => name))
})
const box = ref<HTMLElement>()
const { shown: seen, above, below, measure } = useInSight(() => shown.value, { box: () => box.value, height: 33 })
async function again(): Promise<StudentLine | undefined> {
  const id = edited.value === 'new' ? 0 : edited.value?.id
  return (await reload())?.find((s) => s.id === id)
}
function pick(event: Event): void {
  const field = event.target as HTMLInputElement
  file.value = field.files?.[0] ?? null
  field.value = ''
}
function focusSearch(): void {
  document.querySelector<HTMLInputElement>('input[name=search]')?.focus()
}
useKeys([{ key: '/', label: 'search', act: focusSearch }])
</script>

<template>
  <div class="shell">
    <TopBar
      ><span>{{ about?.name }}</span></TopBar
    >
    <main class="page">
      <FailedState v-if="trouble && !students" inside :text="trouble" @again="reload" />
      <p v-else-if="trouble" class="trouble">{{ trouble }}</p>
      <header class="row spread">
        <h1>
          Class list <span class="quiet">{{ count(students?.length ?? 0, 'student') }}</span>
        </h1>
        <div class="row">
          <Input v-model:value="searched" name="search" placeholder="name, number, group, anything  /" allow-clear class="search" />
          <template v-if="may">
            <Button @click="edited = 'new'">One more</Button>
            <Button type="primary" @click="input?.click()">From a file</Button>
          </template>
          <input ref="input" type="file" name="roster" accept=".csv,.txt,.tsv,text/csv" hidden @change="pick" />
        </div>
      </header>
      <div ref="box" class="compartment table" tabindex="0" role="region" aria-label="students">
        <table v-if="students?.length" :aria-rowcount="shown.length + 1">
          <thead>
            <tr>
              <th>number</th>
              <th>name</th>
              <th>address</th>
              <th>group</th>
              <th>team</th>
              <th>remarks</th>
              <th scope="col"><span class="unseen">what to do</span></th>
            </tr>
          </thead>
          <tbody>
            <RoomRow :height="above" />
            <tr
              v-for="{ row: s, at } in seen"
              :key="s.id"
              :ref="measure"
              :data-index="at"
              :aria-rowindex="at + 2"
              :class="{ out: s.left_at }"
              :data-student="s.number"
            >
              <td class="mono">{{ s.number }}</td>
              <td>
                {{ s.name }} <span v-if="twice.has(s.name)" class="tag undef" title="another one has this name, too">namesake</span>
                <span v-if="s.left_at" class="tag">out since {{ s.left_at.slice(0, 10) }}</span>
              </td>
              <td class="small" :class="{ quiet: !s.email }">{{ s.email || 'none' }}</td>
              <td>{{ s.group }}</td>
              <td>{{ s.team }}</td>
              <td class="small wrap">{{ s.remarks }}</td>
              <td><Button v-if="may" size="small" @click="edited = s">Change</Button></td>
            </tr>
            <RoomRow :height="below" />
          </tbody>
        </table>
        <p v-if="students?.length && !shown.length" class="empty">Nobody fits “{{ searched }}”.</p>
        <div v-if="students && !students.length" class="empty">
          <h2>Nobody is in this class yet</h2>
          <p>A CSV with a number and a name for each student, in any order of columns and with any headings.</p>
          <Button v-if="may" type="primary" @click="input?.click()">From a file</Button>
        </div>
      </div>
      <ListPreview v-if="file" :class-id="classId" :file="file" @kept="reload" @close="file = null" />
      <StudentForm
        v-if="edited"
        :class-id="classId"
        :student="edited === 'new' ? null : edited"
        :again="again"
        @kept="reload"
        @close="edited = null"
      />
    </main>
  </div>
</template>

<style scoped>
.shell {
  height: 100%;
  display: flex;
  flex-direction: column;
}
.page {
  padding: 14px;
  max-width: 1280px;
  width: 100%;
  margin: 0 auto;
  display: flex;
  flex-direction: column;
  gap: 10px;
  min-height: 0;
  flex: 1;
}
h1 {
  font-size: 18px;
  font-weight: 600;
}
.search {
  width: 270px;
}
.table {
  overflow: auto;
  min-height: 0;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-size: 12px;
  color: var(--ink-2);
  font-weight: 500;
  position: sticky;
  top: 0;
  background: var(--paper);
}
th,
td {
  padding: 4px 8px;
  border-bottom: 1px solid var(--line-2);
}
.out {
  color: var(--ink-3);
}
.wrap {
  max-width: 220px;
  overflow-wrap: anywhere;
}
</style>
