import { type Block, type Inline, isTooMuch, type ListItem, readCommonMark } from '../core/text/commonmark'
import { Html, html } from './html'

/** Follows an address that is written in a note; undefined where it leads nowhere in the site, or, as a picture, to none of it. */
export type FollowAddress = (address: string, asPicture?: boolean) => string | undefined

/** A note as HTML. Raw HTML in it is shown as text; headings are set below those of the page; pictures from elsewhere become links. */
export function noteHtml(text: string, headingLevel: number, follow: FollowAddress): Html {
  if (isTooMuch(text)) return html`<pre>${text}</pre>`
  return new NoteWriter(headingLevel, follow).blocks(readCommonMark(text))
}

/** Deepest nesting of quotes and lists that a page can bear; what is deeper follows on the same level. */
const MOST_NESTED = 60

class NoteWriter {
  constructor(
    private readonly headingLevel: number,
    private readonly follow: FollowAddress,
  ) {}

  blocks(blocks: readonly Block[], depth = 0): Html {
    return html`${blocks.map((block) => this.block(block, depth))}`
  }

  private block(block: Block, depth: number): Html {
    switch (block.type) {
      case 'paragraph':
        return html`<p>${this.inline(block.content)}</p>\n`
      case 'heading': {
        const tag = new Html(`h${Math.min(6, block.level + this.headingLevel)}`)
        return html`<${tag}>${this.inline(block.content)}</${tag}>\n`
      }
      case 'quote': {
        const inside = this.blocks(block.blocks, depth + 1)
        return depth > MOST_NESTED ? inside : html`<blockquote>\n${inside}</blockquote>\n`
      }
      case 'code': {
        const language = /^[\w+#.-]{1,40}$/.test(block.language) ? html` class="language-${block.language}"` : null
        return html`<pre><code${language}>${block.text}${block.text === '' ? '' : '\n'}</code></pre>\n`
      }
      case 'rule':
        return html`<hr>\n`
      case 'list':
        return this.list(block, depth)
      case 'table':
        return this.table(block)
      case 'html':
        return html`<p>${block.text}</p>\n`
      default:
        return block satisfies never
    }
  }

  private list({ start, isTight, items }: Extract<Block, { type: 'list' }>, depth: number): Html {
    const entries = items.map((item) => this.item(item, isTight, depth))
    if (depth > MOST_NESTED) return html`${entries}`
    if (start === null) return html`<ul>\n${entries}</ul>\n`
    return html`<ol${start === 1 ? null : html` start="${start}"`}>\n${entries}</ol>\n`
  }

  private item({ isDone, blocks }: ListItem, isTight: boolean, depth: number): Html {
    const box = isDone === null ? null : html`<input type="checkbox" disabled${isDone ? html` checked` : null}> `
    const parts = blocks.map((block) =>
      isTight && block.type === 'paragraph' ? this.inline(block.content) : html`\n${this.block(block, depth + 1)}`,
    )
    return depth > MOST_NESTED ? html`${box}${parts}` : html`<li>${box}${parts}</li>\n`
  }

  private table({ align, rows }: Extract<Block, { type: 'table' }>): Html {
    const [head = [], ...body] = rows
    const cell = (tag: string) => (content: readonly Inline[], i: number) => {
      const side = align[i] ? html` align="${align[i]}"` : null
      const name = new Html(tag)
      return html`<${name}${side}>${this.inline(content)}</${name}>`
    }
    const lines = body.map((row) => html`<tr>${row.map(cell('td'))}</tr>\n`)
    return html`<table>\n<thead>\n<tr>${head.map(cell('th'))}</tr>\n</thead>\n${lines.length > 0 ? html`<tbody>\n${lines}</tbody>\n` : null}</table>\n`
  }

  private inline(content: readonly Inline[]): Html {
    return html`${content.map((part) => this.part(part))}`
  }

  private part(part: Inline): Html {
    switch (part.type) {
      case 'text':
      case 'html':
        return html`${part.text}`
      case 'code':
        return html`<code>${part.text}</code>`
      case 'break':
        return html`<br>\n`
      case 'line end':
        return html`\n`
      case 'strong':
        return html`<strong>${this.inline(part.content)}</strong>`
      case 'emphasis':
        return html`<em>${this.inline(part.content)}</em>`
      case 'strike':
        return html`<del>${this.inline(part.content)}</del>`
      case 'link':
        return this.link(part.address, this.inline(part.content))
      case 'picture':
        return this.picture(part)
      default:
        return part satisfies never
    }
  }

  /** Pictures of the site stand there; those from elsewhere would be fetched by the page, and become links. */
  private picture({ address, words }: Extract<Inline, { type: 'picture' }>): Html {
    const own = this.follow(address, true)
    return own === undefined
      ? this.link(address, html`${words || address}`)
      : html`<img class="note-picture" src="${own}" alt="${words}" loading="lazy">`
  }

  private link(address: string, words: Html): Html {
    const target = /^(?:https?:|mailto:)/i.test(address)
      ? address
      : address.startsWith('#')
        ? undefined
        : this.follow(address)
    return target === undefined ? html`<span>${words}</span>` : html`<a href="${target}">${words}</a>`
  }
}
