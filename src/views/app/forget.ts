import { forgetDrafts } from '../sync/drafts'
import { browserStorage } from './browser-storage'
import { forgetHalfWritten } from './half-written'

const OURS = 'folvet-'
/** What people wrote and nobody has yet, and the row in which it is sent: it goes with its own person only. */
const WORDS = /^(unsent:|draft:|half-written:|order$)/

/** Forgets what this browser has of a person who goes, but for what they could not send: whoever comes next finds nothing of it. */
export async function forgetPerson(person: string): Promise<void> {
  forgetHalfWritten(person)
  forgetDrafts(person)
  for (const name of browserStorage.below(OURS)) if (!WORDS.test(name)) browserStorage.remove(OURS + name)
  const { forgetKept } = await import('../sync/kept-maps')
  await forgetKept().catch(() => {})
}
