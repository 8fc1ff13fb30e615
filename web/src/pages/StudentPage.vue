<script setup lang="ts">
import { get } from '../api/client'
import LetterSheet from '../features/feedback/LetterSheet.vue'
import { useResource } from '../shared/resource'
import { moment } from '../shared/words'

const props = defineProps<{ token: string }>()
const { data: page, trouble } = useResource((signal) => get(`/page/${encodeURIComponent(props.token)}`, { signal }))
</script>

<template>
  <main class="sheet">
    <LetterSheet v-if="page" :letter="page.letter" />
    <p v-else-if="trouble" class="trouble">{{ trouble }}</p>
    <p v-else class="quiet">Loading…</p>
    <p v-if="page" class="quiet small">
      Your own page, released {{ moment(page.released_at) }}. The link holds until {{ moment(page.expires_at) }}; please do not pass it on.
    </p>
  </main>
</template>

<style scoped>
.sheet {
  display: grid;
  justify-items: center;
  gap: 10px;
  padding: 28px 16px;
}
</style>
