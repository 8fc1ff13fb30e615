<script setup lang="ts">
import { defaultKeymap, history, historyKeymap, indentWithTab, isolateHistory, redo, undo } from '@codemirror/commands'
import { StreamLanguage, type StreamParser } from '@codemirror/language'
import { toml } from '@codemirror/legacy-modes/mode/toml'
import { verilog } from '@codemirror/legacy-modes/mode/verilog'
import { vhdl } from '@codemirror/legacy-modes/mode/vhdl'
import { type Diagnostic, lintGutter, setDiagnostics } from '@codemirror/lint'
import { EditorState } from '@codemirror/state'
import { EditorView, highlightActiveLine, keymap, lineNumbers } from '@codemirror/view'
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'

import type { MessageView } from '../api/schema'

const props = defineProps<{ text: string; messages: MessageView[]; language: 'toml' | 'verilog' | 'vhdl' | 'wiring'; label: string }>()
const emit = defineEmits<{ change: [text: string]; line: [line: number] }>()
const host = ref<HTMLElement>()
let view: EditorView | null = null
const MODES: Record<string, StreamParser<unknown>> = { toml, verilog, vhdl }

onMounted(() => {
  view = new EditorView({
    parent: host.value,
    state: EditorState.create({
      doc: props.text,
      extensions: [
        lineNumbers(),
        history(),
        highlightActiveLine(),
        lintGutter(),
        EditorView.lineWrapping,
        ...(MODES[props.language] ? [StreamLanguage.define(MODES[props.language])] : []),
        keymap.of([...defaultKeymap, ...historyKeymap, indentWithTab]),
        EditorView.contentAttributes.of({ 'aria-label': props.label, tabindex: '0' }),
        EditorView.updateListener.of((u) => {
          if (u.docChanged) emit('change', u.state.doc.toString())
          else if (u.selectionSet && u.view.hasFocus) emit('line', u.state.doc.lineAt(u.state.selection.main.head).number)
        }),
      ],
    }),
  })
  mark()
})
onBeforeUnmount(() => view?.destroy())
watch(
  () => props.text,
  (text) => {
    if (!view || text === view.state.doc.toString()) return
    // What comes from elsewhere is undone by itself, however quickly it follows.
    view.dispatch({ changes: difference(view.state.doc.toString(), text), annotations: isolateHistory.of('full') })
  },
)
watch(() => props.messages, mark)

function mark(): void {
  if (!view) return
  const doc = view.state.doc
  const found: Diagnostic[] = props.messages
    .filter((m) => m.line >= 1 && m.line <= doc.lines)
    .map((m) => {
      const line = doc.line(m.line)
      const from = Math.min(line.to, line.from + m.column - 1)
      const to = m.end_line === m.line ? Math.min(line.to, Math.max(from + 1, line.from + m.end_column - 1)) : line.to
      return {
        from,
        to: Math.max(from, to),
        severity: m.severity === 'note' ? 'info' : m.severity,
        message: m.text + (m.hint ? ` (${m.hint})` : ''),
      }
    })
  view.dispatch(setDiagnostics(view.state, found))
}
/** The one stretch in which two texts differ: what stands around it keeps its place, and the cursor too. */
function difference(before: string, after: string): { from: number; to: number; insert: string } {
  let from = 0
  while (from < Math.min(before.length, after.length) && before[from] === after[from]) from++
  let back = 0
  while (back < Math.min(before.length, after.length) - from && before[before.length - 1 - back] === after[after.length - 1 - back]) back++
  return { from, to: before.length - back, insert: after.slice(from, after.length - back) }
}
/** To a place in the text; with `focus` to be written at. */
function goTo(m: Pick<MessageView, 'line' | 'column'>, focus = true): void {
  if (!view || !m.line || m.line > view.state.doc.lines) return
  const line = view.state.doc.line(m.line)
  view.dispatch({ selection: { anchor: Math.min(line.to, line.from + m.column - 1) }, scrollIntoView: true })
  if (focus) view.focus()
}
defineExpose({ goTo, undo: () => view && undo(view), redo: () => view && redo(view) })
</script>

<template><div ref="host" class="editor"></div></template>

<style scoped>
.editor {
  height: 100%;
  overflow: hidden;
}
.editor :deep(.cm-editor) {
  height: 100%;
  font-size: 12.5px;
  outline: none;
}
.editor :deep(.cm-scroller) {
  font-family: var(--mono);
  line-height: 1.5;
}
.editor :deep(.cm-gutters) {
  background: none;
  border: 0;
  color: var(--ink-3);
}
.editor :deep(.cm-cursor) {
  border-left-color: var(--ink);
}
.editor :deep(.cm-selectionBackground) {
  background: var(--lacquer-tint) !important;
}
.editor :deep(.cm-activeLine) {
  background: color-mix(in srgb, var(--rice) 60%, var(--paper));
}
</style>
