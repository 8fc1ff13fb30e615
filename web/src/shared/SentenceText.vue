<script setup lang="ts">
import { computed } from 'vue'

const props = defineProps<{ text: string }>()
/** Names, values and conditions in the value face; `a = 0` and anything in back-ticks. */
const parts = computed(() =>
  props.text
    .split(/(`[^`]+`|[A-Za-z_]\w*(?:\[\d+\])? = [0-9xzb]+(?: to [0-9xzb]+)?|\b\w+_\w+\b)/)
    .filter(Boolean)
    .map((p) => ({ text: p.replaceAll('`', ''), mono: /^`|^[A-Za-z_]\w*(\[\d+\])? = |^\w+_\w+$/.test(p) })),
)
</script>

<template>
  <span
    ><template v-for="(p, i) in parts" :key="i"
      ><code v-if="p.mono">{{ p.text }}</code
      ><template v-else>{{ p.text }}</template></template
    ></span
  >
</template>

<style scoped>
code {
  font-size: 12px;
}
</style>
