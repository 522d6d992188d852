import { sourcesAt } from '../../core/network/sources'
import type { FileId, TopicId } from '../../core/records/ids'
import type { CollectionSession } from '../sync/collection-session'
import { workspace } from '../workspace/workspace-store'

/** Opens a file beside the map: as it hangs on a topic, else, where it hangs on none that is held, in a window of its own. */
export function readFile(session: CollectionSession, topic: TopicId, file: FileId, page: number | null): void {
  const { records } = session
  const here = sourcesAt(records, topic).find((source) => source.kind === 'attachment' && source.file === file)
  const elsewhere = [...records.all('attachment')].find((other) => other.file === file && !other.trashed)
  if (here) workspace.read(topic, here, page)
  else if (elsewhere) workspace.read(elsewhere.topic, { kind: 'attachment', id: elsewhere.id }, page)
  else window.open(`/api/collections/${session.id}/files/${file}`, '_blank', 'noopener')
}
