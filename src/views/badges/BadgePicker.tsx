import { Button, Group, ScrollArea, Text, TextInput } from '@mantine/core'
import emoji from 'emojibase-data/en/compact.json'
import { useDeferredValue, useMemo, useState } from 'react'
import { ICON_NAMES } from '../../core/badges/all-icons'
import { badgeName, iconBadge } from '../../core/badges/badges'
import iconWords from '../../core/badges/icon-words.generated.json'
import { addBadge, changeBadge, moveBadge } from '../../core/commands/badges'
import type { TopicId } from '../../core/records/ids'
import { Badge } from '../../core/records/topic'
import { foldForFinding } from '../../core/text/folding'
import { Modal } from '../app/Modal'
import { useSession } from '../sync/use-session'
import { BadgeGlyph } from '../workspace/BadgeGlyph'
import styles from './badges.module.css'

interface Pickable {
  badge: string
  name: string
  words: string
}

const ICONS: readonly Pickable[] = ICON_NAMES.map((name) => ({
  badge: iconBadge(name),
  name: badgeName(iconBadge(name)),
  words: (iconWords as Record<string, string>)[name] ?? name,
}))

/** Emoji that stand for something by themselves: no letters of flags, no parts of other emoji. */
const EMOJI: readonly Pickable[] = emoji
  .filter(({ group }) => group !== undefined && group !== 2)
  .map(({ unicode, label, tags = [] }) => ({ badge: unicode, name: label, words: `${label} ${tags.join(' ')}` }))

/** Most emoji that are offered at once; words find the others. */
const SHOWN = 320

function search(all: readonly Pickable[], words: string): readonly Pickable[] {
  const wanted = foldForFinding(words).split(/\s+/).filter(Boolean)
  return wanted.length === 0
    ? all
    : all.filter((badge) => wanted.every((word) => foldForFinding(badge.words).includes(word)))
}

/** Chooses a badge for topics, from our icons and the emoji of Unicode; or changes, moves and takes off one that is there. */
export default function BadgePicker({
  topics,
  index,
  onClose,
}: {
  topics: readonly TopicId[]
  index: number | null
  onClose(): void
}) {
  const session = useSession()
  const [words, setWords] = useState('')
  const wanted = useDeferredValue(words)
  const icons = useMemo(() => search(ICONS, wanted), [wanted])
  const found = useMemo(() => search(EMOJI, wanted), [wanted])
  const first = session.records.get('topic', topics[0] ?? null)
  const now = index === null ? undefined : first?.badges[index]
  const take = (picked: string) => {
    const badge = Badge.parse(picked)
    session.run((records, newIds) =>
      index === null || !first
        ? addBadge(records, { topics, badge }, newIds)
        : changeBadge(records, { topic: first.id, index, badge }, newIds),
    )
    onClose()
  }
  const grid = (label: string, pickable: readonly Pickable[]) => (
    <section aria-label={label}>
      <Text size="sm" fw={600} mt="xs">
        {label}
      </Text>
      <div className={styles.grid}>
        {pickable.map(({ badge, name }) => (
          <button
            key={badge}
            type="button"
            title={name}
            aria-label={name}
            aria-pressed={badge === now}
            className={styles.badge}
            onClick={() => take(badge)}
          >
            <BadgeGlyph badge={badge} size={22} />
          </button>
        ))}
      </div>
    </section>
  )
  return (
    <Modal
      opened
      onClose={onClose}
      title={now ? `Change the badge ${badgeName(now)}` : 'Put a badge on'}
      size="lg"
      closeButtonProps={{ 'aria-label': 'Close' }}
    >
      <TextInput
        data-autofocus
        aria-label="Find a badge"
        placeholder="Find a badge: star, water, calendar …"
        value={words}
        onChange={(event) => setWords(event.currentTarget.value)}
        onKeyDown={(event) => {
          const [only] = [...icons, ...found]
          if (event.key === 'Enter' && words.trim() !== '' && only) take(only.badge)
        }}
      />
      {now && first && index !== null && (
        <Group gap="xs" mt="sm">
          <Button
            size="xs"
            variant="default"
            disabled={index === 0}
            onClick={() => {
              session.run((records, newIds) => moveBadge(records, { topic: first.id, from: index, to: 0 }, newIds))
              onClose()
            }}
          >
            Put it first
          </Button>
          <Button
            size="xs"
            variant="default"
            disabled={index === first.badges.length - 1}
            onClick={() => {
              const to = first.badges.length - 1
              session.run((records, newIds) => moveBadge(records, { topic: first.id, from: index, to }, newIds))
              onClose()
            }}
          >
            Put it last
          </Button>
          <Button
            size="xs"
            variant="default"
            onClick={() => {
              session.run((records, newIds) => changeBadge(records, { topic: first.id, index, badge: null }, newIds))
              onClose()
            }}
          >
            Take it off
          </Button>
        </Group>
      )}
      <ScrollArea.Autosize mah="52vh" type="auto" mt="xs" offsetScrollbars>
        {icons.length > 0 && grid('Icons', icons)}
        {found.length > 0 && grid('Emoji', found.slice(0, SHOWN))}
        {found.length > SHOWN && (
          <Text size="sm" c="dimmed" mt="xs">
            {found.length - SHOWN} more emoji are found by their words.
          </Text>
        )}
        {icons.length + found.length === 0 && (
          <Text c="dimmed" mt="sm">
            No badge has these words.
          </Text>
        )}
      </ScrollArea.Autosize>
    </Modal>
  )
}
