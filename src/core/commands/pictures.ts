import { refuse } from '../changes/problem'
import type { FileId, TopicId } from '../records/ids'
import type { Records } from '../records/records'
import { PICTURE_SIDE, type TopicPicture } from '../records/topic'
import { Draft, type Making, named, type Outcome } from './command'

/** The size in px into which a picture is fitted at first. */
const [FIRST_WIDTH, FIRST_HEIGHT] = [240, 200]

/** The size in which a picture first stands on a topic: its own, or as much of it as leaves the map readable. */
export function firstSize(natural: { width: number; height: number }): { width: number; height: number } {
  const part = Math.min(1, FIRST_WIDTH / natural.width, FIRST_HEIGHT / natural.height)
  return clamped(natural.width * part, natural.height * part)
}

const bounded = (side: number) => Math.min(PICTURE_SIDE.most, Math.max(PICTURE_SIDE.least, Math.round(side)))
const clamped = (width: number, height: number) => ({ width: bounded(width), height: bounded(height) })

/** Puts a picture, a file of the collection, onto a topic; one that stands there gives way. */
export function putPicture(
  records: Records,
  args: { topic: TopicId; file: FileId; natural: { width: number; height: number } },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const topic = records.get('topic', args.topic) ?? refuse('gone', 'This topic is gone.')
  draft.update('topic', topic.id, { picture: { file: args.file, ...firstSize(args.natural) } })
  return draft.outcome(`Put a picture on ${named(topic.text)}`, [topic.id])
}

/** Draws a topic's picture as wide as given, in px; its height follows. */
export function resizePicture(records: Records, args: { topic: TopicId; width: number }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const topic = records.get('topic', args.topic) ?? refuse('gone', 'This topic is gone.')
  const picture: TopicPicture = topic.picture ?? refuse('gone', 'This picture is gone.')
  const size = clamped(args.width, (picture.height * args.width) / picture.width)
  draft.update('topic', topic.id, { picture: { ...picture, ...size } })
  return draft.outcome(`Resize the picture of ${named(topic.text)}`, [topic.id])
}

export function removePicture(records: Records, args: { topic: TopicId }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const topic = records.get('topic', args.topic) ?? refuse('gone', 'This topic is gone.')
  draft.update('topic', topic.id, { picture: null })
  return draft.outcome(`Take the picture off ${named(topic.text)}`, [topic.id])
}
