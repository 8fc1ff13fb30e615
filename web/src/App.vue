<script setup lang="ts">
import { Checkbox, ConfigProvider, Modal, Segmented, theme as kit } from 'ant-design-vue'
import { useEventListener } from '@vueuse/core'
import { computed } from 'vue'

import AboutPlace from './shared/AboutPlace.vue'
import { areLettersOn, isAboutOpen, isHelpOpen, keysInForce, useKeys } from './shared/keys'
import { isNight, light, LIGHTS } from './shared/night'
import SignInAgain from './shared/SignInAgain.vue'

/** A place that has an `i` of its own keeps it. */
function aboutByKey(): void {
  isAboutOpen.value = keysInForce.filter((k) => k.key === 'i').length < 2
}
useKeys([
  { key: '?', label: 'this list', act: () => (isHelpOpen.value = true) },
  { key: 'i', label: 'about this place', act: aboutByKey },
])
/** A window that is still being let down does not have the focus yet, and is closed by Escape all the same. */
useEventListener(window, 'keydown', (event: KeyboardEvent) => {
  if (event.key !== 'Escape' || (event.target as HTMLElement).closest('.ant-modal-wrap')) return
  const open = document.querySelectorAll<HTMLElement>('.ant-modal-wrap:not([style*="display: none"]) .ant-modal-close')
  open[open.length - 1]?.click()
})
/** The kit's looks by the tokens of styles/tokens.css, which it reckons its shades from. */
const SHAPE = {
  borderRadius: 6,
  fontSize: 13,
  fontFamily: 'var(--sans)',
  motionDurationMid: '0.12s',
  motionDurationSlow: '0.18s',
  controlHeight: 30,
  boxShadow: 'none',
}
const DAY = {
  colorPrimary: '#5b2a4e',
  colorInfo: '#5b2a4e',
  colorText: '#2a2431',
  colorTextPlaceholder: '#6f6877',
  colorBorder: '#e3dcd2',
  colorError: '#b5411c',
  colorSuccess: '#2b7a78',
  colorBgLayout: '#f6f3ee',
}
const NIGHT = {
  colorPrimary: '#8e5480',
  colorInfo: '#8e5480',
  colorText: '#ece7ef',
  colorTextPlaceholder: '#a29aab',
  colorBorder: '#403a47',
  colorError: '#ffa283',
  colorSuccess: '#4db3ac',
  colorBgLayout: '#18151b',
  colorBgContainer: '#221f27',
  colorBgElevated: '#2a2630',
}
const theme = computed(() => ({
  algorithm: isNight.value ? kit.darkAlgorithm : kit.defaultAlgorithm,
  token: { ...SHAPE, ...(isNight.value ? NIGHT : DAY) },
}))
</script>

<template>
  <ConfigProvider :theme="theme" :auto-insert-space-in-button="false">
    <RouterView />
    <SignInAgain />
    <AboutPlace />
    <Modal v-model:open="isHelpOpen" title="Keys and light" :footer="null" :width="420">
      <p class="letters">Light <Segmented v-model:value="light" size="small" :options="LIGHTS" /></p>
      <p class="letters"><Checkbox v-model:checked="areLettersOn">keys of one letter or sign work</Checkbox></p>
      <ul class="keys">
        <li v-for="k in keysInForce" :key="k.key + k.label">
          <span class="key">{{ k.key.replace('Arrow', '') }}</span> {{ k.label }}
        </li>
      </ul>
    </Modal>
  </ConfigProvider>
</template>

<style scoped>
.keys {
  display: grid;
  gap: 6px;
}
.letters {
  margin-bottom: 8px;
}
.keys .key {
  min-width: 44px;
  margin-right: 8px;
}
</style>
