import { message } from 'ant-design-vue'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'

import { get, post } from '../api/client'
import type { Lab, RunView } from '../api/types'
import { count } from './words'

/** The lab on screen, and a check run of it while one is under way. */
export const useLab = defineStore('lab', () => {
  const lab = ref<Lab | null>(null)
  const taskId = ref(0)
  const run = ref<RunView | null>(null)
  const finished = ref(0)
  let events: EventSource | null = null

  const task = computed(() => lab.value?.tasks.find((t) => t.id === taskId.value) ?? null)

  async function open(id: number): Promise<void> {
    lab.value = await get<Lab>(`/labs/${id}`)
    if (lab.value.running) follow(id)
  }
  async function refresh(): Promise<void> {
    if (lab.value) lab.value = await get<Lab>(`/labs/${lab.value.id}`)
  }
  async function check(): Promise<void> {
    if (!lab.value) return
    run.value = await post<RunView>(`/labs/${lab.value.id}/check`)
    follow(lab.value.id)
  }
  async function cancel(): Promise<void> {
    if (lab.value) await post(`/labs/${lab.value.id}/check/cancel`)
  }
  /** Follow progress; an interrupted stream is taken up again by the browser itself. */
  function follow(id: number): void {
    events?.close()
    events = new EventSource(`/api/labs/${id}/check/events`)
    events.onmessage = async (event) => {
      run.value = JSON.parse(event.data)
      if (run.value?.state !== 'running') {
        events?.close()
        if (run.value?.busy) message.warning(`${count(run.value.busy, 'hand-in')} could not be checked: the machine was too busy. Check again.`, 12)
        run.value = null
        await refresh()
        finished.value++
      }
    }
  }
  return { lab, taskId, task, run, finished, open, refresh, check, cancel }
})
