import { onBeforeUnmount, onMounted, reactive, ref, watch } from 'vue'

export interface KeyAct {
  key: string
  label: string
  act: () => void
  always?: boolean
}

/** Whether keys of one letter or sign work; whoever speaks to the machine, or slips, may turn them off (WCAG 2.1.4). */
export const areLettersOn = ref(localStorage.getItem('keys') !== 'off')
watch(areLettersOn, (now) => localStorage.setItem('keys', now ? 'on' : 'off'))

/** All keys in force, for the list behind `?`. */
export const keysInForce = reactive<KeyAct[]>([])

/** Whether the list of keys is open. */
export const isHelpOpen = ref(false)

/** Whether what is said of the place on screen is open. */
export const isAboutOpen = ref(false)

/** Keys that work while this component is on screen. Letters stay letters inside text fields. */
export function useKeys(acts: KeyAct[]): void {
  function onKey(event: KeyboardEvent): void {
    const target = event.target as HTMLElement
    const typing = target.closest('input, textarea, select, [contenteditable=true], .cm-editor')
    const name = (event.ctrlKey || event.metaKey ? 'Ctrl+' : '') + event.key
    const hit = acts.find((a) => a.key === name)
    if (!areLettersOn.value && [...name].length === 1) return
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
