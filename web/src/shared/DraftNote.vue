<script setup lang="ts">
/** Says that a field shows what was typed before and not kept. */
defineProps<{ from: string }>()
const emit = defineEmits<{ drop: []; keep: [] }>()
</script>

<template>
  <p v-if="from" class="small draft" role="status">
    not kept, from {{ from }} <button type="button" @click="emit('keep')">keep</button>
    <button type="button" @click="emit('drop')">drop</button>
  </p>
</template>

<style scoped>
.draft {
  color: var(--undef-text);
}
.draft button {
  border: 0;
  background: none;
  padding: 0 3px;
  color: var(--lacquer);
  text-decoration: underline;
  cursor: pointer;
  font: inherit;
}
</style>
