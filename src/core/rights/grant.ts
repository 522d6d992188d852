import { z } from 'zod'
import { MapId } from '../records/ids'
import { Role } from '../records/snapshot'

/** What somebody was given: a role in all of a collection, or on some of its maps. */
export const Grant = z.strictObject({
  role: Role,
  /** Null for the whole collection, whatever is added to it. */
  maps: z.array(MapId).min(1).max(500).nullable(),
  /** Whether it also holds for the maps whose way home leads through one of these. */
  withChildMaps: z.boolean(),
})
export type Grant = z.infer<typeof Grant>

const ORDER: readonly Role[] = ['reader', 'commenter', 'editor', 'owner']

export const allows = (role: Role | null | undefined, needed: Role): boolean =>
  !!role && ORDER.indexOf(role) >= ORDER.indexOf(needed)

const stronger = (a: Role | null | undefined, b: Role): Role => (allows(a, b) ? (a as Role) : b)

/** On which map the home doorway of a map stands; maps without one are not named. */
export type Homes = ReadonlyMap<string, string>

/** What all grants of somebody come to: a plain value that can be handed to another thread. */
export interface Reach {
  /** The role in all of the collection, if there is one. */
  readonly everywhere: Role | null
  /** Roles on single maps that go beyond that. */
  readonly maps: ReadonlyMap<string, Role>
}

/** A role that holds in all of a collection. */
export const everywhere = (role: Role): Reach => ({ everywhere: role, maps: new Map() })

/** The role on a map; null where it is not open. */
export const roleOn = (reach: Reach, map: string): Role | null => {
  const here = reach.maps.get(map)
  return here ? stronger(reach.everywhere, here) : reach.everywhere
}

/** The strongest role that is held anywhere; null for somebody to whom nothing is open. */
export const strongestOf = (reach: Reach): Role | null => {
  let role = reach.everywhere
  for (const other of reach.maps.values()) role = stronger(role, other)
  return role
}

export const mayRead = (reach: Reach, map: string): boolean => roleOn(reach, map) !== null
export const mayComment = (reach: Reach, map: string): boolean => allows(roleOn(reach, map), 'commenter')
export const mayEdit = (reach: Reach, map: string): boolean => allows(roleOn(reach, map), 'editor')

/** Whether a role holds in all of the collection, so that nothing needs to be kept back. */
export const reachesAll = (reach: Reach, role: Role = 'reader'): boolean => allows(reach.everywhere, role)

/** The maps to which reading is limited; null where it is not. */
export const onlyMaps = (reach: Reach): string[] | null => (reachesAll(reach) ? null : [...reach.maps.keys()])

/** Maps with all those whose way home leads through one of them. Linear in the maps of the collection. */
export function withMapsBelow(maps: Iterable<string>, homes: Homes): Set<string> {
  const children = new Map<string, string[]>()
  for (const [map, parent] of homes) {
    const known = children.get(parent)
    if (known) known.push(map)
    else children.set(parent, [map])
  }
  const below = new Set(maps)
  for (const map of below) for (const child of children.get(map) ?? []) below.add(child)
  return below
}

/**
 * What grants come to in a network of maps. A child map is one whose home doorway stands on the map: other doorways open it
 * too, but give nobody a right to it. Linear in the maps of the collection for each grant with child maps.
 */
export function reachOf(grants: readonly Grant[], homes: Homes): Reach {
  let whole: Role | null = null
  const maps = new Map<string, Role>()
  for (const { role, maps: granted, withChildMaps } of grants) {
    if (!granted) whole = stronger(whole, role)
    const open = withChildMaps ? withMapsBelow(granted ?? [], homes) : (granted ?? [])
    for (const map of open) maps.set(map, stronger(maps.get(map), role))
  }
  return { everywhere: whole, maps }
}
