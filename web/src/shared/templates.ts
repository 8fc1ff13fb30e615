/** What can be put into a template: a text, a number, or a list of texts. */
export type Value = string | number | string[]

/**
 * A template with its values put in, by the rules of the server's core/sentences: `{name}`, `{name|one|many}` by a number,
 * `{name&}` a list with the word for "and" before the last.
 */
export function filled(words: Record<string, string> | undefined, key: string, values: Record<string, Value> = {}): string {
  return (words?.[key] ?? '').replace(
    /\{(\w+)(&|\|([^|{}]*)\|([^|{}]*))?\}/g,
    (all, name: string, how?: string, one?: string, many?: string) => {
      const value = values[name]
      if (value === undefined) return all
      if (how?.startsWith('|')) return (Number(value) === 1 ? one : many) ?? ''
      return Array.isArray(value) ? listed(value, words?.and ?? '') : String(value)
    },
  )
}
function listed(texts: string[], and: string): string {
  return texts.length < 2 ? texts.join('') : `${texts.slice(0, -1).join(', ')} ${and} ${texts[texts.length - 1]}`
}
