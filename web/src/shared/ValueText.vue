<script setup lang="ts">
import { computed } from 'vue'

import { isLong, pieces, type PortKind } from './values'
import { showsBits } from './bits'

/** A value: a long one in its base, with bits where they matter, all of them on hover and on paper. */
const props = defineProps<{ digits: string; port?: PortKind; expected?: string }>()
const inBase = computed(() => isLong(props.port) && !showsBits.value)
const parts = computed(() => (inBase.value && props.port ? pieces(props.digits, props.port, props.expected) : []))
const plain = computed(() => (/^-+$/.test(props.digits) ? '–' : props.digits))
</script>

<template>
  <template v-if="inBase"
    ><span class="screen" :title="digits"
      ><template v-for="(p, i) in parts" :key="i"
        ><span v-if="p.isBits" class="bits"
          ><template v-for="(c, n) in p.text" :key="n"
            ><u v-if="p.wrong[n]">{{ c }}</u
            ><template v-else>{{ c }}</template></template
          ></span
        ><template v-else>{{ p.text }}</template></template
      ></span
    ><span class="paper">{{ plain }}</span></template
  ><template v-else>{{ plain }}</template>
</template>

<style scoped>
.bits {
  margin: 0 2px;
  padding: 0 2px;
  border: 1px solid color-mix(in srgb, currentcolor 45%, transparent);
  border-radius: 3px;
  font-size: 0.92em;
}
.bits u {
  font-weight: 700;
  text-decoration-thickness: 2px;
}
.paper {
  display: none;
}
@media print {
  .screen {
    display: none;
  }
  .paper {
    display: inline;
    overflow-wrap: anywhere;
    white-space: normal;
  }
}
</style>
