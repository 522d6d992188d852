import fc from 'fast-check'
import { expect, test } from 'vitest'
import { askedWords, daysAsked, dueWords, isAsking } from '../../../src/core/gathering/asked'
import { readAsked, writeAsked } from '../../../src/core/gathering/asked-address'
import { AskedTask, NOTHING_ASKED, SearchAsked } from '../../../src/core/records/search'

const ID = '01890a5d-ac96-774b-bcce-b302099a8057'
const day = fc.option(fc.integer({ min: -9999, max: 9999 }))
const anAsked = fc.record({
  words: fc.string({ maxLength: 40 }).map((words) => words.replaceAll('\u0000', '').toWellFormed().trim()),
  tag: fc.option(fc.constant(ID)),
  map: fc.option(fc.constant(ID)),
  task: fc.option(fc.constantFrom(...AskedTask.options)),
  due: fc.option(fc.oneof(fc.record({ from: day, to: day }), fc.record({ period: fc.constantFrom('week', 'month') }))),
  who: fc.option(fc.record({ person: fc.option(fc.constant(ID)), name: fc.constantFrom('Ada & Co', 'M=1', 'Ö') })),
})

test('a search comes back from its address as it was', () => {
  fc.assert(
    fc.property(anAsked, (given) => {
      const asked = SearchAsked.parse(given)
      expect(readAsked(new URLSearchParams(writeAsked(asked).toString()))).toEqual(asked)
    }),
  )
  expect(isAsking(NOTHING_ASKED)).toBe(false)
  expect(writeAsked(NOTHING_ASKED).toString()).toBe('')
})

test.each([
  'due=soon',
  'due=1..x',
  'due=1..99999999',
  'task=never',
  'tag=1',
  `words=${'x'.repeat(201)}`,
  'who=&task=x',
])('nobody can ask %s', (address) => expect(readAsked(new URLSearchParams(address))).toBeNull())

test('days are counted from today, and said as people say them', () => {
  const asked = { ...NOTHING_ASKED, due: { from: 0, to: 60 } }
  expect(daysAsked(asked, '2026-11-27')).toEqual({ from: '2026-11-27', to: '2027-01-26' })
  expect(daysAsked(NOTHING_ASKED, '2026-11-27')).toBeNull()
  for (const [period, today, from, to] of [
    ['week', '2026-11-27', '2026-11-23', '2026-11-29'],
    ['week', '2026-11-29', '2026-11-23', '2026-11-29'],
    ['month', '2026-11-27', '2026-11-01', '2026-11-30'],
    ['month', '2028-02-29', '2028-02-01', '2028-02-29'],
    ['month', '2026-12-31', '2026-12-01', '2026-12-31'],
  ] as const)
    expect(daysAsked({ ...NOTHING_ASKED, due: { period } }, today)).toEqual({ from, to })
  expect(dueWords({ period: 'month' })).toBe('due this month')
  const said = [
    [0, 60],
    [null, -1],
    [0, 0],
    [null, null],
    [-7, 1],
  ] as const
  expect(said.map(([from, to]) => dueWords({ from, to }))).toEqual([
    'due in the next 60 days',
    'past its date',
    'due today',
    'with a date',
    'due between 7 days ago and 1 day from now',
  ])
  const names = { tag: () => 'Permits', map: () => 'Water' }
  const all = {
    words: 'pond',
    tag: ID,
    map: ID,
    task: 'left',
    due: { from: 0, to: 60 },
    who: { person: null, name: 'Ada' },
  }
  expect(askedWords(SearchAsked.parse(all), names)).toBe(
    'with “pond”, tagged Permits, still to do, due in the next 60 days, by Ada, in Water',
  )
})
