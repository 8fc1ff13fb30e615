import { defineStore } from 'pinia'
import { ref } from 'vue'

import { get, post, useToken } from '../api/client'
import type { Me } from '../api/types'

/** Of a new password; the server asks for as many. */
export const FEWEST_CHARACTERS = 10

/** Who is signed in. */
export const useSession = defineStore('session', () => {
  const me = ref<Me | null>(null)

  function take(found: Me): void {
    me.value = found
    useToken(found.csrf)
  }
  async function ensure(): Promise<boolean> {
    if (me.value) return true
    try {
      take(await get<Me>('/me'))
      return true
    } catch {
      return false
    }
  }
  async function signIn(email: string, password: string): Promise<void> {
    take(await post<Me>('/sign-in', { email, password }))
  }
  /** Set the password that a link was made for, and be signed in. */
  async function accept(token: string, password: string): Promise<void> {
    take(await post<Me>(`/invitation/${token}`, { password }))
  }
  async function changePassword(old: string, password: string): Promise<void> {
    take(await post<Me>('/me/password', { old, password }))
  }
  async function signOut(): Promise<void> {
    await post('/sign-out')
    me.value = null
  }
  return { me, ensure, signIn, accept, changePassword, signOut }
})
