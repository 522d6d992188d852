import { Anchor, Text, TextInput, UnstyledButton } from '@mantine/core'
import { useDebouncedValue } from '@mantine/hooks'
import {
  IconFileText,
  IconFrame,
  IconMap2,
  IconMessage,
  IconNote,
  IconPaperclip,
  IconPlayerPlay,
  IconSearch,
  IconWorld,
} from '@tabler/icons-react'
import { useQuery } from '@tanstack/react-query'
import { type ReactNode, useEffect, useState } from 'react'
import { foldForFinding, wordsForFinding } from '../../core/text/folding'
import { isNearly } from '../../core/text/nearly'
import { announce } from '../app/announce'
import { ask } from '../app/api'
import { Modal } from '../app/Modal'
import styles from './dialogs.module.css'
import { BehindRows, type Found, type FoundBehind, FoundRows } from './found'
import { Marked } from './Marked'
import type { Offer } from './offers'

/** Something that can be done, known by its name. */
export interface Doable {
  id: string
  name: string
  /** The group and the heading below which it stands. */
  where: string
  /** Other words by which it is looked for. */
  finds?: string
  run(): void
}

type Offered = { kind: 'do'; doable: Doable } | Found | FoundBehind | Offer

const MOST_DOABLE = 5

/** What lies behind topics comes after so many that stand on maps: else nobody would see it. */
const FIRST_ON_MAPS = 10
const withBehind = (found: readonly Found[], behind: readonly FoundBehind[]): Offered[] => [
  ...found.slice(0, FIRST_ON_MAPS),
  ...behind,
  ...found.slice(FIRST_ON_MAPS),
]

/** Acts whose name, with the heading above it, contains every word; where there is none, those that nearly do. */
function named(doable: readonly Doable[], words: string): Offered[] {
  const wanted = wordsForFinding(words)
  const fit = (fits: (name: string, word: string) => boolean) =>
    doable.filter(({ name, where, finds = '' }) =>
      wanted.every((word) => fits(foldForFinding(`${name} ${where} ${finds}`), word)),
    )
  const containing = fit((name, word) => name.includes(word))
  const found =
    containing.length > 0 ? containing : fit((name, word) => name.split(' ').some((one) => isNearly(one, word)))
  return found.slice(0, MOST_DOABLE).map((act) => ({ kind: 'do', doable: act }))
}

/** Where something stands, and why it is offered. */
const whereOf = (found: Found | FoundBehind | Offer): string =>
  [
    ...('topicText' in found ? [`${BEHIND[found.kind].name} ${found.topicText || 'Untitled'}`] : []),
    ...(found.kind === 'map' ? [] : [`in ${found.mapTitle}`]),
    ...('why' in found ? [found.why] : []),
  ].join(', ')

const BEHIND = {
  note: { name: 'note of', icon: IconNote, label: 'Note' },
  comment: { name: 'comment on', icon: IconMessage, label: 'Comment' },
  weblink: { name: 'web link of', icon: IconWorld, label: 'Web link' },
  file: { name: 'file of', icon: IconPaperclip, label: 'File' },
  'file text': { name: 'in a file of', icon: IconFileText, label: 'Inside a file' },
} as const

