import { reactive, type Ref, watch } from 'vue'

import { useDraft } from './drafts'

export interface FormDraft<T> {
  /** What stands in the fields. */
  form: T
  /** Since when fields of before are there that were not kept; empty when there are none. */
  from: Ref<string>
  isChanged: Ref<boolean>
  /** Back to what is kept. */
  drop: () => void
  /** What stands in the fields now, to be given to `done` once it was kept. */
  said: () => Said
  /** These fields were kept; what was typed since stays a draft. */
  done: (said: Said) => void
}
interface Said {
  subject: string
  text: string
}

/** Several fields that are kept together, as one draft. What they hold must come whole out of JSON: dates as texts, nothing as null. */
export function useFormDraft<T extends object>(subject: () => string, saved: () => T): FormDraft<T> {
  const draft = useDraft(subject, () => JSON.stringify(saved()))
  const form = reactive({ ...saved() }) as T
  watch(
    draft.text,
    (text) => {
      if (JSON.stringify(form) !== text) Object.assign(form, JSON.parse(text))
    },
    { immediate: true, flush: 'sync' },
  )
  watch(
    () => JSON.stringify(form),
    (text) => {
      if (text !== draft.text.value) draft.text.value = text
    },
    { flush: 'sync' },
  )
  return {
    form,
    from: draft.from,
    isChanged: draft.isChanged,
    drop: draft.drop,
    said: () => ({ subject: subject(), text: draft.text.value }),
    done: ({ subject: of, text }) => draft.done(of, text),
  }
}
