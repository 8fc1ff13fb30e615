<script setup lang="ts">
import { Button } from 'ant-design-vue'

import { get, post } from '../../api/client'
import type { GoneView } from '../../api/schema'
import { told } from '../../shared/attempt'
import { useResource } from '../../shared/resource'
import { moment } from '../../shared/words'

/** What was taken away and can be had back. */
const emit = defineEmits<{ changed: [] }>()
const { data: gone, reload } = useResource((signal) => get('/bin', { signal }))
async function back(g: GoneView): Promise<void> {
  if (!(await told(() => post(`/classes/${g.class_id}/bin`, { kind: g.kind, id: g.id, class_id: g.class_id })))) return
  await reload()
  emit('changed')
}
defineExpose({ reload })
</script>

<template>
  <section v-if="gone?.length" class="compartment bin">
    <div class="caption">Taken away</div>
    <p v-for="g in gone" :key="`${g.kind} ${g.id}`" :data-gone="`${g.kind} ${g.id}`">
      <span
        >{{ g.kind }} <b>{{ g.name }}</b> <span class="quiet">{{ g.place }}, {{ moment(g.at) }}</span></span
      >
      <Button size="small" @click="back(g)">Take back</Button>
    </p>
    <p class="small quiet">Each is gone for good after 30 days.</p>
  </section>
</template>

<style scoped>
.bin p {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  padding: 2px 0;
}
</style>
