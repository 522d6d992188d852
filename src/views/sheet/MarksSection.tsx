import { ActionIcon, Autocomplete, Button, FileButton, Group, Pill, Progress, Stack, Text } from '@mantine/core'
import { IconPlus, IconX } from '@tabler/icons-react'
import { useCallback, useState } from 'react'
import { badgeName } from '../../core/badges/badges'
import { removePicture } from '../../core/commands/pictures'
import { tagTopics, untagTopics } from '../../core/commands/tags'
import type { TopicRecord } from '../../core/records/topic'
import pictureStyles from '../pictures/pictures.module.css'
import { sendPicture } from '../pictures/send-picture'
import type { CollectionSession } from '../sync/collection-session'
import { useCalmPart, useMayEdit, useSessionHandle } from '../sync/use-session'
import { BadgeGlyph } from '../workspace/BadgeGlyph'
import { workspace } from '../workspace/workspace-store'
import styles from './sheet.module.css'

/** What marks the selected topics at first sight: badges, tags, a picture. */
export default function MarksSection({ topic, topics }: { topic: TopicRecord; topics: readonly TopicRecord[] }) {
  const mayEdit = useMayEdit()
  const ids = topics.map(({ id }) => id)
  return (
    <Stack gap="sm">
      <div>
        <Text size="sm" fw={600}>
          Badges
        </Text>
        <Group gap={4}>
          {topics.length > 1 && <SharedBadges topics={topics} />}
          {(topics.length > 1 ? [] : topic.badges).map((badge, index) => (
            <ActionIcon
              key={badge}
              variant="default"
              size="lg"
              disabled={!mayEdit}
              title={badgeName(badge)}
              aria-label={`Change the badge ${badgeName(badge)}`}
              onClick={() => workspace.dialog({ kind: 'badge', topics: [topic.id], index })}
            >
              <BadgeGlyph badge={badge} size={20} />
            </ActionIcon>
          ))}
          {mayEdit && (
            <Button
              size="xs"
              variant="default"
              leftSection={<IconPlus size={14} />}
              onClick={() => workspace.dialog({ kind: 'badge', topics: ids, index: null })}
            >
              Put a badge on
            </Button>
          )}
        </Group>
      </div>
      <Tags topics={topics} />
      {topics.length === 1 && <Picture topic={topic} />}
    </Stack>
  )
}

/** The badges that all of several topics have. */
function SharedBadges({ topics }: { topics: readonly TopicRecord[] }) {
  const shared = topics[0]!.badges.filter((badge) => topics.every(({ badges }) => badges.includes(badge)))
  const differ = topics.some(({ badges }) => badges.length > shared.length)
  return (
    <>
      {shared.map((badge) => (
        <span key={badge} title={badgeName(badge)}>
          <BadgeGlyph badge={badge} size={20} />
        </span>
      ))}
      {differ && (
        <Text size="sm" c="dimmed">
          {shared.length > 0 ? 'and others that differ' : 'They differ.'}
        </Text>
      )}
    </>
  )
}

const tagsIn = ({ records }: CollectionSession) => [...records.all('tag')].filter((tag) => !tag.trashed)

function Tags({ topics }: { topics: readonly TopicRecord[] }) {
  const session = useSessionHandle()
  const mayEdit = useMayEdit()
  const all = useCalmPart(tagsIn)
  const [name, setName] = useState('')
  const ids = topics.map(({ id }) => id)
  const take = (text: string) => {
    if (text.trim() === '') return
    session.run((records, newIds) => tagTopics(records, { topics: ids, name: text }, newIds))
    setName('')
  }
  return (
    <div>
      <Text size="sm" fw={600}>
        Tags
      </Text>
      <Group gap={4} mb={4}>
        {[...new Set(topics.flatMap(({ tags }) => tags))].flatMap((id) => {
          const carrying = topics.filter(({ tags }) => tags.includes(id)).length
          const tag = all.find((known) => known.id === id)
          return tag ? (
            <Pill
              key={id}
              size="md"
              withRemoveButton={mayEdit}
              removeButtonProps={{ 'aria-label': `Take the tag ${tag.name} off`, 'aria-hidden': false, tabIndex: 0 }}
              onRemove={() => session.run((records, newIds) => untagTopics(records, { topics: ids, tag: id }, newIds))}
            >
              <a
                className={styles.tag}
                href={`/c/${session.id}/search?tag=${id}`}
                title={`All that carries ${tag.name}`}
              >
                {carrying < topics.length ? `${tag.name}, ${carrying} of ${topics.length}` : tag.name}
              </a>
            </Pill>
          ) : (
            []
          )
        })}
      </Group>
      {mayEdit && (
        <Autocomplete
          size="xs"
          aria-label="Add a tag"
          placeholder="Add a tag"
          value={name}
          data={all.filter(({ id }) => !topics.every(({ tags }) => tags.includes(id))).map((tag) => tag.name)}
          onChange={setName}
          onOptionSubmit={(text) => {
            take(text)
            // The field takes over the chosen words after this.
            queueMicrotask(() => setName(''))
          }}
          onKeyDown={(event) => event.key === 'Enter' && take(name)}
        />
      )}
    </div>
  )
}

function Picture({ topic }: { topic: TopicRecord }) {
  const session = useSessionHandle()
  const mayEdit = useMayEdit()
  const [part, setPart] = useState<number | null>(null)
  const { picture } = topic
  const address = useCalmPart(
    useCallback((now: CollectionSession) => picture && now.pictureAddress(picture.file, 640), [picture]),
  )
  const send = async (file: File | null) => {
    if (!file) return
    setPart(0)
    await sendPicture(session, topic.id, file, setPart)
    setPart(null)
  }
  if (!mayEdit && !address) return null
  return (
    <div>
      <Text size="sm" fw={600}>
        Picture
      </Text>
      {address && <img className={pictureStyles.preview} src={address} alt={`On ${topic.text}`} />}
      {mayEdit && (
        <Group gap={4} mt={4}>
          <FileButton accept="image/*" onChange={(file) => void send(file)}>
            {(props) => (
              <Button {...props} size="xs" variant="default" data-leads="picture">
                {topic.picture ? 'Choose another' : 'Choose a picture'}
              </Button>
            )}
          </FileButton>
          <Button size="xs" variant="default" onClick={() => workspace.library(true)}>
            From the drawings
          </Button>
          {topic.picture && (
            <ActionIcon
              variant="subtle"
              color="gray"
              aria-label="Take the picture off"
              onClick={() => session.run((records, newIds) => removePicture(records, { topic: topic.id }, newIds))}
            >
              <IconX size={16} />
            </ActionIcon>
          )}
          {part !== null && <Progress flex={1} value={part * 100} aria-label="Uploading the picture" />}
        </Group>
      )}
    </div>
  )
}
