/** A drawing as a picture that stands by itself: its looks are written into it, with a line of text below. */
import { byDay } from '../../shared/night'

const LOOKS = [
  'fill',
  'fill-opacity',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-linejoin',
  'paint-order',
  'font-family',
  'font-size',
  'font-weight',
  'text-anchor',
  'opacity',
]
const MARGIN = 16
const LINE = 30

/** The picture as SVG. */
export function asSvg(drawing: SVGSVGElement, caption: string): string {
  const group = drawing.querySelector<SVGGElement>(':scope > g')
  if (!group) return ''
  const copy = group.cloneNode(true) as SVGGElement
  const [from, to] = [
    [group, ...group.querySelectorAll('*')],
    [copy, ...copy.querySelectorAll('*')],
  ]
  byDay(() =>
    from.forEach((element, i) => {
      const style = getComputedStyle(element)
      to[i].setAttribute('style', LOOKS.map((name) => `${name}:${style.getPropertyValue(name)}`).join(';'))
      to[i].removeAttribute('class')
    }),
  )
  for (const hit of copy.querySelectorAll('[data-wire]')) hit.remove()
  copy.removeAttribute('transform')
  const box = group.getBBox()
  const [width, height] = [Math.ceil(box.width + 2 * MARGIN), Math.ceil(box.height + 2 * MARGIN + LINE)]
  const words = document.createElementNS('http://www.w3.org/2000/svg', 'text')
  words.textContent = caption
  words.setAttribute('x', String(box.x))
  words.setAttribute('y', String(box.y + box.height + MARGIN + LINE / 2))
  words.setAttribute('style', 'font-family:sans-serif;font-size:13px;fill:#2a2431')
  const body = new XMLSerializer()
  const view = `${box.x - MARGIN} ${box.y - MARGIN} ${width} ${height}`
  const ground = `<rect x="${box.x - MARGIN}" y="${box.y - MARGIN}" width="${width}" height="${height}" fill="#ffffff"/>`
  const head = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${view}" width="${width}" height="${height}">`
  return head + ground + body.serializeToString(copy) + body.serializeToString(words) + '</svg>'
}

/** The same as PNG, twice as fine. */
export async function asPng(svg: string): Promise<Blob | null> {
  const image = new Image()
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`
  await image.decode()
  const canvas = document.createElement('canvas')
  canvas.width = 2 * image.width
  canvas.height = 2 * image.height
  canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height)
  return new Promise((done) => canvas.toBlob(done, 'image/png'))
}

export function saveAs(name: string, data: Blob): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(data)
  link.download = name
  link.click()
  URL.revokeObjectURL(link.href)
}
