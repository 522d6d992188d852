import { beforeAll, expect, test } from 'vitest'
import type { Edit } from '../../src/core/changes/edit'
import { Caller, onlyResult } from './people'

let owner: Caller
let map = ''
beforeAll(async () => {
  owner = await Caller.begin()
  map = await owner.grow('# Season\n\n- Count newts\n- Mend the weir')
})

const at = () => `/api/collections/${owner.collection}`
const topicNamed = async (text: string) => (await owner.map(map)).topics.find((topic) => topic.text === text)!
const set = async (text: string, after: object) => {
  const { id } = await topicNamed(text)
  return onlyResult(await owner.change([{ kind: 'topic', id, before: {}, after } as unknown as Edit]))
}

test('times of day, repetitions and the work on something are stored as they were set, and refused where they cannot be', async () => {
  const repeats = { every: 2, unit: 'week', weekdays: [0, 3], until: '2026-09-01' }
  const dates = { start: '2026-05-04', end: null, from: '09:00', to: '12:30', repeats }
  const work = { who: [{ person: null, name: 'Ada' }], effort: 90, progress: 40 }
  expect((await set('Count newts', { dates, work, task: 'open' })).ok).toBe(true)
  expect(await topicNamed('Count newts')).toMatchObject({ dates, work, task: 'open' })
  for (const wrong of [
    { dates: { ...dates, from: '9:00' } },
    { dates: { ...dates, from: '13:00' } },
    { dates: { start: '2026-05-04', end: null, to: '13:00' } },
    { dates: { ...dates, repeats: { every: 0, unit: 'week' } } },
    { dates: { ...dates, repeats: { every: 1, unit: 'hour' } } },
    { work: { progress: 101 } },
    { work: { who: [] } },
    { work: { effort: 1.5 } },
    { work: { hours: 3 } },
  ])
    expect((await set('Count newts', wrong)).ok, JSON.stringify(wrong)).toBe(false)
  // Ticked off, it is to do again when it is next.
  const { id } = await topicNamed('Count newts')
  await owner.command('set-task', { topics: [id], task: 'done', today: '2026-05-05' })
  expect(await topicNamed('Count newts')).toMatchObject({ task: 'open', dates: { start: '2026-05-07', repeats } })
  const calendar = await owner.call('GET', `${at()}/dates.ics`)
  expect(calendar.text).toContain('RRULE:FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,TH;UNTIL=20260901T235959')
  expect(calendar.text).toContain('DTSTART:20260507T090000')
})

test('another calendar fetches the days from an address with a secret, until it is taken back', async () => {
  await set('Mend the weir', { dates: { start: '2026-08-03', end: null } })
  const reader = await owner.invite('reader')
  const made = async () => ((await reader.send('POST', `${at()}/dates-feed`, {})).json as { path: string }).path
  const first = await made()
  const fetched = await Caller.nobody.call('GET', first)
  expect([fetched.status, fetched.headers.get('content-type')]).toEqual([200, 'text/calendar; charset=utf-8'])
  expect(fetched.text).toContain('SUMMARY:Mend the weir')
  // A new one ends the first; what was given to the person counts at each time.
  const second = await made()
  expect((await Caller.nobody.call('GET', first)).status).toBe(404)
  expect((await Caller.nobody.call('GET', second)).status).toBe(200)
  expect((await reader.call('GET', `${at()}/dates-feed`)).json).toMatchObject({ made: true })
  await owner.withdraw(reader.grant)
  expect((await Caller.nobody.call('GET', second)).status).toBe(404)
  const other = await owner.invite('reader')
  const { path } = (await other.send('POST', `${at()}/dates-feed`, {})).json as { path: string }
  await other.call('DELETE', `${at()}/dates-feed`)
  expect((await Caller.nobody.call('GET', path)).status).toBe(404)
  expect((await Caller.nobody.call('GET', '/feeds/x/dates.ics')).status).toBe(404)
})
