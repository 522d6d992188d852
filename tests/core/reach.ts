import fc from 'fast-check'
import { type Edit, revertEdits } from '../../src/core/changes/edit'
import { prepareChange } from '../../src/core/changes/prepare'
import { parentOf } from '../../src/core/records/place'
import type { Records } from '../../src/core/records/records'
import type { Grant } from '../../src/core/rights/grant'
import { problemWithReach } from '../../src/core/rights/within-reach'

/** On which map each map's home doorway stands. */
export function homesOf(records: Records): Map<string, string> {
  const homes = new Map<string, string>()
  for (const { id, homeDoorway } of records.all('map')) {
    const doorway = records.get('topic', homeDoorway)
    if (doorway) homes.set(id, doorway.place.map)
  }
  return homes
}

/** Makes a change as somebody with these grants; returns what is said against it, and then nothing is changed. */
export function attempt(records: Records, edits: readonly Edit[], grants: readonly Grant[]): string | null {
  const homes = homesOf(records)
  const prepared = prepareChange(records, edits, true)
  if (!prepared.ok) return prepared.problem.message
  const problem = problemWithReach(records, prepared.edits, grants, homes)
  if (problem) revertEdits(records, prepared.edits)
  return problem?.message ?? null
}

/** Edits that no command would make. */
export const forgery = fc.tuple(fc.nat(5), fc.nat(99), fc.nat(99))

export function forged(records: Records, [which, a, b]: [number, number, number]): Edit[] {
  const pick = <T>(of: Iterable<T>, at: number): T => {
    const all = [...of]
    if (all.length === 0) throw new RangeError('There is none.')
    return all[at % all.length]!
  }
  const topic = pick(records.all('topic'), a)
  const map = pick(records.all('map'), b)
  const edit = (field: object): Edit => ({ kind: 'topic', id: topic.id, before: {}, after: field })
  if (which === 0) return [edit({ note: pick(records.all('note'), b).id })]
  if (which === 1) return [edit({ opensMap: map.id })]
  if (which === 2) return [{ kind: 'map', id: map.id, before: {}, after: { homeDoorway: topic.id } }]
  if (which === 3)
    return [edit({ opensMap: map.id }), { kind: 'map', id: map.id, before: {}, after: { homeDoorway: topic.id } }]
  if (which === 4)
    return [{ kind: 'note', id: pick(records.all('note'), a).id, before: {}, after: { text: `forged ${b}` } }]
  return [
    {
      kind: 'crosslink',
      id: pick(records.all('crosslink'), a).id,
      before: {},
      after: { from: pick(records.all('topic'), b).id },
    },
  ]
}

/** Which maps a person may read or edit, told by following each map home; independent of `reachOf`. */
export function isOpenTo(records: Records, grants: readonly Grant[], map: string, roles: readonly string[]): boolean {
  const asked = new Set<string>()
  for (let at: string | undefined = map, isChild = false; at && !asked.has(at); isChild = true) {
    asked.add(at)
    for (const { role, maps, withChildMaps } of grants)
      if (roles.includes(role) && (withChildMaps || !isChild) && maps?.some((id) => id === at)) return true
    at = records.get('topic', records.get('map', at)?.homeDoorway ?? null)?.place.map
  }
  return false
}

/** All that is to be seen on a map, as lines. */
export function shownOn(records: Records, map: string): string[] {
  const topics = [...records.topicsOf(map)].sort((a, b) => (a.id < b.id ? -1 : 1))
  return topics.flatMap((topic) => [
    `${topic.id} ${topic.text} ${parentOf(topic)} ${topic.trashed} ${topic.opensMap}`,
    ...(topic.note ? [`${topic.note} ${records.need('note', topic.note).text}`] : []),
    ...[...records.all('crosslink')]
      .filter(({ from }) => from === topic.id)
      .map((link) => `${link.id} ${link.label} ${link.to.id} ${link.trashed}`),
    ...records.enclosuresOf(topic.id).map(({ id, title, topics }) => `${id} ${title} ${topics}`),
  ])
}

/** The ids of what is shown. */
export const idsIn = (lines: readonly string[]) => lines.map((line) => line.slice(0, 36))
