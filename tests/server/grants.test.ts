import { v7 as uuid } from 'uuid'
import { beforeAll, describe, expect, test } from 'vitest'
import type { Edit, ToldChange } from '../../src/core/changes/edit'
import { Refusal } from '../../src/core/changes/problem'
import type { IdSource, Outcome } from '../../src/core/commands/command'
import { addCrosslink } from '../../src/core/commands/crosslinks'
import { encloseTopics } from '../../src/core/commands/enclosures'
import { saveTemplate } from '../../src/core/commands/save-template'
import { splitOff } from '../../src/core/commands/split-off'
import { tagTopics } from '../../src/core/commands/tags'
import { writeNote } from '../../src/core/commands/write-note'
import type { TopicId } from '../../src/core/records/ids'
import type { Records } from '../../src/core/records/records'
import type { CollectionDigest, MapSnapshot } from '../../src/core/records/snapshot'
import type { Grant } from '../../src/core/rights/grant'
import { wholeCollection } from '../../src/server/collections'
import { loadCollection } from '../../src/server/records/tables'
import { perform } from '../core/acts'
import { attempt, forged, isOpenTo } from '../core/reach'
import { Caller, onlyResult } from './people'

const newIds: IdSource = { newId: uuid }

const allOf = async (collection: string): Promise<Records> =>
  (await wholeCollection(collection, (client, into) => loadCollection(client, into, collection))).records

/** An owner's collection with one map that will be opened to others and one that will not, tied together in every way. */
async function setting() {
  const owner = await Caller.begin()
  const open = await owner.grow('# Garden\n\n- Bed\n  - Rose\n- Gate')
  const shut = await owner.grow('# Shut pond\n\n- Shut reed\n  - Shut nest\n- Shut bank')
  const act = async (command: (records: Records, newIds: IdSource) => Outcome) => {
    const { change } = command(await allOf(owner.collection), newIds)
    expect(onlyResult(await owner.change(change.edits))).toMatchObject({ ok: true })
  }
  const topics = new Map([...(await allOf(owner.collection)).all('topic')].map(({ id, text }) => [text, id]))
  const topic = (text: string): TopicId => topics.get(text)!
  for (const text of ['Shut nest', 'Shut bank'])
    await act((records, ids) => writeNote(records, { topic: topic(text), base: '', text: `Shut words, ${text}` }, ids))
  await act((records, ids) => encloseTopics(records, { topics: [topic('Shut reed')], title: 'Shut frame' }, ids))
  await act((records, ids) => tagTopics(records, { topics: [topic('Shut reed')], name: 'Shut tag' }, ids))
  await act((records, ids) => saveTemplate(records, { topic: topic('Shut reed'), name: 'Shut template' }, ids))
  const records = await allOf(owner.collection)
  const [enclosure] = [...records.all('enclosure')]
  const note = records.need('topic', topic('Shut nest')).note!
  const link = (from: string, to: Parameters<typeof addCrosslink>[1]['to']) =>
    act((held, ids) => addCrosslink(held, { from: topic(from), to, drawn: 'line' }, ids))
  await link('Rose', { kind: 'topic', id: topic('Shut nest') })
  await link('Rose', { kind: 'enclosure', id: enclosure!.id })
  await link('Bed', { kind: 'note', id: note })
  await link('Shut bank', { kind: 'topic', id: topic('Rose') })
  const label = [...(await allOf(owner.collection)).all('crosslink')].find(({ from }) => from === topic('Shut bank'))!
  await owner.change([{ kind: 'crosslink', id: label.id, before: { label: '' }, after: { label: 'Shut label' } }])
  await owner.change([
    { kind: 'topic', id: topic('Gate'), before: { opensMap: null }, after: { opensMap: shut as never } },
  ])
  await owner.call(
    'POST',
    `/api/collections/${owner.collection}/files?topic=${topic('Shut reed')}&name=shut.txt`,
    'Shut file',
  )
  const [file] = [...(await allOf(owner.collection)).all('file')]
  return { owner, open, shut, topic, act, file: file!.id, note, at: `/api/collections/${owner.collection}` }
}

