import { computed, ref, type Ref, watch } from 'vue'

import { get, post } from '../../api/client'
import type { CircuitPin, ReviewView } from '../../api/schema'
import type { Probe } from '../../shared/probe'
import { useResource } from '../../shared/resource'
import { digitsOf, index, type Indexed, shortValue, wireName } from './model'

/** Wires of a drawing that somebody looks at, with their values in every case shown; in another drawing those of the same name. */
export function useChosenWires(at: Ref<Indexed | null>) {
  const probes = ref<number[]>([])
  const named = (of: Indexed, id: number): string => wireName(of, of.pin.get(id) as CircuitPin)
  watch(at, (now, before) => {
    if (!now || !before || now === before) return
    const names = probes.value.flatMap((id) => (before.pin.has(id) ? [named(before, id)] : []))
    const pins = now.circuit.parts.flatMap((p) => p.pins.filter((n) => n.side === 'out' && names.includes(wireName(now, n))))
    probes.value = names.flatMap((name) => pins.find((n) => wireName(now, n) === name)?.id ?? [])
  })
  /** A wire by its pin becomes a probe, or is none any more. What carries the same digits is the same wire. */
  function turnProbe(pin: number): void {
    const same = (a: number): string => at.value?.pin.get(a)?.bits.join() ?? ''
    const known = probes.value.find((p) => same(p) === same(pin))
    probes.value = known === undefined ? [...probes.value, pin] : probes.value.filter((p) => p !== known)
  }
  const columns = computed<Probe[]>(() => {
    const found = at.value
    if (!found) return []
    return probes.value
      .filter((id) => found.pin.has(id))
      .map((id) => {
        const pin = found.pin.get(id) as CircuitPin
        const values = new Map(found.circuit.cases.map((c, i) => [c, shortValue(digitsOf(pin, found.circuit.digits, i))]))
        return { pin: id, name: wireName(found, pin), values }
      })
  })
  return { probes, columns, turnProbe }
}

/** The circuit of the hand-in under review, fetched when it is first wanted, and the wires chosen as probes. */
export function useProbes(taskId: () => number, review: Ref<ReviewView | null>, changed: Ref<{ path: string; text: string }[]>) {
  const isWanted = ref(false)
  const {
    data: at,
    trouble,
    reload,
    clear,
  } = useResource(
    async (signal) => {
      const path = `/tasks/${taskId()}/review/${review.value?.handin_id ?? 0}/circuit` as const
      return index(await (changed.value.length ? post(path, { files: changed.value }, { signal }) : get(path, { signal })))
    },
    { lazy: true },
  )

  const { probes, columns, turnProbe } = useChosenWires(at)

  async function fetched(): Promise<void> {
    await reload()
  }
  async function open(): Promise<void> {
    if (!review.value || isWanted.value) return
    isWanted.value = true
    await fetched()
  }
  watch(
    () => review.value?.handin_id,
    () => {
      isWanted.value = false
      clear()
      probes.value = []
    },
  )
  /** The drawing follows a scratch copy that can be run. */
  function again(): void {
    if (isWanted.value) void fetched()
  }
  return { at, trouble, probes, columns, turnProbe, open, again }
}
