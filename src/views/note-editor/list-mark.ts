import { Extension, InputRule } from '@tiptap/core'

/** The marks with which a person goes on with a list as if it were plain text. */
const MARK = /^\s*(?:([-*+])|\d{1,9}[.)])\s$/

/** In a list an item begins by itself: a mark that is typed at its beginning all the same is taken for what it stands for. */
export const ListMark = Extension.create({
  name: 'listMark',
  addInputRules: () => [
    new InputRule({
      find: MARK,
      handler: ({ state, range, match }) => {
        const $from = state.doc.resolve(range.from)
        const list = $from.depth >= 2 ? $from.node(-2).type.name : ''
        const isFirst = $from.depth >= 2 && $from.index(-1) === 0
        if (!isFirst || !(match[1] ? /^(bulletList|taskList)$/ : /^orderedList$/).test(list)) return null
        state.tr.delete(range.from, range.to)
        return undefined
      },
    }),
  ],
})
