import { v7 as uuid } from 'uuid'
import { expect, test } from 'vitest'
import type { Edit } from '../../src/core/changes/edit'
import { linkedIn } from '../../src/core/network/note-links'
import { database } from '../../src/server/database'
import { Caller } from './people'

interface Around {
  linkedFrom: { text: string; mapTitle: string }[]
  carriedBy: { text: string }[]
  sharing: { text: string; link: string }[]
}

test('a topic knows which notes lead to it, who else carries its note, and where its addresses are, as far as that is open', async () => {
  const owner = await Caller.begin()
  const [bog, mill] = [await owner.grow('# Bog\n\n- Pools\n- Peat'), await owner.grow('# Mill\n\n- Wheel\n- Gate')]
  const topics = [...(await owner.map(bog)).topics, ...(await owner.map(mill)).topics]
  const id = (text: string) => topics.find((topic) => topic.text === text)!.id
  const note = uuid()
  const text = `See [it](folvet:topic/${id('Gate')}#words=now) and [the map](folvet:map/${bog}).`
  const link = (topic: string, url: string) => {
    const after = { id: uuid(), topic, url, title: '', rank: 'a0', read: false, trashed: false }
    return { kind: 'weblink', id: after.id, before: null, after } as unknown as Edit
  }
  await owner.change([
    {
      kind: 'note',
      id: note,
      before: null,
      after: { id: note, text, joinedInto: null, trashed: false },
    } as unknown as Edit,
    { kind: 'topic', id: id('Pools'), before: {}, after: { note: note as never } },
    link(id('Gate'), 'https://example.org/gate'),
    link(id('Peat'), 'https://example.org/gate'),
    link(id('Peat'), 'https://example.org/gates'),
  ])
  const around = async (topic: string, caller = owner) => {
    const answer = await caller.call('GET', `/api/collections/${owner.collection}/topics/${id(topic)}/around`)
    expect(answer.status, answer.text).toBe(200)
    return answer.json as Around
  }
  expect((await owner.command('carry-note', { of: id('Pools'), also: id('Wheel') })).status).toBe(200)
  expect((await around('Pools')).carriedBy).toMatchObject([{ text: 'Wheel' }])
  const gate = await around('Gate')
  expect(gate.linkedFrom).toMatchObject([
    { text: 'Pools', mapTitle: 'Bog' },
    { text: 'Wheel', mapTitle: 'Mill' },
  ])
  expect(gate.sharing.map((other) => other.text)).toEqual(['Peat'])
  const guest = await owner.invite('reader', { maps: [mill] })
  expect(await around('Gate', guest)).toMatchObject({ linkedFrom: [{ text: 'Wheel' }], sharing: [] })
  // The database finds the same addresses as the core does.
  for (const words of [
    text,
    `folvet:topic/${id('Gate').toUpperCase()}`,
    `folvet:file/${uuid()}folvet:map/${uuid()}`,
    'folvet:',
  ])
    expect(
      (await database().query<{ links: string[] }>('SELECT note_links($1) AS links', [words])).rows[0]!.links.sort(),
    ).toEqual([...linkedIn(words)].sort())
  // What lies in the trash leads nowhere.
  await owner.change([{ kind: 'topic', id: id('Pools'), before: {}, after: { trashed: true } }])
  expect((await around('Gate')).linkedFrom).toMatchObject([{ text: 'Wheel' }])
})
