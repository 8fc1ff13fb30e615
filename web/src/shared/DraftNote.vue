<script setup lang="ts">
/** Says that a field shows what was typed before and not kept. */
defineProps<{ from: string }>()
const emit = defineEmits<{ drop: []; keep: [] }>()
</script>

<template>
  <p v-if="from" class="small draft" role="status">
    not kept, from {{ from }} <button type="button" class="link" @click="emit('keep')">keep</button>
    <button type="button" class="link" @click="emit('drop')">drop</button>
  </p>
</template>

<style scoped>
.draft {
  color: var(--undef-text);
}
</style>
