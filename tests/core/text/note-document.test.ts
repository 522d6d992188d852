import { readFileSync } from 'node:fs'
import { describe, expect, test } from 'vitest'
import { type DocumentNode, readNote, writeNote } from '../../../src/core/text/note-document'

const unchanged = (text: string) => {
  const source = readNote(text)
  return writeNote(source, source.blocks, source.blocks)
}

const NOTE = `Setext heading
==============

A paragraph with *emphasis*, __strong__ and a
hard wrap.

* star list
* second

1) one
2) two

<div class="x">raw</div>

![picture](a.png)

[ref]: https://example.org

| a | b |
|---|---|
| 1 | 2 |

- [x] done
- [ ] open

\`\`\`js
const a = 1
\`\`\`
`

describe('a note in the editor', () => {
  test('is the same to the letter when nothing was changed', () => {
    expect(unchanged(NOTE)).toBe(NOTE)
    expect(unchanged('\n\n  \n')).toBe('')
    expect(unchanged('no end of line')).toBe('no end of line')
    expect(unchanged('a\n\n\n\nb\n\n')).toBe('a\n\n\n\nb\n\n')
  })

  test('of any package is the same to the letter when nothing was changed', () => {
    for (const name of ['zod', 'astro', 'pg', 'yazl', 'fast-check', 'vitest']) {
      const text = readFileSync(`node_modules/${name}/README.md`, 'utf8').replace(/\r\n/g, '\n')
      expect(unchanged(text)).toBe(text)
    }
  })

  test('changes only the lines of the paragraph that was changed', () => {
    const source = readNote(NOTE)
    const current = source.blocks.map(
      (block, i): DocumentNode =>
        i === 1 ? { type: 'paragraph', content: [{ type: 'text', text: 'New words.' }] } : block,
    )
    expect(writeNote(source, source.blocks, current)).toBe(
      NOTE.replace('A paragraph with *emphasis*, __strong__ and a\nhard wrap.', 'New words.'),
    )
  })

  test('keeps its neighbours when a block is added or taken away', () => {
    const source = readNote('One\n\n\nTwo\n\nThree\n')
    const [one, two, three] = source.blocks as [DocumentNode, DocumentNode, DocumentNode]
    const added: DocumentNode = { type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text: 'New' }] }
    expect(writeNote(source, source.blocks, [one, added, two, three])).toBe('One\n\n## New\n\nTwo\n\nThree\n')
    expect(writeNote(source, source.blocks, [one, three])).toBe('One\n\nThree\n')
    expect(writeNote(source, source.blocks, [])).toBe('')
  })

  test('shows as raw text what the editor has no form for', () => {
    const types = readNote(NOTE).blocks.map((block) => block.type)
    expect(types).toEqual([
      'heading',
      'paragraph',
      'bulletList',
      'orderedList',
      'rawBlock',
      'rawBlock',
      'rawBlock',
      'table',
      'taskList',
      'codeBlock',
    ])
  })

  test('shows pictures of the collection where they stand, and no others', () => {
    const own = 'folvet:file/01a21e0e-1473-7383-9f31-fafad3e1794b'
    const text = `Seen *so*: ![The dam, "old"](${own}) on a walk.\n\n![elsewhere](https://example.org/a.png)\n`
    const source = readNote(text)
    expect(source.blocks.map(({ type }) => type)).toEqual(['paragraph', 'rawBlock'])
    expect(source.blocks[0]!.content).toContainEqual({
      type: 'notePicture',
      attrs: { src: own, alt: 'The dam, "old"', title: null },
    })
    expect(unchanged(text)).toBe(text)
    // Written anew, it is read again as it was.
    const written = writeNote(source, [], source.blocks)
    expect(readNote(written).blocks).toEqual(source.blocks)
  })

  test('writes marks, lists, tables and links that mean the same when read again', () => {
    const text =
      '**bold *both*** ~~gone~~ `code` [link **x**](https://example.org "t")\n\n- a\n  - b\n\n3. c\n\n> quote\n\n| a |\n| - |\n| x |\n'
    const source = readNote(text)
    const rewritten = writeNote({ blocks: [], slices: [], gaps: [''] }, [], source.blocks)
    expect(readNote(rewritten).blocks).toEqual(source.blocks)
  })
})
