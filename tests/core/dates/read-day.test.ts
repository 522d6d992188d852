import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { type DayOrder, readDay, readTime } from '../../../src/core/dates/read-day'

/** A Tuesday. */
const TODAY = '2026-12-01'
const read = (text: string, order: DayOrder = 'dmy') => readDay(text, { today: TODAY, order })

describe('a day as people write it', () => {
  test.each([
    ['2027-03-15', '2027-03-15'],
    ['15.3.2027', '2027-03-15'],
    ['15. 3. 27', '2027-03-15'],
    ['15/03/2027', '2027-03-15'],
    ['15032027', '2027-03-15'],
    ['150327', '2027-03-15'],
    ['20270315', '2027-03-15'],
    ['15.3.', '2027-03-15'],
    ['1.12.', '2026-12-01'],
    ['15 Mar', '2027-03-15'],
    ['15 March 2027', '2027-03-15'],
    ['March 15, 2027', '2027-03-15'],
    ['today', '2026-12-01'],
    ['tomorrow', '2026-12-02'],
    ['next Friday', '2026-12-11'],
    ['Friday', '2026-12-04'],
    ['in two weeks', '2026-12-15'],
    ['in 10 days', '2026-12-11'],
    ['morgen', '2026-12-02'],
    ['3. Mai 2027', '2027-05-03'],
    ['29.2.', '2028-02-29'],
    ['1.1.99', '1999-01-01'],
  ])('%s is %s', (text, day) => expect(read(text)).toBe(day))

  test.each([
    ['03152027', '2027-03-15'],
    ['3/15/27', '2027-03-15'],
    ['03/04', '2027-03-04'],
  ])('with the month first, %s is %s', (text, day) => expect(read(text, 'mdy')).toBe(day))

  test('with the year first', () => {
    expect(read('27/3/15', 'ymd')).toBe('2027-03-15')
    expect(read('270315', 'ymd')).toBe('2027-03-15')
    expect(read('3-15', 'ymd')).toBe('2027-03-15')
  })

  test.each(['', '0002-03-15', '31.2.2027', 'the 3rd or so', 'March', '2027', 'soon', '99', '1.1.0002', '45/45/2027'])(
    'nobody knows which day %s is',
    (text) => expect(read(text)).toBeNull(),
  )

  test('whatever is written, it is a day of the calendar or none', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 70 }), fc.constantFrom<DayOrder>('dmy', 'mdy', 'ymd'), (text, order) => {
        const day = read(text, order)
        if (day !== null) expect(new Date(day).toISOString().slice(0, 10)).toBe(day)
      }),
    )
  })

  test('every day is found again as figures write it', () => {
    fc.assert(
      fc.property(
        fc.date({ min: new Date('1950-01-01'), max: new Date('2070-01-01'), noInvalidDate: true }),
        (date) => {
          const day = date.toISOString().slice(0, 10)
          const [year, month, dayOfMonth] = day.split('-')
          expect(read(day)).toBe(day)
          expect(read(`${dayOfMonth}.${month}.${year}`)).toBe(day)
          expect(read(`${month}/${dayOfMonth}/${year}`, 'mdy')).toBe(day)
        },
      ),
    )
  })
})

describe('a time of day as people write it', () => {
  test.each([
    ['7:45', '07:45'],
    ['0745', '07:45'],
    ['745', '07:45'],
    ['7.45', '07:45'],
    ['19h', '19:00'],
    ['7 pm', '19:00'],
    ['12am', '00:00'],
    ['12 pm', '12:00'],
    ['9', '09:00'],
    ['18 Uhr', '18:00'],
  ])('%s is %s', (text, time) => expect(readTime(text)).toBe(time))

  test.each(['', '25', '7:60', 'noon-ish', '13 pm', '7:4'])('%s is none', (text) => expect(readTime(text)).toBeNull())
})
