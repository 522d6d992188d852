import { expect, test } from 'vitest'
import { agendaOf, isOverdue, monthWeeks, movedBy, weekOf } from '../../../src/core/dates/agenda'
import type { TaskState } from '../../../src/core/records/dates'

const dated = (start: string, end: string | null = null, task: TaskState | null = null) => ({
  dates: { start, end },
  task,
})

test('weeks begin on Monday, on both sides of the years', () => {
  expect(['2026-11-27', '2026-11-23', '2026-11-29', '2027-01-01', '1969-12-31'].map(weekOf)).toEqual([
    '2026-11-23',
    '2026-11-23',
    '2026-11-23',
    '2026-12-28',
    '1969-12-29',
  ])
})

test('what is overdue comes first, then what is ahead by week, then what is over, the last first', () => {
  const late = dated('2026-11-02', null, 'open')
  const done = dated('2026-11-03', null, 'done')
  const goesOn = dated('2026-10-01', '2026-12-24')
  const soon = dated('2026-11-28')
  const next = dated('2026-12-01', '2026-12-02', 'begun')
  const long = dated('2026-10-05', '2026-10-09')
  const { overdue, ahead, over } = agendaOf([soon, next, done, late, long, goesOn], '2026-11-27')
  expect(overdue).toEqual([late])
  expect(ahead).toEqual([
    { monday: '2026-11-23', rows: [goesOn, soon] },
    { monday: '2026-11-30', rows: [next] },
  ])
  expect(over).toEqual([
    { monday: '2026-11-02', rows: [done] },
    { monday: '2026-10-05', rows: [long] },
  ])
  expect(isOverdue(dated('2026-11-01', '2026-11-27', 'open'), '2026-11-27')).toBe(false)
})

test('a month is seen in whole weeks, and a span is moved as a whole', () => {
  const weeks = monthWeeks('2026-11')
  expect([weeks.length, weeks[0]![0], weeks.at(-1)![6]]).toEqual([6, '2026-10-26', '2026-12-06'])
  expect(monthWeeks('2027-02')).toHaveLength(4)
  expect(movedBy({ start: '2026-02-27', end: '2026-03-01' }, 2)).toEqual({ start: '2026-03-01', end: '2026-03-03' })
})
