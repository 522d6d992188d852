import { expect, test } from 'vitest'
import { numberIn, proposeChart, readTable, timeIn } from '../../../src/core/formats/table-file'

test('a table is read whatever stands between its cells, and says which columns are numbers and days', () => {
  const table = readTable('\ufeffday;level;"place; exact"\r\n2025-01-02;-3,5;Weir "A"\r\n2025-01-09;−4;\r\n\r\n')
  expect(table.columns).toEqual([
    { name: 'day', kind: 'date' },
    { name: 'level', kind: 'number' },
    { name: 'place; exact', kind: 'text' },
  ])
  expect(table.rows).toEqual([
    ['2025-01-02', '-3,5', 'Weir "A"'],
    ['2025-01-09', '−4', ''],
  ])
  expect(proposeChart(table)).toEqual({ along: 0, drawn: [1] })
  expect(proposeChart(readTable('name,count,rank\nA,1,2\nB,3,4'))).toEqual({ along: 0, drawn: [1, 2] })
  // A column that says the same in every row is no line to look at, unless there is no other.
  expect(proposeChart(readTable('day,well,depth\n2025-01-02,11,6\n2025-01-09,11,4'))).toEqual({ along: 0, drawn: [2] })
  expect(proposeChart(readTable('day,well\n2025-01-02,11\n2025-01-09,11'))).toEqual({ along: 0, drawn: [1] })
  expect(proposeChart(readTable('only words\nhere'))).toBeNull()
})

test('numbers and days are what they say, and nothing else is', () => {
  expect(['1', '-2.5', '1e3', '.5', '1.', '+3'].map(numberIn)).toEqual([1, -2.5, 1000, 0.5, 1, 3])
  expect(['', '1.2.3', '1 2', '12a', 'Infinity', '0x10', '1,000.5'].map(numberIn).every((n) => n === null)).toBe(true)
  expect(timeIn('2025-03-04 10:30')).toBe(Date.UTC(2025, 2, 4, 10, 30))
  expect(['2025-02-30', '04.03.2025', '2025'].map(timeIn)).toEqual([null, null, null])
})

test('what is ragged, empty, enormous or no table at all is read in bounds', () => {
  expect(readTable('')).toEqual({ columns: [], rows: [], isCut: false })
  expect(readTable('a\n1,2,3').columns.map(({ name }) => name)).toEqual(['a', 'Column 2', 'Column 3'])
  expect(readTable(`${'x,'.repeat(500)}\n`.repeat(20)).columns).toHaveLength(60)
  const long = readTable('n\n'.repeat(20_000))
  expect([long.rows.length, long.isCut]).toEqual([5_000, true])
  const began = performance.now()
  readTable(`"${'"a'.repeat(200_000)}`)
  expect(performance.now() - began).toBeLessThan(5_000)
})
