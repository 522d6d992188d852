import type { Change } from '../../core/changes/edit'
import { ApiError, ask } from '../app/api'
import { CommitAnswer } from './api-schemas'
import type { Sent } from './outbox'

/** Answers that stay the same, however often the same is sent. */
const FINAL = new Set([400, 403, 404, 409, 413, 422])

/** Sends changes of a collection, and tells what came of it. */
export async function sendChanges(collection: string, changes: readonly Change[]): Promise<Sent> {
  try {
    const path = `/api/collections/${collection}/changes`
    const { results } = await ask(CommitAnswer, path, { method: 'POST', body: { changes } })
    return { kind: 'results', results }
  } catch (error) {
    if (!(error instanceof ApiError)) return { kind: 'later' }
    if (error.status === 401) return { kind: 'signed out' }
    if (FINAL.has(error.status)) return { kind: 'never', message: error.message }
    return error.status === 500 ? { kind: 'failed', message: error.message } : { kind: 'later' }
  }
}
