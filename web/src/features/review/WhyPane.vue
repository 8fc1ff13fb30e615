<script setup lang="ts">
import { computed } from 'vue'

import type { RepairView, ReviewView } from '../../api/schema'
import MemberChips from '../../shared/MemberChips.vue'
import SentenceText from '../../shared/SentenceText.vue'
import CommentBox from './CommentBox.vue'
import { clockingOf, errorsOf, located, remarksOf } from './remarks'
import SmallestChange from './SmallestChange.vue'

/** Why it failed, what would make it right, and what is said to its writer. */
const props = defineProps<{ review: ReviewView; taskId: number; quoted: string }>()
const emit = defineEmits<{
  changes: [changes: RepairView['changes']]
  comment: [cluster: string, text: string, version: number]
  note: [handin: number, text: string, version: number]
  go: [handin: number]
}>()
const errors = computed(() => errorsOf(props.review))
const clocking = computed(() => clockingOf(props.review))
const remarks = computed(() => remarksOf(props.review))
const isRight = computed(() => props.review.status === 'checked' && !props.review.findings.length && !props.review.rules.length)
const canBeChanged = computed(() => props.review.status === 'checked' && props.review.passed < props.review.total && !props.review.output)
const everyone = computed(() => (props.review.same.length > 1 ? `all ${props.review.same.length}` : ''))
</script>

<template>
  <section class="compartment right">
    <div class="caption">Why</div>
    <div v-for="f in review.findings" :key="f" class="finding"><SentenceText :text="f" /></div>
    <div v-for="r in review.rules" :key="r" class="finding rule"><SentenceText :text="r" /></div>
    <SmallestChange v-if="canBeChanged" :task-id="taskId" :handin="review.handin_id" @found="(found) => emit('changes', found)" />
    <div v-for="m in errors" :key="m.text + m.line" class="finding"><SentenceText :text="located(m, true)" /></div>
    <div v-for="m in clocking" :key="m.code + m.line" class="finding rule"><SentenceText :text="located(m)" /></div>
    <p v-if="isRight" class="quiet">Right on every compared case.</p>
    <p v-if="review.binding.length" class="small quiet">
      read as:
      <span v-for="b in review.binding" :key="b.ours"
        ><code>{{ b.theirs }}</code> → <code>{{ b.ours }}</code> ({{ b.how }})
      </span>
    </p>
    <p v-for="m in remarks" :key="m.code + m.text" class="small quiet remark"><SentenceText :text="located(m)" /></p>
    <CommentBox
      class="say"
      label="What to say"
      name="comment"
      :add="quoted"
      :before="review.comment_before"
      :task-id="taskId"
      :cluster="review.cluster"
      :handin-id="0"
      :text="review.comment"
      :version="review.comment_version"
      :button="everyone ? `Keep for ${everyone}` : 'Keep'"
      @kept="(of, text, version) => emit('comment', of.cluster, text, version)"
      ><span class="quiet small">{{ everyone ? `to ${everyone}` : '' }}</span></CommentBox
    >
    <MemberChips v-if="everyone" :members="review.same" :chosen="review.handin_id" @review="(id) => emit('go', id)" />
    <CommentBox
      :label="`Only ${review.name.split(' ')[0]}`"
      name="note"
      :task-id="taskId"
      cluster=""
      :handin-id="review.handin_id"
      :text="review.note"
      :rows="2"
      :version="review.note_version"
      button="Keep the note"
      @kept="(of, text, version) => emit('note', of.handin, text, version)"
    />
    <p class="small quiet">The letter adds their own failing rows, the mark and how to see it again.</p>
  </section>
</template>

<style scoped>
.right {
  overflow: auto;
  display: flex;
  flex-direction: column;
  gap: 10px;
}
.finding {
  border-left: 3px solid var(--fail);
  padding-left: 9px;
}
.finding.rule {
  border-color: var(--undef);
}
</style>
