<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { ref } from 'vue'

import { get, post } from '../api/client'
import type { PageView } from '../api/schema'
import LetterSheet from '../features/feedback/LetterSheet.vue'
import { useAttempt } from '../shared/attempt'
import { useResource } from '../shared/resource'
import { filled } from '../shared/templates'
import { moment } from '../shared/words'

/** A student's own page. Opening the letter is an act on it: programs that look at links in mail open none. */
const props = defineProps<{ token: string }>()
const address = encodeURIComponent(props.token)
const { data: head, trouble } = useResource((signal) => get(`/page/${address}`, { signal }))
const page = ref<PageView | null>(null)
const at = (iso: string): string => moment(iso, head.value?.language)
const { trouble: refused, isBusy, attempt } = useAttempt()
function open(): Promise<void> {
  return attempt(async () => {
    page.value = await post(`/letter/${address}`)
  })
}
</script>

<template>
  <main class="sheet">
    <p v-if="trouble || refused" class="trouble" role="alert">{{ trouble || refused }}</p>
    <section v-else-if="head && !page" class="door">
      <small>{{ head.school }} · {{ head.class_name }}</small>
      <h1>{{ head.lab }}</h1>
      <p>
        {{ filled(head.words, head.corrects ? 'feedback-corrected' : 'feedback', { student: head.student, date: at(head.released_at) }) }}
      </p>
      <Button type="primary" size="large" :loading="isBusy" @click="open">{{ filled(head.words, 'open-letter') }}</Button>
    </section>
    <p v-else-if="!head" class="quiet">Loading…</p>
    <template v-if="page">
      <LetterSheet :letter="page.letter" />
      <details v-for="e in page.earlier" :key="e.number" class="earlier">
        <summary>{{ filled(page.letter.words, 'before-corrected', { date: at(e.released_at) }) }}</summary>
        <LetterSheet :letter="e.letter" />
      </details>
      <p class="quiet small">
        {{ filled(page.letter.words, 'own-page', { date: at(page.released_at), until: at(page.expires_at) }) }}
      </p>
    </template>
  </main>
</template>

<style scoped>
.sheet {
  display: grid;
  justify-items: center;
  gap: 10px;
  padding: 28px 16px;
}
.door {
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: var(--radius);
  padding: 34px 40px;
  max-width: 520px;
  display: grid;
  gap: 12px;
  justify-items: start;
}
.door h1 {
  font-size: 22px;
  font-weight: 600;
}
.earlier {
  width: 100%;
  max-width: 660px;
}
.earlier summary {
  cursor: pointer;
  color: var(--ink-2);
  padding: 6px 0;
}
</style>
