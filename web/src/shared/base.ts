/** What stands before every path, where a proxy hands on one part of a site: empty, or such as `/labs`. */
export const BASE = (document.querySelector('base')?.getAttribute('href') ?? '/').replace(/\/$/, '')
