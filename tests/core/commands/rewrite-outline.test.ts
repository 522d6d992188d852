import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { addTopic } from '../../../src/core/commands/add-topic'
import { deleteTopics } from '../../../src/core/commands/delete-topics'
import { moveTopics } from '../../../src/core/commands/move-topics'
import { rewriteOutline } from '../../../src/core/commands/rewrite-outline'
import { setText } from '../../../src/core/commands/set-text'
import { splitOff } from '../../../src/core/commands/split-off'
import { writeNote } from '../../../src/core/commands/write-note'
import { linesBelow, readOutlineText, writeOutlineText } from '../../../src/core/formats/outline-text'
import { contents, Garden } from '../gardens'

const textOf = (garden: Garden, head = garden.topic('Garden')) => writeOutlineText(linesBelow(garden.records, head))
const rewrite = (garden: Garden, text: string) =>
  garden.do((records, newIds) => {
    const head = garden.topic('Garden')
    return rewriteOutline(records, { head, base: linesBelow(records, head), text }, newIds)
  })

function planted(): Garden {
  const garden = new Garden()
  garden.grow('Garden\nSpring\n  Sow peas\n  Prune\nSummer\n  Pick beans\n    Dwarf\nAutumn')
  return garden
}

describe('an outline written as text', () => {
  test('says what is there, with line breaks inside a topic as a sign', () => {
    const garden = planted()
    expect(textOf(garden)).toBe('- Spring\n  - Sow peas\n  - Prune\n- Summer\n  - Pick beans\n    - Dwarf\n- Autumn')
    expect(readOutlineText('* One ⏎ two\n\n\t- Three\nFour')).toEqual([
      { level: 0, text: 'One\ntwo' },
      { level: 1, text: 'Three' },
      { level: 0, text: 'Four' },
    ])
  })

  test('is CommonMark with headings where rows have others below them, and is read alike', () => {
    const garden = planted()
    const lines = linesBelow(garden.records, garden.topic('Garden'))
    const text = '# Spring\n\n- Sow peas\n- Prune\n\n# Summer\n\n- Pick beans\n  - Dwarf\n\n# Autumn'
    expect(writeOutlineText(lines, 'headings')).not.toBe(text)
    expect(writeOutlineText(lines, 'headings')).toBe(
      '# Spring\n- Sow peas\n- Prune\n\n# Summer\n## Pick beans\n- Dwarf\n\n# Autumn',
    )
    expect(rewrite(garden, text).change.edits).toEqual([])
    const spring = garden.topic('Spring')
    rewrite(garden, '# Summer\n## Spring\nPrune\n### Late\n- Peas')
    expect(garden.topic('Spring')).toBe(spring)
    expect(textOf(garden)).toBe('- Summer\n  - Spring\n    - Prune\n    - Late\n      - Peas')
  })

  test('in either form says the same, whatever the tree and its texts', () => {
    const text = fc.oneof(fc.constantFrom('', 'Peas', '# x', '- y', '#', 'a\nb', '1. z', '> q'), fc.string())
    const tree = fc.array(fc.tuple(fc.nat(8), text), { maxLength: 30 }).map((rows) => {
      let last = -1
      return rows.map(([level, words]) => {
        last = Math.min(level, last + 1)
        return { level: last, text: words.replaceAll(/\s+/g, ' ').replaceAll('⏎', '').trim() }
      })
    })
    fc.assert(
      fc.property(tree, (lines) => {
        expect(readOutlineText(writeOutlineText(lines, 'list'))).toEqual(lines)
        expect(readOutlineText(writeOutlineText(lines, 'headings'))).toEqual(lines)
      }),
      { numRuns: 400 },
    )
  })

  test('keeps topics without a text', () => {
    const garden = planted()
    const peas = garden.topic('Sow peas')
    garden.do((records, newIds) => setText(records, { topic: peas, text: '' }, newIds))
    expect(textOf(garden)).toContain('  - ⏎\n')
    rewrite(garden, textOf(garden).replace('Autumn', 'Winter'))
    expect(garden.records.need('topic', peas)).toMatchObject({ text: '', trashed: false })
  })

  test('that was not changed makes no edit', () => {
    const garden = planted()
    expect(rewrite(garden, textOf(garden)).change.edits).toEqual([])
  })

  test('with one line retyped makes one edit, and the topic keeps its note', () => {
    const garden = planted()
    const peas = garden.topic('Sow peas')
    garden.do((records, newIds) => writeNote(records, { topic: peas, base: '', text: 'Early.' }, newIds))
    const { change } = rewrite(garden, textOf(garden).replace('Sow peas', 'Sow broad beans'))
    expect(change.edits).toHaveLength(1)
    expect(garden.records.need('topic', peas).text).toBe('Sow broad beans')
    expect(garden.records.need('topic', peas).note).not.toBeNull()
  })

  test('moves, indents, adds and takes away lines, and leaves the others as they are', () => {
    const garden = planted()
    const [beans, dwarf, prune, spring] = ['Pick beans', 'Dwarf', 'Prune', 'Spring'].map((text) => garden.topic(text))
    const text = '- Summer\n- Spring\n  - Pick beans\n    - Dwarf\n    - Climbing\n  - Sow peas\n- Autumn'
    rewrite(garden, text)
    expect(textOf(garden)).toBe(text)
    expect([garden.topic('Pick beans'), garden.topic('Dwarf'), garden.topic('Spring')]).toEqual([beans, dwarf, spring])
    expect(garden.records.need('topic', prune!).trashed).toBe(true)
  })

  test('turns a branch inside out without a loop', () => {
    const garden = planted()
    const dwarf = garden.topic('Dwarf')
    rewrite(garden, '- Dwarf\n  - Pick beans\n    - Summer\n- Autumn')
    expect(textOf(garden)).toBe('- Dwarf\n  - Pick beans\n    - Summer\n- Autumn')
    expect(garden.topic('Dwarf')).toBe(dwarf)
  })

  test('gives the map behind a doorway that is gone no home doorway', () => {
    const garden = planted()
    const spring = garden.topic('Spring')
    garden.do((records, newIds) => splitOff(records, { topic: spring }, newIds))
    const map = garden.records.need('topic', spring).opensMap
    rewrite(garden, '- Summer')
    expect(garden.records.need('map', map).homeDoorway).toBeNull()
  })

  test('can be emptied and taken back', () => {
    const garden = planted()
    const before = contents(garden.records)
    rewrite(garden, '')
    expect(textOf(garden)).toBe('')
    expect(contents(garden.records)).not.toEqual(before)
  })

  const operation = fc.tuple(fc.constantFrom('retype', 'drop', 'move', 'indent', 'insert'), fc.nat(999), fc.nat(999))
  test('always says what was written, and every line that was not retyped stays the topic that it was', () => {
    fc.assert(
      fc.property(
        fc.array(fc.nat(3), { minLength: 2, maxLength: 40 }),
        fc.array(operation, { maxLength: 8 }),
        (levels, operations) => {
          const garden = new Garden()
          garden.grow('Garden')
          const lines: { level: number; text: string; was: string | null }[] = levels.map((level, i) => ({
            level,
            text: `line ${i * 7919}`,
            was: `line ${i * 7919}`,
          }))
          const written = () => {
            const open: number[] = []
            return writeOutlineText(
              lines.map(({ level, text }) => {
                while (open.length > 0 && open.at(-1)! >= level) open.pop()
                open.push(level)
                return { level: open.length - 1, text }
              }),
            )
          }
          rewrite(garden, written())
          const ids = new Map([...garden.records.all('topic')].map(({ id, text }) => [text, id]))
          let fresh = 0
          for (const [what, a, b] of operations) {
            const at = a % Math.max(lines.length, 1)
            if (what === 'insert' || lines.length === 0)
              lines.splice(at, 0, { level: b % 3, text: `fresh ${++fresh}`, was: null })
            else if (what === 'retype') lines[at] = { ...lines[at]!, text: `other ${++fresh}`, was: null }
            else if (what === 'drop') lines.splice(at, 1)
            else if (what === 'indent') lines[at] = { ...lines[at]!, level: b % 4 }
            else lines.splice(b % lines.length, 0, lines.splice(at, 1)[0]!)
          }
          rewrite(garden, written())
          expect(textOf(garden)).toBe(written())
          const now = new Map(
            linesBelow(garden.records, garden.topic('Garden')).map(({ text, topic }) => [text, topic]),
          )
          for (const { text, was } of lines)
            if (was !== null) expect([text, now.get(text)]).toEqual([text, ids.get(was)])
        },
      ),
      { numRuns: 300 },
    )
  })
})

