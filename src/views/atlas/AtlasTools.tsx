import { ActionIcon, Button, Group, SegmentedControl, Switch, Text, Title } from '@mantine/core'
import { IconMinus, IconPlus } from '@tabler/icons-react'
import { FindField } from '../app/fields/FindField'
import { useSession } from '../sync/use-session'
import styles from './atlas.module.css'

const ARRANGEMENTS = [
  { value: 'doorways', label: 'as they open one another' },
  { value: 'closeness', label: 'as they are linked' },
  { value: 'hand', label: 'as I put them' },
] as const

/** By what the maps of the atlas stand where they stand. */
export type Arrangement = (typeof ARRANGEMENTS)[number]['value']

interface Props {
  /** Maps in the atlas. */
  count: number
  words: string
  onWords(words: string): void
  /** Maps that have these words; null where none are looked for. */
  found: number | null
  onFound(): void
  by: Arrangement
  onArrange(by: Arrangement): void
  /** Lets all that was put somewhere fall into place again; null where there is nothing of that. */
  onLetGo: (() => void) | null
  areAllDrawn: boolean
  onDrawAll(areAllDrawn: boolean): void
  hasTable: boolean
  onTable(hasTable: boolean): void
  onStep(way: 'in' | 'out'): void
  onFit(): void
}

/** The line above the atlas: find a map, how the maps stand, what is drawn, and how large. */
export function AtlasTools(props: Props) {
  const session = useSession()
  const { count, words, found, by, onLetGo } = props
  return (
    <Group className={styles.tools} gap="sm">
      <Title order={1} size="h4">
        Atlas
      </Title>
      {count > 0 && (
        <FindField
          label="Find a map"
          placeholder={count === 1 ? 'Find the map' : `Find one of ${count} maps`}
          words={words}
          setWords={props.onWords}
          onKeyDown={({ key }) => key === 'Enter' && props.onFound()}
        />
      )}
      {found !== null && (
        <Text size="sm" aria-live="polite">
          {found === 0 ? 'No map has these words in its title.' : `${found} found`}
        </Text>
      )}
      <SegmentedControl
        size="xs"
        aria-label="Maps stand by"
        value={by}
        data={[...ARRANGEMENTS]}
        onChange={(value) => props.onArrange(value as Arrangement)}
      />
      {onLetGo && (
        <Button variant="subtle" size="compact-sm" onClick={onLetGo}>
          Let them fall into place
        </Button>
      )}
      {session.undoable.undo && (
        <Button
          variant="subtle"
          size="compact-sm"
          title={`Undo: ${session.undoable.undo.label}`}
          onClick={() => void session.takeBack('undo')}
        >
          Undo
        </Button>
      )}
      <Switch
        label="All cross-links"
        checked={props.areAllDrawn}
        onChange={(event) => props.onDrawAll(event.currentTarget.checked)}
      />
      <Group gap={4} ml="auto">
        <ActionIcon variant="subtle" aria-label="Smaller" onClick={() => props.onStep('out')}>
          <IconMinus size={18} />
        </ActionIcon>
        <Button variant="subtle" size="compact-sm" onClick={props.onFit}>
          Fit
        </Button>
        <ActionIcon variant="subtle" aria-label="Larger" onClick={() => props.onStep('in')}>
          <IconPlus size={18} />
        </ActionIcon>
      </Group>
      <Switch
        label="Table beside"
        checked={props.hasTable}
        onChange={(event) => props.onTable(event.currentTarget.checked)}
      />
    </Group>
  )
}
