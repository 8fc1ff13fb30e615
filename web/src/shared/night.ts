import { useLocalStorage, usePreferredDark } from '@vueuse/core'
import { computed, watchEffect } from 'vue'

import { forgetColours } from './canvas'

export type Light = 'system' | 'day' | 'night'
export const LIGHTS: { value: Light; label: string }[] = [
  { value: 'system', label: 'as the system' },
  { value: 'day', label: 'day' },
  { value: 'night', label: 'night' },
]
/** By day or by night: as the system has it, unless somebody chose. */
export const light = useLocalStorage<Light>('obento.light', 'system')
const prefersDark = usePreferredDark()
export const isNight = computed(() => (light.value === 'system' ? prefersDark.value : light.value === 'night'))

watchEffect(
  () => {
    document.documentElement.toggleAttribute('data-night', isNight.value)
    forgetColours()
  },
  { flush: 'sync' },
)
/** Do something by the colours of the day, which are those of paper: what goes out as a picture has them. */
export function byDay<T>(work: () => T): T {
  document.documentElement.removeAttribute('data-night')
  try {
    return work()
  } finally {
    document.documentElement.toggleAttribute('data-night', isNight.value)
  }
}
