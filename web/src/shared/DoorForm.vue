<script setup lang="ts">
defineProps<{ trouble: string }>()
const emit = defineEmits<{ submit: [] }>()
</script>

<template>
  <main class="door">
    <form class="compartment" @submit.prevent="emit('submit')">
      <svg width="34" height="31" viewBox="0 0 22 20" aria-hidden="true">
        <rect width="11" height="20" rx="2.500" fill="#f3c49b" />
        <rect x="13" width="8" height="8" rx="2" fill="var(--lacquer)" />
        <circle cx="17" cy="15" r="4.600" fill="#c9b3c3" />
      </svg>
      <h1>obento</h1>
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <slot />
    </form>
  </main>
</template>

<style scoped>
.door {
  min-height: 100%;
  display: grid;
  place-items: center;
}
form {
  width: 300px;
  display: grid;
  gap: 12px;
  padding: 26px 26px 28px;
}
h1 {
  font-size: 20px;
  font-weight: 600;
  margin-top: -6px;
}
form :deep(label) {
  display: grid;
  gap: 3px;
  color: var(--ink-2);
}
</style>
