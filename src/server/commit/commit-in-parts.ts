import { v7 as uuid } from 'uuid'
import { type Change, joinEdits } from '../../core/changes/edit'
import { inParts } from '../../core/changes/in-parts'
import { Refusal } from '../../core/changes/problem'
import { undoChange } from '../../core/changes/undo'
import { ChangeId } from '../../core/records/ids'
import { wholeCollection } from '../collections'
import { snapshot } from '../database'
import type { Author, CommitResult } from './commit-changes'
import { changesOfStep } from './history'
import { submitChange } from './queue'

/** Most edits that are committed at once: so many take a fraction of a second, and everybody else writes in between. */
const MOST_IN_PART = 2_000

/** A change as parts that can be committed one after the other; the first one keeps its id. */
export const partsOf = (change: Change): Change[] =>
  inParts(change.edits, MOST_IN_PART).map((edits, i) => ({
    ...change,
    id: i === 0 ? change.id : ChangeId.parse(uuid()),
    edits,
  }))

/**
 * Commits parts, which are one step of history under the id of the first. Those that were committed before are known by their
 * ids. Where one is refused, what was committed before it is taken back. Returns the result of the last one tried.
 */
export async function commitParts(
  collection: string,
  parts: readonly Change[],
  author: Author,
  report: (done: number) => void = () => {},
): Promise<CommitResult> {
  const step = parts.length > 1 ? parts[0]!.id : null
  for (const [i, change] of parts.entries()) {
    const result = await submitChange(collection, { change, author, step })
    if (!result.ok && i > 0) await takeBackStep(collection, parts[0]!.id, author)
    if (!result.ok || i === parts.length - 1) return result
    report(i + 1)
  }
  throw new RangeError('There is nothing to commit.')
}

/**
 * Takes back what was committed of a step; nothing where none of it was. A part that was on its way meanwhile, from a thread
 * that has ended since, is taken back too: after the first change of here none of these can come any more.
 */
export async function takeBackStep(collection: string, step: string, author: Author): Promise<void> {
  for (let known = 0; ; ) {
    const parts = await snapshot((client) => changesOfStep(client, collection, step))
    if (parts.length === known) return
    known = parts.length
    const { records } = await wholeCollection(collection)
    const whole = { ...parts[0]!, edits: joinEdits(parts.flatMap(({ edits }) => edits)) }
    const { change } = undoChange(records, whole, ChangeId.parse(uuid()))
    const result = change && (await submitChange(collection, { change, author }))
    if (result && !result.ok) throw new Refusal(result.problem)
  }
}
