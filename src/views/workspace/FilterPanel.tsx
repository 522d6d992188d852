import { Button, Checkbox, Chip, Group, ScrollArea, Stack, TextInput } from '@mantine/core'
import { useCallback, useEffect, useRef } from 'react'
import { badgeName } from '../../core/badges/badges'
import { TaskState } from '../../core/records/dates'
import type { MapId, TopicId } from '../../core/records/ids'
import { TASK_NAMES } from '../../core/scene/signs'
import { type Filter, isEmpty, TRAITS, type Trait } from '../../core/tree/filter'
import { topicsInOrder } from '../../core/tree/walk'
import { DayField } from '../app/fields/DayField'
import type { CollectionSession } from '../sync/collection-session'
import { useCalmPart } from '../sync/use-session'
import { BadgeGlyph } from './BadgeGlyph'
import { type Pane, workspace } from './workspace-store'

const NAMES: Record<Trait, string> = {
  note: 'a note',
  file: 'a file',
  link: 'a link',
  date: 'a date',
  picture: 'a picture',
  doorway: 'a map behind it',
}

interface Props {
  pane: Pane
  index: number
  filter: Filter
  found: readonly TopicId[]
}

/** What the filter asks for, and what can be done with the topics that it finds. */
export default function FilterPanel({ pane, index, filter, found }: Props) {
  return (
    <>
      <ScrollArea.Autosize mah="70vh" type="auto">
        <FilterParts pane={pane} filter={filter} set={(change) => workspace.filter(index, { ...filter, ...change })} />
      </ScrollArea.Autosize>
      <Group justify="space-between" mt="sm">
        <Button
          size="compact-sm"
          variant="subtle"
          disabled={found.length === 0}
          onClick={() => workspace.select(index, found)}
        >
          Select them
        </Button>
        <Button
          size="compact-sm"
          variant="default"
          disabled={isEmpty(filter)}
          onClick={() => workspace.filter(index, null)}
        >
          Show all alike
        </Button>
      </Group>
    </>
  )
}

/** The badges and the tags on a map, and those asked for. */
function marksOn({ records }: CollectionSession, map: MapId, filter: Filter) {
  const topics = [...topicsInOrder(records, map)]
  const tagIds = new Set([...topics.flatMap((topic) => topic.tags), ...filter.tags])
  const tags = [...tagIds].flatMap((id) => records.get('tag', id) ?? []).filter((tag) => !tag.trashed)
  return {
    badges: [...new Set([...topics.flatMap((topic) => topic.badges), ...filter.badges])],
    tags: tags.sort((a, b) => (a.name < b.name ? -1 : 1)),
  }
}

function FilterParts({ pane, filter, set }: { pane: Pane; filter: Filter; set(change: Partial<Filter>): void }) {
  const first = useRef<HTMLInputElement>(null)
  useEffect(() => first.current?.focus(), [])
  const { badges, tags } = useCalmPart(
    useCallback((session: CollectionSession) => marksOn(session, pane.map, filter), [pane.map, filter]),
  )
  return (
    <Stack gap="sm">
      <TextInput
        ref={first}
        size="sm"
        label="Topics with these words"
        value={filter.words}
        onChange={(event) => set({ words: event.currentTarget.value })}
      />
      <Checkbox.Group
        label="and with"
        value={[...filter.traits]}
        onChange={(traits) => set({ traits: TRAITS.filter((trait) => traits.includes(trait)) })}
      >
        <Group gap="6px 14px" mt={4}>
          {TRAITS.map((trait) => (
            <Checkbox key={trait} size="xs" value={trait} label={NAMES[trait]} />
          ))}
        </Group>
      </Checkbox.Group>
      <Checkbox.Group
        label="Tasks that are"
        value={[...filter.tasks]}
        onChange={(tasks) => set({ tasks: TaskState.options.filter((task) => tasks.includes(task)) })}
      >
        <Group gap="6px 14px" mt={4}>
          {TaskState.options.map((task) => (
            <Checkbox key={task} size="xs" value={task} label={TASK_NAMES[task]} />
          ))}
        </Group>
      </Checkbox.Group>
      {tags.length > 0 && (
        <Chip.Group
          multiple
          value={[...filter.tags]}
          onChange={(chosen) => set({ tags: tags.map(({ id }) => id).filter((id) => chosen.includes(id)) })}
        >
          <Group gap={4} role="group" aria-label="Tagged">
            {tags.map(({ id, name }) => (
              <Chip key={id} value={id} size="xs">
                {name}
              </Chip>
            ))}
          </Group>
        </Chip.Group>
      )}
      {badges.length > 0 && (
        <Chip.Group
          multiple
          value={[...filter.badges]}
          onChange={(chosen) => set({ badges: badges.filter((badge) => chosen.includes(badge)) })}
        >
          <Group gap={4} role="group" aria-label="With the badges">
            {badges.map((badge) => (
              <Chip
                key={badge}
                value={badge}
                size="xs"
                title={badgeName(badge)}
                aria-label={`Badge ${badgeName(badge)}`}
              >
                <BadgeGlyph badge={badge} size={14} />
              </Chip>
            ))}
          </Group>
        </Chip.Group>
      )}
      <Group grow gap="xs">
        <DayField size="xs" label="Dated from" value={filter.from} take={(from) => set({ from })} />
        <DayField size="xs" label="until" value={filter.until} take={(until) => set({ until })} />
      </Group>
      <Checkbox
        size="xs"
        label="Show nothing else"
        checked={filter.alone}
        onChange={(event) => set({ alone: event.currentTarget.checked })}
      />
    </Stack>
  )
}
