import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  type Agreed,
  bringInStep,
  FIELDS,
  type Pair,
  putTogether,
  type Step,
  type Which,
} from '../../../src/core/calendar/in-step'
import type { Planned } from '../../../src/core/formats/calendar-entry'

const PLAIN: Planned = { text: 'Count newts', note: '', dates: { start: '2026-04-01', end: null }, task: null }
const agreed: Agreed = { here: PLAIN, there: PLAIN }
const on = (start: string) => ({ dates: { start, end: null } })
const pair = (part: Partial<Pair>): Pair => ({
  here: PLAIN,
  there: PLAIN,
  agreed,
  isFixed: false,
  chosen: null,
  ...part,
})

/** A side after a step. */
const after = (side: Planned | null, part: Step['here']): Planned | null =>
  part === 'away' ? null : part === null ? side : { ...(side ?? PLAIN), ...part }

/** Both sides, and what they agreed on, when a step is done. */
const done = ({ here, there }: Pair, step: Step) => ({
  here: after(here, step.here),
  there: after(there, step.there),
  agreed: step.agreed,
})

describe('a topic and an entry of a calendar', () => {
  test('what one side changed comes to the other, and both changes of different fields stand', () => {
    const step = bringInStep(
      pair({ here: { ...PLAIN, text: 'Count all newts' }, there: { ...PLAIN, ...on('2026-04-08') } }),
    )
    expect(step.here).toEqual(on('2026-04-08'))
    expect(step.there).toEqual({ text: 'Count all newts' })
    expect(step.conflict).toBeNull()
  })

  test('what both changed is left alone until somebody chose', () => {
    const both = pair({ here: { ...PLAIN, ...on('2026-04-08') }, there: { ...PLAIN, ...on('2026-04-15') } })
    const step = bringInStep(both)
    expect(step).toMatchObject({ here: null, there: null, conflict: { fields: ['dates'] } })
    expect(bringInStep({ ...both, agreed: step.agreed, chosen: 'here' }).there).toEqual(on('2026-04-08'))
    expect(bringInStep({ ...both, agreed: step.agreed, chosen: 'there' }).here).toEqual(on('2026-04-15'))
  })

  test('notes that were changed in different lines keep both changes', () => {
    const base = { ...PLAIN, note: 'boots\n\nnet\n\nlamp' }
    const step = bringInStep({
      ...pair({ agreed: { here: base, there: base } }),
      here: { ...base, note: 'high boots\n\nnet\n\nlamp' },
      there: { ...base, note: 'boots\n\nnet\n\ntwo lamps' },
    })
    const note = 'high boots\n\nnet\n\ntwo lamps'
    expect([step.here, step.there, step.conflict]).toEqual([{ note }, { note }, null])
  })

  test('what is taken away on one side goes on the other, but not what was changed there meanwhile', () => {
    expect(bringInStep(pair({ here: null }))).toMatchObject({ there: 'away', agreed: null, conflict: null })
    expect(bringInStep(pair({ there: null }))).toMatchObject({ here: 'away', agreed: null, conflict: null })
    const changed = { ...PLAIN, ...on('2026-04-08') }
    expect(bringInStep(pair({ here: null, there: changed })).conflict).toEqual({ gone: 'here' })
    expect(bringInStep(pair({ here: changed, there: null })).conflict).toEqual({ gone: 'there' })
    expect(bringInStep(pair({ here: changed, there: null, chosen: 'here' })).there).toEqual(changed)
    expect(bringInStep(pair({ here: changed, there: null, chosen: 'there' })).here).toBe('away')
    // What was never in step is new.
    expect(bringInStep(pair({ there: null, agreed: null })).there).toEqual(PLAIN)
    expect(bringInStep(pair({ here: null, agreed: null })).here).toEqual(PLAIN)
  })

  test('put together, each keeps its words, and the topic gets the day; two days wait for a choice', () => {
    const topic: Planned = { text: 'Newts', note: 'wet meadow', dates: null, task: null }
    const together = bringInStep(pair({ here: topic, agreed: putTogether(topic, PLAIN) }))
    expect([together.here, together.there]).toEqual([{ dates: PLAIN.dates }, null])
    const dated = { ...topic, ...on('2026-05-01') }
    const apart = pair({ here: dated, agreed: putTogether(dated, PLAIN) })
    expect(bringInStep(apart).conflict).toEqual({ fields: ['dates'] })
    expect(bringInStep({ ...apart, chosen: 'there' }).here).toEqual({ dates: PLAIN.dates })
    // A task that gets the day of an event does not make a to-do of it.
    const task: Planned = { ...topic, task: 'open' }
    expect(bringInStep(pair({ here: task, agreed: putTogether(task, PLAIN) }))).toMatchObject({ there: null })
  })

  test('days that must not be written over stay as they are there', () => {
    const moved = pair({ here: { ...PLAIN, ...on('2026-04-08') }, isFixed: true })
    expect(bringInStep(moved).conflict).toEqual({ fields: ['dates'] })
    const kept = bringInStep({ ...moved, chosen: 'here' })
    expect([kept.here, kept.there, kept.conflict]).toEqual([null, null, null])
    expect(bringInStep({ ...moved, agreed: kept.agreed }).conflict).toBeNull()
  })

  const arbitraryPlanned: fc.Arbitrary<Planned> = fc.record({
    text: fc.constantFrom('a', 'b', 'c'),
    note: fc.constantFrom('', 'one\n\ntwo', 'one\n\n2', '1\n\ntwo'),
    dates: fc.constantFrom(null, ...['2026-04-01', '2026-04-02', '2026-04-03'].map((start) => ({ start, end: null }))),
    task: fc.constantFrom(null, 'open', 'done'),
  })
  const arbitrarySide = fc.option(arbitraryPlanned, { nil: null })
  const arbitraryPair: fc.Arbitrary<Pair> = fc.record({
    here: arbitrarySide,
    there: arbitrarySide,
    agreed: fc.option(fc.record({ here: arbitraryPlanned, there: arbitraryPlanned }), { nil: null }),
    isFixed: fc.boolean(),
    chosen: fc.constant(null),
  })

  test('a second step changes nothing; what nobody chose about stands on both sides; once chosen, all is agreed', () => {
    fc.assert(
      fc.property(arbitraryPair, fc.constantFrom<Which>('here', 'there'), (begun, chosen) => {
        const step = bringInStep(begun)
        const then = { ...begun, ...done(begun, step) }
        const again = bringInStep(then)
        expect([again.here, again.there, again.conflict]).toEqual([null, null, step.conflict])
        // A field about which nobody has chosen is as it was.
        if (step.conflict && 'fields' in step.conflict)
          for (const field of step.conflict.fields) {
            expect(then.here![field]).toEqual(begun.here![field])
            expect(then.there![field]).toEqual(begun.there![field])
          }
        const settled = bringInStep({ ...then, chosen })
        expect(settled.conflict).toBeNull()
        const last = bringInStep({ ...then, ...done(then, settled) })
        expect([last.here, last.there, last.conflict]).toEqual([null, null, null])
      }),
    )
  })

  test('what only one side changed is never lost', () => {
    fc.assert(
      fc.property(
        arbitraryPlanned,
        arbitraryPlanned,
        fc.constantFrom<Which>('here', 'there'),
        (before, changed, side) => {
          const both = { here: before, there: before }
          const begun = pair({ ...both, agreed: both, [side]: changed })
          const { here, there } = done(begun, bringInStep(begun))
          for (const field of FIELDS) expect([here![field], there![field]]).toEqual([changed[field], changed[field]])
        },
      ),
    )
  })
})
