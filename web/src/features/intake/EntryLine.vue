<script setup lang="ts">
import { Button, Dropdown, Input, Menu, MenuItem, Modal } from 'ant-design-vue'
import { computed, nextTick, ref } from 'vue'

import type { IntakeEntry, NameBinding } from '../../api/schema'
import { useDraft } from '../../shared/drafts'
import SentenceText from '../../shared/SentenceText.vue'
import { count, moment } from '../../shared/words'
import AttemptList from './AttemptList.vue'
import WhichFile from './WhichFile.vue'
import Choice from '../../shared/Choice.vue'

/** One hand-in: whose it is, and what each task takes from it. */
const props = defineProps<{
  entry: IntakeEntry
  titles: Map<number, string>
  people: { value: number; label: string }[]
  running: boolean
  may: boolean
}>()
const emit = defineEmits<{
  settle: [students: number[]]
  agree: [task: number, binding: NameBinding]
  choose: [task: number, unit: string]
  aside: [reason: string | null]
  changed: []
  check: []
  review: [task: number]
}>()
const owners = ref<number[]>([])
const isAsking = ref(false)
const isOpen = ref(false)
const isPutting = ref(false)
const reason = useDraft(
  () => `hand-in ${props.entry.handin_id}/aside`,
  () => '',
)
const last = computed(() => props.entry.attempts.at(-1))
const owned = computed(() => props.entry.who !== '')
/** More tasks than these, with nothing to be asked of any, are one line until somebody looks. */
const MOST_LINES = 2
const isUnfolded = ref(false)
const isFolded = computed(
  () => !isUnfolded.value && props.entry.settled && props.entry.aside === null && props.entry.tasks.length > MOST_LINES,
)
const unlike = computed(() => props.entry.tasks.filter((t) => t.status !== 'checked'))
const together = computed(() => {
  const languages = [...new Set(props.entry.tasks.map((t) => t.language).filter(Boolean))]
  return `${props.entry.tasks.length - unlike.value.length} of ${props.titles.size} tasks, ${languages.join(' and ')}`
})
const STATES: Record<string, string> = {
  checked: 'pass',
  unreadable: 'fail',
  no_unit: 'fail',
  ports: 'fail',
  stopped: 'fail',
  empty: 'fail',
}
/** The list of what else can be done is made when it is asked for: a class has hundreds of them. */
const isReached = ref(false)
const isMenuOpen = ref(false)
const opener = ref<HTMLElement>()
async function reach(): Promise<void> {
  isReached.value = true
  await nextTick()
  opener.value?.focus()
  isMenuOpen.value = true
}
function settle(students: number[]): void {
  isAsking.value = false
  owners.value = []
  emit('settle', students)
}
function putAside(): void {
  emit('aside', reason.text.value)
  reason.drop()
  isPutting.value = false
}
</script>

