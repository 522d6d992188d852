import { v7 as uuid } from 'uuid'
import { beforeAll, describe, expect, test } from 'vitest'
import type { Edit } from '../../src/core/changes/edit'
import { EnclosureId } from '../../src/core/records/ids'
import type { CollectionDigest } from '../../src/core/records/snapshot'
import type { TopicRecord } from '../../src/core/records/topic'
import { Caller, onlyResult } from './people'

let owner: Caller
let map = ''
beforeAll(async () => {
  owner = await Caller.begin()
  map = await owner.grow('# Garden\n\n- Spring\n  - Sow peas\n- Summer\n  - Pick beans')
})

const topicNamed = async (text: string): Promise<TopicRecord> =>
  (await owner.map(map)).topics.find((topic) => topic.text === text)!
const change = async (text: string, before: Partial<TopicRecord>, after: Record<string, unknown>) => {
  const { id } = await topicNamed(text)
  return onlyResult(await owner.change([{ kind: 'topic', id, before, after } as Edit]))
}

describe('the shape of a map', () => {
  test('is stored and comes back as it was set', async () => {
    const spring = await topicNamed('Spring')
    const shape = {
      layout: 'down',
      width: 140.5,
      numbering: 'turns',
      number: '7b',
      dates: { start: '2026-03-01', end: '2026-04-30' },
    } as const
    const before = { layout: null, width: null, numbering: null, number: null, dates: null }
    expect((await change('Spring', before, shape)).ok).toBe(true)
    const place = { ...spring.place, x: 120.25, y: -40 }
    expect((await change('Spring', { place: spring.place }, { place })).ok).toBe(true)
    expect(await topicNamed('Spring')).toMatchObject({ ...shape, place })
    const whole = { layout: 'around', spacing: 1.5, numbering: 'sections' } as const
    const edit = { kind: 'map', id: map, before: { layout: 'both', spacing: 1, numbering: null }, after: whole } as Edit
    expect(onlyResult(await owner.change([edit])).ok).toBe(true)
    expect((await owner.map(map)).map).toMatchObject(whole)
  })

  test('is refused in words where it cannot be', async () => {
    for (const after of [
      { layout: 'sideways' },
      { width: -3 },
      { number: '' },
      { dates: { start: 'soon', end: null } },
      { dates: { start: '2026-04-01', end: '2026-03-01' } },
      { numbering: 'roman' },
    ]) {
      const result = await change('Summer', {}, after)
      expect([after, result.ok]).toEqual([after, false])
    }
    expect(await topicNamed('Summer')).toMatchObject({ layout: null, width: null, number: null, dates: null })
  })
})

describe('enclosures', () => {
  const enclose = async (topics: string[], title = 'Before April') => {
    const id = EnclosureId.parse(uuid())
    const after = { id, topics, title, tone: null, trashed: false }
    return { id, answer: await owner.change([{ kind: 'enclosure', id, before: null, after } as unknown as Edit]) }
  }

  test('are stored with the topics that they name, and come with their map', async () => {
    const [peas, spring] = [await topicNamed('Sow peas'), await topicNamed('Spring')]
    const { id, answer } = await enclose([spring.id, peas.id])
    expect(onlyResult(answer).ok).toBe(true)
    expect((await owner.map(map)).enclosures).toEqual([
      { id, topics: [spring.id, peas.id], title: 'Before April', tone: null, trashed: false },
    ])
    await owner.change([{ kind: 'enclosure', id, before: { tone: null }, after: { tone: 4, title: 'Late' } }])
    expect((await owner.map(map)).enclosures[0]).toMatchObject({ tone: 4, title: 'Late' })
  })

  test('name only topics that are there, at least one and not endlessly many', async () => {
    const unknown = onlyResult((await enclose([uuid()])).answer)
    expect(unknown).toMatchObject({ ok: false, problem: { code: 'reference' } })
    expect(onlyResult((await enclose([])).answer).ok).toBe(false)
    const summer = await topicNamed('Summer')
    expect(onlyResult((await enclose(Array<string>(501).fill(summer.id))).answer).ok).toBe(false)
  })

  test('cannot name topics of another collection', async () => {
    const other = await Caller.begin()
    const theirs = await other.grow('# Theirs\n\n- Hidden')
    const { topics } = await other.map(theirs)
    expect(onlyResult((await enclose([topics[0]!.id])).answer)).toMatchObject({
      ok: false,
      problem: { code: 'reference' },
    })
  })
})

describe('finding', () => {
  const find = async (words: string) =>
    (await owner.call('GET', `/api/collections/${owner.collection}/find?words=${encodeURIComponent(words)}`)).json as {
      kind: string
      text: string
      map: string
    }[]

  test('takes maps before topics, and what begins so before what contains it', async () => {
    await owner.grow('# Peas\n\n- Chick peas\n- Peas in pots')
    const found = (await find('peas')).map(({ kind, text }) => [kind, text])
    expect(found[0]).toEqual(['map', 'Peas'])
    expect(found.slice(1).map(([, text]) => text)).toEqual(['Peas', 'Peas in pots', 'Sow peas', 'Chick peas'])
  })

  test('takes signs as they are, and leaves out what lies in the trash, at any depth', async () => {
    await owner.grow('# Signs\n\n- 100 % wet\n- under_score\n- back\\slash')
    expect((await find('%')).map(({ text }) => text)).toEqual(['100 % wet'])
    expect((await find('_')).map(({ text }) => text)).toEqual(['under_score'])
    expect((await find('\\')).map(({ text }) => text)).toEqual(['back\\slash'])
    expect((await find('beans')).map(({ text }) => text)).toEqual(['Pick beans'])
    await change('Summer', { trashed: false }, { trashed: true })
    expect(await find('beans')).toEqual([])
    await change('Summer', { trashed: true }, { trashed: false })
    expect(await find('')).toEqual([])
  })
})

describe('the digest of a collection', () => {
  test('tells topics, doorways and links of each map, whatever it holds', async () => {
    const spring = await topicNamed('Spring')
    const home = await owner.grow('# Home\n\n- See Garden')
    const door = (await owner.map(home)).topics.find(({ text }) => text === 'See Garden')!
    await owner.change([
      { kind: 'topic', id: door.id, before: { opensMap: null }, after: { opensMap: spring.place.map } },
    ])
    const link = uuid()
    const after = {
      id: link,
      from: door.id,
      toTopic: spring.id,
      toMap: null,
      label: '',
      drawn: 'quiet',
      trashed: false,
    }
    await owner.change([{ kind: 'crosslink', id: link, before: null, after } as unknown as Edit])
    const { maps } = (await owner.call('GET', `/api/collections/${owner.collection}`)).json as CollectionDigest
    const digest = maps.find(({ id }) => id === home)!
    expect(digest).toMatchObject({ topics: 2, opens: [map], linked: [{ map, links: 1 }] })
    expect(maps.find(({ id }) => id === map)!.linked).toEqual([{ map: home, links: 1 }])
  })

  test('numbers of changes that were missed must be numbers', async () => {
    for (const after of ['-1', 'x', '1.5', ''])
      expect([
        after,
        (await owner.call('GET', `/api/collections/${owner.collection}/changes?after=${after}`)).status,
      ]).toEqual([after, after === '' ? 200 : 400])
  })
})
