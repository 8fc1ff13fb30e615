<script setup lang="ts">
/** A part of a page that the keys can reach, in which arrows go from one thing to the next: down and up, or with `across` right and left. */
const props = defineProps<{ label: string; across?: boolean }>()
const emit = defineEmits<{ walk: [by: 1 | -1] }>()

function onKey(event: KeyboardEvent): void {
  const by = { [props.across ? 'ArrowRight' : 'ArrowDown']: 1 as const, [props.across ? 'ArrowLeft' : 'ArrowUp']: -1 as const }[event.key]
  if (!by) return
  event.preventDefault()
  event.stopPropagation()
  emit('walk', by)
}
</script>

<template>
  <div tabindex="0" role="region" :aria-label="label" @keydown="onKey"><slot></slot></div>
</template>
