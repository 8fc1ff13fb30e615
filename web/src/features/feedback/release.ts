import { message } from 'ant-design-vue'
import { ref } from 'vue'

import { post } from '../../api/client'
import { told } from '../../shared/attempt'
import { useWork } from '../../shared/work'
import { count } from '../../shared/words'

/** Releasing letters and taking them back; `after` is done when something went out or was taken back. */
export function useRelease(labId: () => number, after: () => Promise<void>) {
  /** For whom the list before a release is open: some students, all (null), or it is not (undefined). */
  const asked = ref<number[] | null | undefined>()
  const isBusy = ref(false)
  const releasing = useWork()
  async function release(student_ids: number[] | null): Promise<void> {
    isBusy.value = true
    await told(async () => {
      const done = await releasing.during((key) => post(`/labs/${labId()}/release`, { student_ids }, { work: key }))
      const rest = [
        done.unchanged ? `${done.unchanged} unchanged` : '',
        done.without_address ? `${done.without_address} without an address` : '',
        done.not_checked ? `${done.not_checked} held back: not checked by the current version` : '',
      ].filter(Boolean)
      message.success([`${count(done.letters, 'letter')} released`, ...rest].join(', '))
      asked.value = undefined
      await after()
    })
    isBusy.value = false
  }
  async function withdraw(): Promise<void> {
    await told(async () => {
      const done = await post(`/labs/${labId()}/withdraw`)
      message.success(`${count(done.letters, 'letter')} taken back`)
      await after()
    })
  }
  return { release, withdraw, asked, isBusy, releasing }
}
