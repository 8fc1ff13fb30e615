<script setup lang="ts">
/** The room in a table of rows that are out of sight, in pixels. */
defineProps<{ height: number }>()
</script>

<template>
  <tr v-if="height" aria-hidden="true">
    <td :style="{ height: `${height}px` }"></td>
  </tr>
</template>

<style scoped>
td {
  padding: 0;
  border: 0;
}
</style>
