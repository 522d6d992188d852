import { z } from 'zod'
import { type Change, type Edit, type ToldChange, WireChange } from '../../core/changes/edit'
import type { MapDigest } from '../../core/records/snapshot'
import { allows, reachesAll } from '../../core/rights/grant'
import { openChange, openRows } from '../../core/rights/kept-back'
import { numberOf } from '../collections'
import { snapshot } from '../database'
import { type Member, specified } from '../http/endpoint'
import { Failure } from '../http/failure'
import { chargeFor } from '../http/rate'
import { forbiddenEdit } from '../people/rights'
import { digestsAfter } from '../records/digests'
import { MOST_BEHIND, seenOn } from '../telling/room'
import type { Author, CommitResult } from './commit-changes'
import { changesAfter, changesBy } from './history'
import { isFull, submitChange } from './queue'

const ChangesBody = z.strictObject({ changes: z.array(WireChange).min(1).max(200) })

/** Somebody as the author of a change. */
export const authorOf = ({ person, reach }: Member): Author => ({
  id: person.id,
  name: person.name,
  isLimited: !allows(reach.everywhere, 'editor'),
})

/** Commits changes that a browser sent, in their order; each succeeds or is refused by itself. */
async function commitFor(member: Member, body: z.infer<typeof ChangesBody>): Promise<{ results: CommitResult[] }> {
  const author = authorOf(member)
  if (!allows(member.role, 'editor') && body.changes.some(({ edits }) => edits.some(({ kind }) => kind !== 'comment')))
    throw new Failure(403, 'Your role here allows comments, and no other changes.')
  if (isFull(member.collection))
    throw new Failure(503, 'Much is being saved here just now. It is tried again in a moment.')
  // One request was counted; each further change and every few edits count too.
  const edits = body.changes.reduce((sum, { edits }) => sum + edits.length, 0)
  await chargeFor(author.id, body.changes.length - 1 + Math.min(1_000, Math.floor(edits / 50)))
  const submitted = body.changes.map(async (wire): Promise<CommitResult> => {
    // What the fields hold is checked against the schema of each kind when the change is prepared.
    const change = signed(wire as Change, member.person)
    const problem = forbiddenEdit(change.edits, member.reach.everywhere, member.collection)
    return problem ? { ok: false, id: change.id, problem } : submitChange(member.collection, { change, author })
  })
  const results = await Promise.all(submitted)
  const only = results.length === 1 ? results[0]! : null
  if (only && !only.ok && only.problem.code === 'forbidden') throw new Failure(403, only.problem.message)
  return { results }
}

/** A change in which what somebody says about topics carries their name and the time, whatever the browser wrote there. */
function signed(change: Change, { id, name }: Member['person']): Change {
  const isNew = ({ kind, before }: Edit) => kind === 'comment' && before === null
  if (!change.edits.some(isNew)) return change
  const written = { author: id, authorName: name, at: new Date().toISOString() }
  return {
    ...change,
    edits: change.edits.map((edit) =>
      isNew(edit) ? ({ ...edit, after: { ...edit.after, ...written } } as Edit) : edit,
    ),
  }
}

/** Answered before the framework: see `http/front.ts`. */
export const postChanges = specified({
  access: 'commenter of a map',
  body: ChangesBody,
  handle: ({ who, body }) => commitFor(who, body),
})

const UNDOABLE_AT_OPENING = 60

export const ownChanges = (member: Member): Promise<ToldChange[]> =>
  snapshot(async (client) => {
    const changes = await changesBy(client, member.collection, member.person.id, UNDOABLE_AT_OPENING)
    return changes.map((change) => openChange(change, member.person.id, member.reach))
  })

/** What happened after a change, as far as it is told one by one: `resync` where that would be too much. */
interface Missed {
  changes: ToldChange[]
  /** Whether there is more: ask again with the number of the last one. */
  more: boolean
  resync: boolean
  /** Digest rows that were altered since those that are known. */
  rows: MapDigest[]
}

const AT_ONCE = 200

/**
 * The changes after a number, oldest first, with the edits of those that are seen on maps which are open, and the digest rows
 * altered after `rowsSeen`.
 */
export function missedChanges(
  member: Member,
  after: number,
  rowsSeen: number,
  open: ReadonlySet<string>,
): Promise<Missed> {
  if (!Number.isSafeInteger(after) || after < 0)
    throw new Failure(400, 'Changes are asked for by the number of the last one seen.')
  return snapshot(async (client) => {
    const last = await numberOf(client, member.collection)
    // What somebody may hear of earlier changes is not what was open to them then: they ask for what is there now.
    const isLimited = !reachesAll(member.reach)
    if (after > last || after < last - MOST_BEHIND || (isLimited && after < last))
      return { changes: [], more: false, resync: true, rows: [] }
    const changes = await changesAfter(client, member.collection, after, AT_ONCE)
    return {
      changes: changes.map((change) => seenOn(change, open)),
      more: changes.length === AT_ONCE,
      resync: false,
      rows: openRows(await digestsAfter(client, member.collection, rowsSeen), member.reach),
    }
  })
}
