import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, expect, inject, test } from 'vitest'
import { freePort } from '../../scripts/setup/postgres.mjs'
import { serve } from '../../scripts/setup/serve.mjs'
import type { CommittedChange } from '../../src/core/changes/edit'
import { parentOf } from '../../src/core/records/place'
import { Caller } from './people'

let second: Awaited<ReturnType<typeof serve>>
let owner: Caller
let map = ''
beforeAll(async () => {
  second = await serve({ databaseUrl: inject('databaseUrl'), port: await freePort() })
  owner = await Caller.begin()
  map = await owner.grow('# Garden\n\n- Spring')
})
afterAll(() => second.stop())

const rename = async (address: string, text: string, id = uuid()) => {
  const spring = (await owner.map(map)).topics.find((topic) => parentOf(topic) !== null)!
  const edit = { kind: 'topic', id: spring.id, before: { text: spring.text }, after: { text } }
  const body = JSON.stringify({ changes: [{ id, label: 'Reword Spring', edits: [edit], undoes: null }] })
  const headers = { 'Content-Type': 'application/json' }
  const response = await owner.raw('POST', `/api/collections/${owner.collection}/changes`, body, headers, address)
  return ((await response.json()) as { results: { ok: true; change: CommittedChange }[] }).results[0]!.change
}

test('what one process commits reaches those who listen at the other, in order', async () => {
  const { number } = await owner.map(map)
  const listening = await owner.listen(number, [map], second.address)
  const sent: number[] = []
  for (let i = 0; i < 6; i++)
    sent.push((await rename(i % 2 ? second.address : inject('address'), `Spring ${i}`)).number)
  const seen = await listening.changes(6)
  await listening.close()
  expect(seen.map((change) => change.number)).toEqual(sent)
  expect(sent).toEqual(Array.from({ length: 6 }, (_, i) => number + 1 + i))
})

test('a change that is sent again to the other process is answered with what was stored', async () => {
  const id = uuid()
  const first = await rename(inject('address'), 'Once', id)
  const again = await rename(second.address, 'Twice', id)
  expect(again).toEqual(first)
  expect((await owner.map(map)).topics.map(({ text }) => text)).toContain('Once')
})

test('writers at both processes at once number their changes without gaps', async () => {
  const { number } = await owner.map(map)
  const all = await Promise.all(
    Array.from({ length: 30 }, (_, i) => rename(i % 2 ? second.address : inject('address'), `Word ${i}`)),
  )
  expect(all.map((change) => change.number).sort((a, b) => a - b)).toEqual(
    Array.from({ length: 30 }, (_, i) => number + 1 + i),
  )
})
