const style = getComputedStyle(document.documentElement)

const known = new Map<string, string>()

/** A colour of the style sheet by its name. */
export function colour(name: string): string {
  const found = known.get(name) ?? style.getPropertyValue(`--${name}`).trim()
  known.set(name, found)
  return found
}
/** Colours are looked up anew: the page has others now. */
export function forgetColours(): void {
  known.clear()
}
/** Colours by names of one's own, each as it is when it is asked for. */
export function palette<K extends string>(names: Record<K, string>): Record<K, string> {
  return new Proxy({} as Record<K, string>, { get: (_, key) => colour(names[key as K]) })
}

/** A canvas of a size in pixels of the page, as sharp as the screen, ready to be painted. */
export function prepare(canvas: HTMLCanvasElement, width: number, height: number): CanvasRenderingContext2D {
  const ratio = window.devicePixelRatio || 1
  if (canvas.width !== Math.round(width * ratio) || canvas.height !== Math.round(height * ratio)) {
    canvas.width = Math.round(width * ratio)
    canvas.height = Math.round(height * ratio)
  }
  const p = canvas.getContext('2d')!
  p.setTransform(ratio, 0, 0, ratio, 0, 0)
  return p
}
