import { computed, ref, type Ref, watch } from 'vue'

import type { View } from './paint'

/** Pixels per unit of time at most and at least. */
const LEAST = 0.0005
const MOST = 14
/** Pixels at the edges in which a moment counts as out of sight. */
const EDGE = 20
/** Pixels that the hand may shake before a click is a drag. */
const SHAKE = 3
const NOTCH = 1.2

/** What is in sight of a sequence, and looking around in it: by wheel, by dragging, by keys. `end` is where it ends in time. */
export function useLook(width: Ref<number>, end: Ref<number>) {
  const start = ref(0)
  const scale = ref(3)
  const view = computed<View>(() => ({ start: start.value, scale: scale.value, width: width.value, end: end.value }))
  let awaited: [number, number] | null = null
  let dragged: { x: number; start: number; moved: boolean } | null = null

  function clampScale(value: number): number {
    return Math.max(Math.max(LEAST, Math.min(MOST, width.value / end.value)), Math.min(MOST, value))
  }
  function clampStart(value: number): number {
    return Math.max(0, Math.min(value, end.value - width.value / scale.value))
  }
  /** Has a stretch of time fill the width; as soon as there is one. */
  function zoomTo(from: number, until: number): void {
    awaited = width.value ? null : [from, until]
    if (!width.value) return
    scale.value = clampScale(width.value / (Math.min(end.value, until) - from))
    start.value = clampStart(from)
  }
  function zoom(factor: number, around = width.value / 2): void {
    const time = timeAt(around)
    scale.value = clampScale(scale.value * factor)
    start.value = clampStart(time - around / scale.value)
  }
  function timeAt(x: number): number {
    return start.value + x / scale.value
  }
  /** Moves as little as brings a moment into sight. */
  function bringIn(time: number): void {
    const x = (time - start.value) * scale.value
    if (x < EDGE || x > width.value - EDGE) start.value = clampStart(time - width.value / 2 / scale.value)
  }
  /** `x` is where on the picture; a wheel turned sideways moves, upright it zooms. */
  function wheel(x: number, sideways: number, upright: number, isSideways: boolean): void {
    if (isSideways || Math.abs(sideways) > Math.abs(upright)) start.value = clampStart(start.value + (sideways || upright) / scale.value)
    else zoom(upright < 0 ? NOTCH : 1 / NOTCH, x)
  }
  function grab(x: number): void {
    dragged = { x, start: start.value, moved: false }
  }
  function drag(x: number): void {
    if (!dragged) return
    const by = x - dragged.x
    dragged.moved ||= Math.abs(by) > SHAKE
    if (dragged.moved) start.value = clampStart(dragged.start - by / scale.value)
  }
  /** Whether it was a click, not a drag. */
  function letGo(): boolean {
    const isClick = dragged !== null && !dragged.moved
    dragged = null
    return isClick
  }
  watch(width, (now, before) => {
    if (awaited) zoomTo(...awaited)
    else if (before && now) scale.value = clampScale((scale.value * now) / before)
  })
  return { view, zoomTo, zoom, timeAt, bringIn, wheel, grab, drag, letGo }
}
