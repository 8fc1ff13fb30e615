import { onScopeDispose, reactive } from 'vue'

import { get, remove, sentence } from '../api/client'
import { told } from './attempt'

/** Work that lasts longer is shown, and asked after so often; in ms. */
const LONG = 600
const AGAIN = 400

export type Work = ReturnType<typeof useWork>

/** Something that the server does and that may take a while: how far it is, and the way to have it stopped. */
export function useWork() {
  /** `isShown`: it is under way for so long that it is shown. */
  const work = reactive({ done: 0, total: 0, isShown: false, during, stop })
  let key = ''
  let timer = 0

  async function look(mine: string): Promise<void> {
    try {
      const found = await get(`/works/${mine}`)
      if (mine === key && found.total) {
        Object.assign(work, found, { isShown: true })
      }
    } catch (error) {
      console.warn(sentence(error)) // the next look says it; the work itself is not touched by this
    }
    if (mine === key) timer = window.setTimeout(() => void look(mine), AGAIN)
  }
  /** Does it under a name of its own, which it hands on to the client. */
  async function during<T>(ask: (key: string) => Promise<T>): Promise<T> {
    // Without TLS a browser has no UUIDs but for this very machine.
    const mine = crypto.randomUUID?.() ?? String(Math.random()).slice(2)
    end()
    key = mine
    timer = window.setTimeout(() => void look(mine), LONG)
    try {
      return await ask(mine)
    } finally {
      if (mine === key) end() // what was asked for since then goes on
    }
  }
  function end(): void {
    window.clearTimeout(timer)
    key = ''
    work.isShown = false
  }
  async function stop(): Promise<void> {
    if (key) await told(() => remove(`/works/${key}`))
  }
  onScopeDispose(end)
  return work
}
