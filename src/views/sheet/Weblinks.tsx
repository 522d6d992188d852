import { Button, Group, Menu, Stack, TextInput } from '@mantine/core'
import { IconMail, IconWorld } from '@tabler/icons-react'
import { type FormEvent, useEffect, useRef, useState } from 'react'
import { addWeblink, changeWeblink, removeWeblink } from '../../core/commands/weblinks'
import type { ToldSource } from '../../core/network/sources'
import type { TopicId } from '../../core/records/ids'
import { MAX_TITLE } from '../../core/records/text'
import { nameFromAddress, type WeblinkRecord } from '../../core/records/weblink'
import { tell } from '../app/api'
import type { Standing } from '../app/around'
import { useHalfWritten } from '../app/half-written'
import { useSessionHandle } from '../sync/use-session'
import { awaitField } from '../workspace/awaited-field'
import { useWorkspace, workspace } from '../workspace/workspace-store'
import { SourceRow } from './SourceRow'
import styles from './sheet.module.css'

type WeblinkSource = ToldSource & { kind: 'weblink' }

interface EntryProps {
  link: WeblinkSource
  at: number
  of: number
  /** Other topics with the same address. */
  alsoAt: readonly Standing[]
  pane: number
}

/** Where else an address is. */
const AlsoAt = ({ places, pane }: { places: readonly Standing[]; pane: number }) => (
  <Menu position="bottom-start" transitionProps={{ duration: 0 }}>
    <Menu.Target>
      <button type="button" className={styles.alsoAt}>
        {places.length === 1 ? 'also at 1 topic' : `also at ${places.length} topics`}
      </button>
    </Menu.Target>
    <Menu.Dropdown mah={260} style={{ overflow: 'auto' }}>
      {places.map(({ id, text, map, mapTitle }) => (
        <Menu.Item key={id} onClick={() => workspace.go(pane, map, id)}>
          {text || 'Untitled'} <span className={styles.where}>in {mapTitle || 'Untitled'}</span>
        </Menu.Item>
      ))}
    </Menu.Dropdown>
  </Menu>
)

/** An address on the web: to follow, to change, to remove. */
export function WeblinkEntry({ link, at, of, alsoAt, pane }: EntryProps) {
  const session = useSessionHandle()
  const [changing, setChanging] = useState(false)
  if (changing)
    return (
      <li>
        <WeblinkForm
          before={session.records.get('weblink', link.id)}
          act="Keep"
          take={(url, title) => {
            if (session.run((records, newIds) => changeWeblink(records, { weblink: link.id, url, title }, newIds)))
              setChanging(false)
            return false
          }}
          leave={() => setChanging(false)}
        />
      </li>
    )
  return (
    <SourceRow
      source={link}
      at={at}
      of={of}
      icon={link.url.startsWith('mailto:') ? <IconMail size={16} aria-hidden /> : <IconWorld size={16} aria-hidden />}
      first={
        <>
          <Menu.Item onClick={() => workspace.read(link.topic, link)}>Read beside the map</Menu.Item>
          <Menu.Item onClick={() => void copyText(link.url.replace(/^mailto:/i, ''))}>Copy the address</Menu.Item>
        </>
      }
      last={
        <>
          <Menu.Item onClick={() => setChanging(true)}>Change …</Menu.Item>
          <Menu.Item
            onClick={() => session.run((records, newIds) => removeWeblink(records, { weblink: link.id }, newIds))}
          >
            Remove
          </Menu.Item>
        </>
      }
    >
      <a href={link.url} target="_blank" rel="noopener noreferrer" title={link.url}>
        {link.name}
      </a>
      {alsoAt.length > 0 && <AlsoAt places={alsoAt} pane={pane} />}
    </SourceRow>
  )
}

/** Puts a text onto the clipboard, and says so. */
const copyText = (text: string) =>
  navigator.clipboard.writeText(text).then(
    () => tell('The address is copied.'),
    () => tell(text),
  )

/** Adds web links, one after the other. */
export function AddWeblink({ topic }: { topic: TopicId }) {
  const session = useSessionHandle()
  const field = `weblink:${session.person}:${topic}`
  const [address, setAddress] = useHalfWritten(field)
  const [title, setTitle] = useHalfWritten(`${field}:title`)
  const isAsked = useWorkspace(({ section }) => section?.field === 'weblink')
  const [isOpen, setOpen] = useState(address !== '')
  if (isAsked && !isOpen) setOpen(true)
  if (!isOpen)
    return (
      <Button
        variant="default"
        size="xs"
        leftSection={<IconWorld size={16} />}
        onClick={() => {
          awaitField('field')
          workspace.openSection('links', 'weblink')
        }}
      >
        Add a web link
      </Button>
    )
  const write = (url: string, name: string) => {
    setOpen(true)
    setAddress(url)
    setTitle(name)
  }
  return (
    <WeblinkForm
      before={{ url: address, title }}
      isNew
      act="Add"
      take={(url, name) =>
        session.run((records, newIds) => addWeblink(records, { topic, url, title: name }, newIds)) !== null
      }
      write={write}
      leave={() => {
        write('', '')
        setOpen(false)
      }}
    />
  )
}

interface FormProps {
  before: Pick<WeblinkRecord, 'url' | 'title'> | undefined
  isNew?: boolean
  act: string
  /** Takes what was written; true empties the fields for the next one. */
  take(url: string, title: string): boolean
  /** Told of each letter. */
  write?(url: string, title: string): void
  leave(): void
}

function WeblinkForm({ before, isNew = false, act, take, write, leave }: FormProps) {
  const [url, setUrl] = useState(before?.url ?? '')
  const [title, setTitle] = useState(before?.title ?? '')
  const address = useRef<HTMLInputElement>(null)
  useEffect(() => {
    if (!isNew) address.current?.focus()
  }, [isNew])
  const change = (nextUrl: string, nextTitle: string) => {
    setUrl(nextUrl)
    setTitle(nextTitle)
    write?.(nextUrl, nextTitle)
  }
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    if (!take(url, title)) return
    change('', '')
    address.current?.focus()
  }
  return (
    <form onSubmit={submit} className={styles.grow}>
      <Stack gap={6}>
        <TextInput
          ref={address}
          size="xs"
          label="Address"
          placeholder="https://example.org/page"
          value={url}
          required
          data-leads="weblink"
          onChange={({ currentTarget: { value } }) => {
            // A name is proposed as long as nobody has written one.
            const isProposed = isNew && title === nameFromAddress(url)
            change(value, isProposed ? nameFromAddress(value) : title)
          }}
        />
        <TextInput
          size="xs"
          label="Name"
          value={title}
          maxLength={MAX_TITLE}
          onChange={(event) => change(url, event.currentTarget.value)}
          // A name that was only proposed gives way to the first letter.
          onFocus={(event) => isNew && title === nameFromAddress(url) && event.currentTarget.select()}
          onMouseUp={(event) =>
            event.currentTarget.selectionEnd !== event.currentTarget.selectionStart && event.preventDefault()
          }
        />
        <Group gap="xs">
          <Button size="xs" type="submit">
            {act}
          </Button>
          <Button size="xs" variant="default" onClick={leave}>
            Done
          </Button>
        </Group>
      </Stack>
    </form>
  )
}
