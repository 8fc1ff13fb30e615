import type { Appearance } from '../circuit/layout'
import type { Indexed } from '../circuit/model'
import { labelOf } from './lines'
import type { Looks } from './looks'

/** What a text says of the looks of its circuit, by the parts and pins of the drawing. */
export function appearanceOf(at: Indexed, text: string, looks: Looks): Appearance {
  const found: Appearance = { turned: new Map(), sides: new Map(), named: new Map(), frames: [] }
  const byLabel = new Map<string, number[]>()
  for (const part of at.circuit.parts) {
    if (part.kind === 'input' || part.kind === 'output' || part.within >= 0) continue
    const label = labelOf(text, part.line)
    if (!label) continue
    byLabel.set(label, [...(byLabel.get(label) ?? []), part.id])
    const facing = looks.turned.get(label)
    if (facing) found.turned.set(part.id, facing)
    for (const pin of part.pins) {
      const side = looks.sides.get(`${label}.${pin.name}`)
      if (side) found.sides.set(pin.id, side)
    }
  }
  if (looks.named.size)
    for (const part of at.circuit.parts)
      for (const pin of part.pins) {
        const names = new Set(pin.bits.map((b) => at.circuit.names[b]?.replace(/\[\d+\]$/, '')))
        const [name] = names
        if (pin.side === (part.kind === 'unit' && part.within >= 0 ? '' : 'out') && names.size === 1 && name && looks.named.has(name))
          found.named.set(pin.id, name)
      }
  for (const group of looks.groups) {
    const parts = group.names.flatMap((name) => byLabel.get(name) ?? [])
    if (parts.length) found.frames.push({ text: group.text, parts })
  }
  return found
}
