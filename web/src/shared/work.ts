import { onScopeDispose, ref } from 'vue'

import { get, remove, sentence } from '../api/client'
import { told } from './attempt'

/** Work that lasts longer is shown, and asked after so often; in ms. */
const LONG = 600
const AGAIN = 400

/** Something that the server does and that may take a while: how far it is, and the way to have it stopped. */
export function useWork() {
  const done = ref(0)
  const total = ref(0)
  /** Whether it is under way for so long that it is shown. */
  const isShown = ref(false)
  let key = ''
  let timer = 0

  async function look(mine: string): Promise<void> {
    try {
      const found = await get(`/works/${mine}`)
      if (mine === key && found.total) {
        done.value = found.done
        total.value = found.total
        isShown.value = true
      }
    } catch (error) {
      console.warn(sentence(error)) // the next look says it; the work itself is not touched by this
    }
    if (mine === key) timer = window.setTimeout(() => void look(mine), AGAIN)
  }
  /** Does it under a name of its own, which it hands on to the client. */
  async function during<T>(work: (key: string) => Promise<T>): Promise<T> {
    const mine = crypto.randomUUID?.() ?? String(Math.random()).slice(2)
    end()
    key = mine
    done.value = total.value = 0
    timer = window.setTimeout(() => void look(mine), LONG)
    try {
      return await work(mine)
    } finally {
      if (mine === key) end() // what was asked for since then goes on
    }
  }
  function end(): void {
    window.clearTimeout(timer)
    key = ''
    isShown.value = false
  }
  async function stop(): Promise<void> {
    if (key) await told(() => remove(`/works/${key}`))
  }
  onScopeDispose(end)
  return { done, total, isShown, during, stop }
}
