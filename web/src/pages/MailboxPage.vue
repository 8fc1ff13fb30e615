<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { ref, watch } from 'vue'

import { get } from '../api/client'
import type { MailView } from '../api/schema'
import { useResource } from '../shared/resource'
import TopBar from '../shared/TopBar.vue'

const chosen = ref<MailView | null>(null)
const { data: mails, trouble, reload } = useResource((signal) => get('/mailbox', { signal }))
watch(mails, (found) => (chosen.value = found?.[0] ?? null))
function pieces(text: string): { text: string; link: boolean }[] {
  return text.split(/(https?:\/\/\S+)/).map((t) => ({ text: t, link: /^https?:/.test(t) }))
}
</script>

<template>
  <TopBar><h1 class="title">Mailbox</h1></TopBar>
  <p v-if="trouble" class="trouble">{{ trouble }}</p>
  <main class="page">
    <section class="compartment list">
      <div class="row spread">
        <span class="caption">What would have been sent</span><Button size="small" @click="reload">Look again</Button>
      </div>
      <p v-if="mails && !mails.length" class="empty">
        Nothing yet. Letters appear here when they are released: no mail leaves this machine.
      </p>
      <button v-for="m in mails ?? []" :key="m.id" type="button" :class="{ here: m.id === chosen?.id }" @click="chosen = m">
        <b>{{ m.to }}</b><small class="quiet">{{ m.subject }}</small>
      </button>
    </section>
    <section v-if="chosen" class="compartment mail">
      <p class="quiet">to {{ chosen.to }}, {{ chosen.date }}</p>
      <h2>{{ chosen.subject }}</h2>
      <div class="text">
        <template v-for="(p, i) in pieces(chosen.text)" :key="i">
          <a v-if="p.link" :href="p.text" class="page-link">{{ p.text }}</a>
          <span v-else>{{ p.text }}</span>
        </template>
      </div>
    </section>
  </main>
</template>

<style scoped>
.title {
  font: inherit;
  color: #fff;
  font-weight: 600;
  padding-left: 8px;
}
.page {
  display: grid;
  grid-template-columns: 380px 1fr;
  gap: var(--gap);
  padding: var(--gap);
  height: calc(100% - 46px);
}
.list {
  overflow: auto;
  display: flex;
  flex-direction: column;
  gap: 2px;
}
.list > button {
  border: 0;
  background: none;
  text-align: left;
  display: grid;
  padding: 4px 8px;
  border-radius: 6px;
  cursor: pointer;
}
.list > .here {
  background: var(--lacquer-tint);
}
.mail {
  overflow: auto;
}
h2 {
  font-size: 17px;
  margin: 4px 0 12px;
}
.text {
  font: 13px/1.6 var(--mono);
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
</style>
