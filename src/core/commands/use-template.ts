import { refuse } from '../changes/problem'
import { readIndentedText } from '../formats/indented-text'
import type { OutlineItem } from '../formats/outline'
import type { CollectionId, TopicId } from '../records/ids'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { TEMPLATES, type Template } from '../templates/templates'
import { Draft, type Making, named, type Outcome } from './command'
import { hasSides } from './layouts'
import { createMap } from './maps'
import { plant } from './plant'

const DAY_MS = 86_400_000
const OFFSET = / @\+(\d+)$/

const found = (id: string): Template =>
  TEMPLATES.find((template) => template.id === id) ?? refuse('gone', 'There is no such template.')

/** `today` is the day from which the dates of a template are counted, in ISO 8601. */
interface Use {
  template: string
  today: string
}

function plantTemplate(draft: Draft, parent: TopicRecord, atRoot: boolean, { template, today }: Use): TopicId[] {
  const offsets = new Map<OutlineItem, number>()
  const items = readIndentedText(found(template).text)
  const waiting = [...items]
  for (let item = waiting.pop(); item; item = waiting.pop()) {
    const offset = OFFSET.exec(item.text)
    if (offset) {
      offsets.set(item, Number(offset[1]))
      item.text = item.text.replace(OFFSET, '')
    }
    waiting.push(...item.children)
  }
  const planted = plant(draft, parent, items, atRoot)
  for (const { item, topic } of planted) {
    const offset = offsets.get(item)
    if (offset === undefined) continue
    const start = new Date(Date.parse(today) + offset * DAY_MS).toISOString().slice(0, 10)
    draft.update('topic', topic.id, { dates: { start, end: null } })
  }
  return items.map((item) => planted.find((one) => one.item === item)!.topic.id)
}

/** Makes a map that begins with a template. */
export function makeMapFrom(
  records: Records,
  args: Use & { collection: CollectionId; title: string },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const { layout, numbering } = found(args.template)
  const { map, root } = createMap(draft, args.title, args.title, null)
  draft.update('map', map, { layout, numbering })
  if (records.get('collection', args.collection)?.homeMap === null)
    draft.update('collection', args.collection, { homeMap: map })
  plantTemplate(draft, { id: root, place: { map, parent: null } } as TopicRecord, true, args)
  return draft.outcome(`Make the map ${named(args.title)}`, [root])
}

/** Hangs a template below a topic of any map. */
export function insertTemplate(records: Records, args: Use & { topic: TopicId }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const topic = records.get('topic', args.topic) ?? refuse('gone', 'This topic is gone.')
  if (topic.folded) draft.update('topic', topic.id, { folded: false })
  const made = plantTemplate(draft, topic, hasSides(topic), args)
  return draft.outcome(`Insert ${found(args.template).name.toLowerCase()}`, made.slice(0, 1))
}