describe('an outline that was open while others worked', () => {
  /** What the person began with, and what they make of it while others do something else. */
  function meanwhile(mine: (text: string) => string, theirs: (garden: Garden) => void): Garden {
    const garden = planted()
    const base = linesBelow(garden.records, garden.topic('Garden'))
    theirs(garden)
    garden.do((r, m) =>
      rewriteOutline(r, { head: garden.topic('Garden'), base, text: mine(writeOutlineText(base)) }, m),
    )
    return garden
  }
  const add = (parent: string, text: string) => (garden: Garden) => {
    garden.do((r, m) => addTopic(r, { parent: garden.topic(parent), after: 'last', text }, m))
  }

  test('keeps what they added, also below a line that is gone', () => {
    const added = meanwhile((text) => text.replace('Autumn', 'Late autumn'), add('Summer', 'Water'))
    expect(textOf(added)).toContain('- Summer\n  - Pick beans\n    - Dwarf\n  - Water\n- Late autumn')
    const below = meanwhile(() => '- Spring\n- Autumn', add('Pick beans', 'Climbing'))
    expect(textOf(below)).toBe('- Spring\n- Summer\n  - Pick beans\n    - Climbing\n- Autumn')
  })

  test('keeps what they reworded and moved, where the person left it alone', () => {
    const garden = meanwhile(
      (text) => text.replace('Prune', 'Prune late'),
      (garden) => {
        garden.do((r, m) => setText(r, { topic: garden.topic('Sow peas'), text: 'Sow leeks' }, m))
        garden.do((r, m) =>
          moveTopics(
            r,
            { topics: [garden.topic('Dwarf')], parent: garden.topic('Autumn'), after: 'last', side: null },
            m,
          ),
        )
      },
    )
    expect(textOf(garden)).toBe(
      '- Spring\n  - Sow leeks\n  - Prune late\n- Summer\n  - Pick beans\n- Autumn\n  - Dwarf',
    )
  })

  test('hangs new lines on what still stands where they took away what was above', () => {
    const garden = meanwhile(
      (text) => text.replace('    - Dwarf', '    - Dwarf\n      - Low'),
      (garden) => {
        garden.do((r, m) => deleteTopics(r, { topics: [garden.topic('Pick beans')] }, m))
      },
    )
    expect(textOf(garden)).toBe('- Spring\n  - Sow peas\n  - Prune\n- Summer\n  - Low\n- Autumn')
  })

  test('goes on from what it wrote', () => {
    const garden = planted()
    const head = garden.topic('Garden')
    const write = (base: Parameters<typeof rewriteOutline>[1]['base'], text: string) =>
      garden.do((r, m) => rewriteOutline(r, { head, base, text }, m))
    const first = write(linesBelow(garden.records, head), `${textOf(garden)}\n- Winter`)
    add('Autumn', 'Rake')(garden)
    const second = write(first.lines, `${writeOutlineText(first.lines)}\n- Frost`)
    expect(second.change.edits).toHaveLength(1)
    expect(textOf(garden)).toMatch(/- Autumn\n {2}- Rake\n- Winter\n- Frost$/)
  })
})

test('equal lines stay with their own parents when branches change places', () => {
  const garden = new Garden()
  garden.grow('Garden\nTrees\n  Cost\n  Spacing\nShrubs\n  Cost')
  const cost = (parent: string) => garden.records.children(garden.topic(parent)).find(({ text }) => text === 'Cost')!.id
  const before = [cost('Trees'), cost('Shrubs')]
  rewrite(garden, '- Shrubs\n  - Cost\n- Trees\n  - Cost\n  - Spacing')
  expect([cost('Trees'), cost('Shrubs')]).toEqual(before)
})

test('a sign like that of a line break is kept in a text', () => {
  const garden = planted()
  garden.do((r, m) => setText(r, { topic: garden.topic('Prune'), text: 'Press ⏎\nor \\⏎' }, m))
  expect(rewrite(garden, textOf(garden)).change.edits).toEqual([])
  rewrite(garden, textOf(garden).replace('Autumn', 'Winter'))
  expect(garden.topic('Press ⏎\nor \\⏎')).toBeDefined()
})
