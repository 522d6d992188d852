import { ActionIcon, Button, Group, Menu, Select, Stack, Text, UnstyledButton } from '@mantine/core'
import { IconDots } from '@tabler/icons-react'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { toneClass } from '../../core/look/families'
import { Modal } from '../app/Modal'
import { NameDialog } from '../app/NameDialog'
import { useSession } from '../sync/use-session'
import styles from './search.module.css'
import { type CountedTag, tagsKey, useTags } from './use-tags'

const HUES = [0, 1, 2, 3, 4, 5, 6, 7]

type Asked = { tag: CountedTag; kind: 'rename' | 'merge' }

/** All tags of a collection with how many topics carry them: seen, renamed, given a hue, merged and removed. */
export function TagList({ onShow }: { onShow(tag: string): void }) {
  const session = useSession()
  const queries = useQueryClient()
  const tags = useTags(session.id)
  const [asked, setAsked] = useState<Asked | null>(null)
  const command = async (name: string, args: object) => {
    const isDone = (await session.server.command(name, args)) !== null
    await queries.invalidateQueries({ queryKey: tagsKey(session.id) })
    return isDone
  }
  const change = ({ id, name, tone }: CountedTag, part: { name?: string; tone?: number | null }) =>
    command('change-tag', { tag: id, name, tone, ...part })
  if (!tags) return null
  return (
    <section aria-label="Tags">
      <Text fw={600} size="sm">
        Tags
      </Text>
      {tags.length === 0 && (
        <Text c="dimmed" size="sm">
          No topic carries a tag yet. On a map, tags are put on in the topic sheet, below “Badges, tags, picture”.
        </Text>
      )}
      <ul className={styles.tags}>
        {tags.map((tag) => (
          <li key={tag.id} className={styles.tag}>
            <UnstyledButton className={styles.tagName} onClick={() => onShow(tag.id)}>
              <span
                className={`${styles.hue} ${tag.tone === null ? '' : toneClass('spruce', tag.tone)}`}
                data-hue={tag.tone}
              />
              {tag.name}
            </UnstyledButton>
            <Text span size="sm" c="dimmed">
              {tag.topics}
            </Text>
            {session.mayEditAll && (
              <Menu position="bottom-end" transitionProps={{ duration: 0 }}>
                <Menu.Target>
                  <ActionIcon variant="subtle" color="gray" aria-label={`${tag.name}: what can be done`}>
                    <IconDots size={16} />
                  </ActionIcon>
                </Menu.Target>
                <Menu.Dropdown>
                  <Menu.Item onClick={() => setAsked({ tag, kind: 'rename' })}>Rename …</Menu.Item>
                  {tags.length > 1 && (
                    <Menu.Item onClick={() => setAsked({ tag, kind: 'merge' })}>Merge into another …</Menu.Item>
                  )}
                  <Menu.Label>Hue</Menu.Label>
                  <Group gap={4} px="sm" pb={6} role="group" aria-label="Hue">
                    <Hue tag={tag} tone={null} onChoose={() => void change(tag, { tone: null })} />
                    {HUES.map((tone) => (
                      <Hue key={tone} tag={tag} tone={tone} onChoose={() => void change(tag, { tone })} />
                    ))}
                  </Group>
                  <Menu.Item c="var(--ember-text)" onClick={() => void command('remove-tag', { tag: tag.id })}>
                    Remove it everywhere
                  </Menu.Item>
                </Menu.Dropdown>
              </Menu>
            )}
          </li>
        ))}
      </ul>
      {asked?.kind === 'rename' && (
        <NameDialog
          title={`Rename the tag ${asked.tag.name}`}
          name={asked.tag.name}
          most={100}
          onClose={() => setAsked(null)}
          onName={(name) => {
            void change(asked.tag, { name }).then((isDone) => isDone && setAsked(null))
          }}
        />
      )}
      {asked?.kind === 'merge' && (
        <Merge
          tag={asked.tag}
          others={tags.filter(({ id }) => id !== asked.tag.id)}
          onClose={() => setAsked(null)}
          onInto={(into) => {
            setAsked(null)
            void command('merge-tags', { into, tags: [asked.tag.id] })
          }}
        />
      )}
    </section>
  )
}

function Hue({ tag, tone, onChoose }: { tag: CountedTag; tone: number | null; onChoose(): void }) {
  return (
    <UnstyledButton
      className={`${styles.hueChoice} ${tone === null ? '' : toneClass('spruce', tone)}`}
      data-hue={tone}
      aria-label={tone === null ? 'No hue' : `Hue ${tone + 1}`}
      aria-pressed={tag.tone === tone}
      onClick={onChoose}
    />
  )
}

interface MergeProps {
  tag: CountedTag
  others: readonly CountedTag[]
  onInto(tag: string): void
  onClose(): void
}

function Merge({ tag, others, onInto, onClose }: MergeProps) {
  const [into, setInto] = useState<string | null>(null)
  return (
    <Modal opened onClose={onClose} title={`Merge the tag ${tag.name} into another`}>
      <Stack>
        <Text size="sm">Whatever carries {tag.name} carries the other one instead. It can be taken back.</Text>
        <Select
          label="Into"
          searchable
          data-autofocus
          data={others.map(({ id, name }) => ({ value: id, label: name }))}
          value={into}
          onChange={setInto}
        />
        <Group justify="flex-end">
          <Button variant="default" onClick={onClose}>
            Cancel
          </Button>
          <Button disabled={!into} onClick={() => into && onInto(into)}>
            Merge
          </Button>
        </Group>
      </Stack>
    </Modal>
  )
}
