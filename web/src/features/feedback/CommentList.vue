<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { ref } from 'vue'

import { useInSight } from '../../shared/inSight'
import SentenceText from '../../shared/SentenceText.vue'
import CommentBox from '../review/CommentBox.vue'
import { type OpenCluster, writersOf } from './clusters'

/** Every mistake of the lab with what is said of it. */
const props = defineProps<{ clusters: OpenCluster[] }>()
const emit = defineEmits<{ kept: []; draft: []; release: [cluster: OpenCluster]; look: [cluster: OpenCluster] }>()
/** A box to write in weighs more than a row of a table. */
const FEW = 30
const box = ref<HTMLElement>()
const { shown, above, below, measure } = useInSight(() => props.clusters, { box: () => box.value, height: 140, gap: 14, few: FEW })
const isUnsaid = (x: OpenCluster): boolean => !x.cluster.comment.trim()
</script>

<template>
  <div ref="box" class="scroll comments">
    <p class="row spread">
      <span class="quiet small">A draft says what was found; read it before it goes out.</span
      ><Button size="small" :disabled="!props.clusters.some(isUnsaid)" @click="emit('draft')">Draft all open ones</Button>
    </p>
    <div class="comments" :style="{ paddingTop: `${above}px`, paddingBottom: `${below}px` }">
      <div
        v-for="{ row: x, at } in shown"
        :key="x.task.id + x.cluster.key"
        :ref="measure"
        :data-index="at"
        class="one"
        @focusin="emit('look', x)"
      >
        <p>
          <b>{{ x.cluster.members.length }}</b> <SentenceText :text="x.cluster.title" />{{ ' ' }}
          <span class="quiet small">{{ x.task.title }}: {{ writersOf(x.cluster) }}</span>
          <Button v-if="x.students.length" size="small" type="link" :disabled="isUnsaid(x)" @click="emit('release', x)"
            >Release {{ x.cluster.members.length > 1 ? 'these' : 'this one' }}</Button
          >
        </p>
        <CommentBox
          :label="''"
          :about="`what to say to ${writersOf(x.cluster)}`"
          :name="`comment-${x.cluster.key}`"
          :task-id="x.task.id"
          :cluster="x.cluster.key"
          :handin-id="0"
          :text="x.cluster.comment"
          :version="x.cluster.comment_version"
          :rows="2"
          button="Keep"
          @kept="emit('kept')"
        />
      </div>
    </div>
  </div>
</template>

<style scoped>
.scroll {
  overflow: auto;
  min-height: 0;
}
.comments {
  display: grid;
  gap: 14px;
}
</style>
