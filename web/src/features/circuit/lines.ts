/** How a wire is drawn: weight and pattern say its level, so that it reads in grey as well. */
export type Level = '0' | '1' | 'x' | 'z' | 'bus' | 'bus-x'
interface Point {
  x: number
  y: number
}

export function levelOf(digits: string): Level {
  if (digits.length === 1) return digits as Level
  return /[xz]/.test(digits) ? 'bus-x' : 'bus'
}

/** The path of a wire; unknown levels run in zigzag. */
export function path(points: Point[], level: Level): string {
  if (!points.length) return ''
  if (level !== 'x') return points.map((p, i) => `${i ? 'L' : 'M'}${p.x} ${p.y}`).join('')
  let out = `M${points[0].x} ${points[0].y}`
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1], points[i]]
    const length = Math.abs(b.x - a.x) + Math.abs(b.y - a.y)
    const steps = Math.max(1, Math.round(length / 4))
    for (let k = 1; k < steps; k++) {
      const side = k % 2 ? 2.2 : -2.2
      const [x, y] = [a.x + ((b.x - a.x) * k) / steps, a.y + ((b.y - a.y) * k) / steps]
      out += b.x === a.x ? `L${x + side} ${y}` : `L${x} ${y + side}`
    }
    out += `L${b.x} ${b.y}`
  }
  return out
}

/** Where a bus has room for its value: the middle of its longest level stretch. */
export function roomiest(points: Point[]): { x: number; y: number; length: number } {
  let best = { x: points[0]?.x ?? 0, y: points[0]?.y ?? 0, length: 0 }
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1], points[i]]
    const length = Math.abs(b.x - a.x)
    if (a.y === b.y && length > best.length) best = { x: (a.x + b.x) / 2, y: a.y, length }
  }
  return best
}
