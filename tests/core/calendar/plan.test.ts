import fc from 'fast-check'
import { expect, test } from 'vitest'
import { type Mirrored, planSync, type Terms, uidOf } from '../../../src/core/calendar/plan'
import { deleteTopics } from '../../../src/core/commands/delete-topics'
import { restoreTopic } from '../../../src/core/commands/restore-topic'
import { setDates } from '../../../src/core/commands/set-dates'
import { setText } from '../../../src/core/commands/set-text'
import { takeFromCalendar } from '../../../src/core/commands/take-from-calendar'
import type { CalendarEntry } from '../../../src/core/formats/calendar-entry'
import type { Dates } from '../../../src/core/records/dates'
import { type MapId, TopicId } from '../../../src/core/records/ids'
import { isInTrash } from '../../../src/core/tree/walk'
import { Garden } from '../gardens'

const today = '2026-04-01'
const FIRST_BRANCH = TopicId.parse('00000000-0000-7000-8000-0000000b0000')

/** The same for a uid each time. */
function topicFor(uid: string): TopicId {
  let sum = 7
  for (const letter of uid) sum = (sum * 31 + letter.charCodeAt(0)) % 0xffffffff
  return TopicId.parse(`00000000-0000-5000-8000-0000${sum.toString(16).padStart(8, '0')}`)
}

type Broken = 'nowhere' | 'after the commit' | 'after writing there'

/** A collection with a calendar beside it, and what is noted of the two. */
class Beside {
  readonly garden = new Garden()
  readonly map: MapId = this.garden.grow('Season\n  Count newts\n  Mend the weir\n  Mow')
  readonly calendar = new Map<string, CalendarEntry>()
  noted: Mirrored[] = []
  branch = FIRST_BRANCH

  constructor(readonly terms: Omit<Terms, 'branch'>) {}

  topics() {
    return [...this.garden.records.topicsOf(this.map)].filter((topic) => !isInTrash(this.garden.records, topic))
  }

  sync(broken: Broken = 'nowhere', choice: Mirrored['chosen'] = null): void {
    const { records, newIds } = this.garden
    const hrefs = new Set([...this.calendar.keys(), ...this.noted.map(({ href }) => href)])
    const entries = [...hrefs].map((href): Mirrored => {
      const known = this.noted.find((each) => each.href === href)
      const entry = this.calendar.get(href)
      return {
        href,
        entry: entry ?? known?.entry ?? null,
        isGone: !entry,
        topic: known?.topic ?? null,
        agreed: known?.agreed ?? null,
        chosen: choice,
      }
    })
    const newTopic = () => TopicId.parse(newIds.newId())
    const plan = planSync(records, entries, { ...this.terms, branch: this.branch, topicFor, newTopic, today })
    const { changed, added } = plan
    this.branch = plan.branch
    if (changed.length + added.length > 0)
      this.garden.do((r, ids) =>
        takeFromCalendar(
          r,
          { name: 'Club', branch: { topic: plan.branch, map: this.map }, changed, added, today },
          ids,
        ),
      )
    if (broken === 'after the commit') return
    const noted = new Map(this.noted.map((each) => [each.href, each]))
    for (const { href, topic, agreed, there } of plan.pairs) {
      const at = href ?? `${topic}.ics`
      const before = this.calendar.get(at)
      if (there === 'away') this.calendar.delete(at)
      else if (there)
        this.calendar.set(at, { uid: before?.uid ?? uidOf(topic!), url: '', isFixed: false, ...before, ...there })
      const entry = this.calendar.get(at) ?? null
      if (broken === 'after writing there') continue
      if (topic === null) noted.delete(at)
      else if (there === 'away')
        noted.set(at, { href: at, entry: before!, isGone: true, topic, agreed: null, chosen: null })
      else noted.set(at, { href: at, entry, isGone: !entry, topic, agreed, chosen: null })
    }
    this.noted = [...noted.values()]
  }

