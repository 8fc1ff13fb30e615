import { useDebounceFn } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'

import { post } from '../../api/client'
import type { BesideView } from '../../api/schema'
import { useResource } from '../../shared/resource'
import { digitsOf, index, type Indexed, wireName } from '../circuit/model'
import type { Language } from './board'

export interface Other {
  name: string
  text: string
  language: Language
}
const PATIENCE = 250

/** The circuit on the board held against another one, with every change. */
export function useBeside(task: () => number, text: () => string) {
  const other = shallowRef<Other | null>(null)
  const found = useResource<BesideView>(
    (signal) =>
      post(
        `/tasks/${task()}/board/beside`,
        { text: text(), other: other.value?.text ?? '', language: other.value?.language ?? 'wiring' },
        { signal },
      ),
    { lazy: true },
  )
  const again = useDebounceFn(() => other.value && found.reload(), PATIENCE)
  watch([other, text], ([now], [before]) => {
    if (!now) found.clear()
    else if (now !== before) void found.reload()
    else void again()
  })
  watch(task, () => (other.value = null))
  const view = computed(() => (other.value ? found.data.value : null))
  /** Both drawings, with what is looked up in them. */
  const drawn = ref<{ one: Indexed; other: Indexed } | null>(null)
  watch(view, (now) => {
    drawn.value = now ? { one: index(now.one.circuit), other: index(now.other.circuit) } : null
  })
  const said = computed(() => {
    const v = view.value
    if (!v) return found.trouble.value
    if (v.differs === null) return v.other.messages[0]?.text ?? 'one of the two cannot be run'
    if (!v.differs) return `the same in all ${v.total} cases`
    return `part in ${v.differs} of ${v.total} cases, at ${v.outputs.join(', ')}`
  })
  return { other, view, drawn, said }
}

/** Wires of the same name that do not carry the same in a case, of two circuits: by their names. */
export function partedNames(a: Indexed, b: Indexed, place: number): Set<string> {
  const values = (of: Indexed): Map<string, string> => {
    const byName = new Map<string, string>()
    for (const part of of.circuit.parts)
      for (const pin of part.pins)
        if (part.kind === 'output' || (pin.side === 'out' && part.kind !== 'input'))
          byName.set(part.kind === 'output' ? part.label : wireName(of, pin), digitsOf(pin, of.circuit.digits, place))
    return byName
  }
  const others = values(b)
  return new Set([...values(a)].filter(([name, digits]) => others.has(name) && others.get(name) !== digits).map(([name]) => name))
}
/** The pins of a circuit at which wires of these names begin or end. */
export function pinsNamed(at: Indexed, names: Set<string>): Map<number, string> {
  const found = new Map<number, string>()
  for (const part of at.circuit.parts)
    for (const pin of part.pins) {
      const name = part.kind === 'output' ? part.label : pin.side === 'out' && part.kind !== 'input' ? wireName(at, pin) : ''
      if (names.has(name)) found.set(pin.id, '')
    }
  return found
}
