import { type Layout, layOut, type Places, shapeOf, withCircuit, withPlaces } from '../circuit/layout'
import type { Indexed } from '../circuit/model'
import { appearanceOf } from './appearance'
import { labelOf } from './lines'
import type { Looks } from './looks'

/** Parts of lines that were put somewhere by hand; all symbols of one line move together. */
function placed(found: Layout, text: string, looks: Looks): Layout {
  const byLabel = looks.places
  const places: Places = new Map()
  if (!byLabel.size) return found
  const lines = new Map<number, typeof found.parts>()
  for (const p of found.parts)
    if (!['input', 'output'].includes(p.part.kind) && p.part.within < 0) lines.set(p.part.line, [...(lines.get(p.part.line) ?? []), p])
  for (const [line, parts] of lines) {
    const at = byLabel.get(labelOf(text, line))
    const last = parts.reduce((a, b) => (b.x > a.x ? b : a))
    if (at) for (const p of parts) places.set(p.part.id, { x: Math.max(0, at.x + p.x - last.x), y: Math.max(0, at.y + p.y - last.y) })
  }
  return withPlaces(found, places)
}

/** Lays circuits out as their text says. A circuit of the same shape as the one before is not laid out again; one that is out of date
 * before its turn comes is not laid out at all, and gives null. */
export function useSaidLayout() {
  let before: { shape: string; layout: Promise<Layout> } | null = null
  let newest = 0

  return async function (at: Indexed, text: string, looks: Looks, folded: Set<number>, only: Set<number> | null): Promise<Layout | null> {
    const appearance = appearanceOf(at, text, looks)
    const shape = JSON.stringify([
      shapeOf(at),
      [...folded],
      [...(only ?? [])],
      [...appearance.turned, ...appearance.sides],
      [...appearance.named],
      appearance.frames,
    ])
    const mine = ++newest
    if (before && before.shape !== shape) await before.layout.catch(() => undefined)
    if (mine !== newest) return null
    if (before?.shape !== shape) before = { shape, layout: layOut(at, folded, only, true, appearance) }
    const asked = before
    const laidOut = await asked.layout.catch((error: unknown) => {
      if (before === asked) before = null
      throw error
    })
    const found = withCircuit(laidOut, at)
    return { ...placed(found, text, looks), frames: appearance.frames, remarks: looks.remarks }
  }
}
