import { computed, ref, type Ref, shallowRef, watch } from 'vue'

import { get, post, sentence } from '../../api/client'
import type { Circuit, CircuitPin, Review } from '../../api/types'
import type { Probe } from '../../shared/probe'
import { digitsOf, index, type Indexed, shortValue, wireName } from './model'

/** The circuit of the hand-in under review, fetched when it is first wanted, and the wires chosen as probes. */
export function useProbes(taskId: () => number, review: Ref<Review | null>, changed: Ref<{ path: string; text: string }[]>) {
  const at = shallowRef<Indexed | null>(null)
  const trouble = ref('')
  const probes = ref<number[]>([])
  let loaded = 0

  async function open(): Promise<void> {
    const handin = review.value?.handin_id
    if (!handin || loaded === handin) return
    loaded = handin
    try {
      const path = `/tasks/${taskId()}/review/${handin}/circuit`
      const found = await (changed.value.length ? post<Circuit>(path, { files: changed.value }) : get<Circuit>(path))
      if (loaded !== handin) return
      at.value = index(found)
      probes.value = probes.value.filter((p) => at.value?.pin.has(p))
    } catch (error) {
      trouble.value = sentence(error)
    }
  }
  watch(() => review.value?.handin_id, () => {
    loaded = 0
    at.value = null
    trouble.value = ''
    probes.value = []
  })
  /** The drawing follows a scratch copy that can be run. */
  function again(): void {
    if (!loaded) return
    loaded = 0
    void open()
  }
  /** A wire by its pin becomes a probe, or is none any more. What carries the same digits is the same wire. */
  function turnProbe(pin: number): void {
    const same = (a: number): string => at.value?.pin.get(a)?.bits.join() ?? ''
    const known = probes.value.find((p) => same(p) === same(pin))
    probes.value = known === undefined ? [...probes.value, pin] : probes.value.filter((p) => p !== known)
  }
  const columns = computed<Probe[]>(() => {
    const found = at.value
    if (!found) return []
    return probes.value.map((id) => {
      const pin = found.pin.get(id) as CircuitPin
      const values = new Map(found.circuit.cases.map((c, i) => [c, shortValue(digitsOf(pin, found.circuit.digits, i))]))
      return { pin: id, name: wireName(found, pin), values }
    })
  })
  return { at, trouble, probes, columns, turnProbe, open, again }
}
