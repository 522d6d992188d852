import { v7 as uuid } from 'uuid'
import { beforeAll, expect, test } from 'vitest'
import type { Edit } from '../../src/core/changes/edit'
import { Caller, onlyResult } from './people'

let owner: Caller
let map = ''
let topic = ''
beforeAll(async () => {
  owner = await Caller.begin()
  map = await owner.grow('# Garden\n\n- Peas')
  topic = (await owner.map(map)).topics.find(({ text }) => text === 'Peas')!.id
})

const NOBODY = '00000000-0000-0000-0000-000000000000'
const comment = (text: string, more: object = {}) => {
  const id = uuid()
  const after = {
    id,
    topic,
    answers: null,
    author: NOBODY,
    authorName: 'Somebody else',
    at: '1999-01-01T00:00:00Z',
    text,
    quote: '',
    mentions: [],
    resolved: false,
    trashed: false,
    ...more,
  }
  return { id, edits: [{ kind: 'comment', id, before: null, after } as unknown as Edit] }
}
const edited = (id: string, after: object) => [{ kind: 'comment', id, before: {}, after } as unknown as Edit]
interface Told {
  id: string
  text: string
  authorName: string
  isNew: boolean
  isForMe: boolean
}
const told = async (who: Caller) =>
  (await who.call('GET', `/api/collections/${who.collection}/comments`)).json as Told[]

test('whoever may comment says things in their own name, and nothing else is altered by them', async () => {
  const commenter = await owner.invite('commenter')
  const said = comment('Too early?')
  const result = onlyResult(await commenter.change(said.edits))
  expect(result.ok && result.change.edits[0]!.after).toMatchObject({ authorName: 'Guest', text: 'Too early?' })
  const { author, at } = (await owner.map(map)).comments[0]!
  expect([author, Date.now() - Date.parse(at) < 60_000]).toEqual([result.ok && result.change.person, true])
  // Not the words of others, no topic, and a reader not at all.
  const own = comment('Mine.')
  await owner.change(own.edits)
  for (const [edits, who] of [
    [edited(own.id, { text: 'Never!' }), commenter],
    [edited(own.id, { trashed: true }), commenter],
    [edited(said.id, { authorName: 'Owner' }), commenter],
    [edited(said.id, { text: 'Never!' }), owner],
    [[{ kind: 'topic', id: topic, before: {}, after: { text: 'x' } } as unknown as Edit], commenter],
    [comment('Hello').edits, await owner.invite('reader')],
  ] as const)
    expect((await who.change([...edits])).status).toBe(403)
  // Settling is for all, removing for who edits.
  expect(onlyResult(await commenter.change(edited(own.id, { resolved: true }))).ok).toBe(true)
  expect(onlyResult(await commenter.change(edited(said.id, { text: 'Too early in March?' }))).ok).toBe(true)
  expect(onlyResult(await owner.change(edited(said.id, { trashed: true }))).ok).toBe(true)
  expect((await told(owner)).map(({ text }) => text)).toEqual(['Mine.'])
})

test('what is new to somebody is told until they have seen it, and whom it names', async () => {
  const editor = await owner.invite('editor')
  const people = (await owner.call('GET', `/api/collections/${owner.collection}/people`)).json as { id: string }[]
  const me = ((await editor.call('GET', `/api/collections/${owner.collection}`)).json as { person: string }).person
  expect(people.map(({ id }) => id)).toContain(me)
  const said = comment('Look at this, please.', { mentions: [me] })
  await owner.change(said.edits)
  const mine = async () => (await told(editor)).find(({ id }) => id === said.id)!
  expect(await mine()).toMatchObject({ isNew: true, isForMe: true })
  expect((await told(owner)).find(({ id }) => id === said.id)).toMatchObject({ isNew: false, isForMe: false })
  const seen = await editor.send('POST', `/api/collections/${owner.collection}/comments/seen`, {
    comments: [said.id, NOBODY],
  })
  expect(seen.status).toBe(200)
  expect((await mine()).isNew).toBe(false)
})

test('comments are found by their words, and only by whom their map is open to', async () => {
  const other = await owner.grow('# Shed')
  const commenter = await owner.invite('commenter', { maps: [other] })
  await owner.change(comment('The weevil is back.').edits)
  const found = async (who: Caller) =>
    (
      (await who.call('GET', `/api/collections/${owner.collection}/search?words=weevil`)).json as {
        rows: { kind: string; topic: string }[]
      }
    ).rows
  expect(await found(owner)).toMatchObject([{ kind: 'comment', topic }])
  expect(await found(commenter)).toEqual([])
  expect(await told(commenter)).toEqual([])
  expect((await commenter.change(comment('Hello').edits)).status).toBe(403)
  const shed = (await owner.map(other)).topics[0]!.id
  expect(onlyResult(await commenter.change(comment('Hello', { topic: shed }).edits)).ok).toBe(true)
  const people = (await commenter.call('GET', `/api/collections/${owner.collection}/people`)).json as unknown[]
  expect(people).toHaveLength(1)
})
