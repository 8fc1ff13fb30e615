<script setup lang="ts">
import { Select } from 'ant-design-vue'
import { onMounted, onUpdated, ref, useAttrs, watch } from 'vue'

/** A select whose field says what is chosen with it: its name, whether its list is open, and which list that is. */
defineOptions({ inheritAttrs: false })
const props = defineProps<{ label: string }>()
const select = ref<{ $el: HTMLElement; focus: () => void; blur: () => void }>()
const attrs = useAttrs()
const isOpen = ref(Boolean(attrs['default-open'] ?? attrs.defaultOpen))

/** The kit names neither the field nor its state, points at a list that is not there while it is closed, and shows its list a second time
 * for who sees it, without saying that these are options. */
function describe(): void {
  const input = select.value?.$el.querySelector('input')
  if (!input) return
  input.setAttribute('aria-label', props.label)
  input.setAttribute('aria-expanded', String(isOpen.value))
  if (isOpen.value) {
    input.setAttribute('aria-controls', `${input.id}_list`)
    window.requestAnimationFrame(() => document.getElementById(`${input.id}_list`)?.nextElementSibling?.setAttribute('aria-hidden', 'true'))
    return
  }
  for (const name of ['aria-controls', 'aria-owns', 'aria-activedescendant']) input.removeAttribute(name)
}
onMounted(describe)
onUpdated(describe)
watch([isOpen, () => props.label], describe, { flush: 'post' })
defineExpose({ focus: () => select.value?.focus(), blur: () => select.value?.blur() })
</script>

<template>
  <Select ref="select" v-bind="$attrs" @dropdown-visible-change="(now: boolean) => (isOpen = now)">
    <template v-for="(_, name) in $slots" :key="name" #[name]="scope"><slot :name="name" v-bind="scope ?? {}"></slot></template>
  </Select>
</template>
