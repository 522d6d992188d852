import { v7 as uuid } from 'uuid'
import { beforeAll, describe, expect, test } from 'vitest'
import type { Edit } from '../../src/core/changes/edit'
import { writeAsked } from '../../src/core/gathering/asked-address'
import { MapId, TagId } from '../../src/core/records/ids'
import { NOTHING_ASKED, type SearchAsked } from '../../src/core/records/search'
import type { TopicRecord } from '../../src/core/records/topic'
import { Caller, onlyResult } from './people'

const TODAY = '2026-06-15'
const TAG = TagId.parse(uuid())
const day = (after: number) => new Date(Date.parse(TODAY) + after * 86_400_000).toISOString().slice(0, 10)

let owner: Caller
let bog: MapId
let mill: MapId
let topics: TopicRecord[] = []

const put = (text: string, after: object) => {
  const { id } = topics.find((topic) => topic.text === text)!
  return owner.change([{ kind: 'topic', id, before: {}, after } as unknown as Edit])
}

beforeAll(async () => {
  owner = await Caller.begin()
  bog = MapId.parse(await owner.grow(`# Bog\n\n${Array.from({ length: 24 }, (_, i) => `- Pool ${i}`).join('\n')}`))
  mill = MapId.parse(await owner.grow('# Mill\n\n- Permit to draw\n  - Gate of the permit\n- Wheel\n- Board'))
  topics = [...(await owner.map(bog)).topics, ...(await owner.map(mill)).topics]
  await owner.change([
    { kind: 'tag', id: TAG, before: null, after: { id: TAG, name: 'Permits', tone: null, trashed: false } } as Edit,
  ])
  // Every mixture of task, day, person and tag is somewhere among them.
  const tasks = [null, 'open', 'begun', 'done'] as const
  for (let i = 0; i < 24; i++) {
    const start = day((i % 6) * 20 - 40)
    const dates = i % 3 === 0 ? null : { start, end: i % 3 === 1 ? null : day((i % 6) * 20 - 30) }
    const work = i % 2 === 0 ? null : { who: [{ person: null, name: i % 4 === 1 ? 'Ada' : 'Bo' }] }
    await put(`Pool ${i}`, { task: tasks[i % 4], dates, work, tags: i % 5 === 0 ? [TAG] : [] })
  }
  await put('Permit to draw', { dates: { start: day(-300), end: day(59) }, tags: [TAG] })
  topics = [...(await owner.map(bog)).topics, ...(await owner.map(mill)).topics]
})

interface Gathered {
  topics: { text: string }[]
  count: number
}
const gathered = async (part: Partial<SearchAsked>, caller = owner) => {
  const parameters = writeAsked({ ...NOTHING_ASKED, ...part })
  const answer = await caller.call('GET', `/api/collections/${owner.collection}/gathered?${parameters}&today=${TODAY}`)
  expect(answer.status, answer.text).toBe(200)
  return answer.json as Gathered
}

/** An account of its own of what has what is asked for. */
function expected({ task, due: asked, who, tag, map }: Partial<SearchAsked>): string[] {
  const due = asked && !('period' in asked) ? asked : null
  const days = (iso: string) => (Date.parse(iso) - Date.parse(TODAY)) / 86_400_000
  return topics.flatMap((topic) => {
    const last = topic.dates ? days(topic.dates.end ?? topic.dates.start) : null
    const isMet =
      (!task || (task === 'left' ? topic.task === 'open' || topic.task === 'begun' : topic.task === task)) &&
      (!due || (last !== null && (due.from === null || last >= due.from) && (due.to === null || last <= due.to))) &&
      (!who || (topic.work?.who ?? []).some(({ name }) => name === who.name)) &&
      (!tag || topic.tags.includes(tag)) &&
      (!map || topic.place.map === map)
    return isMet ? topic.text : []
  })
}

