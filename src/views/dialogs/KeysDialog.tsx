import { Kbd, Text, TextInput } from '@mantine/core'
import { IconSearch } from '@tabler/icons-react'
import { useState } from 'react'
import { foldForFinding, wordsForFinding } from '../../core/text/folding'
import { GROUP_NAMES } from '../acts/act'
import { ACTS, keysOf, readableKey } from '../acts/acts'
import { Modal } from '../app/Modal'
import { useSession } from '../sync/use-session'
import { situationOf } from '../workspace/situation'
import { GROUPS, useWorkspace } from '../workspace/workspace-store'
import styles from './dialogs.module.css'

interface Row {
  name: string
  keys: readonly string[]
}

/** Keys that are no acts of the table, but of the field, the clipboard and the arrows. */
const BESIDES: readonly Row[] = [
  { name: 'The nearest topic in a direction', keys: ['Arrows'] },
  { name: 'Select one more', keys: ['Shift + Arrows'] },
  { name: 'The root, the last topic', keys: ['Home', 'End'] },
  { name: 'The sibling before, the next sibling', keys: ['Ctrl + ↑', 'Ctrl + ↓'] },
  { name: 'Write behind the words', keys: ['any letter'] },
  { name: 'In a new topic: keep it, and the next one', keys: ['Enter'] },
  { name: 'In a new topic: keep it, and one below it', keys: ['Tab'] },
  { name: 'In a new topic: keep it, and the next one a level out', keys: ['Shift + Tab'] },
  { name: 'End the writing', keys: ['Esc'] },
  { name: 'Copy, cut, paste branches', keys: ['Ctrl + C', 'X', 'V'] },
  { name: 'The menu of the topic', keys: ['Shift + F10'] },
  { name: 'Place a topic by hand; where every place is kept, let it stand alone', keys: ['Alt + drag'] },
  { name: 'Round the parts of the window', keys: ['F6', 'Shift + F6'] },
]

/** All keys, in the groups of the acts; narrowed down by words. */
export default function KeysDialog({ onClose }: { onClose(): void }) {
  const session = useSession()
  const { active } = useWorkspace()
  const [words, setWords] = useState('')
  const situation = situationOf(session, active)
  const groups: { name: string; rows: Row[] }[] = [...GROUPS, 'view' as const].map((group) => ({
    name: GROUP_NAMES[group],
    rows: ACTS.filter((act) => act.group === group && act.keys.length > 0).map((act) => ({
      name: act.name(situation),
      keys: keysOf(act).map(readableKey),
    })),
  }))
  groups.push({ name: 'On the map', rows: [...BESIDES] })
  const wanted = wordsForFinding(words)
  const shown = groups
    .map(({ name, rows }) => ({
      name,
      rows: rows.filter((row) =>
        wanted.every((word) => foldForFinding(`${name} ${row.name} ${row.keys.join(' ')}`).includes(word)),
      ),
    }))
    .filter(({ rows }) => rows.length > 0)
  return (
    <Modal opened onClose={onClose} title="All keys" size={980}>
      <TextInput
        data-autofocus
        aria-label="Find a key"
        placeholder="Find a key by what it does"
        leftSection={<IconSearch size={16} />}
        value={words}
        onChange={(event) => setWords(event.currentTarget.value)}
      />
      {shown.length === 0 && (
        <Text c="dimmed" size="sm" mt="sm">
          No key does that.
        </Text>
      )}
      <div className={styles.keys}>
        {shown.map(({ name, rows }) => (
          <section key={name} className={styles.keyGroup} aria-label={name}>
            <h3>{name}</h3>
            <ul>
              {rows.map((row) => (
                <li key={row.name}>
                  <span>{row.name}</span>
                  <span>
                    {row.keys.map((key) => (
                      <Kbd key={key} size="xs" ml={4}>
                        {key}
                      </Kbd>
                    ))}
                  </span>
                </li>
              ))}
            </ul>
          </section>
        ))}
      </div>
    </Modal>
  )
}
