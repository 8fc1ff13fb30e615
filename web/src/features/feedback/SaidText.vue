<script setup lang="ts">
import { computed } from 'vue'

import SentenceText from '../../shared/SentenceText.vue'
import ChangeFigure from './ChangeFigure.vue'
import { type Change, stretches } from './changePicture'

/** A comment or a note as a letter shows it: its words, and the changes of a circuit drawn. */
const props = defineProps<{ text: string; changes: Change[]; before: string; after: string }>()
const parts = computed(() => stretches(props.text, props.changes))
</script>

<template>
  <div class="said">
    <template v-for="(part, i) in parts" :key="i">
      <SentenceText v-if="typeof part === 'string'" :text="part" />
      <ChangeFigure v-else :change="part" :before="before" :after="after" />
    </template>
  </div>
</template>

<style scoped>
.said {
  white-space: pre-wrap;
}
</style>