describe('what is gathered', () => {
  test('is what has everything that is asked for, in every mixture', async () => {
    const mixtures: Partial<SearchAsked>[] = []
    for (const task of [null, 'left', 'begun', 'done'] as const)
      for (const due of [null, { from: null, to: -1 }, { from: 0, to: 60 }, { from: null, to: null }])
        for (const who of [null, { person: null, name: 'Ada' }])
          for (const tag of [null, TAG]) mixtures.push({ task, due, who, tag })
    for (const asked of mixtures.slice(1)) {
      const { count, topics: first } = await gathered(asked)
      const all = expected(asked)
      expect(count, JSON.stringify(asked)).toBe(all.length)
      expect(all).toEqual(expect.arrayContaining(first.map(({ text }) => text)))
    }
    expect((await gathered({ tag: TAG, map: mill })).topics).toMatchObject([{ text: 'Permit to draw' }])
    expect((await gathered({ words: 'perm' })).topics.map(({ text }) => text).sort()).toEqual([
      'Gate of the permit',
      'Permit to draw',
    ])
    expect((await gathered({ words: "'; --" })).count).toBe(0)
  })

  test('comes by its last day, then by its words with numbers as they count; what cannot be asked is refused', async () => {
    const { topics: found } = await gathered({ due: { from: 0, to: 60 } })
    const lasts = found.map(({ text }) => {
      const { dates } = topics.find((topic) => topic.text === text)!
      return dates!.end ?? dates!.start
    })
    expect(lasts).toEqual([...lasts].sort())
    const undated = (await gathered({ task: 'done' })).topics.map(({ text }) => text).slice(-2)
    expect(undated).toEqual(['Pool 3', 'Pool 15'])
    for (const query of ['due=x', 'tag=1', 'task=never', `words=a&today=soon`])
      expect((await owner.call('GET', `/api/collections/${owner.collection}/gathered?${query}`)).status).toBe(400)
  })

  test('narrows a search by words too', async () => {
    const found = async (query: string) => {
      const path = `/api/collections/${owner.collection}/search?${query}&today=${TODAY}`
      return ((await owner.call('GET', path)).json as { rows: { kind: string; text: string }[] }).rows
    }
    const begun = await found('words=pool&task=begun')
    expect(begun.length).toBeGreaterThan(0)
    expect(begun.map(({ text }) => text).sort()).toEqual(
      expected({ task: 'begun' })
        .filter((text) => text.startsWith('Pool'))
        .sort(),
    )
    expect((await found('task=begun')).map(({ text }) => text).sort()).toEqual(expected({ task: 'begun' }).sort())
    expect(await found('words=pool&task=begun&who=Nobody')).toEqual([])
  })

  test('is shown by a list, for whom it is open, as long as it is so, and on the site', async () => {
    const asked = { ...NOTHING_ASKED, tag: TAG }
    expect(onlyResult(await put('Board', { gathers: asked })).ok).toBe(true)
    expect(onlyResult(await put('Board', { gathers: { ...asked, map: uuid() } })).ok).toBe(false)
    const on = async (caller: Caller) => {
      const answer = await caller.call(
        'GET',
        `/api/collections/${owner.collection}/maps/${mill}/gathered?today=${TODAY}`,
      )
      const { lists, topics: held } = answer.json as { lists: { topics: string[] }[]; topics: TopicRecord[] }
      return lists.flatMap(({ topics: ids }) => ids.map((id) => held.find((topic) => topic.id === id)!.text))
    }
    expect((await on(owner)).sort()).toEqual(expected({ tag: TAG }).sort())
    const guest = await owner.invite('reader', { maps: [mill] })
    expect(await on(guest)).toEqual(['Permit to draw'])
    expect((await gathered({ tag: TAG }, guest)).topics).toMatchObject([{ text: 'Permit to draw' }])

    await put('Pool 0', { trashed: true })
    await put('Pool 5', { tags: [] })
    const now = await on(owner)
    expect(now).not.toContain('Pool 0')
    expect(now).not.toContain('Pool 5')

    const path = `/api/collections/${owner.collection}/publication`
    const started = (await owner.send('POST', path, {})).json as { job: { id: string } }
    expect(await owner.ended(started.job.id)).toMatchObject({ state: 'done' })
    const { publication } = (await owner.call('GET', path)).json as { publication: { address: string } }
    const page = (await Caller.nobody.call('GET', `/site/${publication.address}/maps/mill.html`)).text
    expect(page).toMatch(/<ul class="gathered"[^>]*>.*href="..\/maps\/bog.html#t-[0-9a-f]{12}">Pool 10<.*<\/ul>/s)
    expect(page).not.toContain('>Pool 5<')
  })
})

test('a search is kept, changed, kept no longer, and taken back', async () => {
  const id = uuid()
  const after = { id, name: 'Permits', asked: { ...NOTHING_ASKED, tag: TAG }, trashed: false }
  expect(onlyResult(await owner.change([{ kind: 'search', id, before: null, after } as unknown as Edit])).ok).toBe(true)
  const kept = async () =>
    ((await owner.call('GET', `/api/collections/${owner.collection}/searches`)).json as { name: string }[]).map(
      ({ name }) => name,
    )
  expect(await kept()).toEqual(['Permits'])
  const asked = { ...NOTHING_ASKED, words: 'gate', map: mill }
  expect((await owner.command('change-search', { search: id, name: 'Gates', asked })).status).toBe(200)
  expect((await owner.command('change-search', { search: id, name: 'Gates', asked: NOTHING_ASKED })).status).toBe(409)
  expect(await kept()).toEqual(['Gates'])
  const removed = await owner.command('remove-search', { search: id })
  expect(await kept()).toEqual([])
  expect((await owner.command('undo', { change: (removed.json as { change: { id: string } }).change.id })).status).toBe(
    200,
  )
  expect(await kept()).toEqual(['Gates'])
})
