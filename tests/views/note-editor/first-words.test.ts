import { describe, expect, test } from 'vitest'
import type { DocumentNode } from '../../../src/core/text/note-document'
import { blocksOf } from '../../../src/views/note-editor/first-words'

/** Blocks in short: `p:words`, and lists with their items. */
const inShort = ({ type = '', text, content = [] }: DocumentNode): string => {
  if (type === 'text') return text ?? ''
  const inside = content.map(inShort).join(type.endsWith('List') ? '|' : '')
  return type === 'paragraph' ? `p:${inside}` : type === 'listItem' ? inside : `${type}[${inside}]`
}

describe('what was written before the editor came', () => {
  test.each([
    ['lines', 'Sow early.\nWater late.', ['p:Sow early.', 'p:Water late.']],
    ['a list behind a line', 'Beds\n- one\n- two', ['p:Beds', 'bulletList[p:one|p:two]']],
    ['an item that was only begun', 'Beds\n- ', ['p:Beds', 'bulletList[p:]']],
    ['the next item, only begun', 'Beds\n- one\n- ', ['p:Beds', 'bulletList[p:one|p:]']],
    ['a number that was only begun', '1. ', ['orderedList[p:]']],
    ['a mark without its space, which is still to come', 'Beds\n-', ['p:Beds', 'p:-']],
    ['a dash within a line', 'Beds - ', ['p:Beds - ']],
  ])('%s', (_, words, blocks) => {
    expect(blocksOf(words).map(inShort)).toEqual(blocks)
  })
})
