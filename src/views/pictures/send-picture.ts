import { scatterItems } from '../../core/commands/scatter-items'
import { outlineItem } from '../../core/formats/outline'
import type { MapId, TopicId } from '../../core/records/ids'
import { tellTrouble } from '../app/api'
import { UploadStep, upload } from '../sheet/upload'
import type { CollectionSession } from '../sync/collection-session'

/** Uploads a picture and puts it onto a topic. Tells the person where it is refused. */
export async function sendPicture(
  session: CollectionSession,
  topic: TopicId,
  file: File,
  report: (part: number) => void = () => {},
  step?: UploadStep,
): Promise<void> {
  // The server must know the topic before a picture can stand on it.
  await session.whenSaved()
  await upload(session.id, topic, file, report, { use: 'picture', step }).catch(tellTrouble)
}

/** How far below one another the topics of several files stand, in px: a picture has room between. */
const FILES_APART = 120

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
    const step = new UploadStep(files.length)
    if (picture) await sendPicture(session, at.topic, picture, undefined, step)
    else await session.whenSaved()
    const others = files.filter((file) => file !== picture)
    for (const file of others) await upload(session.id, at.topic, file, () => {}, { step }).catch(tellTrouble)
    return [at.topic]
  }
  const items = files.map(({ name }) => outlineItem(name.replace(/\.[^.]+$/, '').replaceAll('-', ' ')))
  let change: string | null = null
  const made =
    session.run((records, newIds) => {
      const outcome = scatterItems(records, { ...at, items, apart: FILES_APART }, newIds)
      change = outcome.change.id
      return outcome
    }) ?? []
  // What is laid down and what hangs on it is one step.
  const step = new UploadStep(files.length, change)
  await session.whenSaved()
  for (const [i, topic] of made.entries()) {
    const use = pictures.includes(files[i]!) ? 'picture' : 'file'
    await upload(session.id, topic, files[i]!, () => {}, { use, step }).catch(tellTrouble)
  }
  return made
}
