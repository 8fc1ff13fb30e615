import { onBeforeUnmount, onMounted, reactive } from 'vue'

export interface KeyAct {
  key: string
  label: string
  act: () => void
  always?: boolean
}

/** All keys in force, for the list behind `?`. */
export const keysInForce = reactive<KeyAct[]>([])

/** Keys that work while this component is on screen. Letters stay letters inside text fields. */
export function useKeys(acts: KeyAct[]): void {
  function onKey(event: KeyboardEvent): void {
    const target = event.target as HTMLElement
    const typing = target.closest('input, textarea, select, [contenteditable=true], .cm-editor')
    const name = (event.ctrlKey || event.metaKey ? 'Ctrl+' : '') + event.key
    const hit = acts.find((a) => a.key === name)
    if (!hit || (typing && !hit.always) || event.altKey) return
    // What has the focus is pressed by these: a page-wide key never takes them from it.
    if (
      (event.key === 'Enter' || event.key === ' ') &&
      target.closest('a[href], button, summary, [role=button], [role=tab], [role=option]')
    )
      return
    if (document.querySelector('.ant-modal-wrap:not([style*="display: none"])') && !hit.always) return
    event.preventDefault()
    hit.act()
  }
  onMounted(() => {
    keysInForce.push(...acts)
    window.addEventListener('keydown', onKey)
  })
  onBeforeUnmount(() => {
    for (const act of acts) {
      const at = keysInForce.findIndex((k) => k.key === act.key && k.label === act.label)
      if (at >= 0) keysInForce.splice(at, 1)
    }
    window.removeEventListener('keydown', onKey)
  })
}
