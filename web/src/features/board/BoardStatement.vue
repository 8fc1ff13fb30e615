<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'

import { outline } from '../circuit/symbols'

const props = defineProps<{ names: string[]; parts: string[]; trouble: string; hint: string }>()
const emit = defineEmits<{ say: [said: string] }>()
const said = ref('')
const field = ref<HTMLInputElement>()
const at = ref(-1)
const isOpen = ref(false)

const MOST = 7
const word = computed(() => /[A-Za-z_][\w$]*$/.exec(said.value)?.[0] ?? '')
interface Offer {
  text: string
  isPart: boolean
}
/** All parts at once, for whoever would rather point. */
const isList = ref(false)
const offers = computed<Offer[]>(() => {
  if (isList.value) return props.parts.map((text) => ({ text, isPart: true }))
  const begun = word.value.toLowerCase()
  if (!begun || !isOpen.value) return []
  const fits = (name: string): boolean => name.toLowerCase().startsWith(begun) && name !== word.value
  const names = props.names.filter(fits).map((text) => ({ text, isPart: false }))
  const parts = props.parts.filter(fits).map((text) => ({ text, isPart: true }))
  return [...names, ...parts].slice(0, MOST)
})
/** What is said so far, ready for a name behind it: a comma where it stands among operands. */
function joined(before: string): string {
  const isOpenCall = before.split('(').length > before.split(')').length
  return isOpenCall && /[\w$)\]]\s*$/.test(before) ? `${before.trimEnd()}, ` : before
}
function take(offer: Offer): void {
  const before = isList.value ? joined(said.value) : said.value.slice(0, said.value.length - word.value.length)
  said.value = before + offer.text + (offer.isPart && /[=(,]/.test(said.value) ? '(' : '')
  at.value = -1
  isOpen.value = isList.value = false
  void nextTick(() => field.value?.focus())
}
/** A name that was pointed at: of an output as what is to be driven, of anything else as an operand. */
function point(name: string, isOutput: boolean): void {
  if (!said.value.trim() && isOutput) said.value = `${name} = `
  else said.value = joined(said.value) + name
  void nextTick(() => field.value?.focus())
}
function sayIt(): void {
  const open = said.value.split('(').length - said.value.split(')').length
  if (said.value.trim()) emit('say', said.value + ')'.repeat(Math.max(0, open)))
}
function onKey(event: KeyboardEvent): void {
  const count = offers.value.length
  if (event.key === 'ArrowDown' && count) at.value = (at.value + 1) % count
  else if (event.key === 'ArrowUp' && count) at.value = (at.value + count - 1) % count
  else if ((event.key === 'Tab' || event.key === 'Enter') && count && (at.value >= 0 || event.key === 'Tab'))
    take(offers.value[Math.max(0, at.value)])
  else if (event.key === 'Escape' && count) isOpen.value = false
  else if (event.key === 'Escape') field.value?.blur()
  else if (event.key === 'Enter' && said.value.trim()) sayIt()
  else return
  event.preventDefault()
}
function typed(): void {
  isOpen.value = true
  isList.value = false
  at.value = -1
}
/** A gate's own outline at the size of a letter. */
function picture(part: string): string {
  return outline({ nand: 'and', nor: 'or', xnor: 'xor' }[part] ?? part, 1, 20, 14)
}
defineExpose({
  focus: () => field.value?.focus(),
  clear: () => (said.value = ''),
  point,
  isBegun: () => !!said.value.trim(),
})
</script>

<template>
  <div class="statement">
    <label class="caption" for="board-sentence">Say <span class="key">s</span></label>
    <div class="field">
      <input
        id="board-sentence"
        ref="field"
        v-model="said"
        class="mono"
        autocomplete="off"
        spellcheck="false"
        role="combobox"
        aria-autocomplete="list"
        :aria-expanded="offers.length > 0"
        aria-controls="board-offers"
        placeholder="shut = nor(safe, key)"
        @input="typed"
        @keydown="onKey"
        @blur="isOpen = isList = false"
      />
      <ul v-if="offers.length" id="board-offers" class="offers" role="listbox">
        <li
          v-for="(o, i) in offers"
          :key="o.text + o.isPart"
          role="option"
          :aria-selected="i === at"
          :class="{ at: i === at }"
          @mousedown.prevent="take(o)"
        >
          <svg v-if="o.isPart && picture(o.text)" width="22" height="16" aria-hidden="true">
            <path :d="picture(o.text)" transform="translate(0 1)" /></svg
          ><span v-else class="mark">{{ o.isPart ? '▭' : '─' }}</span>
          <span class="mono">{{ o.text }}</span>
          <span class="quiet small">{{ o.isPart ? 'part' : 'wire' }}</span>
        </li>
      </ul>
    </div>
    <span class="buttons">
      <button type="button" class="plain" :aria-expanded="isList" @mousedown.prevent="((isList = !isList), field?.focus())">Parts ▾</button>
      <button type="button" class="plain" title="Enter" @mousedown.prevent="sayIt">Put it there</button>
    </span>
    <p v-if="trouble" class="trouble small" role="status">
      {{ trouble }}<template v-if="hint">: {{ hint }}</template>
    </p>
  </div>
</template>

<style scoped>
.statement {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 2px 10px;
  align-items: center;
}
.field {
  position: relative;
}
input {
  width: 100%;
  border: 1px solid var(--none);
  border-radius: 6px;
  padding: 6px 9px;
  font-size: 13px;
  background: var(--paper);
}
input:focus-visible {
  outline: 2px solid var(--lacquer-2);
  outline-offset: 0;
}
.offers {
  position: absolute;
  bottom: calc(100% + 4px);
  left: 0;
  margin: 0;
  padding: 4px;
  list-style: none;
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: 8px;
  box-shadow: 0 6px 22px rgb(0 0 0 / 22%);
  z-index: 5;
  min-width: 230px;
}
.buttons {
  display: flex;
  gap: 6px;
}
.plain {
  border: 1px solid var(--line);
  border-radius: 6px;
  background: var(--paper);
  padding: 4px 9px;
  min-height: 30px;
  font-size: 12.5px;
  cursor: pointer;
}
.plain:hover {
  border-color: var(--lacquer-2);
}
.offers {
  max-height: 46vh;
  overflow: auto;
}
.offers li {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 4px 8px;
  border-radius: 5px;
  cursor: pointer;
  font-size: 12.5px;
}
.offers li.at,
.offers li:hover {
  background: var(--lacquer-tint);
}
.offers li .quiet {
  margin-left: auto;
}
.offers path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.3;
}
.mark {
  width: 22px;
  text-align: center;
  color: var(--ink-3);
}
.trouble {
  grid-column: 2 / 4;
  margin: 0;
}
</style>
