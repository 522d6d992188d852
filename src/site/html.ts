import { escapeMarkup } from '../core/text/escape-markup'

/** Markup that may be put into a page as it is. Anything else is text and gets escaped. */
export class Html {
  constructor(readonly markup: string) {}
}

type Part = string | number | Html | null | readonly Part[]

const render = (part: Part): string => {
  if (part === null) return ''
  if (part instanceof Html) return part.markup
  if (typeof part === 'string' || typeof part === 'number') return escapeMarkup(String(part))
  return part.map(render).join('')
}

/** Parts one after the other with words between them. */
export const joined = (parts: readonly Part[], between: string): Html =>
  html`${parts.flatMap((part, i) => (i === 0 ? [part] : [between, part]))}`

/** A template whose values are escaped unless they are Html themselves. */
export function html(strings: TemplateStringsArray, ...parts: Part[]): Html {
  let markup = strings[0]!
  parts.forEach((part, i) => {
    markup += render(part) + strings[i + 1]!
  })
  return new Html(markup)
}