describe('somebody to whom one map is open', () => {
  let set: Awaited<ReturnType<typeof setting>>
  beforeAll(async () => {
    set = await setting()
  })

  test('links nothing to what is shut, whatever kind of end it is, and is told the same as of what is not there', async () => {
    const { owner, open, shut, topic, note } = set
    const editor = await owner.invite('editor', { maps: [open] })
    const [enclosure] = [...(await allOf(owner.collection)).all('enclosure')]
    for (const to of [
      { kind: 'topic', id: topic('Shut bank') },
      { kind: 'enclosure', id: enclosure!.id },
      { kind: 'map', id: shut },
      { kind: 'note', id: note },
    ]) {
      const answers = [to.id, uuid()].map((id) =>
        editor.command('link', { from: topic('Gate'), to: { ...to, id }, drawn: 'line' }),
      )
      const [hidden, missing] = await Promise.all(answers)
      expect([to.kind, hidden!.status >= 400, missing!.status >= 400]).toEqual([to.kind, true, true])
      expect([to.kind, hidden!.text]).toEqual([to.kind, missing!.text])
      expect(hidden!.text).not.toContain('Shut')
    }
  })

  test('is shown nothing of the others, whatever they ask for', async () => {
    const { owner, open, shut, topic, file, at } = set
    const guest = await owner.invite('reader', { maps: [open] })
    const get = (path: string) => guest.call('GET', at + path)
    const held = await get(`/maps/${open}`)
    expect(held.text).toContain('Rose')
    const answers = [
      held,
      await get(''),
      await get('/find?words=shut'),
      await get('/find?words=e'),
      await get('/find?behind&words=shut'),
      await get('/find?behind&words=e'),
      await get('/search?words=shu'),
      await get('/search?words=hsut'),
      await get('/search?words=e'),
      await get('/gathered?words=shu'),
      await get(`/gathered?map=${shut}`),
      await get(`/maps/${shut}/gathered`),
      await get('/searches'),
      await get('/pages'),
      await guest.send('POST', `${at}/pages`, { pages: [{ path: 'shut.md', text: '- a' }] }),
      await get(`/topics/${topic('Shut reed')}/around`),
      await get(`/topics/${topic('Rose')}/around`),
      await get('/maps'),
      await get('/files'),
      await get(`/files.zip?topic=${topic('Shut reed')}`),
      await get('/tags'),
      await get('/dates'),
      await get('/dates.ics'),
      await get(`/dates.ics?map=${shut}`),
      await get('/changes'),
      await get('/changes?after=0'),
      await get('/templates'),
      await get('/publication'),
      await get('/publication.zip'),
      await get('/grants'),
      await get(`/maps/${shut}`),
      await get(`/files/${file}`),
      await get(`/files/${file}/text`),
      await guest.call('GET', '/api/collections'),
      await guest.send('POST', `${at}/merge-plan`, { target: open, sources: [shut], way: 'beside' }),
      await guest.send('POST', `${at}/draft`, { wish: 'shut reed nest', text: '' }),
    ]
    for (const { text } of answers) expect(text.replace(/"id":"[^"]*"/g, '')).not.toMatch(/shut/i)
    const ends = (held.json as MapSnapshot).records.crosslink!.map(({ to }) => to.id as string)
    expect(ends).toContain(topic('Shut nest'))
    expect((await get('')).json as CollectionDigest).toMatchObject({ role: 'reader', roles: { [open]: 'reader' } })
    expect(((await get('')).json as CollectionDigest).maps.map(({ id }) => id)).toEqual([open])
  })

  test('edits it, and is refused everything that touches another map, by every way', async () => {
    const { owner, open, shut, topic, note, file, at } = set
    const editor = await owner.invite('editor', { maps: [open] })
    const text = (id: string, after: string): Edit[] => [{ kind: 'topic', id, before: {}, after: { text: after } }]
    expect(onlyResult(await editor.change(text(topic('Rose'), 'Rose bush')))).toMatchObject({ ok: true })
    const carry: Edit = { kind: 'topic', id: topic('Rose'), before: {}, after: { note: note as never } }
    const attach = {
      kind: 'attachment',
      id: uuid(),
      before: null,
      after: { id: uuid() as never, topic: topic('Rose'), file, rank: 'a0', trashed: false },
    } as Edit
    const title: Edit = { kind: 'collection', id: owner.collection, before: {}, after: { title: 'Mine' } }
    for (const edits of [
      text(topic('Shut reed'), 'Seen'),
      [carry],
      [{ ...attach, id: (attach.after as { id: string }).id }],
      [title],
    ]) {
      const answer = await editor.change(edits)
      expect([answer.status, answer.text]).toEqual([403, expect.stringContaining('not')])
    }
    for (const [name, args] of [
      ['trash-maps', { maps: [shut] }],
      ['bring-back', { topic: topic('Gate') }],
      [
        'merge',
        {
          plan: {
            target: open,
            sources: [shut],
            way: 'beside',
            decisions: [{ act: 'add', source: topic('Shut reed'), below: topic('Bed') }],
          },
        },
      ],
    ] as const)
      expect([403, 404], name).toContain((await editor.command(name, args)).status)
    const mine = { id: uuid(), pages: [{ path: 'a.md', text: '# Mine' }] }
    expect((await editor.send('POST', `${at}/imports`, mine)).status).toBe(403)
    const upload = (to: string) => editor.call('POST', `${at}/files?topic=${topic(to)}&name=a.txt`, 'A file')
    expect((await upload('Shut reed')).status).toBe(404)
    expect((await upload('Bed')).status).toBe(201)
    expect((await allOf(owner.collection)).need('topic', topic('Shut reed')).text).toBe('Shut reed')
  })

  test('hears of its changes whole, of others only that they were, and nothing after the grant has ended', async () => {
    const { owner, open, topic, at } = set
    const guest = await owner.invite('reader', { maps: [open] })
    const { number } = (await guest.call('GET', at)).json as CollectionDigest
    const heard = await guest.listen(number, [open])
    const write = (text: string, after: string) =>
      owner.change([{ kind: 'topic', id: topic(text), before: {}, after: { text: after } }])
    await write('Shut bank', 'Shut, still')
    const [hidden] = (await heard.next('changes'))!.data as ToldChange[]
    expect(hidden).toMatchObject({ number: number + 1, edits: null, label: 'A change', maps: [open] })
    await write('Gate', 'Garden gate')
    const [shown] = (await heard.next('changes'))!.data as ToldChange[]
    expect(shown).toMatchObject({ number: number + 2, edits: [{ after: { text: 'Garden gate' } }] })
    await owner.withdraw(guest.grant)
    await write('Gate', 'Gate')
    expect(await heard.next('changes')).toBeNull()
    expect((await guest.call('GET', at)).status).toBe(404)
  })

  test('has child maps too where the grant says so, from when they become that until they are no more', async () => {
    const { owner, open, topic, act } = set
    const guest = await owner.invite('editor', { maps: [open], withChildMaps: true })
    const rows = async () =>
      ((await guest.call('GET', set.at)).json as CollectionDigest).maps.map(({ title }) => title).sort()
    expect(await rows()).toEqual(['Garden'])
    await act((records, ids) => splitOff(records, { topic: topic('Bed') }, ids))
    expect(await rows()).toEqual(['Bed', 'Garden'])
    const records = await allOf(owner.collection)
    const bed = [...records.all('map')].find(({ title }) => title === 'Bed')!
    const away: Edit[] = [
      { kind: 'topic', id: topic('Shut bank'), before: {}, after: { opensMap: bed.id } },
      { kind: 'map', id: bed.id, before: {}, after: { homeDoorway: topic('Shut bank') } },
    ]
    const { number } = (await guest.call('GET', set.at)).json as CollectionDigest
    const heard = await guest.listen(number, [bed.id])
    expect((await guest.change(away)).status).toBe(403)
    expect(onlyResult(await owner.change(away))).toMatchObject({ ok: true })
    expect((await heard.next('resync'))?.kind).toBe('resync')
    expect(await rows()).toEqual(['Garden'])
    expect((await guest.call('GET', `${set.at}/maps/${bed.id}`)).status).toBe(404)
  })

  test('grants end by themselves, and a collection keeps an owner', async () => {
    const { owner, at } = set
    const guest = await Caller.begin()
    const soon = new Date(Date.now() + 1_500).toISOString()
    const asked = { to: 'link', role: 'reader', maps: null, withChildMaps: false, endsAt: soon }
    const { secret } = (await owner.send('POST', `${at}/grants`, asked)).json as { secret: string }
    expect((await guest.send('POST', '/api/links', { secret })).status).toBe(200)
    expect((await guest.call('GET', at)).status).toBe(200)
    await new Promise((resolve) => setTimeout(resolve, 3_700))
    expect((await guest.call('GET', at)).status).toBe(404)
    const given = (await owner.call('GET', `${at}/grants`)).json as { id: string; role: string }[]
    expect(JSON.stringify(given)).not.toContain(secret)
    expect((await owner.withdraw(given.find(({ role }) => role === 'owner')!.id)).status).toBe(409)
    const another = { ...asked, endsAt: null, role: 'owner' }
    expect((await owner.send('POST', `${at}/grants`, another)).status).toBe(400)
  })
})

/** Numbers that look random and are the same each time. */
function numbers(seed: number): (below: number) => number {
  let state = seed
  return (below) => {
    state = (state * 1_103_515_245 + 12_345) & 0x7fffffff
    return (state >> 8) % below
  }
}

test.each([7, 21, 13])(
  'no sequence of grants, moves, splits and withdrawals lets a read or a write through (walk %i)',
  async (seed) => {
    const roll = numbers(seed)
    const owner = await Caller.begin()
    const guest = await Caller.begin()
    const at = `/api/collections/${owner.collection}`
    for (const text of [
      '# Garden\n\n- Bed\n  - Rose\n- Gate',
      '# Pond\n\n- Reed\n  - Nest',
      '# Shed\n\n- Shelf\n  - Rake',
    ])
      await owner.grow(text)
    const grants = new Map<string, Grant>()
    const counts = { made: 0, refused: 0, shown: 0 }
    const give = async (records: Records) => {
      const maps = [...records.all('map')].map(({ id }) => id)
      const grant: Grant = {
        role: roll(3) === 0 ? 'reader' : 'editor',
        maps: [maps[roll(maps.length)]!],
        withChildMaps: roll(2) === 0,
      }
      const given = await owner.send('POST', `${at}/grants`, { ...grant, to: 'link', endsAt: null })
      const { id, secret } = given.json as { id: string; secret: string }
      await guest.send('POST', '/api/links', { secret })
      grants.set(id, grant)
    }
    const expectOnlyOpen = async (records: Records) => {
      const all = [...grants.values()]
      const open = [...records.all('map')].filter(({ id }) => isOpenTo(records, all, id, ['reader', 'editor']))
      const digest = await guest.call('GET', at)
      expect(digest.status).toBe(grants.size > 0 ? 200 : 404)
      if (grants.size === 0) return
      expect((digest.json as CollectionDigest).maps.map(({ id }) => id).sort()).toEqual(open.map(({ id }) => id).sort())
      for (const { id } of records.all('map')) {
        const answer = await guest.call('GET', `${at}/maps/${id}`)
        const isOpen = open.some((map) => map.id === id)
        expect(answer.status).toBe(isOpen ? 200 : 404)
        if (!isOpen) continue
        counts.shown++
        const held = answer.json as MapSnapshot
        for (const topic of [...(held.records.topic ?? []), ...held.farTopics]) {
          const map = 'place' in topic ? topic.place.map : topic.map
          expect(open.some((each) => each.id === map)).toBe(true)
        }
        for (const note of held.records.note ?? [])
          expect(records.carriersOf(note.id).some(({ place }) => open.some((map) => map.id === place.map))).toBe(true)
      }
    }
    for (let step = 0; step < 70; step++) {
      const records = await allOf(owner.collection)
      const which = roll(8)
      if (which === 0 || (grants.size === 0 && which < 4)) await give(records)
      else if (which === 1 && grants.size > 0) {
        const id = [...grants.keys()][roll(grants.size)]!
        await owner.withdraw(id)
        grants.delete(id)
      } else {
        const tried: [number, number, number] = [roll(20), roll(1_000), roll(1_000)]
        let edits: Edit[]
        try {
          edits =
            which === 7
              ? forged(records, [tried[0] % 6, tried[1], tried[2]])
              : perform(records, newIds, tried).change.edits
        } catch (error) {
          if (error instanceof Refusal || error instanceof RangeError) continue
          throw error
        }
        if (edits.length === 0) continue
        const isGuest = which > 3
        const answer = await (isGuest ? guest : owner).change(edits, uuid(), owner.collection)
        // Told by the rules of core with all records at hand; the server has to come to the same with those it loads.
        const wanted = isGuest && grants.size > 0 ? attempt(records, edits, [...grants.values()]) : null
        // Who may edit nothing is refused before it is looked at, also where it would alter nothing.
        const mayTry = [...grants.values()].some(({ role }) => role !== 'reader')
        const result = answer.status === 200 ? onlyResult(answer) : null
        if (isGuest) {
          expect(result?.ok ?? false, `${tried} ${answer.text} ${wanted}`).toBe(mayTry && wanted === null)
          if (result?.ok) counts.made++
          else counts.refused++
        }
      }
      await expectOnlyOpen(await allOf(owner.collection))
    }
    expect(Math.min(counts.made, counts.refused, counts.shown)).toBeGreaterThan(2)
  },
  120_000,
)
