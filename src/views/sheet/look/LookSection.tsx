import { SegmentedControl, Stack } from '@mantine/core'
import { useCallback, useState } from 'react'
import type { LookTarget } from '../../../core/commands/looks'
import { chooseWholeLook } from '../../../core/commands/looks'
import { type LookSource, lookValue } from '../../../core/look/look-source'
import { LEVELS } from '../../../core/look/styles'
import { WHOLE_LOOKS } from '../../../core/look/whole-looks'
import type { Look } from '../../../core/records/look'
import { LookField, WholeLook } from '../../../core/records/look'
import { isRoot } from '../../../core/records/place'
import type { TopicRecord } from '../../../core/records/topic'
import type { CollectionSession } from '../../sync/collection-session'
import { useCalmPart } from '../../sync/use-session'
import { BackgroundChoice } from './BackgroundChoice'
import { Choice } from './Choice'
import { LookParts } from './LookParts'
import { SavedLooks } from './SavedLooks'
import { WholeLookPicture } from './small-pictures'

const SCOPES = ['topic', 'branch', 'level', 'map', 'all'] as const
type Scope = (typeof SCOPES)[number]
const SCOPE_NAMES: Record<Scope, string> = {
  topic: 'Topic',
  branch: 'Branch',
  level: 'Level',
  map: 'Map',
  all: 'All maps',
}

const LEVEL_NAMES = ['The root', 'The first level', 'The second level', 'All deeper levels']

const sourceName = (source: LookSource): string => {
  switch (source.from) {
    case 'topic':
      return 'set here'
    case 'branch':
      return 'from its branch'
    case 'above':
      return `from ${source.topic.text.slice(0, 30)}`
    case 'map':
      return 'from the map'
    case 'collection':
      return 'from all maps'
    case 'whole':
      return `from ${source.name}`
    default:
      return source satisfies never
  }
}

/** What holds at a topic, field by field, and what its map and the collection have set. */
function looksAt({ records, collection }: CollectionSession, topic: TopicRecord, level: number) {
  const held = (field: LookField): [LookField, { value: Look[LookField]; words: string }] => {
    const { value, source } = lookValue(records, topic, level, field)
    return [field, { value, words: sourceName(source) }]
  }
  return {
    collection: collection.id,
    looks: { map: records.get('map', topic.place.map)?.look ?? null, collection: collection.look },
    values: Object.fromEntries(LookField.options.map(held)) as Record<
      LookField,
      { value: Look[LookField]; words: string }
    >,
  }
}

/** How the selected topics look: alone, with their branch, on their level, on the map, or in the whole collection. */
export default function LookSection({
  topic,
  topics,
  level,
}: {
  topic: TopicRecord
  topics: readonly TopicRecord[]
  level: number
}) {
  const [scope, setScope] = useState<Scope>(isRoot(topic) ? 'map' : 'branch')
  const [everywhere, setEverywhere] = useState(false)
  const { map } = topic.place
  const { collection, looks, values } = useCalmPart(
    useCallback((session: CollectionSession) => looksAt(session, topic, level), [topic, level]),
  )
  const ids = topics.map(({ id }) => id)
  const levelSet = Math.min(level, LEVELS - 1)
  const target: LookTarget =
    scope === 'topic'
      ? { kind: 'topics', topics: ids }
      : scope === 'branch'
        ? { kind: 'branches', topics: ids }
        : scope === 'all' || (scope === 'level' && everywhere)
          ? { kind: 'collection', collection, level: scope === 'all' ? null : levelSet }
          : { kind: 'map', map, level: scope === 'level' ? levelSet : null }
  const own = ownLook(looks, topic, target)
  const at = scope === 'all' ? { collection } : { map }
  const wholeNow = looks[scope === 'all' ? 'collection' : 'map']?.whole ?? null
  const wide = scope === 'map' || scope === 'all'
  const sourceOf = (field: LookField) => {
    const { value, words } = values[field]
    return { value, words: own[field] !== undefined ? 'set here' : words }
  }
  return (
    <Stack gap="sm" data-leads="look">
      <SegmentedControl
        fullWidth
        size="xs"
        aria-label="What gets the look"
        value={scope}
        data={SCOPES.map((value) => ({ value, label: SCOPE_NAMES[value] }))}
        onChange={(value) => setScope(SCOPES.find((known) => known === value) ?? 'topic')}
      />
      {scope === 'level' && (
        <SegmentedControl
          size="xs"
          aria-label="On which maps"
          value={everywhere ? 'all' : 'map'}
          data={[
            { value: 'map', label: `${LEVEL_NAMES[levelSet]} of this map` },
            { value: 'all', label: 'and of all maps' },
          ]}
          onChange={(value) => setEverywhere(value === 'all')}
        />
      )}
      {wide && (
        <Choice
          label={scope === 'all' ? 'Whole look of all maps' : 'Whole look of this map'}
          wide
          value={wholeNow ?? (scope === 'all' ? 'laid' : null)}
          source={wholeNow || scope === 'all' ? undefined : 'from all maps'}
          back={wholeNow ? (records, newIds) => chooseWholeLook(records, { at, whole: null }, newIds) : undefined}
          options={WholeLook.options.map((whole) => ({
            id: whole,
            name: `${WHOLE_LOOKS[whole].name}: ${WHOLE_LOOKS[whole].about}`,
            picture: (
              <>
                <WholeLookPicture whole={whole} />
                {WHOLE_LOOKS[whole].name}
              </>
            ),
            command: (records, newIds) => chooseWholeLook(records, { at, whole }, newIds),
          }))}
        />
      )}
      <LookParts target={target} own={own} sourceOf={sourceOf} />
      {wide && <BackgroundChoice at={at} map={map} />}
      {!wide && <SavedLooks target={target} own={own} />}
    </Stack>
  )
}

/** What the target has set itself. */
function ownLook(
  { map, collection }: Record<'map' | 'collection', { every: Look; levels: readonly Look[] } | null>,
  topic: TopicRecord,
  target: LookTarget,
): Look {
  switch (target.kind) {
    case 'topics':
      return topic.look ?? {}
    case 'branches':
      return topic.branchLook ?? {}
    case 'map':
      return (target.level === null ? map?.every : map?.levels[target.level]) ?? {}
    case 'collection':
      return (target.level === null ? collection?.every : collection?.levels[target.level]) ?? {}
    default:
      return target satisfies never
  }
}
