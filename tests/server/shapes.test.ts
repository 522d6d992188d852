import { v7 as uuid } from 'uuid'
import { beforeAll, describe, expect, test } from 'vitest'
import type { Edit } from '../../src/core/changes/edit'
import { EnclosureId, TagId, TemplateId } from '../../src/core/records/ids'
import { PLAIN_MAP_LOOK } from '../../src/core/records/look'
import type { Place } from '../../src/core/records/place'
import type { CollectionDigest } from '../../src/core/records/snapshot'
import type { TopicRecord } from '../../src/core/records/topic'
import { MapPeek } from '../../src/core/scene/thumbnail'
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
    const place = { ...spring.place, kind: 'by hand', x: 120.25, y: -40 } as Place
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

describe('looks and marks', () => {
  test('are stored with the topic, the map and the collection, and come back as they were', async () => {
    const tag = TagId.parse(uuid())
    const name = { id: tag, name: 'wet', tone: 3, trashed: false }
    expect(onlyResult(await owner.change([{ kind: 'tag', id: tag, before: null, after: name }])).ok).toBe(true)
    const marks = {
      look: { fill: '#204060', fillEnd: null, bold: true },
      branchLook: { family: 'peat', shape: 'pill', size: 18.5 },
      badges: ['icon:star', '🌱'],
      tags: [tag],
      task: 'begun',
    } as const
    const before = { look: null, branchLook: null, badges: [], tags: [], task: null }
    expect(await change('Spring', before, { ...marks, badges: [...marks.badges], tags: [tag] })).toMatchObject({
      ok: true,
    })
    expect(await topicNamed('Spring')).toMatchObject(marks)
    const look = { ...PLAIN_MAP_LOOK, whole: 'pencil', levels: [{ size: 30 }, {}] } as const
    const edits: Edit[] = [
      { kind: 'map', id: map, before: { look: null }, after: { look: { ...look, levels: [...look.levels] } } },
      {
        kind: 'collection',
        id: owner.collection,
        before: { look: null },
        after: { look: { ...PLAIN_MAP_LOOK, whole: 'galley' } },
      },
    ]
    expect(onlyResult(await owner.change(edits)).ok).toBe(true)
    const snapshot = await owner.map(map)
    expect(snapshot.map.look).toEqual(look)
    expect(snapshot.tags).toEqual([name])
    const digest = (await owner.call('GET', `/api/collections/${owner.collection}`)).json as CollectionDigest
    expect(digest.collection.look?.whole).toBe('galley')
  })

  test('are refused in words where they cannot be', async () => {
    const strange = TagId.parse(uuid())
    for (const after of [
      { look: { fill: 'red' } },
      { look: { font: 'comic' } },
      { look: { size: 900 } },
      { branchLook: { colour: '#000000' } },
      { badges: ['<script>'] },
      { task: 'maybe' },
      { tags: [strange] },
      { picture: { file: uuid(), width: 100, height: 100 } },
    ]) {
      const result = await change('Summer', {}, after as never)
      expect([after, result.ok]).toEqual([after, false])
    }
    expect(await topicNamed('Summer')).toMatchObject({ look: null, badges: [], tags: [], task: null, picture: null })
  })

  test('a template that was kept is listed until it is removed', async () => {
    const id = TemplateId.parse(uuid())
    const lines = [{ level: 0, text: 'First', note: '', links: [], day: 3 }]
    const after = { id, name: 'Beds', layout: 'both', numbering: null, lines, trashed: false } as const
    await owner.change([{ kind: 'template', id, before: null, after: { ...after, lines } }])
    const listed = async () => (await owner.call('GET', `/api/collections/${owner.collection}/templates`)).json
    expect(await listed()).toEqual([after])
    await owner.change([{ kind: 'template', id, before: { trashed: false }, after: { trashed: true } }])
    expect(await listed()).toEqual([])
  })

  test('branches are drafted from a wish and what the collection knows, and nothing is changed', async () => {
    const before = await owner.map(map)
    const answer = await owner.send('POST', `/api/collections/${owner.collection}/draft`, {
      wish: 'work in spring',
      text: '',
    })
    const { items } = answer.json as { items: { text: string; children: { text: string }[] }[] }
    expect(items[0]).toMatchObject({ text: 'Spring', children: [{ text: 'Sow peas' }] })
    expect(await owner.map(map)).toEqual(before)
    const long = { wish: 'x'.repeat(3_000), text: '' }
    expect((await owner.send('POST', `/api/collections/${owner.collection}/draft`, long)).status).toBe(400)
  })
})

