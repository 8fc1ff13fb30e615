<script setup lang="ts">
import { ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { ABOUT } from './about'
import { isAboutOpen, isHelpOpen } from './keys'
import PasswordChange from './PasswordChange.vue'
import { useSession } from './session'
import { placeInQueue } from './waiting'

const session = useSession()
const route = useRoute()
const router = useRouter()
const isPasswordOpen = ref(false)
/** Past the bar, for who goes by keys. */
function toContent(): void {
  const content = document.querySelector<HTMLElement>('main')
  content?.setAttribute('tabindex', '-1')
  content?.focus()
}
async function leave(): Promise<void> {
  await session.signOut()
  await router.push({ name: 'sign-in' })
}
</script>

<template>
  <header class="bar">
    <button type="button" class="skip" @click="toContent">to the content</button>
    <RouterLink to="/" class="brand" aria-label="obento, home">
      <svg width="22" height="20" viewBox="0 0 22 20" aria-hidden="true">
        <rect width="11" height="20" rx="2.500" fill="#f3c49b" />
        <rect x="13" width="8" height="8" rx="2" fill="#fff" />
        <circle cx="17" cy="15" r="4.600" fill="#e9dfe7" />
      </svg>
      <b>obento</b>
    </RouterLink>
    <div class="middle"><slot /></div>
    <span v-if="placeInQueue !== null" class="queue" role="status">{{
      placeInQueue ? `waiting: ${placeInQueue} before you` : 'you are next'
    }}</span>
    <button
      v-if="ABOUT[String(route.name)]"
      type="button"
      class="sign about"
      aria-label="i about this place"
      title="about this place, and its words (i)"
      @click="isAboutOpen = true"
    >
      i
    </button>
    <button type="button" class="sign help" aria-label="? keys" title="what the keys do (?)" @click="isHelpOpen = true">?</button>
    <slot name="places">
      <nav class="links">
        <RouterLink to="/mailbox">Mailbox</RouterLink>
        <button type="button" @click="isPasswordOpen = true">Password</button>
        <button type="button" @click="leave">Sign out {{ session.me?.name.split(' ')[0] }}</button>
      </nav>
    </slot>
    <PasswordChange :open="isPasswordOpen" @close="isPasswordOpen = false" />
  </header>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: stretch;
  min-height: 46px;
  background: var(--bar);
  color: #fff;
  flex: none;
}
.bar > :deep(nav) {
  min-height: 46px;
}
@media (max-width: 960px) {
  .middle,
  .brand {
    min-height: 46px;
  }
  .bar > :deep(nav.places) {
    flex-basis: 100%;
    overflow-x: auto;
  }
}
.skip {
  position: absolute;
  left: -999px;
  z-index: 5;
  padding: 12px 14px;
  border: 0;
  background: var(--paper);
  color: var(--lacquer);
}
.skip:focus {
  left: 0;
}
.brand {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 0 8px 0 14px;
  color: #fff;
  text-decoration: none;
  font-size: 15px;
  letter-spacing: 0.2px;
}
.middle {
  flex: 1;
  min-width: 0;
  display: flex;
  align-items: center;
  gap: 6px;
  color: #eadfe7;
}
.sign {
  align-self: center;
  flex: none;
  width: 24px;
  height: 24px;
  margin: 0 8px;
  border: 1px solid rgb(255 255 255 / 45%);
  border-radius: 50%;
  background: none;
  color: #fff;
  font: 600 12px var(--mono);
  cursor: pointer;
}
.about {
  margin-right: 0;
}
.queue {
  align-self: center;
  padding: 2px 9px;
  margin-right: 10px;
  border-radius: 9px;
  background: rgb(255 255 255 / 16%);
  font-size: 12px;
  white-space: nowrap;
}
.links {
  display: flex;
  align-items: center;
  gap: 18px;
  padding-right: 16px;
}
.links a,
.links button {
  color: #eadfe7;
  background: none;
  border: 0;
  text-decoration: none;
  cursor: pointer;
  padding: 0;
}
.links a:hover,
.links button:hover {
  color: #fff;
  text-decoration: underline;
}
.bar :deep(:focus-visible) {
  outline-color: #f3c49b;
  outline-offset: -3px;
}
</style>
