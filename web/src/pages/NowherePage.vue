<script setup lang="ts">
import { useRoute } from 'vue-router'

import TopBar from '../shared/TopBar.vue'

/** An address at which there is nothing. */
const route = useRoute()
</script>

<template>
  <TopBar />
  <main class="empty">
    <h1>There is nothing at this address</h1>
    <p class="mono">{{ route.fullPath }}</p>
    <p>It may have been taken away, or a link was cut off in a mail. <RouterLink to="/">Your classes</RouterLink></p>
  </main>
</template>

<style scoped>
h1 {
  font-size: 16px;
  color: var(--ink);
}
.mono {
  margin: 8px 0;
  overflow-wrap: anywhere;
}
</style>
