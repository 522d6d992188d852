import { ActionIcon, Button, Group, Stack, TextInput } from '@mantine/core'
import { IconPencil, IconWorld, IconX } from '@tabler/icons-react'
import { type FormEvent, useState } from 'react'
import { addWeblink, changeWeblink, removeWeblink } from '../../core/commands/weblinks'
import type { TopicId } from '../../core/records/ids'
import type { WeblinkRecord } from '../../core/records/weblink'
import { useMayEdit, useSessionHandle } from '../sync/use-session'
import styles from './sheet.module.css'

/** An address on the web: to follow, to change, to remove. */
export function WeblinkEntry({ link }: { link: WeblinkRecord }) {
  const session = useSessionHandle()
  const mayEdit = useMayEdit()
  const [changing, setChanging] = useState(false)
  const name = link.title || link.url
  if (changing)
    return (
      <li>
        <WeblinkForm
          before={link}
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
    <li>
      <IconWorld size={16} aria-hidden />
      <a className={styles.grow} href={link.url} target="_blank" rel="noopener noreferrer" title={link.url}>
        {name}
      </a>
      {mayEdit && (
        <>
          <ActionIcon
            variant="subtle"
            color="gray"
            size="sm"
            aria-label={`Change the web link ${name}`}
            onClick={() => setChanging(true)}
          >
            <IconPencil size={14} />
          </ActionIcon>
          <ActionIcon
            variant="subtle"
            color="gray"
            size="sm"
            aria-label={`Remove the web link ${name}`}
            onClick={() => session.run((records, newIds) => removeWeblink(records, { weblink: link.id }, newIds))}
          >
            <IconX size={14} />
          </ActionIcon>
        </>
      )}
    </li>
  )
}

/** Adds web links, one after the other. */
export function AddWeblink({ topic }: { topic: TopicId }) {
  const session = useSessionHandle()
  const [open, setOpen] = useState(false)
  if (!open)
    return (
      <Button variant="default" size="xs" leftSection={<IconWorld size={16} />} onClick={() => setOpen(true)}>
        Add a web link
      </Button>
    )
  const take = (url: string, title: string) =>
    session.run((records, newIds) => addWeblink(records, { topic, url, title }, newIds)) !== null
  return <WeblinkForm act="Add" take={take} leave={() => setOpen(false)} />
}

interface FormProps {
  before?: WeblinkRecord
  act: string
  /** Takes what was written; true empties the fields for the next one. */
  take(url: string, title: string): boolean
  leave(): void
}

function WeblinkForm({ before, act, take, leave }: FormProps) {
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    const form = event.currentTarget
    const fields = new FormData(form)
    if (!take(String(fields.get('url')), String(fields.get('title')))) return
    form.reset()
    form.querySelector('input')?.focus()
  }
  return (
    <form onSubmit={submit} className={styles.grow}>
      <Stack gap={6}>
        <TextInput
          size="xs"
          name="url"
          label="Address"
          placeholder="https://example.org/page"
          defaultValue={before?.url}
          required
        />
        <TextInput size="xs" name="title" label="Name" defaultValue={before?.title} maxLength={500} />
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
