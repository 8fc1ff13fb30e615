import { useLocalStorage } from '@vueuse/core'

/** Whether long values stand as bits: by choice, in all tables. */
export const showsBits = useLocalStorage('obento.bits', false)
