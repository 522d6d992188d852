import { Records } from '../core/records/records'
import { buildScene } from '../core/scene/scene'
import { type Thumbnail, thumbnailOf } from '../core/scene/thumbnail'
import { ALL_FONTS } from '../core/text/all-fonts'
import { snapshot } from './database'
import { loadInto } from './records/tables'

/** Draws the thumbnail of a map from its topics and enclosures; null where there is no such map. For a thread of its own. */
export function drawThumbnail(collection: string, map: string): Promise<Thumbnail | null> {
  return snapshot(async (client) => {
    const records = new Records()
    const maps = await loadInto(records, client, 'map', collection, 'AND id = $2', [map])
    if (maps.length === 0) return null
    await loadInto(records, client, 'topic', collection, 'AND map = $2', [map])
    return thumbnailOf(buildScene(records, map, { fonts: ALL_FONTS, countTopics: () => 0 }))
  })
}
