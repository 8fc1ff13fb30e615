/** A number as people type it, with a comma or a point; null where it is none. */
export function numberOf(text: string): number | null {
  const plain = text.trim().replace(',', '.')
  return /^-?\d+(\.\d*)?$|^-?\.\d+$/.test(plain) ? Number(plain) : null
}
