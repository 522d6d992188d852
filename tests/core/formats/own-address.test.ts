import fc from 'fast-check'
import { expect, test } from 'vitest'
import { type OwnAddress, readOwnAddress, writeOwnAddress } from '../../../src/core/formats/own-address'
import { readNote } from '../../../src/core/text/note-document'

const ID = '01890a5d-ac96-774b-bcce-b302099a8057'
const words = fc.string({ minLength: 1, maxLength: 60, unit: 'grapheme' }).filter((text) => text.isWellFormed())

test('an address comes back as it was, also out of a link in a note', () => {
  const any = fc.oneof(
    fc.record({ kind: fc.constant('topic'), id: fc.constant(ID), passage: fc.option(words) }),
    fc.record({
      kind: fc.constant('file'),
      id: fc.constant(ID),
      page: fc.option(fc.integer({ min: 1, max: 999_999 })),
    }),
    fc.constant({ kind: 'map', id: ID }),
  ) as fc.Arbitrary<OwnAddress>
  fc.assert(
    fc.property(any, (own) => {
      const address = writeOwnAddress(own)
      expect(readOwnAddress(address)).toEqual(own)
      const { blocks } = readNote(`See [there](${address}).`)
      expect(blocks[0]!.content![1]!.marks![0]!.attrs!.href).toBe(address)
    }),
  )
})

test.each([
  `folvet:topic/${ID}#page=2`,
  `folvet:map/${ID}#words=x`,
  `folvet:file/${ID}#words=x`,
  `folvet:file/${ID}#page=x`,
  `folvet:topic/${ID}#words=%E4`,
  `folvet:topic/${ID}#words=`,
  'folvet:topic/1',
  `https://example.org/${ID}`,
])('%s is none of ours', (address) => expect(readOwnAddress(address)).toBeNull())
