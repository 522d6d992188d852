import { v7 as uuid } from 'uuid'
import { addTopic } from '../../core/commands/add-topic'
import { blankTopic } from '../../core/commands/blank-topic'
import { withEvenSides } from '../../core/commands/even-out-sides'
import { PLAIN_MAP } from '../../core/commands/maps'
import { MapLayouter } from '../../core/layout/map-layout'
import { MapId, TopicId } from '../../core/records/ids'
import { SceneMaker } from '../../core/scene/scene'
import { COMMON_FONTS } from '../../core/text/common-fonts'
import { calendarHere } from '../app/when'
import { whenIdle } from '../app/when-idle'
import { HeldState } from '../sync/held-state'
import { Trial } from '../sync/trial'

/** How often it is done; each time takes a few ms. */
const TIMES = 24

/** A small map with branches on both sides. */
function smallMap(): { held: HeldState; map: MapId; root: TopicId } {
  const held = new HeldState()
  const [map, root] = [MapId.parse(uuid()), TopicId.parse(uuid())]
  const topics = [blankTopic(root, { kind: 'root', map }, 'Rehearsal')]
  const hang = (parent: TopicId, count: number, side: 'left' | 'right' | null) =>
    Array.from({ length: count }, (_, i) => {
      const id = TopicId.parse(uuid())
      topics.push(blankTopic(id, { kind: 'arranged', map, parent, rank: `a${i}`, side }, `Topic ${i} of some words`))
      return id
    })
  for (const branch of hang(root, 6, 'right')) hang(branch, 5, null)
  held.open({
    number: 0,
    map,
    records: { map: [{ id: map, title: '', ...PLAIN_MAP, trashed: false }], topic: topics },
    farTopics: [],
  })
  return { held, map, root }
}

let isDone = false

/**
 * Does, on a small map that nobody sees, what the first key presses on an opened one will do: add topics, keep the sides even, lay
 * out and draw. Code that runs for the first time is several times slower, and on a large map a person feels that. A few ms at a
 * time while the browser has nothing to do, such as waiting for the map; once for each page. Returns what ends it.
 */
export function rehearse(): () => void {
  if (isDone) return () => undefined
  isDone = true
  const { held, map, root } = smallMap()
  const trial = new Trial(held, { newId: uuid })
  const context = { fonts: COMMON_FONTS, countTopics: () => 0 }
  const maker = new SceneMaker(held.records, context, new MapLayouter(held.records, map, context))
  const draw = () => maker.make(null, calendarHere(), { tiles: 0 })
  let isEnded = false
  let after: TopicId | 'last' = 'last'
  const once = (left: number) => {
    if (isEnded) return
    trial.compose((records, ids) => addTopic(records, { parent: root, after, text: '' }, ids))
    draw()
    const change = trial.finish('Rehearsed')?.change
    if (change) held.perform(withEvenSides(held.records, change).change)
    draw()
    after = held.records.children(root)[left % 3]!.id
    if (left > 0) whenIdle(() => once(left - 1))
  }
  whenIdle(() => once(TIMES))
  return () => {
    isEnded = true
  }
}
