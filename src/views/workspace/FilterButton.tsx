import { Button, Checkbox, Group, Popover, Stack, TextInput } from '@mantine/core'
import { isEmpty, matches, TRAITS, type Trait } from '../../core/tree/filter'
import { topicsInOrder } from '../../core/tree/walk'
import { useSession } from '../sync/use-session'
import { type Pane, workspace } from './workspace-store'

const NAMES: Record<Trait, string> = {
  note: 'a note',
  file: 'a file',
  link: 'a link',
  date: 'a date',
  doorway: 'a map behind it',
}

/** Lets topics stand out by their words and by what they carry, while the rest fades. */
export function FilterButton({ pane, index }: { pane: Pane; index: number }) {
  const session = useSession()
  const filter = pane.filter ?? { words: '', traits: [] }
  const active = !isEmpty(filter)
  const found = active
    ? [...topicsInOrder(session.records, pane.map)].filter((topic) => matches(session.records, topic, filter))
    : []
  const set = (change: Partial<typeof filter>) => workspace.filter(index, { ...filter, ...change })
  return (
    <Popover position="top-start" width={280} trapFocus withinPortal>
      <Popover.Target>
        <button type="button" data-active={active || undefined}>
          {active ? `Filter: ${found.length} of them` : 'Filter'}
        </button>
      </Popover.Target>
      <Popover.Dropdown>
        <Stack gap="xs">
          <TextInput
            data-autofocus
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
            <Stack gap={4} mt={4}>
              {TRAITS.map((trait) => (
                <Checkbox key={trait} size="xs" value={trait} label={NAMES[trait]} />
              ))}
            </Stack>
          </Checkbox.Group>
          <Group justify="space-between">
            <Button
              size="compact-sm"
              variant="subtle"
              disabled={found.length === 0}
              onClick={() =>
                workspace.select(
                  index,
                  found.map(({ id }) => id),
                )
              }
            >
              Select them
            </Button>
            <Button
              size="compact-sm"
              variant="default"
              disabled={!active}
              onClick={() => workspace.filter(index, null)}
            >
              Show all alike
            </Button>
          </Group>
        </Stack>
      </Popover.Dropdown>
    </Popover>
  )
}
