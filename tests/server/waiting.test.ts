import { v7 as uuid } from 'uuid'
import { expect, test } from 'vitest'
import type { Edit } from '../../src/core/changes/edit'
import { Waiting } from '../../src/core/network/waiting'
import { Caller, onlyResult } from './people'

const NOBODY = '00000000-0000-0000-0000-000000000000'
const waiting = async (who: Caller) =>
  Waiting.parse((await who.call('GET', `/api/collections/${who.collection}/waiting?today=2026-06-01`)).json)

test('what waits is counted for whoever asks: what is overdue, what was said by others, and only on maps that are open to them', async () => {
  const owner = await Caller.begin()
  const map = await owner.grow('# Season\n\n- Count newts\n- Mend the weir')
  const hidden = await owner.grow('# Permits\n\n- Ask')
  const reader = await owner.invite('reader', { maps: [map] })
  const set = async (on: string, text: string, after: object) => {
    const { id } = (await owner.map(on)).topics.find((topic) => topic.text === text)!
    expect(onlyResult(await owner.change([{ kind: 'topic', id, before: {}, after } as unknown as Edit])).ok).toBe(true)
    return id
  }
  const late = { dates: { start: '2026-05-04', end: null }, task: 'open' }
  const topic = await set(map, 'Count newts', late)
  // Due today is not overdue, nor is what is no task.
  await set(map, 'Mend the weir', { dates: { start: '2026-06-01', end: null }, task: 'open' })
  await set(hidden, 'Ask', late)
  const id = uuid()
  const comment = {
    id,
    topic,
    answers: null,
    author: NOBODY,
    authorName: '',
    at: '2026-05-01T00:00:00Z',
    text: 'When?',
  }
  const after = { ...comment, quote: '', mentions: [], resolved: false, trashed: false }
  await owner.change([{ kind: 'comment', id, before: null, after } as unknown as Edit])
  const told = await waiting(owner)
  expect(told).toMatchObject({ comments: 0, overdue: 2, crowded: 0, stale: 0, site: null })
  expect(told.lately.map(({ title }) => title)).toEqual(['Season', 'Permits'])
  expect(await waiting(reader)).toEqual({ comments: 1, overdue: 1, crowded: 0, stale: 0, site: null, lately: [] })
  const wrong = await owner.call('GET', `/api/collections/${owner.collection}/waiting?today=tomorrow`)
  expect(wrong.status).toBe(400)
})
