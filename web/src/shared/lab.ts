import { message } from 'ant-design-vue'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'

import { get, post } from '../api/client'
import type { LabOverview, RunView, Whose } from '../api/schema'
import { told } from './attempt'
import { count } from './words'
import { BASE } from './base'

/** The lab on screen, and a check run of it while one is under way. */
export const useLab = defineStore('lab', () => {
  const lab = ref<LabOverview | null>(null)
  const taskId = ref(0)
  const run = ref<RunView | null>(null)
  const finished = ref(0)
  /** Everybody of the class; whose hand-in is whose. */
  const who = ref<Whose[]>([])
  /** The group that is looked at; empty: all. */
  const group = ref('')
  const groups = computed(() => [...new Set(who.value.map((w) => w.group).filter(Boolean))].sort())
  let events: EventSource | null = null
  let wanted = 0

  const labId = computed(() => lab.value?.id ?? 0)
  const task = computed(() => lab.value?.tasks.find((t) => t.id === taskId.value) ?? null)

  /** What this person's role allows here: work, manage, release. */
  const may = (right: string): boolean => lab.value?.rights.includes(right) ?? false

  /** Whether a hand-in is of somebody in the group that is looked at. */
  const inGroup = computed(() => {
    const shown = new Set(who.value.filter((w) => w.group === group.value).map((w) => w.handin_id))
    return (handin: number): boolean => !group.value || shown.has(handin)
  })

  async function open(id: number): Promise<void> {
    if (lab.value?.id !== id) {
      leave()
      wanted = id
    }
    const [found, everybody] = await Promise.all([get(`/labs/${id}`), get(`/labs/${id}/who`)])
    if (wanted !== id) return // another lab was opened meanwhile
    lab.value = found
    who.value = everybody
    if (!groups.value.includes(group.value)) group.value = ''
    if (found.running && !run.value) follow(id)
  }
  /** Nothing of one lab shows on another. */
  function leave(): void {
    events?.close()
    events = null
    run.value = null
    lab.value = null
    who.value = []
  }
  async function refresh(): Promise<void> {
    if (lab.value) await open(lab.value.id)
  }
  async function check(): Promise<void> {
    const id = lab.value?.id
    if (!id) return
    let begun: RunView | null = null
    const done = await told(async () => {
      begun = await post(`/labs/${id}/check`)
    })
    if (!done || wanted !== id) return
    run.value = begun
    follow(id)
  }
  async function cancel(): Promise<void> {
    const id = lab.value?.id
    if (id) await told(() => post(`/labs/${id}/check/cancel`))
  }
  /** Follow progress; an interrupted stream is taken up again by the browser itself. */
  function follow(id: number): void {
    events?.close()
    events = new EventSource(`${BASE}/api/labs/${id}/check/events`)
    events.onmessage = async (event) => {
      if (wanted !== id) return
      run.value = JSON.parse(event.data)
      if (run.value?.state !== 'running') {
        events?.close()
        const { not_checked: left = 0, reasons = [] } = run.value ?? {}
        if (left) message.warning(`Not checked, our fault: ${count(left, 'hand-in')} (${reasons.join('; ')}). Check again.`, 12)
        run.value = null
        await refresh()
        finished.value++
      }
    }
  }
  return { lab, labId, taskId, task, run, finished, who, group, groups, inGroup, may, open, leave, refresh, check, cancel }
})
