import { useVirtualizer } from '@tanstack/vue-virtual'
import { computed, type ComponentPublicInstance, type ComputedRef } from 'vue'

export interface InSight<T> {
  /** What is there to be shown, with its place in the whole list. */
  shown: ComputedRef<{ row: T; at: number }[]>
  /** The room that the rows above and below take, in pixels. */
  above: ComputedRef<number>
  below: ComputedRef<number>
  /** Given to each row as its `ref`, with its place as `data-index`: rows are as high as they are. */
  measure: (row: Element | ComponentPublicInstance | null) => void
  /** Brings a row into sight. */
  show: (at: number) => void
}

interface Options {
  /** What scrolls. */
  box: () => HTMLElement | null | undefined
  /** About how high a row is, and how much lies between two, in pixels. */
  height: number
  gap?: number
  /** What lies above the rows in what scrolls, such as a heading that stays, in pixels. */
  before?: () => number
  /** A list this long is shown whole. */
  few?: number
}
const FEW = 120
const BEYOND = 12

/** Of a long list as much as is in sight, and a little more; a short one is there whole. */
export function useInSight<T>(rows: () => T[], { box, height, gap = 0, before = () => 0, few = FEW }: Options): InSight<T> {
  const isLong = computed(() => rows().length > few)
  const virtual = useVirtualizer(
    computed(() => ({
      count: isLong.value ? rows().length : 0,
      getScrollElement: () => box() ?? null,
      estimateSize: () => height,
      overscan: BEYOND,
      gap,
      scrollMargin: before(),
      scrollPaddingStart: before(),
    })),
  )
  const items = computed(() => virtual.value.getVirtualItems())
  return {
    shown: computed(() => {
      const all = rows()
      if (!isLong.value) return all.map((row, at) => ({ row, at }))
      return items.value.filter((i) => i.index < all.length).map((i) => ({ row: all[i.index], at: i.index }))
    }),
    above: computed(() => (items.value.length ? items.value[0].start - before() : 0)),
    below: computed(() => {
      const last = items.value.at(-1)
      return last ? Math.max(0, virtual.value.getTotalSize() + before() - last.end) : 0
    }),
    measure: (row) => {
      const element = row instanceof Element ? row : ((row?.$el as Element | undefined) ?? null)
      if (element && isLong.value) virtual.value.measureElement(element)
    },
    show: (at) => {
      if (at < 0) return
      if (isLong.value) virtual.value.scrollToIndex(at)
      else box()?.querySelector(`[data-index="${at}"]`)?.scrollIntoView({ block: 'nearest' })
    },
  }
}
