import { ref } from 'vue'
import { BASE } from './base'

/** How many others come before what this person waits for; null while nothing waits for its turn. */
export const placeInQueue = ref<number | null>(null)

const SLOW = 1200
const LOOK = 1000
let slow = 0
let looking = 0

/** Something was asked for that a worker does: where it takes long, its place in the queue is looked up until it ends. */
export function waitsForWorker(): () => void {
  let counted = false
  const timer = window.setTimeout(() => {
    counted = true
    if (++slow === 1) void look()
  }, SLOW)
  return () => {
    window.clearTimeout(timer)
    if (counted && --slow === 0) {
      window.clearTimeout(looking)
      placeInQueue.value = null
    }
  }
}

async function look(): Promise<void> {
  try {
    const answer = await fetch(`${BASE}/api/me/waiting`)
    const { before } = (await answer.json()) as { before: number | null }
    placeInQueue.value = slow && answer.ok ? before : null
  } catch {
    placeInQueue.value = null // what is waited for says itself that the server is away
  }
  if (slow) looking = window.setTimeout(look, LOOK)
}
