import { describe, expect, test } from 'vitest'
import type { Change } from '../../../src/core/changes/edit'
import { ChangeId } from '../../../src/core/records/ids'
import type { AnsweredChange } from '../../../src/views/sync/api-schemas'
import { Outbox, type Sent } from '../../../src/views/sync/outbox'

let count = 0
const change = (letters = 10): Change => ({
  id: ChangeId.parse(`00000000-0000-7000-8000-${(++count).toString(16).padStart(12, '0')}`),
  label: `Change ${count}`,
  edits: [{ kind: 'note', id: 'n', before: { text: '' }, after: { text: 'x'.repeat(letters) } }],
  undoes: null,
})

/** A server that answers as it is told, and everything that the outbox says. */
function post(answer: (changes: readonly Change[], whole: ReadonlySet<string>) => Sent, changed = () => {}) {
  const log = { sent: [] as string[][], committed: [] as string[], dropped: [] as string[], pauses: [] as number[] }
  const kept = new Map<string, string | null>()
  const outbox = new Outbox({
    send: async (changes, whole) => {
      log.sent.push(changes.map(({ id }) => id))
      return answer(changes, whole)
    },
    keep: ({ id }, aside) => void kept.set(id, aside),
    forget: (id) => void kept.delete(id),
    committed: ({ id }) => log.committed.push(id),
    dropped: ({ id }) => log.dropped.push(id),
    changed,
    wait: async (ms) => void log.pauses.push(ms),
  })
  return { outbox, log, kept }
}

const accept = (changes: readonly Change[]): Sent => ({
  kind: 'results',
  results: changes.map((one) => ({ ok: true, change: one as AnsweredChange })),
})

