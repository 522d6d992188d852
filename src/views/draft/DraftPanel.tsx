import { ActionIcon, Button, Checkbox, Group, Text, Textarea, TextInput } from '@mantine/core'
import { IconX } from '@tabler/icons-react'
import { type FormEvent, useEffect, useMemo, useState } from 'react'
import { z } from 'zod'
import { hangItems } from '../../core/commands/hang-items'
import { MAX_DRAWN_ON, MAX_WISH } from '../../core/drafting/limits'
import type { OutlineItem } from '../../core/formats/outline'
import type { TopicId } from '../../core/records/ids'
import { MAX_TOPIC_TEXT } from '../../core/records/text'
import { ask, tellTrouble } from '../app/api'
import type { CollectionSession } from '../sync/collection-session'
import { workspace } from '../workspace/workspace-store'
import styles from './draft.module.css'
import { chosenOf, type Line, linesOf } from './lines'

const Item: z.ZodType<OutlineItem> = z.object({
  text: z.string(),
  note: z.string(),
  links: z.array(z.object({ address: z.string(), title: z.string() })),
  noteLinks: z.array(z.string()),
  get children() {
    return z.array(Item)
  },
})
const Answer = z.object({ items: z.array(Item) })

/**
 * Drafting: somebody says what they want, or gives a text, and gets proposed branches. They are seen on the map as they
 * would hang there, can be reworded and left out, and are taken or thrown away.
 */
export default function DraftPanel({
  session,
  index,
  topic,
  side,
  onEnd,
}: {
  session: CollectionSession
  index: number
  topic: TopicId
  /** Where it stands, so that it does not cover the branch. */
  side: 'left' | 'right'
  onEnd(): void
}) {
  const [lines, setLines] = useState<readonly Line[] | null>(null)
  const [waiting, setWaiting] = useState(false)
  const items = useMemo(() => (lines ? chosenOf(lines) : []), [lines])
  useEffect(() => {
    session.preview(
      items.length > 0 ? (records, newIds) => hangItems(records, { topic, items, act: 'Insert' }, newIds) : null,
    )
    return () => session.preview(null)
  }, [session, topic, items])
  const end = () => {
    session.preview(null)
    workspace.draft(null)
    onEnd()
  }
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    const form = new FormData(event.currentTarget)
    const body = { wish: String(form.get('wish') ?? ''), text: String(form.get('text') ?? '') }
    setWaiting(true)
    ask(Answer, `/api/collections/${session.id}/draft`, { method: 'POST', body })
      .then((answer) => setLines(linesOf(answer.items)), tellTrouble)
      .finally(() => setWaiting(false))
  }
  const change = (at: number, line: Partial<Line>) =>
    setLines((now) => now?.map((known, i) => (i === at ? { ...known, ...line } : known)) ?? null)
  const take = () => {
    const select = session.run((records, newIds) => hangItems(records, { topic, items, act: 'Insert' }, newIds))
    if (!select) return
    workspace.select(index, select)
    end()
  }
  const name = session.nameOf(topic)?.text || 'this topic'
  return (
    <section
      className={styles.panel}
      data-side={side}
      data-taken
      aria-label="Draft"
      onKeyDown={(event) => {
        event.stopPropagation()
        if (event.key === 'Escape') end()
      }}
    >
      <header>
        <Text fw={600} truncate>
          Draft branches for {name}
        </Text>
        <ActionIcon variant="subtle" color="gray" aria-label="Close the draft" onClick={end}>
          <IconX size={16} />
        </ActionIcon>
      </header>
      {!lines ? (
        <form onSubmit={submit}>
          <Textarea
            name="wish"
            label="What do you want?"
            placeholder="Plan a volunteer day at the northern ditches"
            maxLength={MAX_WISH}
            autosize
            minRows={2}
            maxRows={5}
            data-autofocus
            autoFocus
          />
          <Textarea
            name="text"
            label="Or a text to draw on"
            placeholder="Paste a page, a report, minutes …"
            maxLength={MAX_DRAWN_ON}
            rows={8}
          />
          <Button type="submit" loading={waiting} fullWidth mt="sm">
            Propose branches
          </Button>
          <Text size="xs" c="dimmed" mt="xs">
            Computed on this server from the text, from your collection and from the templates. Nothing is added before
            you take it.
          </Text>
        </form>
      ) : lines.length === 0 ? (
        <>
          <Text>Nothing could be made of this. Say a little more, or give a longer text.</Text>
          <Button variant="default" onClick={() => setLines(null)}>
            Back
          </Button>
        </>
      ) : (
        <>
          <Text size="sm" c="dimmed">
            Seen on the map as a proposal. Reword it, leave out what does not fit.
          </Text>
          <ul className={styles.lines}>
            {lines.map(({ item, level, text, taken }, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: the lines never change their order.
              <li key={i} style={{ paddingLeft: level * 18 }}>
                <Checkbox
                  size="xs"
                  aria-label={`Take ${text}`}
                  checked={taken}
                  onChange={(event) => change(i, { taken: event.currentTarget.checked })}
                />
                <TextInput
                  size="xs"
                  flex={1}
                  aria-label="Text of the proposed topic"
                  title={item.note || undefined}
                  value={text}
                  disabled={!taken}
                  maxLength={MAX_TOPIC_TEXT}
                  onChange={(event) => change(i, { text: event.currentTarget.value })}
                />
              </li>
            ))}
          </ul>
          <Group justify="space-between">
            <Button variant="default" onClick={() => setLines(null)}>
              Ask again
            </Button>
            <Group gap="xs">
              <Button variant="default" onClick={end}>
                Throw away
              </Button>
              <Button disabled={items.length === 0} onClick={take}>
                Take
              </Button>
            </Group>
          </Group>
        </>
      )}
    </section>
  )
}
