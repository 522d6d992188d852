/** Markup that may be put into a page as it is. Anything else is text and gets escaped. */
export class Html {
  constructor(readonly markup: string) {}
}

type Part = string | number | Html | null | readonly Part[]

export const escapeHtml = (text: string): string =>
  text
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;')
    .replaceAll("'", '&#39;')

const render = (part: Part): string => {
  if (part === null) return ''
  if (part instanceof Html) return part.markup
  if (typeof part === 'string' || typeof part === 'number') return escapeHtml(String(part))
  return part.map(render).join('')
}

/** A template whose values are escaped unless they are Html themselves. */
export const html = (strings: TemplateStringsArray, ...parts: Part[]): Html =>
  new Html(strings.map((text, i) => text + (i < parts.length ? render(parts[i]!) : '')).join(''))
