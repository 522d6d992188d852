import { refuse } from '../changes/problem'
import type { MapId } from '../records/ids'
import type { AtlasPlace } from '../records/map'
import { addTopic } from './add-topic'
import { command, named, namedAll } from './command'
import { makeDoorway } from './doorways'

/** Puts maps where a person wants them in the atlas; null gives them back to its own arrangement. Refused where one is gone. */
export const placeInAtlas = command(
  (change, { places }: { places: readonly { map: MapId; at: AtlasPlace | null }[] }) => {
    if (places.length === 0) refuse('invalid', 'Choose maps first.')
    const maps = places.map(({ map }) => change.map(map))
    for (const { map, at } of places) change.update('map', map, { inAtlas: at })
    const name = namedAll(
      maps.map(({ title }) => ({ text: title })),
      'maps',
    )
    const isGivenBack = places.every(({ at }) => at === null)
    return {
      label: isGivenBack ? `Let ${name} fall into place in the atlas` : `Put ${name} elsewhere in the atlas`,
      select: [],
    }
  },
)

/**
 * Hangs a map behind another one: a new topic with its title at the end of that map opens it. Refused where one of them is gone, and
 * for a map behind itself.
 */
export const hangMap = command((change, args: { map: MapId; behind: MapId }) => {
  const [map, behind] = [change.map(args.map), change.map(args.behind)]
  const root = (behind.trashed ? undefined : change.records.root(behind.id)) ?? refuse('gone', 'This map is gone.')
  if (map.id === behind.id) refuse('loop', 'A map cannot lie behind itself.')
  const { select } = addTopic.within(change, { parent: root.id, after: 'last', text: map.title })
  makeDoorway.within(change, { topic: select[0]!, map: map.id })
  return { label: `Hang ${named(map.title)} behind ${named(behind.title)}`, select }
})
