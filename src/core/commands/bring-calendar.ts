import { refuse } from '../changes/problem'
import type { CalendarItem } from '../formats/icalendar'
import { type OutlineItem, outlineItem } from '../formats/outline'
import type { MapId } from '../records/ids'
import { isFollowable } from '../records/weblink'
import { command, named } from './command'
import { unfold } from './hang'
import { plant, sizeToPlant } from './plant'

/**
 * Hangs the events and to-dos of a calendar below the root of a map, as a branch of their own in the order of their days, with their texts as
 * notes and their addresses as web links. Refused where the map is gone, for nothing, and for more than can be made at once. O(items).
 */
export const bringCalendar = command((change, args: { map: MapId; name: string; items: readonly CalendarItem[] }) => {
  const map = change.map(args.map)
  const root = (map.trashed ? undefined : change.records.root(map.id)) ?? refuse('gone', 'This map is gone.')
  const sorted = [...args.items].sort((a, b) => compare(a.dates?.start ?? '~', b.dates?.start ?? '~'))
  const items = new Map<OutlineItem, CalendarItem>(
    sorted.map((item) => [
      {
        ...outlineItem(item.text),
        note: item.note,
        links: isFollowable(item.url) ? [{ title: '', address: item.url }] : [],
      },
      item,
    ]),
  )
  const head = { ...outlineItem(args.name.trim() || 'Calendar'), children: [...items.keys()] }
  sizeToPlant(head.children, 'bring in')
  unfold(change, root)
  const planted = plant(change, root, [head])
  for (const { item, topic } of planted) {
    const from = items.get(item)
    if (from) change.update('topic', topic.id, { dates: from.dates, task: from.task })
  }
  const branch = planted.find(({ item }) => item === head)!.topic
  return { label: `Bring in the calendar ${named(head.text)}`, select: [branch.id] }
})

const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0)
