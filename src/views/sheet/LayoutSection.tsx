import { Button, NativeSelect, Slider, Stack, Switch, Text } from '@mantine/core'
import { useCallback } from 'react'
import { LAYOUT_NAMES, setBranchLayout, setMapLayout, setSpacing } from '../../core/commands/layouts'
import { numberBranch, SCHEME_NAMES } from '../../core/commands/numbering'
import { arrangeAgain, setFree } from '../../core/commands/places'
import { LayoutKind, NumberingScheme } from '../../core/records/layout'
import { isPlacedByHand, isRoot } from '../../core/records/place'
import type { TopicRecord } from '../../core/records/topic'
import { isFree } from '../../core/tree/free'
import { useKnownPages } from '../beginning/known-pages'
import { Silhouette } from '../pictures/Silhouette'
import type { CollectionSession } from '../sync/collection-session'
import { useCalmPart, useMayEdit, useSessionHandle } from '../sync/use-session'
import { Choice } from './look/Choice'
import styles from './look/look.module.css'
import { sampleOfLayout } from './look/sample-map'

const MARKS = [
  { value: 0.6, label: 'tight' },
  { value: 1, label: 'plain' },
  { value: 2, label: 'wide' },
]

/** How a branch, or at the root the whole map, is set and numbered, and where that comes from. */
export default function LayoutSection({ topic }: { topic: TopicRecord }) {
  const session = useSessionHandle()
  const mayEdit = useMayEdit()
  const { place } = topic
  const map = useCalmPart(useCallback(({ records }: CollectionSession) => records.get('map', place.map), [place.map]))
  if (!map) return null
  const atRoot = isRoot(topic)
  const isAround = !topic.free && isFree(session.records, topic)
  const noNumbers = { value: '', label: atRoot ? 'no numbers' : 'as the branch around it' }
  return (
    <Stack gap="sm">
      <Choice
        label={atRoot ? 'The map is set' : 'This branch is set'}
        value={atRoot ? map.layout : topic.layout}
        source={!atRoot && topic.layout === null ? 'as the branch around it' : undefined}
        back={
          !atRoot && topic.layout !== null
            ? (records, newIds) => setBranchLayout(records, { topics: [topic.id], layout: null }, newIds)
            : undefined
        }
        options={LayoutKind.options.map((layout) => ({
          id: layout,
          name: LAYOUT_NAMES[layout],
          picture: (
            <span className={styles.drawn}>
              <Silhouette {...sampleOfLayout(layout)} />
            </span>
          ),
          command: (records, newIds) =>
            atRoot
              ? setMapLayout(records, { map: map.id, layout }, newIds)
              : setBranchLayout(records, { topics: [topic.id], layout }, newIds),
        }))}
      />
      <NativeSelect
        size="sm"
        label="Numbers below"
        disabled={!mayEdit}
        value={(atRoot ? map.numbering : topic.numbering) ?? ''}
        data={[noNumbers, ...NumberingScheme.options.map((value) => ({ value, label: SCHEME_NAMES[value] }))]}
        onChange={(event) => {
          const scheme = NumberingScheme.safeParse(event.currentTarget.value).data ?? null
          session.run((records, newIds) => numberBranch(records, { topics: [topic.id], scheme }, newIds))
        }}
      />
      {atRoot && (
        <div>
          <Text size="sm" fw={600} id="spacing-label">
            Spacing
          </Text>
          <Slider
            thumbProps={{ 'aria-labelledby': 'spacing-label' }}
            min={0.5}
            max={3}
            step={0.05}
            marks={MARKS}
            mb="lg"
            disabled={!mayEdit}
            defaultValue={map.spacing}
            key={map.spacing}
            onChangeEnd={(spacing) =>
              session.run((records, newIds) => setSpacing(records, { map: map.id, spacing }, newIds))
            }
          />
        </div>
      )}
      {atRoot && <CameFrom map={map.id} />}
      <Switch
        label={`Every place ${atRoot ? 'on the map' : 'below it'} is kept`}
        description={
          isAround
            ? 'The map, or a branch around it, keeps every place.'
            : 'What is dragged stays where it is dropped, and nothing else moves but to avoid an overlap.'
        }
        disabled={!mayEdit || isAround}
        checked={topic.free || isAround}
        onChange={({ currentTarget: { checked } }) =>
          session.run((records, newIds) => setFree(records, { topic: topic.id, free: checked }, newIds))
        }
      />
      {isPlacedByHand(topic) && !isAround && (
        <Button
          size="xs"
          variant="default"
          disabled={!mayEdit}
          onClick={() => session.run((records, newIds) => arrangeAgain(records, { topics: [topic.id] }, newIds))}
        >
          Placed by hand. Arrange it again
        </Button>
      )}
    </Stack>
  )
}

/** The page from which a map was brought in, where it was. */
function CameFrom({ map }: { map: string }) {
  const { id } = useSessionHandle()
  const mayEdit = useMayEdit()
  const [path] = [...useKnownPages(id)].find(([, page]) => page.map === map) ?? []
  if (path === undefined) return null
  return (
    <Text size="sm" style={{ overflowWrap: 'anywhere' }}>
      This map came from the page <b>{path}</b>.
      {mayEdit && ' Brought in once more, it is told what was changed there since.'}
    </Text>
  )
}
