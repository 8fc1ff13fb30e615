import type { CircuitView, CircuitPart, CircuitPin } from '../../api/schema'

const CONSTANT: Record<number, string> = { [-1]: '0', [-2]: '1', [-3]: 'x', [-4]: 'z' }

/** A circuit with what is looked up in it again and again. */
export interface Indexed {
  circuit: CircuitView
  part: Map<number, CircuitPart>
  pin: Map<number, CircuitPin>
  owner: Map<number, CircuitPart>
  /** From the pin where a wire ends to the pins where it starts. */
  from: Map<number, number[]>
}

export function index(circuit: CircuitView): Indexed {
  const found: Indexed = { circuit, part: new Map(), pin: new Map(), owner: new Map(), from: new Map() }
  for (const part of circuit.parts) {
    found.part.set(part.id, part)
    for (const pin of part.pins) {
      found.pin.set(pin.id, pin)
      found.owner.set(pin.id, part)
    }
  }
  for (const wire of circuit.wires) found.from.set(wire.end, [...(found.from.get(wire.end) ?? []), wire.start])
  return found
}

/** Whether a part is a box with names at its pins, and no symbol. */
export function isBox(part: CircuitPart): boolean {
  return part.kind === 'process' || part.kind === 'unit' || part.kind === 'part'
}

/** The digits on a pin, leftmost first; `at` is a place in `circuit.cases`. */
export function digitsOf(pin: CircuitPin, digits: Record<string, string>, at: number): string {
  let text = ''
  for (const bit of pin.bits) text = (bit < 0 ? CONSTANT[bit] : (digits[bit]?.[at] ?? 'x')) + text
  return text
}

/** Digits as people read them: a bus as a number in base 16 with its digits known, else as it is. */
export function shortValue(digits: string): string {
  if (digits.length <= 4 || /[xz]/.test(digits)) return digits
  return (
    '0x' +
    BigInt('0b' + digits)
      .toString(16)
      .padStart(Math.ceil(digits.length / 4), '0')
  )
}

/** Digits as the spec's port writes them. */
export function portValue(digits: string, port: { radix: string; signed: boolean } | undefined): string {
  if (!port || port.radix === 'bin' || /[xz]/.test(digits)) return shortValue(digits)
  const number = BigInt('0b' + digits)
  if (port.radix === 'hex') return '0x' + number.toString(16).padStart(Math.ceil(digits.length / 4), '0')
  return String(port.signed && digits[0] === '1' ? number - (1n << BigInt(digits.length)) : number)
}

/** A wire's name: its signal, or what makes it and where. */
export function wireName(at: Indexed, pin: CircuitPin): string {
  const names = pin.bits.map((b) => at.circuit.names[b]).filter(Boolean)
  const part = at.owner.get(pin.id)
  if (pin.name && part && !isBox(part)) return pin.name
  if (names.length === pin.bits.length && names.length) {
    const whole = names[0].replace(/\[\d+\]$/, '')
    if (names.length === 1) return names[0]
    const numbers = names.map((n) => Number(/\[(\d+)\]$/.exec(n)?.[1] ?? -1))
    if (names.every((n) => n.replace(/\[\d+\]$/, '') === whole))
      return numbers[0] === 0 ? whole : `${whole}[${numbers[numbers.length - 1]}..${numbers[0]}]`
    return pin.name || `${names.length} wires`
  }
  return part ? `${part.kind} in line ${part.line}` : 'wire'
}

/** The name that a wire was given in the text, if it was and is no port's. */
export function givenName(at: Indexed, pin: CircuitPin): string {
  const part = at.owner.get(pin.id)
  if (!part || part.kind === 'input' || isBox(part) || !pin.bits.every((b) => at.circuit.names[b])) return ''
  const name = wireName(at, pin)
  return name.slice(name.lastIndexOf('.') + 1)
}

/** Everything that a pin depends on: the parts of its fan-in cone, and the boxes around them. */
export function fanIn(at: Indexed, start: number): Set<number> {
  const parts = new Set<number>()
  const seen = new Set<number>()
  const queue = [start]
  for (let pin = queue.pop(); pin !== undefined; pin = queue.pop()) {
    if (seen.has(pin)) continue
    seen.add(pin)
    const part = at.owner.get(pin)
    if (!part) continue
    for (let box: CircuitPart | undefined = part; box; box = at.part.get(box.within)) parts.add(box.id)
    queue.push(...(at.from.get(pin) ?? []))
    if (part.kind !== 'unit' && at.pin.get(pin)?.side === 'out') for (const p of part.pins) if (p.side === 'in') queue.push(p.id)
  }
  return parts
}
