/**
 * Elements that a parser of HTML opens again in every block until they are closed, and tables, out of which it moves what does
 * not belong there (WHATWG HTML, 13.2.4.3 The list of active formatting elements).
 */
const REOPENED = new Set('a b big code em font i nobr s small strike strong table tt u'.split(' '))

/** Most elements that are opened again, summed over the tags of a text. */
const MOST = 50_000

/** Whether a text of HTML can be parsed in a bounded time: 9 kB can be written that take a minute. Linear in the text. */
export function isBoundedHtml(html: string): boolean {
  const open = new Map<string, number>()
  let unclosed = 0
  let sum = 0
  for (const [, slash, name = ''] of html.matchAll(/<(\/?)([a-z][a-z0-9]{0,20})/gi)) {
    sum += unclosed
    if (sum > MOST) return false
    const tag = name.toLowerCase()
    if (!REOPENED.has(tag)) continue
    const count = open.get(tag) ?? 0
    if (slash === '') {
      open.set(tag, count + 1)
      unclosed++
    } else if (count > 0) {
      open.set(tag, count - 1)
      unclosed--
    }
  }
  return true
}