/** Finds topics, enclosures and maps of the collection by typing; Enter or a click takes one. */
export function FindDialog({
  collection,
  title,
  footer,
  exclude,
  doable = [],
  first = [],
  offers = [],
  kinds,
  onTake,
  onTakeBehind,
  leadsOn = false,
  onClose,
}: {
  collection: string
  title: string
  footer?: ReactNode
  exclude?: string
  /** What can be done by its name, offered before what is found. */
  doable?: readonly Doable[]
  /** What can be done before a letter is typed. */
  first?: readonly Doable[]
  /** What is likely meant, offered before a letter is typed. */
  offers?: readonly Offer[]
  /** What may be taken; anything without it. */
  kinds?: readonly Found['kind'][]
  onTake(found: Found): void
  /** Takes what lies behind a topic; without it, only what stands on maps is looked for. */
  onTakeBehind?(found: FoundBehind): void
  /** Whether the page with all that is found is offered: it leads away from here. */
  leadsOn?: boolean
  onClose(): void
}) {
  const [words, setWords] = useState('')
  const [at, setAt] = useState(0)
  const [asked] = useDebouncedValue(words.trim(), 120)
  const { data = [], isFetching } = useQuery({
    queryKey: ['find', collection, asked],
    queryFn: () => ask(FoundRows, `/api/collections/${collection}/find?words=${encodeURIComponent(asked)}`),
    enabled: asked !== '',
    placeholderData: (before) => before,
  })
  const { data: behind = [], isFetching: isFetchingBehind } = useQuery({
    queryKey: ['find behind', collection, asked],
    queryFn: () => ask(BehindRows, `/api/collections/${collection}/find?behind&words=${encodeURIComponent(asked)}`),
    enabled: asked !== '' && onTakeBehind !== undefined,
    placeholderData: (before) => before,
  })
  const mayBeTaken = (found: Found) => found.id !== exclude && (kinds?.includes(found.kind) ?? true)
  const rows: Offered[] =
    words.trim() === ''
      ? [...first.map((act): Offered => ({ kind: 'do', doable: act })), ...offers.filter(mayBeTaken)]
      : [
          ...named([...first, ...doable], words.trim()),
          ...(asked === '' ? [] : withBehind(data.filter(mayBeTaken), onTakeBehind ? behind : [])),
        ]
  const take = (row: Offered) => {
    if ('topicText' in row) return onTakeBehind?.(row)
    if (row.kind !== 'do') return onTake(row)
    onClose()
    row.doable.run()
  }
  const chosen = Math.min(at, Math.max(0, rows.length - 1))
  // Who types fast presses Enter before the words are found: it counts for what these words find, not for what stood there before.
  const isSettled = words.trim() === asked && !isFetching && !isFetchingBehind
  const [takesFound, setTakesFound] = useState(false)
  const press = () => {
    const row = rows[chosen]
    if (row && (row.kind === 'do' || isSettled)) take(row)
    else setTakesFound(!isSettled)
  }
  const count = rows.length
  useEffect(() => {
    if (asked !== '' && isSettled) announce(count === 0 ? 'Nothing found' : `${count} found`)
  }, [asked, isSettled, count])
  useEffect(() => {
    if (!takesFound || !isSettled) return
    setTakesFound(false)
    if (rows[chosen]) take(rows[chosen])
  })
  return (
    <Modal opened onClose={onClose} title={title} size="lg">
      <TextInput
        data-autofocus
        leftSection={<IconSearch size={16} />}
        placeholder={`Type a few letters of a topic, an enclosure${onTakeBehind ? ', a map, a note, a file or a web link' : ' or a map'}`}
        aria-label={title}
        role="combobox"
        aria-expanded={rows.length > 0}
        aria-controls="found"
        aria-activedescendant={rows.length > 0 ? `found-${chosen}` : undefined}
        value={words}
        onChange={(event) => {
          setWords(event.currentTarget.value)
          setAt(0)
          setTakesFound(false)
        }}
        onKeyDown={(event) => {
          if (event.key === 'ArrowDown') setAt(Math.min(chosen + 1, rows.length - 1))
          else if (event.key === 'ArrowUp') setAt(Math.max(chosen - 1, 0))
          else if (event.key === 'Enter') press()
          else return
          event.preventDefault()
        }}
      />
      <ul className={styles.found} id="found" role="listbox" aria-label="Found">
        {rows.map((found, i) => (
          <UnstyledButton
            component="li"
            key={keyOf(found)}
            id={`found-${i}`}
            role="option"
            aria-selected={i === chosen}
            className={styles.row}
            onClick={() => take(found)}
            onMouseMove={() => setAt(i)}
          >
            {found.kind === 'map' && <IconMap2 size={16} aria-label="Map" />}
            {found.kind === 'enclosure' && <IconFrame size={16} aria-label="Enclosure" />}
            {found.kind === 'do' && <IconPlayerPlay size={16} aria-label="Do" />}
            {'topicText' in found && <BehindIcon kind={found.kind} />}
            <span className={styles.text}>
              <span>
                {found.kind === 'do' ? found.doable.name : <Marked text={found.text || 'Untitled'} words={asked} />}
              </span>
            </span>
            {found.kind === 'do' && <span className={styles.where}>{found.doable.where}</span>}
            {found.kind !== 'do' && <span className={styles.where}>{whereOf(found)}</span>}
          </UnstyledButton>
        ))}
      </ul>
      {asked !== '' && rows.length === 0 && !isFetching && (
        <Text c="dimmed" size="sm">
          Nothing in this collection contains “{asked}”, or words close to it.
        </Text>
      )}
      {leadsOn && asked !== '' && (
        <Anchor size="sm" href={`/c/${collection}/search?words=${encodeURIComponent(asked)}`}>
          All that has “{asked}”, by map, tag and kind
        </Anchor>
      )}
      {footer}
    </Modal>
  )
}

const keyOf = (row: Offered): string =>
  row.kind === 'do' ? `do ${row.doable.id}` : `${row.kind} ${row.id} ${'topicText' in row ? row.topic : ''}`

function BehindIcon({ kind }: { kind: FoundBehind['kind'] }) {
  const { icon: Icon, label } = BEHIND[kind]
  return <Icon size={16} aria-label={label} />
}
