import { addLooseTopic } from '../../core/commands/add-loose-topic'
import type { MapId, TopicId } from '../../core/records/ids'
import { tellTrouble } from '../app/api'
import { upload } from '../sheet/upload'
import type { CollectionSession } from '../sync/collection-session'

/** Uploads a picture and puts it onto a topic. Tells the person where it is refused. */
export async function sendPicture(
  session: CollectionSession,
  topic: TopicId,
  file: File,
  report: (part: number) => void = () => {},
): Promise<void> {
  // The server must know the topic before a picture can stand on it.
  await session.whenSaved()
  await upload(session.id, topic, file, report, { use: 'picture' }).catch(tellTrouble)
}

const PICTURE = /^image\/(png|jpeg|gif|webp|avif|svg\+xml)$/

/** Files that are pictures, by what the browser says of them; the server looks for itself. */
export const picturesAmong = (files: Iterable<File>): File[] => [...files].filter((file) => PICTURE.test(file.type))

/**
 * Takes over files that were dropped or pasted: the first picture becomes the topic's, everything else hangs on it.
 * Without a topic each picture gets a loose one of its own at the point given.
 */
export async function takeFiles(
  session: CollectionSession,
  files: readonly File[],
  at: { topic: TopicId } | { map: MapId; x: number; y: number },
): Promise<TopicId[]> {
  const pictures = picturesAmong(files)
  if ('topic' in at) {
    const free = session.records.get('topic', at.topic)?.picture === null
    const picture = free ? pictures[0] : undefined
    if (picture) await sendPicture(session, at.topic, picture)
    else await session.whenSaved()
    for (const file of files)
      if (file !== picture) await upload(session.id, at.topic, file, () => {}).catch(tellTrouble)
    return [at.topic]
  }
  const made: TopicId[] = []
  let { y } = at
  for (const file of files) {
    const text = file.name.replace(/\.[^.]+$/, '').replaceAll('-', ' ')
    const [topic] =
      session.run((records, newIds) => addLooseTopic(records, { map: at.map, x: at.x, y, text }, newIds)) ?? []
    if (!topic) break
    made.push(topic)
    y += 120
    if (pictures.includes(file)) await sendPicture(session, topic, file)
    else {
      await session.whenSaved()
      await upload(session.id, topic, file, () => {}).catch(tellTrouble)
    }
  }
  return made
}
