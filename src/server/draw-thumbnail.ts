import { crowdingOf, crowdingWords } from '../core/crowding/crowding'
import { Records } from '../core/records/records'
import { cutText } from '../core/records/text'
import { buildScene } from '../core/scene/scene'
import { type MapPeek, thumbnailOf } from '../core/scene/thumbnail'
import { ALL_FONTS } from '../core/text/all-fonts'
import { snapshot } from './database'
import { loadInto } from './records/tables'

const context = { fonts: ALL_FONTS, countTopics: () => 0 }

/** Of so many topics at the root so many letters are told. */
const [MOST_FIRST, FIRST_LETTERS] = [10, 80]

/** Draws the thumbnail of a map from its topics and enclosures; null where there is no such map. For a thread of its own. */
export function drawThumbnail(collection: string, map: string): Promise<MapPeek | null> {
  return snapshot(async (client) => {
    const records = new Records()
    const maps = await loadInto(records, client, 'map', collection, 'AND id = $2', [map])
    if (maps.length === 0) return null
    await loadInto(records, client, 'topic', collection, 'AND map = $2', [map])
    const root = records.root(map)
    const first = root ? records.children(root.id).slice(0, MOST_FIRST) : []
    const crowding = root ? crowdingOf(records, map, context) : null
    return {
      ...thumbnailOf(buildScene(records, map, context)),
      crowding: crowding?.isCrowded ? crowdingWords(crowding) : null,
      first: first.map(({ id, text }) => ({ id, text: cutText(text, FIRST_LETTERS) })),
    }
  })
}
