import { addCrosslink } from '../../core/commands/crosslinks'
import type { Drawn, LinkEnd } from '../../core/records/crosslink'
import type { TopicId } from '../../core/records/ids'
import type { CollectionSession } from './collection-session'

/**
 * Makes a cross-link; false where that cannot be, and then it was told. Where an end that has to be looked at stands on a map that is
 * not open here, the server does it, which knows them all.
 */
export async function linkEnds(
  session: CollectionSession,
  link: { from: TopicId; to: LinkEnd; drawn: Drawn },
): Promise<boolean> {
  const { from, to } = link
  const isHere =
    session.records.get('topic', from) !== undefined &&
    (to.kind !== 'enclosure' || session.records.get('enclosure', to.id) !== undefined)
  if (!isHere) return (await session.server.command('link', link)) !== null
  return session.run((records, newIds) => addCrosslink(records, link, newIds)) !== null
}
