import { Button, Checkbox, Group, Stack, Text, TextInput } from '@mantine/core'
import { useDebouncedValue } from '@mantine/hooks'
import { IconSearch } from '@tabler/icons-react'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { TopicId } from '../../core/records/ids'
import { ask } from '../app/api'
import { Modal } from '../app/Modal'
import { FoundRows } from '../dialogs/found'
import { useSession } from '../sync/use-session'
import styles from './sorting.module.css'

interface Props {
  /** Topics that are on the table already. */
  here: ReadonlySet<string>
  /** Brings topics here; resolves with whether that was done. */
  bring(topics: readonly TopicId[], copies: boolean): Promise<boolean>
  onClose(): void
}

/** Finds topics anywhere in the collection and brings them onto the table, moved from where they are or copied. */
export function FromSearch({ here, bring, onClose }: Props) {
  const { id: collection } = useSession()
  const [words, setWords] = useState('')
  const [asked] = useDebouncedValue(words.trim(), 150)
  /** What was taken off the list. */
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set())
  const [isBusy, setBusy] = useState(false)
  const { data = [], isFetching } = useQuery({
    queryKey: ['find', collection, asked],
    queryFn: () => ask(FoundRows, `/api/collections/${collection}/find?words=${encodeURIComponent(asked)}`),
    enabled: asked !== '',
    placeholderData: (before) => before,
  })
  const found = asked === '' ? [] : data.flatMap((row) => (row.kind === 'topic' && !here.has(row.id) ? row : []))
  const taken = found.filter(({ id }) => !left.has(id)).map(({ id }) => id)
  const take = async (copies: boolean) => {
    setBusy(true)
    const isDone = await bring(taken, copies)
    setBusy(false)
    if (isDone) onClose()
  }
  const toggle = (topic: string) =>
    setLeft((before) => {
      const next = new Set(before)
      if (!next.delete(topic)) next.add(topic)
      return next
    })
  return (
    <Modal opened onClose={onClose} title="Bring in what a search finds" size="lg">
      <Stack>
        <TextInput
          data-autofocus
          leftSection={<IconSearch size={16} />}
          aria-label="Words to look for"
          placeholder="Type a few letters of topics on any map"
          value={words}
          onChange={(event) => {
            setWords(event.currentTarget.value)
            setLeft(new Set())
          }}
        />
        {found.length > 0 && (
          <ul className={styles.found} aria-label="Found">
            {found.map(({ id, text, mapTitle }) => (
              <li key={id}>
                <Checkbox
                  checked={!left.has(id)}
                  onChange={() => toggle(id)}
                  label={text || 'Untitled'}
                  description={mapTitle}
                />
              </li>
            ))}
          </ul>
        )}
        {asked !== '' && found.length === 0 && !isFetching && (
          <Text size="sm">No topic that is not here already has these words.</Text>
        )}
        <Group justify="flex-end">
          <Text size="xs" className={styles.quiet} mr="auto">
            What hangs on a topic comes with it.
          </Text>
          <Button variant="default" disabled={taken.length === 0 || isBusy} onClick={() => void take(true)}>
            Copy {taken.length} here
          </Button>
          <Button disabled={taken.length === 0} loading={isBusy} onClick={() => void take(false)}>
            Move {taken.length} here
          </Button>
        </Group>
      </Stack>
    </Modal>
  )
}
