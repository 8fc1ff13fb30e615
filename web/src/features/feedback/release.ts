import { message, Modal } from 'ant-design-vue'

import { post } from '../../api/client'
import type { FeedbackStudent } from '../../api/schema'
import { told } from '../../shared/attempt'
import { count } from '../../shared/words'

/** Sending letters and taking them back; `after` is done when something was sent or taken back. */
export function useRelease(labId: () => number, after: () => Promise<void>) {
  async function release(student_ids: number[] | null): Promise<void> {
    await told(async () => {
      const done = await post(`/labs/${labId()}/release`, { student_ids })
      message.success(`${count(done.letters, 'letter')} released${done.unchanged ? `, ${done.unchanged} unchanged` : ''}`)
      await after()
    })
  }
  async function withdraw(): Promise<void> {
    await told(async () => {
      const done = await post(`/labs/${labId()}/withdraw`)
      message.success(`${count(done.letters, 'letter')} taken back`)
      await after()
    })
  }
  /** Asks first, and says who would get a letter that lacks a comment. */
  function ask(students: FeedbackStudent[], isAll: boolean): void {
    const letters = students.filter((s) => s.handin_id !== null).length
    const unsaid = students.filter((s) => s.open_comments).length
    const [some, none] = isAll
      ? [`${count(unsaid, 'student')} would get a letter without a comment on a mistake.`, 'Every mistake has its comment.']
      : [
          `${count(unsaid, 'student')} of them would get a letter without a comment on another mistake.`,
          'Every mistake of theirs has its comment.',
        ]
    Modal.confirm({
      title: `Send ${count(letters, 'letter')}?`,
      content: unsaid ? some : none,
      okText: 'Send them',
      onOk: () => release(isAll ? null : students.map((s) => s.student_id)),
    })
  }
  return { release, withdraw, ask }
}
