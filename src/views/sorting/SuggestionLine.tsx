import { Button, Group, Loader, Text } from '@mantine/core'
import { counted } from '../../core/text/counted'
import styles from './sorting.module.css'
import type { Suggestion } from './use-sorting'

const listed = (words: readonly string[]) =>
  words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`

function wordsOf({ kind, topics, words, ...rest }: Suggestion, nameOf: (topic: string) => string): string {
  const of = listed(words)
  if (kind === 'band') return `${counted(topics.length, 'item speaks', 'items speak')} of ${of}: make a band?`
  if (kind === 'heading')
    return `${listed(topics.map(nameOf))} speak of ${of}: put ${topics.length === 2 ? 'both' : 'all'} under one heading?`
  const band = nameOf('band' in rest ? rest.band : '')
  return topics.length === 1
    ? `“${nameOf(topics[0]!)}” fits ${band} (${of}): put it there?`
    : `${topics.length} items fit ${band} (${of}): put them there?`
}

interface Props {
  suggestions: readonly Suggestion[]
  isLooking: boolean
  nameOf(topic: string): string
  onYes(suggestion: Suggestion): void
  onNo(suggestion: Suggestion): void
  onShow(suggestion: Suggestion): void
}

/** One suggestion at a time, with its reason, to be taken or refused. */
export function SuggestionLine({ suggestions, isLooking, nameOf, onYes, onNo, onShow }: Props) {
  const [first, ...more] = suggestions
  return (
    <div className={styles.suggestion} role="status" aria-label="What could belong together">
      {first ? (
        <Group gap="xs" wrap="nowrap">
          <Text size="sm" className={styles.words}>
            {wordsOf(first, nameOf)}
          </Text>
          <Button size="compact-sm" onClick={() => onYes(first)}>
            Yes
          </Button>
          <Button size="compact-sm" variant="default" onClick={() => onNo(first)}>
            No
          </Button>
          <Button size="compact-sm" variant="subtle" onClick={() => onShow(first)}>
            Show
          </Button>
          {more.length > 0 && (
            <Text size="xs" className={styles.quiet}>
              {more.length} more
            </Text>
          )}
        </Group>
      ) : (
        <Group gap="xs">
          {isLooking && <Loader size={14} />}
          <Text size="sm" className={styles.quiet}>
            {isLooking ? 'Looking for what belongs together' : 'Nothing more is suggested by the words of these items.'}
          </Text>
        </Group>
      )}
    </div>
  )
}
