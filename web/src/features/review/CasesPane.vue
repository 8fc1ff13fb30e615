<script setup lang="ts">
import type { ReviewView } from '../../api/schema'
import CaseTable from '../../shared/CaseTable.vue'
import type { Probe } from '../../shared/probe'
import WalkedRegion from '../../shared/WalkedRegion.vue'
import type { Cases } from './cases'

/** The cases, failing first. */
defineProps<{ review: ReviewView; cases: Cases; probes: Probe[]; isScratch: boolean }>()
</script>

<template>
  <section class="compartment left">
    <div class="row spread">
      <span class="caption">{{ isScratch ? 'Cases with the change' : 'Cases' }}</span><span class="quiet small">failing first</span>
    </div>
    <WalkedRegion class="scroll" label="cases; the arrow keys go from one to the next" @walk="cases.walkEvery">
      <CaseTable
        v-if="cases.wrong.value.length"
        :inputs="review.inputs"
        :outputs="review.outputs"
        :ports="review.ports"
        legend
        :rows="cases.wrong.value"
        glyphs
        :runs="cases.wrong.value.some((r) => r.run !== 'fresh')"
        :chosen="cases.chosenCase.value"
        :probes="probes"
        :turned="cases.turned.value"
        @choose="cases.choose"
      />
      <p v-if="cases.rest.value.length" class="quiet small part">{{ cases.rest.value.length }} right or not compared</p>
      <CaseTable
        v-if="cases.rest.value.length"
        :inputs="review.inputs"
        :outputs="review.outputs"
        :ports="review.ports"
        :legend="!cases.wrong.value.length"
        :rows="cases.rest.value"
        glyphs
        :chosen="cases.chosenCase.value"
        :probes="probes"
        :turned="cases.turned.value"
        @choose="cases.choose"
      />
      <p v-if="review.more_rows" class="quiet small">and {{ review.more_rows }} more</p>
      <p v-if="!review.rows.length" class="quiet">No case was run.</p>
    </WalkedRegion>
  </section>
</template>

<style scoped>
.left {
  display: flex;
  flex-direction: column;
  gap: 8px;
  min-height: 0;
  max-width: 430px;
}
.scroll {
  overflow: auto;
  scrollbar-gutter: stable;
  flex: 1;
  min-height: 0;
}
.scroll :deep(tr) {
  cursor: pointer;
}
.part {
  padding: 8px 4px 3px;
}
</style>
