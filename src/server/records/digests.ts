import type { DigestEffects } from '../../core/network/digest-effects'
import type { MapDigest } from '../../core/records/snapshot'
import { type Client, prepared } from '../database'

const ADD = `
  UPDATE map_digest d SET topics = d.topics + more.count, number = $4
  FROM unnest($2::uuid[], $3::int[]) AS more(map, count) WHERE d.collection = $1 AND d.map = more.map`

/** Counted from the heads of the map down, each level by its index: a map costs its own topics, however large the collection. */
const COUNT_ANEW = `
  INSERT INTO map_digest (collection, map, number, topics, opens)
  SELECT $1, m.id, $3, counted.topics, counted.opens
  FROM map m CROSS JOIN LATERAL (
    WITH RECURSIVE seen AS (
      SELECT id, opens_map FROM topic WHERE collection = $1 AND map = m.id AND parent IS NULL AND NOT trashed AND place <> 'to place'
      UNION ALL
      SELECT below.id, below.opens_map FROM seen CROSS JOIN LATERAL (
        SELECT id, opens_map FROM topic WHERE collection = $1 AND parent = seen.id AND NOT trashed OFFSET 0) below
    )
    SELECT count(*)::int AS topics, COALESCE(array_agg(DISTINCT opens_map) FILTER (WHERE opens_map IS NOT NULL), '{}') AS opens
    FROM seen) counted
  WHERE m.collection = $1 AND m.id = ANY($2)
  ON CONFLICT (collection, map) DO UPDATE SET number = excluded.number, topics = excluded.topics, opens = excluded.opens`

const FORGET_LINKS = `
  WITH gone AS (DELETE FROM map_link WHERE collection = $1 AND (map = ANY($2) OR other = ANY($2)) RETURNING map)
  UPDATE map_digest SET number = $3 WHERE collection = $1 AND map IN (SELECT map FROM gone)`

/** Where a link ends is what `mapAtEnd` in `core/network/crosslinks.ts` says. */
const LINK_ANEW = `
  WITH link AS (
    SELECT f.map AS a, COALESCE(t.map, l.to_map) AS b
    FROM crosslink l
    CROSS JOIN LATERAL (SELECT map FROM topic WHERE collection = $1 AND id = l.from_topic LIMIT 1) f
    LEFT JOIN LATERAL (SELECT topics FROM enclosure WHERE collection = $1 AND id = l.to_enclosure LIMIT 1) e ON true
    LEFT JOIN LATERAL (
      (SELECT map FROM topic WHERE collection = $1 AND id = l.to_topic)
      UNION ALL
      (SELECT t.map FROM unnest(e.topics) WITH ORDINALITY AS inside(id, position)
       CROSS JOIN LATERAL (SELECT map, trashed FROM topic WHERE collection = $1 AND id = inside.id LIMIT 1) t
       WHERE NOT t.trashed ORDER BY position LIMIT 1)
      UNION ALL
      (SELECT map FROM topic WHERE collection = $1 AND note = l.to_note AND NOT trashed ORDER BY id LIMIT 1)
      LIMIT 1) t ON true
    WHERE l.collection = $1 AND NOT l.trashed
  ), ends AS (
    SELECT a AS map, b AS other FROM link WHERE a <> b UNION ALL SELECT b, a FROM link WHERE a <> b
  ), made AS (
    INSERT INTO map_link (collection, map, other, links)
    SELECT $1, map, other, count(*) FROM ends WHERE map = ANY($2) OR other = ANY($2) GROUP BY map, other
    RETURNING map
  ) UPDATE map_digest SET number = $3 WHERE collection = $1 AND map IN (SELECT map FROM made)`

/** Brings the digest rows up to date with changes that are written, up to `number`. All of it is sent at once. */
export async function updateDigests(
  client: Client,
  collection: string,
  number: number,
  { added, anew, links }: DigestEffects,
): Promise<void> {
  const writes: Promise<unknown>[] = []
  if (added.size > 0) writes.push(prepared(client, ADD, [collection, [...added.keys()], [...added.values()], number]))
  if (anew.size > 0) {
    const maps = [...anew]
    writes.push(prepared(client, COUNT_ANEW, [collection, maps, number]))
    if (links)
      writes.push(
        prepared(client, FORGET_LINKS, [collection, maps, number]),
        prepared(client, LINK_ANEW, [collection, maps, number]),
      )
  }
  await Promise.all(writes)
}

/** Removes the rows of maps that are removed for good. */
export async function forgetDigests(client: Client, collection: string, maps: readonly string[]): Promise<void> {
  await client.query('DELETE FROM map_link WHERE collection = $1 AND (map = ANY($2) OR other = ANY($2))', [
    collection,
    maps,
  ])
  await client.query('DELETE FROM map_digest WHERE collection = $1 AND map = ANY($2)', [collection, maps])
}

const ROWS = `
  SELECT m.id, m.title, m.trashed, m.folder, m.in_atlas AS "inAtlas", m.home_doorway AS "homeDoorway", d.map AS "parentMap", g.topics, g.opens,
         COALESCE((SELECT json_agg(json_build_object('map', l.other, 'links', l.links) ORDER BY l.links DESC, l.other)
                   FROM map_link l WHERE l.collection = $1 AND l.map = g.map), '[]') AS linked
  FROM map_digest g
  CROSS JOIN LATERAL (SELECT * FROM map WHERE collection = $1 AND id = g.map LIMIT 1) m
  LEFT JOIN LATERAL (SELECT map FROM topic WHERE collection = $1 AND id = m.home_doorway LIMIT 1) d ON true
  WHERE g.collection = $1 AND g.number > $2 ORDER BY m.id`

/** The digest rows that were altered after change `number`; all of them for −1. */
export async function digestsAfter(client: Client, collection: string, number: number): Promise<MapDigest[]> {
  const { rows } = await prepared<MapDigest>(client, ROWS, [collection, number])
  return rows
}
