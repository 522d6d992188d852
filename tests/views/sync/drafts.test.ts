import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { Change } from '../../../src/core/changes/edit'
import { Drafts, type Field, recoverDrafts } from '../../../src/views/sync/drafts'
import { unsentOf } from '../../../src/views/sync/unsent'
import { storageOfItsOwn } from '../storage'

const FIELD: Field = { topic: 'peas', part: 'text' }
const reword = (text: string) =>
  ({
    id: 'one',
    label: 'Reword',
    edits: [{ kind: 'topic', id: 'peas', before: { text: '' }, after: { text } }],
  }) as unknown as Change
const wordsOf = (drafts: readonly { change: Change }[]) =>
  drafts.map(({ change }) => (change.edits[0]!.after as { text: string }).text)

const draftNames = () => Object.keys(localStorage).filter((name) => name.startsWith('folvet-draft:'))

/** What another page finds: with the tabs that live. */
const found = (alive: boolean, collection = 'Garden', person = 'Ada') => {
  const names = draftNames().map((name) => `folvet-tab ${name.split(':')[1]}`)
  vi.stubGlobal('navigator', { locks: { query: async () => ({ held: alive ? names.map((name) => ({ name })) : [] }) } })
  return recoverDrafts(collection, person)
}

beforeEach(() => {
  vi.useFakeTimers()
  vi.stubGlobal('localStorage', storageOfItsOwn())
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

test('what is typed without a pause is kept all the while, and is never older than a quarter of a second', async () => {
  const drafts = new Drafts('Garden', 'Ada')
  const typed: string[] = []
  for (let keys = 1; keys <= 100; keys++) {
    const text = 'x'.repeat(keys)
    drafts.write(FIELD, () => reword(text))
    typed.push(text)
    expect(drafts.isWriting()).toBe(true)
    await vi.advanceTimersByTimeAsync(40)
    const [kept] = draftNames().map((name) => JSON.parse(localStorage.getItem(name)!))
    if (keys > 7) expect(wordsOf([kept])[0]!.length).toBeGreaterThanOrEqual(keys - 7)
  }
  await vi.advanceTimersByTimeAsync(250)
  expect(wordsOf(await found(false))).toEqual([typed.at(-1)])
})

test('a draft belongs to its tab while that lives, to its person and its collection; then it is an unsent change, once', async () => {
  const drafts = new Drafts('Garden', 'Ada')
  drafts.write(FIELD, () => reword('Peas'))
  await vi.advanceTimersByTimeAsync(250)
  expect(await found(true)).toEqual([])
  expect(await found(false, 'Shed')).toEqual([])
  expect(await found(false, 'Garden', 'Ben')).toEqual([])
  expect(await found(false)).toMatchObject([{ field: FIELD, change: { label: 'Reword' } }])
  expect((await unsentOf('Garden', 'Ada')).changes).toHaveLength(1)
  expect(await found(false)).toEqual([])
})

test('what ended, was given up, or is as it was before is no draft, and nothing is said to be written', async () => {
  const drafts = new Drafts('Garden', 'Ada')
  const told: boolean[] = []
  drafts.subscribe(() => told.push(drafts.isWriting()))
  drafts.write(FIELD, () => reword('Peas'))
  await vi.advanceTimersByTimeAsync(250)
  drafts.end(FIELD)
  drafts.write(FIELD, () => reword('Beans'))
  drafts.write(FIELD, () => null)
  await vi.advanceTimersByTimeAsync(250)
  expect(told.at(-1)).toBe(false)
  expect(await found(false)).toEqual([])
})

test('of what can be done no more, the last words are known', () => {
  const drafts = new Drafts('Garden', 'Ada')
  let isGone = false
  drafts.write(FIELD, () => (isGone ? null : reword('P')))
  isGone = true
  expect(wordsOf([{ change: drafts.last(FIELD, 'Peas')! }])).toEqual(['Peas'])
  expect(drafts.last({ topic: 'other', part: 'note' }, 'Peas')).toBeNull()
})

test('what takes long to keep is kept less often, and what cannot be kept disturbs nobody', async () => {
  const slow = vi.fn(() => {
    vi.setSystemTime(Date.now() + 1)
    return reword('Peas')
  })
  vi.spyOn(performance, 'now').mockImplementation(() => Date.now() * 100)
  vi.stubGlobal('localStorage', storageOfItsOwn(10))
  const drafts = new Drafts('Garden', 'Ada')
  for (let keys = 0; keys < 100; keys++) {
    drafts.write(FIELD, slow)
    await vi.advanceTimersByTimeAsync(100)
  }
  expect(slow.mock.calls.length).toBeLessThan(15)
})
