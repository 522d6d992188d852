import { refuse } from '../changes/problem'
import type { MapId } from '../records/ids'
import type { Records } from '../records/records'
import { Draft, type Making, type Outcome } from './command'
import { evenSidesOf } from './sides'

/** Shares the first-level branches out again so that both sides are about equally high. */
export function evenOutSides(records: Records, args: { map: MapId }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const root = records.root(args.map) ?? refuse('gone', 'This map is gone.')
  const branches = records.children(root.id)
  evenSidesOf(records, branches).forEach((side, i) => {
    const topic = branches[i]!
    if (topic.place.side !== side) draft.update('topic', topic.id, { place: { ...topic.place, side } })
  })
  return draft.outcome('Even out the sides')
}
