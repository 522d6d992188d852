import { Button, Group, NativeSelect, Stack, Text, Textarea, TextInput } from '@mantine/core'
import { IconArrowLeft, IconLink } from '@tabler/icons-react'
import { type FormEvent, useState } from 'react'
import { changeEnclosure, removeEnclosure } from '../../core/commands/enclosures'
import { enclosureName } from '../../core/network/crosslinks'
import { EnclosureLook } from '../../core/records/enclosure'
import type { EnclosureId } from '../../core/records/ids'
import { MAX_TITLE } from '../../core/records/text'
import { ColourField } from '../app/fields/ColourField'
import { keepHalfWritten, useHalfWritten } from '../app/half-written'
import { Modal } from '../app/Modal'
import { linkEnds } from '../sync/link-ends'
import { useSession } from '../sync/use-session'
import { useWorkspace, workspace } from '../workspace/workspace-store'
import styles from './dialogs.module.css'
import { FindDialog } from './FindDialog'

const TONES = ['Water', 'Clay', 'Moss', 'Heather', 'Straw', 'Fen', 'Cranberry', 'Slate']
const LINES = { thin: 'thin', strong: 'strong', dashed: 'dashed', none: 'none' }
const CORNERS = { round: 'round', square: 'square', sketch: 'drawn by hand' }

const choicesOf = (names: Record<string, string>) => Object.entries(names).map(([value, label]) => ({ value, label }))

/** What belongs to an enclosure, to read and to change: title, note, look, and the cross-links that lead to it. */
export default function EnclosureDialog({ enclosure: id, onClose }: { enclosure: EnclosureId; onClose(): void }) {
  const session = useSession()
  const { active } = useWorkspace()
  const [linking, setLinking] = useState(false)
  const enclosure = session.records.get('enclosure', id)
  const [fill, setFill] = useState(enclosure?.look?.fill ?? null)
  const field = `enclosure:${session.person}:${id}`
  const [title, setTitle] = useHalfWritten(`${field}:title`, enclosure?.title)
  const [note, setNote] = useHalfWritten(`${field}:note`, enclosure?.note)
  if (!enclosure || enclosure.trashed) return null
  const name = enclosureName(session.records, enclosure)
  if (linking)
    return (
      <FindDialog
        collection={session.id}
        title={`Which topic leads to ${name}?`}
        kinds={['topic']}
        onClose={onClose}
        onTake={(found) => {
          onClose()
          if (found.kind !== 'topic') return
          void linkEnds(session, { from: found.id, to: { kind: 'enclosure', id }, drawn: 'line' })
        }}
      />
    )
  const keep = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    const form = new FormData(event.currentTarget)
    const written = (field: string) => String(form.get(field) ?? '')
    const look = EnclosureLook.safeParse({
      ...(fill === null ? {} : { fill }),
      ...(written('line') === 'thin' ? {} : { line: written('line') }),
      ...(written('corners') === 'round' ? {} : { corners: written('corners') }),
    }).data
    const kept = session.run((records, newIds) =>
      changeEnclosure(
        records,
        {
          enclosure: id,
          title,
          note,
          tone: written('tone') === '' ? null : Number(written('tone')),
          look: look && Object.keys(look).length > 0 ? look : null,
        },
        newIds,
      ),
    )
    if (kept === null) return
    for (const each of ['title', 'note']) keepHalfWritten(`${field}:${each}`, '')
    onClose()
  }
  const incoming = session.records.crosslinksTo('enclosure', id)
  return (
    <Modal opened onClose={onClose} title="Enclosure">
      <form onSubmit={keep}>
        <Stack>
          <TextInput
            label="Title"
            value={title}
            onChange={(event) => setTitle(event.currentTarget.value)}
            maxLength={MAX_TITLE}
            readOnly={!session.mayEdit}
            data-autofocus
          />
          <Textarea
            label="Note"
            description="CommonMark, as in the notes of topics"
            value={note}
            onChange={(event) => setNote(event.currentTarget.value)}
            readOnly={!session.mayEdit}
            autosize
            minRows={3}
            maxRows={12}
          />
          {session.mayEdit && (
            <Group grow align="flex-end">
              <NativeSelect
                name="tone"
                label="Tone"
                defaultValue={enclosure.tone === null ? '' : String(enclosure.tone)}
                data={[
                  { value: '', label: 'As the branch' },
                  ...TONES.map((label, i) => ({ value: String(i), label })),
                ]}
              />
              <ColourField
                label="Fill"
                placeholder="As the tone"
                value={fill}
                take={setFill}
                popoverProps={{ position: 'top-start' }}
              />
            </Group>
          )}
          {session.mayEdit && (
            <Group grow>
              <NativeSelect
                name="line"
                label="Line"
                defaultValue={enclosure.look?.line ?? 'thin'}
                data={choicesOf(LINES)}
              />
              <NativeSelect
                name="corners"
                label="Corners"
                defaultValue={enclosure.look?.corners ?? 'round'}
                data={choicesOf(CORNERS)}
              />
            </Group>
          )}
          <section aria-label="Links to this enclosure">
            <Text size="sm" fw={600}>
              Linked from
            </Text>
            {incoming.length === 0 ? (
              <Text size="sm" c="dimmed">
                No topic leads here yet.
              </Text>
            ) : (
              <ul className={styles.found}>
                {incoming.map((link) => {
                  const from = session.nameOf(link.from)
                  return (
                    <li key={link.id}>
                      <Button
                        variant="subtle"
                        size="compact-sm"
                        leftSection={<IconArrowLeft size={14} aria-label="Comes from" />}
                        disabled={!from}
                        onClick={() => {
                          onClose()
                          if (from) workspace.go(active, from.map, link.from)
                        }}
                      >
                        {from?.text || 'Untitled'}
                      </Button>
                    </li>
                  )
                })}
              </ul>
            )}
          </section>
          {session.mayEdit && (
            <Group justify="space-between">
              <Button
                variant="subtle"
                color="ember"
                onClick={() => {
                  onClose()
                  session.run((records, newIds) => removeEnclosure(records, { enclosure: id }, newIds))
                }}
              >
                Remove
              </Button>
              <Group gap="xs">
                <Button variant="default" leftSection={<IconLink size={16} />} onClick={() => setLinking(true)}>
                  Link a topic with it …
                </Button>
                <Button type="submit">Keep</Button>
              </Group>
            </Group>
          )}
        </Stack>
      </form>
    </Modal>
  )
}
