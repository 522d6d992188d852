import fc from 'fast-check'
import { nthOf } from '../../../src/core/dates/repeating'
import type { CalendarItem } from '../../../src/core/formats/icalendar'
import type { Repeats } from '../../../src/core/records/dates'
import { isoDay } from '../../../src/core/text/days'

const words = fc
  .string({ unit: 'grapheme', minLength: 1, maxLength: 120 })
  .map((text) => `x${text.replace(/\s/g, ' ')}x`)
const day = fc.integer({ min: -20_000, max: 40_000 })
const time = fc
  .tuple(fc.nat(23), fc.nat(58))
  .map(([hour, minute]) => `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`)
  .filter((at) => at !== '00:00')
const repeats = fc.oneof(
  fc.record({ every: fc.integer({ min: 1, max: 9 }), unit: fc.constantFrom('day', 'year', 'month') }),
  fc.record({ every: fc.constant(2), unit: fc.constant('week'), weekdays: fc.constantFrom([0], [0, 3], [1, 2, 6]) }),
  fc.record({ every: fc.constant(1), unit: fc.constant('week'), until: fc.constant('2027-05-01') }),
) as fc.Arbitrary<Repeats>
/** Anything with a day that a calendar can hold. */
export const anItem = fc
  .record({
    uid: words,
    text: words,
    note: fc.oneof(
      fc.constant(''),
      fc.tuple(words, words).map((two) => two.join('\n')),
    ),
    day,
    length: fc.nat(40),
    from: fc.option(time, { nil: undefined }),
    to: fc.option(time, { nil: undefined }),
    repeats: fc.option(repeats, { nil: undefined }),
    task: fc.constantFrom(null, 'open', 'begun', 'done'),
  })
  .map(
    ({ day: at, length, from, to, repeats: again, ...rest }): CalendarItem =>
      ({
        ...rest,
        url: '',
        dates: {
          start: isoDay(at),
          end: length === 0 ? null : isoDay(at + length),
          ...(from === undefined ? {} : { from }),
          ...(from === undefined || to === undefined || (length === 0 && to <= from) ? {} : { to }),
          ...(again === undefined
            ? {}
            : { repeats: again.unit === 'month' ? { ...again, nth: nthOf(isoDay(at)) } : again }),
        },
      }) as CalendarItem,
  )
