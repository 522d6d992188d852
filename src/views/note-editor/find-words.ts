import { Extension } from '@tiptap/core'
import type { Node } from '@tiptap/pm/model'
import { Plugin, PluginKey } from '@tiptap/pm/state'
import { Decoration, DecorationSet } from '@tiptap/pm/view'
import { foldForFinding } from '../../core/text/folding'

export interface FoundPlace {
  from: number
  to: number
}

export const findKey = new PluginKey<{ words: string; at: number }>('find words')

/** Most places that are shown. */
const MOST = 2_000

/** Where some words stand in a note, whatever their capitals and accents, where these take no letters more. Linear. */
export function placesOf(doc: Node, words: string): FoundPlace[] {
  const wanted = fold(words)
  const places: FoundPlace[] = []
  if (wanted === '') return places
  doc.descendants((node, position) => {
    if (!node.isTextblock) return true
    // What is no letter takes a place of its own, so that a place in the text is one in the note.
    const text = fold(node.textBetween(0, node.content.size, '\ufffc', '\ufffc'))
    for (let at = text.indexOf(wanted); at >= 0 && places.length < MOST; at = text.indexOf(wanted, at + wanted.length))
      places.push({ from: position + 1 + at, to: position + 1 + at + wanted.length })
    return false
  })
  return places
}

/** Folded letter by letter: a letter that would become several stays as it is. */
const fold = (text: string): string =>
  [...text.toLowerCase()]
    .map((letter) => {
      const folded = foldForFinding(letter)
      return folded.length === letter.length ? folded : letter
    })
    .join('')

/** Marks the places of the words that are looked for. */
export const FindWords = Extension.create({
  name: 'findWords',
  addProseMirrorPlugins: () => [
    new Plugin({
      key: findKey,
      state: {
        init: () => ({ words: '', at: 0 }),
        apply: (transaction, before) => transaction.getMeta(findKey) ?? before,
      },
      props: {
        decorations: (state) => {
          const { words, at } = findKey.getState(state) ?? { words: '', at: 0 }
          if (words === '') return null
          const marks = placesOf(state.doc, words).map(({ from, to }, i) =>
            Decoration.inline(from, to, { class: i === at ? 'found-now' : 'found' }),
          )
          return DecorationSet.create(state.doc, marks)
        },
      },
    }),
  ],
})
