import { message, Modal } from 'ant-design-vue'

import { get, remove } from '../../api/client'
import type { HangingView } from '../../api/schema'
import { told } from '../../shared/attempt'
import { count } from '../../shared/words'

type Kind = 'class' | 'lab' | 'task' | 'drop'
const PATHS = { class: 'classes', lab: 'labs', task: 'tasks', drop: 'drops' } as const

/** What goes with something, in words. */
export function goesWith(h: HangingView): string {
  const parts = [
    h.handins ? count(h.handins, 'hand-in') : '',
    h.comments ? count(h.comments, 'comment') : '',
    h.marks ? `${count(h.marks, 'mark')} set by hand` : '',
    h.letters ? count(h.letters, 'released letter') : '',
  ].filter(Boolean)
  return parts.length
    ? `${parts.join(', ')} go${parts.length === 1 && parts[0]?.startsWith('1 ') ? 'es' : ''} with it.`
    : 'Nothing hangs on it.'
}

/** Says what hangs on something, asks, and takes it away; `after` is done when it is gone. */
export async function takeAway(kind: Kind, id: number, name: string, after: () => void): Promise<void> {
  await told(async () => {
    const hanging = await get(`/hanging/${kind}/${id}`)
    Modal.confirm({
      title: `Take ${name} away?`,
      content: `${goesWith(hanging)} It can be had back for 30 days, from the first page.`,
      okText: 'Take away',
      cancelText: 'Leave it',
      onOk: async () => {
        const gone = await told(() => remove(`/${PATHS[kind]}/${id}`))
        if (!gone) return
        message.success(`${name} is taken away; it can be had back on the first page`)
        after()
      },
    })
  })
}