  /** What is dated here, and what is there, by their words. */
  state() {
    const lines = (all: { text: string; dates: { start: string } | null }[]) =>
      all.flatMap(({ text, dates }) => (dates ? `${dates.start} ${text}` : [])).sort()
    return { here: lines(this.topics()), there: lines([...this.calendar.values()]) }
  }
}

interface Act {
  side: string
  which: number
  day?: number | null
  text?: string
  isTrashed?: true
  isBack?: true
}

const anAct = fc.oneof(
  fc.record({ side: fc.constant('here'), which: fc.nat(5), day: fc.option(fc.integer({ min: 1, max: 9 })) }),
  fc.record({ side: fc.constant('here'), which: fc.nat(5), text: fc.constantFrom('Ponds', 'Walls', 'Paths') }),
  fc.record({ side: fc.constant('here'), which: fc.nat(5), isTrashed: fc.constant(true) }),
  fc.record({ side: fc.constant('here'), which: fc.nat(5), isBack: fc.constant(true) }),
  fc.record({ side: fc.constant('there'), which: fc.nat(5), day: fc.integer({ min: 1, max: 9 }) }),
  fc.record({ side: fc.constant('there'), which: fc.nat(5), text: fc.constantFrom('Bats', 'Owls') }),
  fc.record({ side: fc.constant('there'), which: fc.nat(5), isTrashed: fc.constant(true) }),
  fc.record({
    side: fc.constant('there'),
    which: fc.integer({ min: 100, max: 104 }),
    day: fc.integer({ min: 1, max: 9 }),
  }),
  fc.record({ side: fc.constant('sync'), which: fc.nat(2) }),
) as fc.Arbitrary<Act>

function play(beside: Beside, act: Act): void {
  const dates = act.day ? { start: `2026-04-0${act.day}`, end: null } : null
  if (act.side === 'here') playHere(beside, act, dates)
  else if (act.side === 'there') playThere(beside, act, dates)
  else beside.sync((['nowhere', 'after the commit', 'after writing there'] as const)[act.which]!)
}

function playHere(beside: Beside, { which, text, isTrashed, isBack }: Act, dates: Dates | null): void {
  const { records } = beside.garden
  const lost = [...records.topicsOf(beside.map)].filter(({ trashed }) => trashed)
  if (isBack && lost.length > 0)
    beside.garden.do((r, ids) => restoreTopic(r, { topic: lost[which % lost.length]!.id }, ids))
  if (isBack) return
  const below = beside.topics().filter(({ place }) => place.kind !== 'root')
  const { id } = below[which % below.length] ?? {}
  if (!id) return
  beside.garden.do((r, ids) => {
    if (isTrashed) return deleteTopics(r, { topics: [id] }, ids)
    return text ? setText(r, { topic: id, text }, ids) : setDates(r, { topics: [id], dates }, ids)
  })
}

function playThere({ calendar }: Beside, { which, text, isTrashed }: Act, dates: Dates | null): void {
  const hrefs = [...calendar.keys()]
  const href = which >= 100 ? `${which}.ics` : hrefs[which % hrefs.length]
  const plain = { uid: `e${which}`, text: `Entry ${which}`, note: '', url: '', isFixed: false, task: null }
  const entry = href && (which >= 100 ? { ...plain, dates } : calendar.get(href))
  if (!href || !entry) return
  if (isTrashed) calendar.delete(href)
  else calendar.set(href, { ...entry, ...(text ? { text } : { dates }) })
}

test('whatever is done on both sides, and wherever it is broken off: both come to say the same, and nothing is doubled', () => {
  fc.assert(
    fc.property(fc.array(anAct, { maxLength: 25 }), fc.constantFrom('here', 'there'), (acts, choice) => {
      const beside = new Beside({ gives: 'all', takes: 'all' })
      for (const act of acts) play(beside, act)
      beside.sync()
      beside.sync('nowhere', choice as 'here')
      const { here, there } = beside.state()
      expect(here).toEqual(there)
      const uids = [...beside.calendar.values()].map(({ uid }) => uid)
      expect(new Set(uids).size).toBe(uids.length)
      // And then nothing is left to do.
      const before = JSON.stringify([beside.state(), beside.noted])
      beside.sync()
      expect(JSON.stringify([beside.state(), beside.noted])).toBe(before)
    }),
    { numRuns: 300 },
  )
})