<template>
  <article class="entry" :class="{ open: !entry.settled, aside: entry.aside !== null }" :data-handin="entry.handin_id">
    <div class="cell label">
      <code :title="entry.label">{{ entry.label }}</code>
      <span class="quiet small"
        >{{ count(last?.files.length ?? 0, 'file') }}, {{ moment(last?.received_at ?? null)
        }}<template v-if="entry.attempts.length > 1">, {{ entry.attempts.length }} attempts</template></span
      >
      <span v-if="last?.late" class="tag undef">late</span>
      <span v-if="last?.task_id" class="tag">{{ titles.get(last.task_id) }}</span>
    </div>
    <div class="cell person">
      <template v-if="owned && !isAsking"
        ><b>{{ entry.who }}</b
        ><span v-if="entry.team" class="tag">team</span
        ><span v-else class="quiet small mono"
          >{{ entry.number }}<template v-if="entry.group"> · {{ entry.group }}</template></span
        >
      </template>
      <template v-else-if="may">
        <span v-if="entry.doubt && !isAsking" class="doubt small">{{ entry.doubt }}</span>
        <button
          v-for="p in isAsking ? [] : entry.proposals"
          :key="p.id"
          type="button"
          class="chip"
          :title="p.number"
          @click="settle([p.id])"
        >
          {{ p.name }} <small class="mono quiet">{{ p.number }}</small>
        </button>
        <button v-if="entry.is_team && !isAsking" type="button" class="chip" @click="settle(entry.proposals.map((p) => p.id))">
          both, a team
        </button>
        <Choice
          v-model:value="owners"
          mode="multiple"
          size="small"
          :options="people"
          option-filter-prop="label"
          placeholder="whose is it?"
          class="who"
          label="whose is it?"
        />
        <Button v-if="owners.length" size="small" type="primary" @click="settle(owners)">{{
          owners.length > 1 ? 'A team' : 'Theirs'
        }}</Button>
        <Button v-if="isAsking" size="small" @click="isAsking = false">Leave it</Button>
      </template>
      <span v-else class="doubt small">{{ entry.doubt || 'nobody yet' }}</span>
    </div>
    <div class="tasks">
      <div v-if="entry.aside !== null" class="task one">
        <span class="cell quiet">put aside: {{ entry.aside }}</span>
      </div>
      <button v-if="isFolded" type="button" class="task one fold" aria-expanded="false" @click="isUnfolded = true">
        <span class="cell small"
          ><span class="pass">{{ together }}</span>
          <span v-for="t in unlike" :key="t.task_id" class="why">{{ titles.get(t.task_id) }}: <SentenceText :text="t.message" /></span
        ></span>
      </button>
      <div v-for="t in entry.aside === null && !isFolded ? entry.tasks : []" :key="t.task_id" class="task">
        <span class="cell small quiet">{{ titles.get(t.task_id) }}</span>
        <span class="cell" :class="t.language ? '' : 'gap'">{{ t.language || '–' }}</span>
        <span class="cell mono" :class="t.unit ? '' : 'gap'">{{ t.unit || '–' }}</span>
        <span class="cell ports" :class="t.leftover.length ? 'asks' : STATES[t.status]">
          <template v-if="t.status === 'checked'">
            <template v-if="t.binding.some((b) => !b.agreed)">
              <button
                v-for="b in t.binding.filter((x) => !x.agreed)"
                :key="b.ours"
                type="button"
                class="chip ask"
                :title="`${b.how}: agree for everyone`"
                @click="emit('agree', t.task_id, b)"
              >
                <code>{{ b.theirs }}</code> is <code>{{ b.ours }}</code>? <small>agree</small>
              </button>
            </template>
            <template v-else-if="t.binding.length"
              ><span v-for="b in t.binding" :key="b.ours" class="small"
                ><code>{{ b.theirs }}</code> as <code>{{ b.ours }}</code>
              </span></template
            >
            <template v-else>all by name</template>
          </template>
          <template v-else-if="t.leftover.length">
            <span class="small">nothing by this name; is it</span>
            <button v-for="u in t.leftover" :key="u" type="button" class="chip ask" @click="emit('choose', t.task_id, u)">
              <code>{{ u }}</code>?
            </button>
          </template>
          <WhichFile v-else-if="t.twice.length" :handin="entry.handin_id" :task="t.task_id" :twice="t.twice" @chosen="emit('check')" />
          <button v-else type="button" class="why" @click="emit('review', t.task_id)"><SentenceText :text="t.message" /></button>
        </span>
      </div>
      <div v-if="entry.aside === null && entry.for_none" class="task one">
        <span class="cell asks">holds the unit of no task; say which it is for in its attempts</span>
      </div>
      <div v-else-if="entry.aside === null && !entry.tasks.length" class="task one">
        <span class="cell quiet">{{ running ? 'being checked…' : 'not checked yet' }}</span>
      </div>
    </div>
    <div v-if="may" class="more">
      <button v-if="!isReached" type="button" class="chip" :aria-label="`more for ${entry.who || entry.label}`" @click="reach">more</button>
      <Dropdown v-else v-model:open="isMenuOpen" :trigger="['click']">
        <button ref="opener" type="button" class="chip" :aria-label="`more for ${entry.who || entry.label}`">more</button>
        <template #overlay>
          <Menu>
            <MenuItem key="who" @click="isAsking = true">Somebody else's</MenuItem>
            <MenuItem key="attempts" @click="isOpen = true">{{ count(entry.attempts.length, 'attempt') }}: task, time, split</MenuItem>
            <MenuItem v-if="entry.aside === null" key="aside" @click="isPutting = true">Put aside</MenuItem>
            <MenuItem v-else key="back" @click="emit('aside', null)">Take back</MenuItem>
          </Menu>
        </template>
      </Dropdown>
    </div>
    <AttemptList v-if="isOpen" :entry="entry" :titles="titles" :people="people" @changed="emit('changed')" @close="isOpen = false" />
    <Modal
      v-if="isPutting"
      :open="isPutting"
      :title="`Put ${entry.label} aside`"
      ok-text="Put aside"
      :ok-button-props="{ disabled: !reason.text.value.trim() }"
      @ok="putAside"
      @cancel="isPutting = false"
    >
      <p class="quiet">It counts for nothing and is in no list but this one, until it is taken back.</p>
      <Input v-model:value="reason.text.value" name="aside-reason" placeholder="why?" />
    </Modal>
  </article>
</template>

<style scoped>
.entry > .cell,
.task > .cell {
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: 7px;
  padding: 4px 8px;
  min-width: 0;
  overflow-wrap: anywhere;
}
.label {
  display: flex;
  flex-wrap: wrap;
  gap: 0 8px;
  align-content: center;
  align-items: baseline;
}
.label code {
  font-size: 12px;
  flex-basis: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
}
.person {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 6px;
  align-content: center;
  align-items: baseline;
}
.open .person:has(.who) {
  border-color: var(--undef);
}
.doubt {
  color: var(--undef-text);
  flex-basis: 100%;
}
.who {
  width: 100%;
}
.tasks {
  display: grid;
  gap: 4px;
}
.task {
  display: grid;
  grid-template-columns: var(--task) var(--language) var(--unit) minmax(0, 1fr);
  gap: 4px;
}
.task.one {
  grid-template-columns: 1fr;
}
.task .cell {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 4px;
  font-size: 12px;
}
.fold {
  padding: 0;
  border: 0;
  background: none;
  text-align: left;
  font: inherit;
  color: inherit;
  cursor: pointer;
}
.fold .cell {
  min-height: 28px;
}
.fold .pass {
  color: var(--pass-text);
}
.fold:hover .cell {
  border-color: var(--lacquer-2);
}
.gap {
  color: var(--ink-3);
}
.ports.pass {
  color: var(--pass-text);
}
.ports.fail {
  border-color: var(--fail);
}
.asks {
  border-color: var(--undef) !important;
  color: var(--undef-text);
}
.chip {
  white-space: normal;
}
.ports .chip {
  display: inline-block;
  text-align: left;
}
.ask {
  border-color: var(--undef);
  color: var(--undef-text);
}
.why {
  border: 0;
  background: none;
  padding: 0;
  color: var(--fail-text);
  cursor: pointer;
  text-align: left;
}
.aside {
  opacity: 0.75;
}
.more {
  display: flex;
  align-items: center;
}
.entry {
  display: grid;
  grid-template-columns: var(--label) var(--person) minmax(0, 1fr) auto;
  gap: 4px;
}
</style>
