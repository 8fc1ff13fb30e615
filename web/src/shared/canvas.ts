const style = getComputedStyle(document.documentElement)

/** A colour of the style sheet by its name. */
export function colour(name: string): string {
  return style.getPropertyValue(`--${name}`).trim()
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
