import { message } from 'ant-design-vue'
import { computed, onScopeDispose, reactive, type Ref, ref, watch } from 'vue'

import { useSession } from './session'
import { clock } from './words'

/**
 * What is typed and not kept yet stays in this browser, for each person and subject: through tabs, reloads, signing out and a
 * server that starts again. Coming back shows it, with when it was written.
 */
interface Kept {
  text: string
  at: string
}

/** The subjects on screen with something that is not kept. */
const unkept = reactive(new Set<string>())
export const isAnythingUnkept = computed(() => unkept.size > 0)

const place = (person: number, subject: string): string => `obento/draft/${person}/${subject}`
let isTold = false

function read(at: string): Kept | null {
  try {
    return JSON.parse(window.localStorage.getItem(at) ?? 'null') as Kept | null
  } catch {
    return null // somebody else's, or cut off: there is nothing to come back to
  }
}
function write(at: string, text: string | null): void {
  try {
    if (text === null) window.localStorage.removeItem(at)
    else window.localStorage.setItem(at, JSON.stringify({ text, at: new Date().toISOString().slice(0, 19) }))
  } catch {
    if (!isTold) message.warning('This browser keeps no drafts: what you type is gone when you leave the page before keeping it.', 10)
    isTold = true
  }
}

export interface Draft {
  /** What is in the field. */
  text: Ref<string>
  isChanged: Ref<boolean>
  /** Since when a draft of before is there that was not kept; empty when there is none. */
  from: Ref<string>
  /** Back to what is kept. */
  drop: () => void
  /** This text was kept under this subject; what was typed since stays a draft. */
  done: (subject: string, text: string) => void
}

/** A text that is written about `subject`, beside what is kept of it. */
export function useDraft(subject: () => string, saved: () => string): Draft {
  const person = useSession().me?.id ?? 0
  const typed = ref('')
  const from = ref('')
  let shown = ''

  function come(): void {
    unkept.delete(shown)
    shown = subject()
    const before = shown ? read(place(person, shown)) : null
    const isNews = before !== null && before.text !== saved()
    typed.value = isNews ? before.text : saved()
    from.value = isNews ? clock(before.at) : ''
    mind()
  }
  function mind(): void {
    if (shown && typed.value !== saved()) unkept.add(shown)
    else unkept.delete(shown)
  }
  const text = computed({
    get: () => typed.value,
    set: (value: string) => {
      typed.value = value
      if (!shown) return
      write(place(person, shown), value === saved() ? null : value)
      mind()
    },
  })
  function drop(): void {
    from.value = ''
    text.value = saved()
  }
  function done(of: string, text: string): void {
    const at = place(person, of)
    if (read(at)?.text === text) write(at, null)
    if (of === shown) from.value = ''
  }
  watch([subject, saved], come, { immediate: true })
  onScopeDispose(() => unkept.delete(shown))
  return { text, isChanged: computed(() => typed.value !== saved()), from, drop, done }
}
