import { message } from 'ant-design-vue'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'

import { get, post } from '../api/client'
import type { LabOverview, RunView } from '../api/schema'
import { told } from './attempt'
import { count } from './words'
import { BASE } from './base'

/** The lab on screen, and a check run of it while one is under way. */
export const useLab = defineStore('lab', () => {
  const lab = ref<LabOverview | null>(null)
  const taskId = ref(0)
  const run = ref<RunView | null>(null)
  const finished = ref(0)
  let events: EventSource | null = null

  const labId = computed(() => lab.value?.id ?? 0)
  const task = computed(() => lab.value?.tasks.find((t) => t.id === taskId.value) ?? null)

  /** What this person's role allows here: work, manage, release. */
  const may = (right: string): boolean => lab.value?.rights.includes(right) ?? false

  async function open(id: number): Promise<void> {
    lab.value = await get(`/labs/${id}`)
    if (lab.value.running) follow(id)
  }
  async function refresh(): Promise<void> {
    if (lab.value) lab.value = await get(`/labs/${lab.value.id}`)
  }
  async function check(): Promise<void> {
    const id = lab.value?.id
    if (!id) return
    if (await told(async () => (run.value = await post(`/labs/${id}/check`)))) follow(id)
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
  return { lab, labId, taskId, task, run, finished, may, open, refresh, check, cancel }
})
