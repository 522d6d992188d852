import type { Change } from '../../core/changes/edit'
import { packEdits } from '../../core/changes/packed'
import { ApiError, ask, NoAnswer } from '../app/api'
import { CommitAnswer } from './api-schemas'
import type { Sent } from './outbox'

/** Answers that stay the same, however often the same is sent. */
const FINAL = new Set([400, 403, 404, 409, 413, 422])

/** How long sending may take, in ms: on a line of 64 kbit/s everything arrives in less. */
const limitFor = (letters: number): number => 30_000 + letters / 4

/** Sends changes of a collection, those that are to be sent `whole` with all of their texts, and tells what came of it. */
export async function sendChanges(
  collection: string,
  changes: readonly Change[],
  whole: ReadonlySet<string>,
): Promise<Sent> {
  try {
    const path = `/api/collections/${collection}/changes`
    const body = {
      changes: changes.map((change) => (whole.has(change.id) ? change : { ...change, edits: packEdits(change.edits) })),
    }
    const limit = limitFor(JSON.stringify(body).length)
    const { results } = await ask(CommitAnswer, path, { method: 'POST', body, limit })
    return { kind: 'results', results }
  } catch (error) {
    if (error instanceof NoAnswer) return { kind: 'later', isSlow: true }
    if (!(error instanceof ApiError)) return { kind: 'later' }
    if (error.status === 401) return { kind: 'signed out' }
    if (FINAL.has(error.status)) return { kind: 'never', message: error.message }
    return error.status === 500 ? { kind: 'failed', message: error.message } : { kind: 'later' }
  }
}
