import { refuse } from '../changes/problem'
import type { FileId, TopicId } from '../records/ids'
import { PICTURE_SIDE } from '../records/topic'
import { command, named } from './command'

/** The size in px into which a picture is fitted at first. */
const FIRST_SIZE = { width: 240, height: 200 }

/** The size in which a picture first stands on a topic: its own, or as much of it as leaves the map readable. */
export function firstSize(natural: { width: number; height: number }): { width: number; height: number } {
  const part = Math.min(1, FIRST_SIZE.width / natural.width, FIRST_SIZE.height / natural.height)
  return clamped(natural.width * part, natural.height * part)
}

const bounded = (side: number) => Math.min(PICTURE_SIDE.most, Math.max(PICTURE_SIDE.least, Math.round(side)))
const clamped = (width: number, height: number) => ({ width: bounded(width), height: bounded(height) })

/** Puts a picture, a file of the collection, onto a topic; one that stands there gives way. Refused where the topic is gone. */
export const putPicture = command(
  (change, args: { topic: TopicId; file: FileId; natural: { width: number; height: number } }) => {
    const topic = change.topic(args.topic)
    change.update('topic', topic.id, { picture: { file: args.file, ...firstSize(args.natural) } })
    return { label: `Put a picture on ${named(topic.text)}`, select: [topic.id] }
  },
)

/** Draws a topic's picture as wide as given, in px; its height follows. Refused where topic or picture is gone. */
export const resizePicture = command((change, args: { topic: TopicId; width: number }) => {
  const topic = change.topic(args.topic)
  const picture = topic.picture ?? refuse('gone', 'This picture is gone.')
  const size = clamped(args.width, (picture.height * args.width) / picture.width)
  change.update('topic', topic.id, { picture: { ...picture, ...size } })
  return { label: `Resize the picture of ${named(topic.text)}`, select: [topic.id] }
})

/** Takes the picture off a topic; its file stays. Refused where the topic is gone. */
export const removePicture = command((change, args: { topic: TopicId }) => {
  const topic = change.topic(args.topic)
  change.update('topic', topic.id, { picture: null })
  return { label: `Take the picture off ${named(topic.text)}`, select: [topic.id] }
})
