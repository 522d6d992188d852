import { z } from 'zod'
import type { ToldChange } from '../../core/changes/edit'
import { ChangeId, type TopicId } from '../../core/records/ids'
import { changeOf, type StoredChange } from '../commit/history'
import { submitChange } from '../commit/queue'
import { authorOf } from '../commit/receive-changes'
import type { Member } from '../http/endpoint'
import { Failure } from '../http/failure'
import { forbiddenEdit } from '../people/rights'
import { type CommandName, computeCommand } from './compute'
import { keepReport, reportOf } from './reports'

/** A command as it is asked for. Its id is that of the change it makes: asked for twice, it is carried out once. */
export const CommandAsked = z.strictObject({ id: ChangeId, args: z.unknown() })

interface Carried {
  change: ToldChange
  select: TopicId[]
  report: unknown
}

/** Changes with more edits are told without them: whoever holds a map of them hears them by the stream. */
const MOST_TOLD = 2_000
const told = (change: StoredChange): ToldChange =>
  change.edits.length > MOST_TOLD ? { ...change, edits: null } : change

/** How often a command is computed anew because somebody else changed the collection meanwhile. */
const MOST_ATTEMPTS = 4

/**
 * Runs a command over the whole collection and commits what it makes. It is computed without holding the lock, and anew
 * where the collection has changed meanwhile; at last it is committed where just what it changes is still as it was, and checked like
 * any other change.
 */
export async function runCommand(
  member: Member,
  name: CommandName,
  { id, args }: z.infer<typeof CommandAsked>,
): Promise<Carried> {
  const { collection, person, reach } = member
  const before = await changeOf(collection, id)
  if (before?.person === person.id) return { change: told(before), select: [], report: await reportOf(collection, id) }
  const author = authorOf(member)
  for (let attempt = 1; ; attempt++) {
    const { number, select, report, change: made } = await computeCommand(member, name, args)
    const change = { ...made, id }
    const forbidden = forbiddenEdit(change.edits, reach.everywhere, collection)
    if (forbidden) throw new Failure(403, forbidden.message)
    if (name === 'merge') await keepReport(collection, id, report)
    const isLast = attempt === MOST_ATTEMPTS
    const result = await submitChange(collection, { change, author, asOf: isLast ? null : number, isExact: isLast })
    if (result.ok) return { change: told(result.change), select, report }
    if (result.problem.code === 'forbidden') throw new Failure(403, result.problem.message)
    if (result.problem.code !== 'moved' || isLast) throw new Failure(409, result.problem.message)
  }
}
