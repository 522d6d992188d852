import fc from 'fast-check'
import { expect, test } from 'vitest'
import { mentionsIn } from '../../../src/core/network/mentions'

const said = (texts: Record<string, string>, names: Record<string, string> = texts) => {
  const telling = (of: Record<string, string>) => Object.entries(of).map(([id, text]) => ({ id, text }))
  return mentionsIn(telling(texts), telling(names)).map((each) => `${each.in}: ${each.of} at ${each.at}`)
}

test('names are found as whole words in any form, overlapping ones too, each once for a text', () => {
  const names = { peat: 'Peat moss', water: 'Water table', low: 'Low water', dam: 'Sheet-pile dams' }
  const texts = {
    a: 'The low water table spares no peat mosses; peat moss dries',
    b: 'A sheet pile dam',
    c: 'Peat, and moss besides',
    d: 'lowwater',
  }
  expect(said(texts, names)).toEqual(['a: low at 1', 'a: water at 2', 'a: peat at 6', 'b: dam at 1'])
})

test('a name of one word is looked for where it is rare, one of next to nothing never', () => {
  const many = Object.fromEntries(Array.from({ length: 20 }, (_, i) => [`m${i}`, `Ditch number ${i}`]))
  expect(said({ ...many, rare: 'The sluice at Ostrel' }, { d: 'Ditch', o: 'Ostrel', s: 'so', n: '' })).toEqual([
    'rare: o at 3',
  ])
  expect(said({ a: 'one two three four five six seven eight nine' })).toEqual([])
})

test('all that comparing every name with every text finds is found, and nothing else', () => {
  const words = fc.constantFrom('maple', 'alder', 'birch', 'rowan')
  const text = fc.array(words, { minLength: 1, maxLength: 6 })
  fc.assert(
    fc.property(
      fc.array(text, { maxLength: 6 }),
      fc.array(fc.array(words, { minLength: 2, maxLength: 4 }), { maxLength: 5 }),
      (texts, names) => {
        const found = mentionsIn(
          texts.map((each, i) => ({ id: `t${i}`, text: each.join(' ') })),
          names.map((each, i) => ({ id: `n${i}`, text: each.join(' ') })),
        ).map((each) => `${each.in} ${each.of}`)
        const expected = texts.flatMap((each, t) =>
          names.flatMap((name, n) => (` ${each.join(' ')} `.includes(` ${name.join(' ')} `) ? [`t${t} n${n}`] : [])),
        )
        expect(found.sort()).toEqual(expected.sort())
      },
    ),
  )
})
