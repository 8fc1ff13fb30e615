import { onScopeDispose, ref, type Ref, shallowRef, watch, type WatchSource } from 'vue'

import { sentence } from '../api/client'

/** What the server says of something, as it was last heard. */
export interface Resource<T> {
  data: Ref<T | null>
  /** Why the last question has no answer, as a sentence; empty when it has one. */
  trouble: Ref<string>
  isLoading: Ref<boolean>
  /** Asks again; an answer that is still on its way is not waited for any more. Gives the answer when it is the latest. */
  reload: () => Promise<T | null>
  /** Forgets what was heard, and what is on its way. */
  clear: () => void
}

interface Options {
  /** Asks whenever one of these changes. */
  on?: WatchSource | WatchSource[]
  /** Asks first when it is told to, not at once. */
  lazy?: boolean
}

/**
 * A question to the server, kept up to date. Only the latest counts: an earlier one is given up, and its answer is never shown.
 * `load` gets the signal that it hands on to the client.
 */
export function useResource<T>(load: (signal: AbortSignal) => Promise<T>, options: Options = {}): Resource<T> {
  const data = shallowRef<T | null>(null)
  const trouble = ref('')
  const isLoading = ref(false)
  let underWay: AbortController | null = null

  async function reload(): Promise<T | null> {
    underWay?.abort()
    const mine = new AbortController()
    underWay = mine
    isLoading.value = true
    try {
      const found = await load(mine.signal)
      if (underWay !== mine) return null
      data.value = found
      trouble.value = ''
      return found
    } catch (error) {
      if (underWay === mine) trouble.value = sentence(error)
      return null
    } finally {
      if (underWay === mine) isLoading.value = false
    }
  }
  function clear(): void {
    underWay?.abort()
    underWay = null
    data.value = null
    trouble.value = ''
    isLoading.value = false
  }
  if (options.on) watch(options.on, () => void reload())
  if (!options.lazy) void reload()
  onScopeDispose(() => {
    underWay?.abort()
    underWay = null
  })
  return { data, trouble, isLoading, reload, clear }
}
