<script setup lang="ts">
import { DatePicker, Modal, Radio, RadioGroup } from 'ant-design-vue'
import dayjs, { type Dayjs } from 'dayjs'
import { computed, ref } from 'vue'

import { put, ServerTrouble } from '../../api/client'
import type { DropView } from '../../api/schema'
import { takeAway } from '../home/TakeAway'
import { told } from '../../shared/attempt'
import { moment } from '../../shared/words'
import Choice from '../../shared/Choice.vue'

/** When what came in one drop was received: proposed from the zip, confirmed by a person. */
const props = defineProps<{ drop: DropView }>()
const emit = defineEmits<{ changed: []; close: [] }>()
const here = Intl.DateTimeFormat().resolvedOptions().timeZone
const times = ref<'upload' | 'archive' | 'given'>(
  props.drop.is_confirmed ? (props.drop.times as 'upload') : props.drop.last ? 'archive' : 'upload',
)
const zone = ref(props.drop.zone || here)
const at = ref<Dayjs>(dayjs(`${props.drop.at}Z`))
const zones = computed(() =>
  [here, 'UTC', ...Intl.supportedValuesOf('timeZone').filter((z) => z !== here && z !== 'UTC')].map((value) => ({ value })),
)
const wall = (iso: string | null): string => (iso ? dayjs(iso).format('ddd D MMM, HH:mm') : '')

function done(): void {
  emit('changed')
  emit('close')
}
async function keep(): Promise<void> {
  const given = times.value === 'given' ? at.value.toISOString() : null
  await told(async () => {
    try {
      await put(`/drops/${props.drop.id}/times`, { times: times.value, zone: zone.value, at: given, over: props.drop.version })
    } catch (error) {
      // What was chosen stays, and goes over what somebody else said when it is kept once more.
      if (error instanceof ServerTrouble && error.status === 409) emit('changed')
      throw error
    }
    done()
  })
}
</script>

<template>
  <Modal open :title="`When was ${drop.name} received?`" ok-text="Keep" :width="560" @ok="keep" @cancel="emit('close')">
    <p class="quiet">
      Until this is said nobody is late by it. Times in a zip are a proposal: they have no zone, and anybody can set them.
    </p>
    <RadioGroup v-model:value="times" class="ways">
      <Radio value="archive" :disabled="!drop.last">
        each as the zip says<template v-if="drop.last">, {{ wall(drop.first) }} to {{ wall(drop.last) }}</template
        ><template v-else>; this one says nothing</template>
      </Radio>
      <div v-if="times === 'archive'" class="below">
        on clocks in
        <Choice v-model:value="zone" size="small" show-search :options="zones" class="zone" label="time zone" />
      </div>
      <Radio value="given">all at one time</Radio>
      <div v-if="times === 'given'" class="below">
        <DatePicker v-model:value="at" size="small" show-time format="D MMM YYYY HH:mm" :allow-clear="false" />
      </div>
      <Radio value="upload">when it was uploaded here, {{ moment(drop.at) }}</Radio>
    </RadioGroup>
    <p class="away">
      <button type="button" class="link" @click="takeAway('drop', drop.id, drop.name, done)">Take this drop away</button>
      <span class="quiet small">what came in it, with what hangs on it</span>
    </p>
  </Modal>
</template>

<style scoped>
.ways {
  display: grid;
  gap: 8px;
}
.away {
  margin-top: 14px;
}
.below {
  padding-left: 24px;
}
.zone {
  width: 240px;
}
</style>
