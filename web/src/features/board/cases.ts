import { computed, type Ref, ref, watch } from 'vue'

import { useKeys } from '../../shared/keys'

/** Keys that lie side by side, for the bits of the inputs from the left. */
export const FLIPS = ['q', 'w', 'e', 'r', 't', 'u', 'i', 'o', 'p']

/** The case whose values stand on the wires: walked by keys, and where all combinations are there, reached by turning inputs. */
export function useCases(rows: Ref<{ index: number }[]>, total: () => number, bits: () => number, first: () => number | undefined) {
  const chosenCase = ref<number | null>(null)
  watch(rows, (now) => {
    if (now.length && !now.some((r) => r.index === chosenCase.value)) chosenCase.value = first() ?? now[0].index
  })
  function step(by: number): void {
    const at = rows.value.findIndex((r) => r.index === chosenCase.value)
    chosenCase.value = rows.value[Math.min(rows.value.length - 1, Math.max(0, at + by))]?.index ?? null
  }
  const canFlip = computed(() => total() === 2 ** bits() && rows.value.length === total())
  /** The case in which one bit of the inputs is the other one. */
  function flip(n: number): void {
    if (!canFlip.value || chosenCase.value === null || n >= bits()) return
    chosenCase.value = chosenCase.value ^ (1 << (bits() - 1 - n))
  }
  useKeys([
    { key: 'j', label: 'next case', act: () => step(1) },
    { key: 'k', label: 'case before', act: () => step(-1) },
    ...FLIPS.map((key, n) => ({ key, label: `turn input bit ${n + 1}`, act: () => flip(n) })),
  ])
  return { chosenCase, canFlip }
}
