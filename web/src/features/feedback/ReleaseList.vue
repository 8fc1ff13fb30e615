<script setup lang="ts">
import { Button, Modal } from 'ant-design-vue'
import { computed } from 'vue'
import { useRouter } from 'vue-router'

import { get } from '../../api/client'
import { isAnythingUnkept } from '../../shared/drafts'
import LongWork from '../../shared/LongWork.vue'
import { useResource } from '../../shared/resource'
import { useWork, type Work } from '../../shared/work'
import { count } from '../../shared/words'

/** What is read before letters go out: what stands against it, and who would get what. */
const props = defineProps<{
  labId: number
  classId: number
  taskId: number
  only: number[] | null
  busy: boolean
  releasing: Work
}>()
const emit = defineEmits<{ release: [students: number[] | null]; close: [] }>()
const SHOWN = 6
const router = useRouter()
const reading = useWork()
const { data: plan, trouble } = useResource((signal) => reading.during((key) => get(`/labs/${props.labId}/release`, { signal, work: key })))
const mine = <T extends { student_id: number }>(all: T[]): T[] => all.filter((r) => !props.only || props.only.includes(r.student_id))
const fresh = computed(() => mine(plan.value?.new ?? []))
const corrected = computed(() => mine(plan.value?.corrected ?? []))
const letters = computed(() => fresh.value.length + corrected.value.length)
const unmailed = computed(() => mine(plan.value?.without_address ?? []).length)
const names = (of: { name: string }[]): string =>
  of
    .slice(0, SHOWN)
    .map((r) => r.name)
    .join(', ') + (of.length > SHOWN ? ` and ${of.length - SHOWN} more` : '')

function go(place: string, task: number | null): void {
  emit('close')
  if (place === 'class-list') void router.push({ name: place, params: { class: String(props.classId) } })
  else void router.push(`/lab/${props.labId}/task/${task ?? props.taskId}/${place}`)
}
</script>

<template>
  <Modal open :title="only ? 'Before these letters go out' : 'Before the letters go out'" :width="680" @cancel="emit('close')">
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <template v-if="plan">
      <ul v-if="plan.against.length || isAnythingUnkept" class="against">
        <li v-for="a in plan.against" :key="a.text" :data-against="a.kind">
          <span>{{ a.text }}</span>
          <button type="button" class="link" @click="go(a.place, a.task_id)">look</button>
        </li>
        <li v-if="isAnythingUnkept"><span>a text on this page is not kept: letters say what is kept</span></li>
      </ul>
      <p v-else class="ready">Nothing stands against it.</p>
      <h3>
        <b>{{ fresh.length }}</b> {{ fresh.length === 1 ? 'new letter' : 'new letters' }}
      </h3>
      <p class="small quiet">{{ names(fresh) }}</p>
      <template v-if="corrected.length">
        <h3>
          <b>{{ corrected.length }}</b> corrected: they get a letter that says so
        </h3>
        <p v-for="c in corrected.slice(0, SHOWN)" :key="c.student_id" class="small">
          {{ c.name }} <span class="quiet">{{ c.what.join('; ') }}</span>
        </p>
        <p v-if="corrected.length > SHOWN" class="small quiet">and {{ corrected.length - SHOWN }} more</p>
      </template>
      <p v-if="plan.unchanged && !only" class="small quiet">
        {{ count(plan.unchanged, 'letter says', 'letters say') }} what {{ plan.unchanged === 1 ? 'it said' : 'they said' }}: no mail goes
        out.
      </p>
      <p v-if="unmailed" class="small quiet">
        {{ unmailed }} of them without a mail, since there is no address: the letter is there all the same.
      </p>
    </template>
    <LongWork
      v-else-if="reading.isShown"
      label="looked at"
      :done="reading.done"
      :total="reading.total"
      @cancel="(reading.stop(), emit('close'))"
    />
    <p v-else-if="!trouble" class="quiet">Reading…</p>
    <LongWork v-if="releasing.isShown" label="frozen" :done="releasing.done" :total="releasing.total" @cancel="releasing.stop" />
    <template #footer>
      <Button @click="emit('close')">Not yet</Button>
      <Button type="primary" :disabled="!letters" :loading="busy" @click="emit('release', only)"
        >Release {{ count(letters, 'letter') }}</Button
      >
    </template>
  </Modal>
</template>

<style scoped>
.against {
  border-left: 3px solid var(--undef);
  padding-left: 10px;
  display: grid;
  gap: 4px;
  margin-bottom: 10px;
}
.against li {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}
.against span {
  min-width: 0;
  overflow-wrap: anywhere;
}
.ready {
  color: var(--pass-text);
}
h3 {
  font-size: 13px;
  margin-top: 8px;
}
h3 b {
  font-size: 18px;
}
</style>
