<script setup lang="ts">
import { Checkbox, ConfigProvider, Modal } from 'ant-design-vue'

import { areLettersOn, isHelpOpen, keysInForce, useKeys } from './shared/keys'
import SignInAgain from './shared/SignInAgain.vue'

useKeys([{ key: '?', label: 'this list', act: () => (isHelpOpen.value = true) }])
const theme = {
  token: {
    colorPrimary: '#5b2a4e',
    colorInfo: '#5b2a4e',
    colorText: '#2a2431',
    colorTextPlaceholder: '#6f6877',
    colorBorder: '#e3dcd2',
    borderRadius: 6,
    fontSize: 13,
    fontFamily: 'var(--sans)',
    colorError: '#b5411c',
    colorSuccess: '#2b7a78',
    colorBgLayout: '#f6f3ee',
    motionDurationMid: '0.12s',
    motionDurationSlow: '0.18s',
    controlHeight: 30,
    boxShadow: 'none',
  },
}
</script>

<template>
  <ConfigProvider :theme="theme" :auto-insert-space-in-button="false">
    <RouterView />
    <SignInAgain />
    <Modal v-model:open="isHelpOpen" title="Keys" :footer="null" :width="420">
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
