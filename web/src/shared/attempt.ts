import { message } from 'ant-design-vue'
import { ref } from 'vue'

import { sentence } from '../api/client'

/** Something that is tried once at a time: whether it is under way, and the sentence when it did not work. */
export function useAttempt() {
  const trouble = ref('')
  const isBusy = ref(false)
  async function attempt(work: () => Promise<void>): Promise<void> {
    isBusy.value = true
    trouble.value = ''
    try {
      await work()
    } catch (error) {
      trouble.value = sentence(error)
    } finally {
      isBusy.value = false
    }
  }
  return { trouble, isBusy, attempt }
}

const SECONDS = 8

/** Something the person asked for; when it did not work it is said at the top of the window. Gives whether it worked. */
export async function told(work: () => Promise<unknown>): Promise<boolean> {
  try {
    await work()
    return true
  } catch (error) {
    message.error(sentence(error), SECONDS)
    return false
  }
}