describe('enclosures', () => {
  const enclose = async (topics: string[], title = 'Before April') => {
    const id = EnclosureId.parse(uuid())
    const after = { id, topics, title, note: '', tone: null, look: null, trashed: false }
    return { id, answer: await owner.change([{ kind: 'enclosure', id, before: null, after } as unknown as Edit]) }
  }

  test('are stored with the topics that they name, and come with their map', async () => {
    const [peas, spring] = [await topicNamed('Sow peas'), await topicNamed('Spring')]
    const { id, answer } = await enclose([spring.id, peas.id])
    expect(onlyResult(answer).ok).toBe(true)
    expect((await owner.map(map)).enclosures).toEqual([
      { id, topics: [spring.id, peas.id], title: 'Before April', note: '', tone: null, look: null, trashed: false },
    ])
    await owner.change([
      { kind: 'enclosure', id, before: { tone: null }, after: { tone: 4, title: 'Late', note: 'Or *later*.' } },
    ])
    expect((await owner.map(map)).enclosures[0]).toMatchObject({ tone: 4, title: 'Late', note: 'Or *later*.' })
  })

  test('name only topics that are there, at least one and not endlessly many', async () => {
    const unknown = onlyResult((await enclose([uuid()])).answer)
    expect(unknown).toMatchObject({ ok: false, problem: { code: 'reference' } })
    expect(onlyResult((await enclose([])).answer).ok).toBe(false)
    const summer = await topicNamed('Summer')
    expect(onlyResult((await enclose(Array<string>(501).fill(summer.id))).answer).ok).toBe(false)
  })

  test('are found by their title, take links from other maps, and come along with those', async () => {
    const summer = await topicNamed('Summer')
    const { id } = await enclose([summer.id], 'Warm half')
    const found = await owner.call('GET', `/api/collections/${owner.collection}/find?words=warm`)
    expect(found.json).toEqual([
      { kind: 'enclosure', id, topic: summer.id, map, mapTitle: 'Garden', text: 'Warm half' },
    ])
    const far = await owner.grow('# Shed\n\n- Tools')
    const tools = (await owner.map(far)).topics.find(({ text }) => text === 'Tools')!
    const link = (to: unknown) =>
      owner.change([
        {
          kind: 'crosslink',
          id: uuid(),
          before: null,
          after: { from: tools.id, to, label: '', drawn: 'quiet', trashed: false },
        } as unknown as Edit,
      ])
    for (const nowhere of [{ kind: 'enclosure', id: uuid() }, { kind: 'person', id }, { kind: 'topic' }, id, null])
      expect(onlyResult(await link(nowhere)).ok).toBe(false)
    expect(onlyResult(await link({ kind: 'enclosure', id })).ok).toBe(true)
    const held = await owner.map(far)
    expect(held.crosslinks).toMatchObject([{ from: tools.id, to: { kind: 'enclosure', id } }])
    expect(held.enclosures).toMatchObject([{ id, title: 'Warm half' }])
    expect(held.farTopics.map(({ text }) => text)).toContain('Summer')
    // What lies in the trash is found no more.
    await owner.change([{ kind: 'enclosure', id, before: { trashed: false }, after: { trashed: true } } as Edit])
    expect((await owner.call('GET', `/api/collections/${owner.collection}/find?words=warm`)).json).toEqual([])
  })

  test('have looks of a few kinds, and no others', async () => {
    const { id } = await enclose([(await topicNamed('Summer')).id])
    const look = async (after: unknown) =>
      onlyResult(
        await owner.change([{ kind: 'enclosure', id, before: { look: null }, after: { look: after } } as Edit]),
      ).ok
    for (const wrong of [{ fill: 'red' }, { line: 'wavy' }, { corners: 9 }, { shadow: true }, 'bold'])
      expect([wrong, await look(wrong)]).toEqual([wrong, false])
    expect(await look({ fill: '#aabbcc', line: 'dashed', corners: 'sketch' })).toBe(true)
    const stored = (await owner.map(map)).enclosures.find((one) => one.id === id)
    expect(stored?.look).toEqual({ fill: '#aabbcc', line: 'dashed', corners: 'sketch' })
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

  test('takes words in any order, and forgives a typing mistake after all that contains them', async () => {
    await owner.grow("# Wildlife\n\n- A dragonfly's nest\n- Nesting boxes\n- The dragon of the fair")
    const said = async (words: string) => (await find(words)).map(({ text }) => text)
    expect((await said('nest dragonfly'))[0]).toBe("A dragonfly's nest")
    expect(await said('dragnfly nest')).toEqual(["A dragonfly's nest"])
    expect((await said('wildlive'))[0]).toBe('Wildlife')
    expect(await said('fiar dragon')).toEqual(['The dragon of the fair'])
    expect(await said('nest zzzz')).toEqual([])
    expect(await said('nes')).toEqual(['Nesting boxes', "A dragonfly's nest"])
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

  test('takes notes, files and web links by the topics that carry them', async () => {
    const pond = await owner.grow(`# Pond\n\n${'The reed stands high. '.repeat(20)}Newts spawn in April.\n\n- Edge`)
    const edge = (await owner.map(pond)).topics.find(({ text }) => text === 'Edge')!
    const files = `/api/collections/${owner.collection}/files?topic=${edge.id}`
    await owner.call('POST', `${files}&name=count-of-newts.csv`, 'day,newts\n1,4\n')
    const weblink = {
      id: uuid(),
      topic: edge.id,
      url: 'https://example.org/newts',
      title: 'An atlas of ponds',
      rank: 'a0',
      trashed: false,
    }
    await owner.change([{ kind: 'weblink', id: weblink.id, before: null, after: weblink } as unknown as Edit])
    const behind = async (words: string) =>
      (
        (await owner.call('GET', `/api/collections/${owner.collection}/find?behind&words=${encodeURIComponent(words)}`))
          .json as { kind: string; topicText: string; mapTitle: string; text: string }[]
      ).map(({ kind, topicText, mapTitle, text }) => [kind, topicText, mapTitle, text])
    expect(await behind('newts')).toEqual([
      ['file', 'Edge', 'Pond', 'count-of-newts.csv'],
      ['weblink', 'Edge', 'Pond', 'An atlas of ponds'],
      [
        'note',
        'Pond',
        'Pond',
        expect.stringMatching(
          /^(?!The reed stands high\. The reed stands high\. The reed stands high\. The reed).*Newts spawn in April\./s,
        ),
      ],
    ])
    expect(await behind('spawn APRIL')).toHaveLength(1)
    expect(await behind('%')).toEqual([])
    expect(await behind('')).toEqual([])
    await owner.change([{ kind: 'topic', id: edge.id, before: { trashed: false }, after: { trashed: true } }])
    expect((await behind('newts')).map(([kind]) => kind)).toEqual(['note'])
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
      to: { kind: 'topic', id: spring.id },
      label: '',
      drawn: 'quiet',
      trashed: false,
    }
    await owner.change([{ kind: 'crosslink', id: link, before: null, after } as unknown as Edit])
    const { maps } = (await owner.call('GET', `/api/collections/${owner.collection}`)).json as CollectionDigest
    const digest = maps.find(({ id }) => id === home)!
    expect(digest).toMatchObject({ topics: 2, opens: [map], linked: [{ map, links: 1 }] })
    expect(maps.find(({ id }) => id === map)!.linked).toContainEqual({ map: home, links: 1 })
  })

  test('numbers of changes that were missed must be numbers', async () => {
    for (const after of ['-1', 'x', '1.5', ''])
      expect([
        after,
        (await owner.call('GET', `/api/collections/${owner.collection}/changes?after=${after}`)).status,
      ]).toEqual([after, after === '' ? 200 : 400])
  })
})

test('of each collection its owner is told the maps changed last with what was changed, and each map has a thumbnail', async () => {
  const caller = await Caller.begin()
  const home = await caller.grow('# Home\n\n- One')
  const shed = await caller.grow('# Shed\n\n- Tools\n  - Spade')
  const tools = (await caller.map(shed)).topics.find(({ text }) => text === 'Tools')!
  await caller.change([
    { kind: 'topic', id: tools.id, before: { text: 'Tools' }, after: { text: 'All tools' } } as Edit,
  ])
  const rows = (await caller.call('GET', '/api/collections')).json as {
    homeMap: string | null
    published: boolean
    lately: { map: string; title: string }[]
  }[]
  const { homeMap, lately, published } = rows[0]!
  expect(published).toBe(false)
  expect(lately.map(({ map }) => map)).toEqual([shed, home].filter((id) => id !== homeMap))
  expect(lately[0]!.title).toBe('Shed')
  const thumbnail = () => caller.call('GET', `/api/collections/${caller.collection}/maps/${shed}/thumbnail`)
  const { json } = await thumbnail()
  expect(MapPeek.parse(json).bars.length).toBe(2)
  expect((await thumbnail()).json).toEqual(json)
})
