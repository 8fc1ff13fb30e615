import { ref } from 'vue'

import { useKeys } from '../../shared/keys'
import type { SymbolSet } from './symbols'

/** Which symbols somebody likes to see, in every drawing of this browser; `y` turns to the other ones. */
export function useSymbols() {
  const symbols = ref<SymbolSet>((localStorage.getItem('symbols') as SymbolSet) || 'rectangular')
  function turnSymbols(): void {
    symbols.value = symbols.value === 'rectangular' ? 'distinctive' : 'rectangular'
    localStorage.setItem('symbols', symbols.value)
  }
  useKeys([{ key: 'y', label: 'the other set of gate symbols', act: turnSymbols }])
  return { symbols, turnSymbols }
}