describe('the outbox', () => {
  test('keeps what is made until it is acknowledged, and says how far that is', async () => {
    const { outbox, log, kept } = post(accept)
    const [first, second] = [change(), change()]
    outbox.add(first)
    outbox.add(second)
    expect(outbox.state).toEqual({ state: 'saving', changes: 2 })
    expect([...kept.keys()]).toEqual([first.id, second.id])
    await outbox.run()
    expect(outbox.state).toEqual({ state: 'saved', changes: 0 })
    expect([kept.size, log.committed]).toEqual([0, [first.id, second.id]])
  })

  test('sends what is added in the moment after the last was sent', async () => {
    for (let moments = 0; moments < 8; moments++) {
      let left = 1
      const { outbox, log } = post(accept, () => void addLater())
      const addLater = async () => {
        if (left-- <= 0) return
        for (let moment = 0; moment < moments; moment++) await Promise.resolve()
        outbox.add(change())
      }
      outbox.add(change())
      await expect.poll(() => [moments, log.committed.length, outbox.state.state]).toEqual([moments, 2, 'saved'])
    }
  })

  test('sends batches by count and by size: twenty long notes written offline all arrive, in order', async () => {
    const { outbox, log } = post((changes) =>
      JSON.stringify(changes).length > 2_000_000 ? { kind: 'never', message: 'Too much.' } : accept(changes),
    )
    const notes = Array.from({ length: 20 }, () => change(500_000))
    const small = Array.from({ length: 120 }, () => change())
    outbox.restore([...notes, ...small], [])
    await outbox.run()
    expect(log.committed).toEqual([...notes, ...small].map(({ id }) => id))
    expect(outbox.aside).toEqual([])
    expect(Math.max(...log.sent.map(({ length }) => length))).toBe(50)
  })

  test('on a slow line what was too much at once is sent by halves, without a pause, and then in larger batches again', async () => {
    const states: string[] = []
    const { outbox, log } = post(
      (changes) => (changes.length > 6 && log.committed.length < 8 ? { kind: 'later', isSlow: true } : accept(changes)),
      () => states.push(outbox.state.state),
    )
    const all = Array.from({ length: 40 }, () => change())
    outbox.restore(all, [])
    await outbox.run()
    expect(log.committed).toEqual(all.map(({ id }) => id))
    expect(log.sent.map(({ length }) => length)).toEqual([40, 20, 10, 5, 10, 5, 10, 20])
    expect(log.pauses).toEqual([])
    expect(new Set(states)).toEqual(new Set(['slow', 'saved']))
  })

  test('sets aside the one change that will never be taken, keeps it, and lets the others go', async () => {
    const bad = change()
    const { outbox, log, kept } = post((changes) =>
      changes.some(({ id }) => id === bad.id) ? { kind: 'never', message: 'This is too much.' } : accept(changes),
    )
    const [before, after] = [change(), change()]
    outbox.restore([before, bad, after], [])
    await outbox.run()
    expect(log.committed).toEqual([before.id, after.id])
    expect(log.dropped).toEqual([bad.id])
    expect(outbox.aside).toEqual([{ change: bad, message: 'This is too much.' }])
    expect(kept.get(bad.id)).toBe('This is too much.')
    expect(log.pauses).toEqual([])
    outbox.discard(bad.id)
    expect([outbox.aside.length, kept.size]).toEqual([0, 0])
  })

  test('tries again with growing pauses while the server is away, and loses nothing', async () => {
    let away = 7
    const { outbox, log } = post((changes) => (away-- > 0 ? { kind: 'later' } : accept(changes)))
    const one = change()
    outbox.add(one)
    await outbox.run()
    expect(log.committed).toEqual([one.id])
    expect(log.pauses.length).toBe(7)
    for (let i = 1; i < 4; i++) expect(log.pauses[i]!).toBeGreaterThan(log.pauses[i - 1]!)
    expect(Math.max(...log.pauses)).toBeLessThanOrEqual(36_000)
  })

  test('does not stop for ever at a change over which the server fails', async () => {
    const bad = change()
    const { outbox, log } = post((changes) =>
      changes.some(({ id }) => id === bad.id) ? { kind: 'failed', message: 'Something went wrong.' } : accept(changes),
    )
    const after = change()
    outbox.restore([bad, after], [])
    await outbox.run()
    expect(log.sent.filter(([id]) => id === bad.id).length).toBe(5)
    expect([log.dropped, log.committed]).toEqual([[bad.id], [after.id]])
  })

  test('keeps what was refused, with why, until it has been taken or given up', async () => {
    let isTaken = false
    const refused = change()
    const { outbox, log, kept } = post((changes) =>
      isTaken
        ? accept(changes)
        : {
            kind: 'results',
            results: changes.map(({ id }) => ({ ok: false, id, problem: { code: 'gone', message: 'Gone.' } })),
          },
    )
    outbox.add(refused)
    await outbox.run()
    expect(outbox.aside).toEqual([{ change: refused, message: 'Gone.' }])
    expect([kept.get(refused.id), log.dropped]).toEqual(['Gone.', [refused.id]])
    // Tried again and refused again it is where it was; at no moment it was kept nowhere.
    outbox.again(refused.id)
    expect([kept.has(refused.id), outbox.state.changes]).toEqual([true, 1])
    await outbox.run()
    expect([outbox.aside.length, kept.get(refused.id)]).toEqual([1, 'Gone.'])
    isTaken = true
    outbox.again(refused.id)
    await outbox.run()
    expect([outbox.aside.length, kept.size, log.committed]).toEqual([0, 0, [refused.id]])
  })

  test('tells of a change that was refused, and stops where nobody is signed in until somebody is', async () => {
    let signedIn = false
    const refused = change()
    const { outbox, log } = post((changes) =>
      signedIn
        ? {
            kind: 'results',
            results: changes.map(({ id }) => ({ ok: false, id, problem: { code: 'gone', message: 'Gone.' } })),
          }
        : { kind: 'signed out' },
    )
    outbox.add(refused)
    await outbox.run()
    expect(outbox.state).toEqual({ state: 'signed out', changes: 1 })
    signedIn = true
    outbox.wake()
    await outbox.run()
    expect([log.dropped, outbox.state.state]).toEqual([[refused.id], 'saved'])
  })

  test('sends with all of its texts what could not be read from what differs, once, and sets it aside if that is refused', async () => {
    const whole: string[][] = []
    const { outbox, log, kept } = post((changes, asked) => {
      whole.push([...asked])
      const unread = { code: 'unread', message: 'Please send it whole.' }
      return {
        kind: 'results',
        results: changes.map((one) =>
          asked.has(one.id) && one === second
            ? { ok: true, change: one as AnsweredChange }
            : { ok: false, id: one.id, problem: unread },
        ),
      }
    })
    const [first, second] = [change(), change()]
    outbox.add(first)
    outbox.add(second)
    await outbox.run()
    expect(whole).toEqual([[], [first.id], [second.id]])
    expect([log.committed, log.dropped]).toEqual([[second.id], [first.id]])
    expect(kept.get(first.id)).toBe('Please send it whole.')
  })
})
