import { Button, Group, Menu, Textarea } from '@mantine/core'
import { IconAt } from '@tabler/icons-react'
import { useRef, useState } from 'react'
import { MAX_COMMENT } from '../../core/records/comment'
import { useHalfWritten } from '../app/half-written'
import { useSessionHandle } from '../sync/use-session'
import { usePeople } from './comments'

interface Props {
  /** What it is about: what is half written is kept by that. */
  about: string
  label: string
  act: string
  before?: string
  /** Takes what was written; false where it could not be done, so that it is kept. */
  take(text: string): boolean | Promise<boolean>
  /** Where it was not asked for, there is no way out of it. */
  leave?(): void
}

/** Where somebody writes what they say; Ctrl + Enter sends it. */
export function CommentField({ about, label, act, before = '', take, leave }: Props) {
  const { person } = useSessionHandle()
  const [text, setText] = useHalfWritten(`comment:${person}:${about}`, before)
  const field = useRef<HTMLTextAreaElement>(null)
  const people = usePeople()
  const [isBusy, setBusy] = useState(false)
  const send = async () => {
    if (text.trim() === '' || isBusy) return
    setBusy(true)
    try {
      if (await take(text)) setText(before)
    } finally {
      setBusy(false)
    }
  }
  const nameSomebody = (person: string) => {
    const at = field.current?.selectionStart ?? text.length
    const space = at === 0 || /\s$/.test(text.slice(0, at)) ? '' : ' '
    setText(`${text.slice(0, at)}${space}@${person} ${text.slice(at)}`)
    field.current?.focus()
  }
  return (
    <div>
      <Textarea
        ref={field}
        size="sm"
        aria-label={label}
        placeholder={label}
        autosize
        minRows={leave ? 2 : 1}
        maxRows={10}
        maxLength={MAX_COMMENT}
        autoFocus={leave !== undefined}
        data-leads="comment"
        value={text}
        readOnly={isBusy}
        onChange={(event) => setText(event.currentTarget.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
            event.preventDefault()
            void send()
          } else if (event.key === 'Escape' && leave) {
            event.stopPropagation()
            leave()
          }
        }}
      />
      {(text !== '' || leave) && (
        <Group gap={6} mt={6}>
          <Button
            size="compact-sm"
            disabled={text.trim() === ''}
            loading={isBusy}
            onClick={() => void send()}
            title="Ctrl + Enter"
          >
            {act}
          </Button>
          {leave && (
            <Button
              size="compact-sm"
              variant="default"
              onClick={() => {
                setText(before)
                leave()
              }}
            >
              Cancel
            </Button>
          )}
          {people.length > 1 && (
            <Menu position="bottom-start" transitionProps={{ duration: 0 }}>
              <Menu.Target>
                <Button size="compact-sm" variant="subtle" color="gray" leftSection={<IconAt size={14} aria-hidden />}>
                  Name somebody
                </Button>
              </Menu.Target>
              <Menu.Dropdown mah={260} style={{ overflow: 'auto' }}>
                {people.map((person) => (
                  <Menu.Item key={person.id} onClick={() => nameSomebody(person.name)}>
                    {person.name}
                  </Menu.Item>
                ))}
              </Menu.Dropdown>
            </Menu>
          )}
        </Group>
      )}
    </div>
  )
}
