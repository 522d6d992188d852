/**
 * Names of places on a page, as HTML gives them (`id`, and `name` of `a`; WHATWG HTML, 3.2.6 and 7.4.6.4), while the page is read:
 * each stands as a mark in the text, between characters that are never text (Unicode, 23.7 Noncharacters), until the item is known
 * that it is a name of.
 */
const OPEN = '\uFDD0'
const CLOSE = '\uFDD1'
const MARK = /\uFDD0([0-9a-z-]*)\uFDD1/g

const MOST_NAME = 200

/** Whether a text can be marked: it holds none of the characters that marks are made of. */
export const canBeMarked = (text: string): boolean => !text.includes(OPEN) && !text.includes(CLOSE)

/** A name of a place as a mark: no letter of it means anything in CommonMark. Empty for what is no name. */
export function anchorMark(name: unknown): string {
  if (typeof name !== 'string' || name === '' || name.length > MOST_NAME) return ''
  const letters = Array.from(name, (letter) => letter.codePointAt(0)!.toString(36))
  return `${OPEN}${letters.join('-')}${CLOSE}`
}

/** A text without its marks, and the names that they stood for. Linear. */
export function takeAnchors(text: string): { text: string; anchors: string[] } {
  if (!text.includes(OPEN)) return { text, anchors: [] }
  const anchors: string[] = []
  const rest = text.replace(MARK, (_, letters: string) => {
    const name = nameOf(letters)
    if (name !== '') anchors.push(name)
    return ''
  })
  return { text: rest, anchors }
}

/** The name that a mark stands for; empty where it is none of ours: such characters can be written as entities too. */
function nameOf(letters: string): string {
  if (letters.length > MOST_NAME * 5) return ''
  const points = letters.split('-').map((letter) => Number.parseInt(letter, 36))
  return points.every((point) => point >= 0 && point <= 0x10ffff) ? String.fromCodePoint(...points) : ''
}