test('of a calendar from which single entries are chosen nothing comes by itself, and taking the date off lets the entry go', () => {
  const beside = new Beside({ gives: 'none', takes: 'chosen' })
  const [newts] = beside.topics().filter(({ text }) => text === 'Count newts')
  play(beside, { side: 'there', which: 100, day: 4 })
  beside.sync()
  expect(beside.state().here).toEqual([])
  const [href, entry] = [...beside.calendar][0]!
  beside.noted = [{ href, entry, isGone: false, topic: newts!.id, agreed: null, chosen: null }]
  beside.sync()
  // It keeps its words, and goes with the entry from then on.
  expect(beside.state()).toEqual({ here: ['2026-04-04 Count newts'], there: ['2026-04-04 Entry 100'] })
  beside.garden.do((r, ids) => setDates(r, { topics: [newts!.id], dates: { start: '2026-04-06', end: null } }, ids))
  beside.sync()
  expect(beside.state().there).toEqual(['2026-04-06 Entry 100'])
  beside.garden.do((r, ids) => setDates(r, { topics: [newts!.id], dates: null }, ids))
  beside.sync()
  beside.sync()
  expect(beside.state()).toEqual({ here: [], there: ['2026-04-06 Entry 100'] })
})

test('an entry that is under another address goes on with its topic', () => {
  const beside = new Beside({ gives: 'all', takes: 'all' })
  playHere(beside, { side: 'here', which: 0 }, { start: '2026-04-03', end: null })
  play(beside, { side: 'there', which: 100, day: 5 })
  beside.sync()
  const before = beside.state()
  for (const [href, entry] of [...beside.calendar]) {
    beside.calendar.delete(href)
    beside.calendar.set(`moved-${href}`, { ...entry, text: `${entry.text}!` })
  }
  beside.sync()
  beside.sync()
  const moved = before.here.map((line) => `${line}!`)
  expect(beside.state()).toEqual({ here: moved, there: moved })
  expect(beside.noted).toHaveLength(2)
})

test('two entries of one uid are two topics', () => {
  const beside = new Beside({ gives: 'all', takes: 'all' })
  const twin = { uid: 'same', note: '', url: '', isFixed: false, task: null, dates: { start: today, end: null } }
  beside.calendar.set('1.ics', { ...twin, text: 'One' })
  beside.calendar.set('2.ics', { ...twin, text: 'Two' })
  beside.sync()
  beside.sync()
  expect(beside.state().here).toEqual([`${today} One`, `${today} Two`])
  expect(beside.calendar.size).toBe(2)
})

test('what is long over stays where it is, and new entries hang below a topic named as the calendar', () => {
  const beside = new Beside({ gives: 'none', takes: 'all' })
  const plain = { note: '', url: 'https://example.org/club', isFixed: false, task: null }
  beside.calendar.set('old', { ...plain, uid: 'old', text: 'Old', dates: { start: '2025-01-01', end: null } })
  beside.calendar.set('new', { ...plain, uid: 'new', text: 'New', note: 'boots', dates: { start: today, end: null } })
  beside.sync()
  const { records } = beside.garden
  const made = beside.topics().find(({ text }) => text === 'New')!
  expect(beside.topics().map(({ text }) => text)).not.toContain('Old')
  expect(records.need('topic', FIRST_BRANCH).text).toBe('Club')
  expect(made.place).toMatchObject({ parent: FIRST_BRANCH })
  expect(records.need('note', made.note).text).toBe('boots')
  expect(records.weblinks(made.id).map(({ url }) => url)).toEqual([plain.url])
})
