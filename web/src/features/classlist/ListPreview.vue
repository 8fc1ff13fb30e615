<script setup lang="ts">
import { Checkbox, message, Modal } from 'ant-design-vue'
import { computed, ref } from 'vue'

import { post, ServerTrouble } from '../../api/client'
import { useAttempt } from '../../shared/attempt'
import { useResource } from '../../shared/resource'
import { count } from '../../shared/words'
import Choice from '../../shared/Choice.vue'

/** A class list before it is kept: what its columns are taken for, and what would change. */
const props = defineProps<{ classId: number; file: File }>()
const emit = defineEmits<{ kept: []; close: [] }>()
const SHOWN = 8
const FIELDS = [
  { value: '', label: 'kept, not used' },
  { value: 'number', label: 'number' },
  { value: 'name', label: 'full name' },
  { value: 'first', label: 'first name' },
  { value: 'family', label: 'last name' },
  { value: 'email', label: 'address' },
  { value: 'group', label: 'group' },
  { value: 'team', label: 'team' },
  { value: 'remarks', label: 'remarks' },
]
const chosen = ref<Record<string, number> | null>(null)
const goneLeave = ref(false)
const { trouble: refused, isBusy, attempt } = useAttempt()

function form(): FormData {
  const made = new FormData()
  made.append('file', props.file)
  if (chosen.value) {
    const columns = Object.entries(chosen.value).map(([field, at]) => `${field}=${at}`)
    made.append('columns', columns.join(','))
  }
  return made
}
const { data: list, trouble, reload } = useResource((signal) => post(`/classes/${props.classId}/roster/preview`, form(), { signal }))
const columns = computed(() => list.value?.columns ?? {})
const fieldOf = (at: number): string => Object.entries(columns.value).find(([, index]) => index === at)?.[0] ?? ''

function choose(at: number, field: string): void {
  const next = Object.fromEntries(Object.entries(columns.value).filter(([known, index]) => index !== at && known !== field))
  if (field) next[field] = at
  if (field === 'name') {
    delete next.first
    delete next.family
  }
  if (field === 'first' || field === 'family') delete next.name
  chosen.value = next
  void reload()
}
function keep(): Promise<void> {
  return attempt(async () => {
    const made = form()
    made.append('gone_leave', String(goneLeave.value))
    made.append('over', list.value?.version ?? '')
    const taken = await post(`/classes/${props.classId}/roster`, made).catch(async (error: unknown) => {
      if (error instanceof ServerTrouble && error.status === 409) await reload()
      throw error
    })
    message.success(`${count(taken.rows, 'student')} in the list, ${taken.new} new${taken.left ? `, ${taken.left} out since today` : ''}`)
    emit('kept')
    emit('close')
  })
}
</script>

<template>
  <Modal
    open
    :title="`What ${file.name} would change`"
    ok-text="Keep this list"
    :ok-button-props="{ disabled: !list || !!list.trouble, loading: isBusy }"
    :width="900"
    @ok="keep"
    @cancel="emit('close')"
  >
    <p v-if="trouble || refused" class="trouble" role="alert">{{ trouble || refused }}</p>
    <template v-if="list">
      <p v-if="list.trouble" class="trouble" role="alert">{{ list.trouble }}</p>
      <div class="sheet">
        <table>
          <thead>
            <tr>
              <th v-for="(heading, at) in list.header" :key="at">
                <code>{{ heading }}</code>
                <Choice
                  size="small"
                  :value="fieldOf(at)"
                  :options="FIELDS"
                  class="field"
                  :label="`what ${heading} is`"
                  @change="(field: unknown) => choose(at, String(field))"
                />
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(cells, n) in list.sample" :key="n">
              <td v-for="(cell, at) in cells" :key="at" :class="{ quiet: !fieldOf(at) }">{{ cell }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <div class="sums">
        <div>
          <b>{{ list.new.length }}</b> new
          <p v-for="who in list.new.slice(0, SHOWN)" :key="who" class="small">{{ who }}</p>
          <p v-if="list.new.length > SHOWN" class="small quiet">and {{ list.new.length - SHOWN }} more</p>
        </div>
        <div>
          <b>{{ list.changed.length }}</b> changed
          <p v-for="c in list.changed.slice(0, SHOWN)" :key="c.number" class="small">
            {{ c.name }} <span class="mono quiet">{{ c.number }}</span>: {{ c.what.join('; ') }}
          </p>
          <p v-if="list.changed.length > SHOWN" class="small quiet">and {{ list.changed.length - SHOWN }} more</p>
        </div>
        <div>
          <b>{{ list.gone.length }}</b> not in it any more
          <p v-for="s in list.gone.slice(0, SHOWN)" :key="s.id" class="small">
            {{ s.name }} <span class="mono quiet">{{ s.number }}</span>
          </p>
          <p v-if="list.gone.length > SHOWN" class="small quiet">and {{ list.gone.length - SHOWN }} more</p>
          <Checkbox v-if="list.gone.length" v-model:checked="goneLeave" name="gone-leave">they are out of the class</Checkbox>
        </div>
        <div>
          <b>{{ list.same }}</b> as they are
        </div>
      </div>
      <div v-if="list.problems.length" class="problems">
        <p v-for="p in list.problems.slice(0, 20)" :key="`${p.line} ${p.text}`" class="small" :class="{ out: p.is_left_out }">
          <span class="mono">line {{ p.line }}</span> {{ p.text }}
        </p>
        <p v-if="list.problems.length > 20" class="small quiet">and {{ list.problems.length - 20 }} more</p>
      </div>
    </template>
    <p v-else-if="!trouble" class="quiet">Reading…</p>
  </Modal>
</template>

<style scoped>
.sheet {
  overflow: auto;
  border: 1px solid var(--line);
  border-radius: 7px;
}
table {
  border-collapse: collapse;
  font-size: 12px;
}
th,
td {
  text-align: left;
  padding: 4px 8px;
  border-bottom: 1px solid var(--line-2);
  white-space: nowrap;
  max-width: 220px;
  overflow: hidden;
  text-overflow: ellipsis;
}
th code {
  display: block;
}
.field {
  width: 124px;
}
.sums {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 14px;
  margin-top: 12px;
}
.sums b {
  font-size: 18px;
}
.problems {
  margin-top: 12px;
  border-left: 3px solid var(--undef);
  padding-left: 10px;
}
.problems .out {
  color: var(--fail-text);
}
</style>
