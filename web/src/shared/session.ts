import { defineStore } from 'pinia'
import { ref } from 'vue'

import { get, post, useToken, whenSessionEnds } from '../api/client'
import type { Me } from '../api/schema'

/** Of a new password; the server asks for as many. */
export const FEWEST_CHARACTERS = 10

/** Who is signed in. */
export const useSession = defineStore('session', () => {
  const me = ref<Me | null>(null)
  /** The server knows the session no longer; the page is still there. */
  const hasEnded = ref(false)
  whenSessionEnds(() => (hasEnded.value = me.value !== null))

  function take(found: Me): void {
    me.value = found
    hasEnded.value = false
    useToken(found.csrf)
  }
  async function ensure(): Promise<boolean> {
    if (me.value) return true
    try {
      take(await get('/me'))
      return true
    } catch {
      return false
    }
  }
  async function signIn(email: string, password: string): Promise<void> {
    take(await post('/sign-in', { email, password }))
  }
  /** Set the password that a link was made for, and be signed in. */
  async function accept(token: string, password: string): Promise<void> {
    take(await post(`/invitation/${token}`, { password }))
  }
  async function changePassword(old: string, password: string): Promise<void> {
    take(await post('/me/password', { old, password }))
  }
  async function signOut(): Promise<void> {
    await post('/sign-out')
    me.value = null
  }
  /** Out of a session that has ended, by way of the door. */
  function leave(): void {
    window.location.assign('/sign-in')
  }
  return { me, hasEnded, ensure, signIn, accept, changePassword, signOut, leave }
})
