import type { Block, Inline } from '../../../src/core/text/commonmark'

/** Blocks as the HTML of the CommonMark specification, raw HTML included: for comparing with its examples, never for a page. */
export function specHtml(blocks: readonly Block[]): string {
  return blocks.map(blockHtml).join('')
}

const escaped = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;')

/** Addresses in the specification's HTML are percent-encoded. */
function encode(address: string): string {
  return escaped(
    address.replace(/%[0-9a-f]{2}|[^\w;/?:@&=+$,.!~*'()#-]/giu, (sign) =>
      /^%[0-9a-f]{2}$/i.test(sign) ? sign : encodeURIComponent(sign),
    ),
  )
}

function blockHtml(block: Block): string {
  switch (block.type) {
    case 'paragraph':
      return `<p>${inline(block.content)}</p>\n`
    case 'heading':
      return `<h${block.level}>${inline(block.content)}</h${block.level}>\n`
    case 'quote':
      return `<blockquote>\n${specHtml(block.blocks)}</blockquote>\n`
    case 'code': {
      const language = block.language === '' ? '' : ` class="language-${escaped(block.language)}"`
      return `<pre><code${language}>${escaped(block.text)}${block.text === '' ? '' : '\n'}</code></pre>\n`
    }
    case 'rule':
      return '<hr />\n'
    case 'html':
      return `${block.text}\n`
    case 'list': {
      const tag = block.start === null ? 'ul' : 'ol'
      const items = block.items.map(({ blocks }) => {
        const parts = blocks.map((inner) =>
          block.isTight && inner.type === 'paragraph' ? `${inline(inner.content)}\n` : `\n${blockHtml(inner)}`,
        )
        return `<li>${parts.join('')}</li>\n`
      })
      return `<${tag}${block.start !== null && block.start !== 1 ? ` start="${block.start}"` : ''}>\n${items.join('')}</${tag}>\n`
    }
    case 'table':
      return '<table>\n'
    default:
      return block satisfies never
  }
}

function inline(content: readonly Inline[]): string {
  return content
    .map((part) => {
      switch (part.type) {
        case 'text':
          return escaped(part.text)
        case 'html':
          return part.text
        case 'code':
          return `<code>${escaped(part.text)}</code>`
        case 'break':
          return '<br />\n'
        case 'line end':
          return '\n'
        case 'strong':
          return `<strong>${inline(part.content)}</strong>`
        case 'emphasis':
          return `<em>${inline(part.content)}</em>`
        case 'strike':
          return `<del>${inline(part.content)}</del>`
        case 'link':
          return `<a href="${encode(part.address)}"${titled(part.title)}>${inline(part.content)}</a>`
        case 'picture':
          return `<img src="${encode(part.address)}" alt="${escaped(part.words)}"${titled(part.title)} />`
        default:
          return part satisfies never
      }
    })
    .join('')
}

const titled = (title: string | null) => (title === null ? '' : ` title="${escaped(title)}"`)

/** White space between tags is of no matter. */
export const normalised = (html: string): string =>
  html
    .replace(/\s*\n\s*/g, '\n')
    .replace(/\n*(<\/?(?:li|ul|ol|p|blockquote|h\d|hr|pre|table)\b[^>]*>)\n*/g, '$1')
    .trim()
