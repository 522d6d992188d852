import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { applyEdits, type Edit, editBetween, type PackedEdit } from '../../../src/core/changes/edit'
import { isPacked, packEdits, unpackBackwards, unpackEdits } from '../../../src/core/changes/packed'
import { NoteId } from '../../../src/core/records/ids'
import { NoteRecord } from '../../../src/core/records/note'
import { Records } from '../../../src/core/records/records'

const ID = NoteId.parse('0190f5b0-0000-7000-8000-000000000001')
const noteOf = (text: string) => NoteRecord.parse({ id: ID, text, joinedInto: null, trashed: false })
const PAGE = 'Sow the peas early 🌱 and water them late.\n\n'.repeat(40)

/** A record with a text, and the edit that rewords it. */
function wording(before: string, after: string): { records: Records; edits: Edit[] } {
  const records = new Records()
  records.put('note', noteOf(before))
  return { records, edits: [editBetween('note', noteOf(before), noteOf(after)) as Edit] }
}
const travelled = (edits: readonly PackedEdit[]): PackedEdit[] => JSON.parse(JSON.stringify(edits))

/** A text after something was written over a part of it, which may begin or end within a character of two letters. */
const writing = fc.record({ at: fc.nat(2_000), out: fc.nat(60), words: fc.string({ unit: 'grapheme', maxLength: 40 }) })
const written = (text: string, { at, out, words }: { at: number; out: number; words: string }): string => {
  const start = at % text.length
  return `${text.slice(0, start)}${words}${text.slice(start + out)}`.toWellFormed()
}

describe('a long text that was reworded', () => {
  test('travels as what differs, and is the same at the other end', () => {
    fc.assert(
      fc.property(fc.array(writing, { minLength: 1, maxLength: 6 }), (writings) => {
        const after = writings.reduce(written, PAGE)
        const { records, edits } = wording(PAGE, after)
        if (after === PAGE) return
        expect(unpackEdits(records, travelled(packEdits(edits)))).toEqual({ edits, unread: [] })
      }),
    )
  })

  test('takes no more room than was written, and no half of a character is in it', () => {
    const { edits } = wording(PAGE, PAGE.replace('🌱', '🌿'))
    const packed = packEdits(edits)
    expect(isPacked(packed)).toBe(true)
    expect(JSON.stringify(packed).length).toBeLessThan(300)
    expect(packed[0]!.after.text).toMatchObject({ out: '🌱', in: '🌿' })
  })

  test.each([
    ['short', 'Peas', 'Beans'],
    ['written anew', PAGE, 'Leeks stand in the sun. '.repeat(60)],
  ])('stays whole where it is %s', (_, before, after) => {
    const { edits } = wording(before, after)
    expect(packEdits(edits)).toEqual(edits)
  })

  test('is told to be unread where another text stands, and the edits beside it are read', () => {
    const { edits } = wording(PAGE, `${PAGE}More.`)
    const packed = packEdits(edits)
    for (const records of [wording(`${PAGE}Else.`, 'x').records, new Records()])
      expect(unpackEdits(records, packed)).toEqual({ edits: [], unread: packed })
  })

  test('is read once a change, however often it stands there: a page costs its length only once', () => {
    const { records, edits } = wording(PAGE, `${PAGE}More.`)
    const [packed] = packEdits(edits)
    expect(
      unpackEdits(
        records,
        Array.from({ length: 1_000 }, () => packed!),
      ),
    ).toMatchObject({
      edits,
      unread: { length: 999 },
    })
  })

  test.each([
    ['a place behind its end', { at: 99_999, out: 'x', in: 'y' }],
    ['other words than stand there', { at: 0, out: 'Beans', in: 'y' }],
  ])('is unread with %s', (_, after) => {
    const { records, edits } = wording(PAGE, `${PAGE}More.`)
    const [packed] = packEdits(edits)
    expect(unpackEdits(records, [{ ...packed!, after: { text: after } }]).unread).toHaveLength(1)
  })

  test('is read backwards from what it is now, whatever was written into it since', () => {
    fc.assert(
      fc.property(fc.array(writing, { minLength: 1, maxLength: 12 }), fc.nat(11), (writings, kept) => {
        const { records } = wording(PAGE, PAGE)
        const changes = writings.flatMap((each, i): { edits: Edit[] }[] => {
          const text = records.need('note', ID).text
          const after = i === kept ? 'Short.' : written(text.length > 10 ? text : PAGE, each)
          const edit = editBetween('note', noteOf(text), noteOf(after))
          if (!edit) return []
          applyEdits(records, [edit])
          return [{ edits: [edit] }]
        })
        const stored = changes.map(({ edits }) => ({ edits: travelled(packEdits(edits)) }))
        expect(unpackBackwards(records, stored.toReversed())).toEqual(changes.toReversed())
      }),
    )
  })
})
