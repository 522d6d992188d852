import { ActionIcon, Button, FileButton, Progress, Stack, Text } from '@mantine/core'
import { IconDownload, IconPaperclip, IconX } from '@tabler/icons-react'
import { useCallback, useState } from 'react'
import { removeAttachment } from '../../core/commands/attachments'
import type { TopicRecord } from '../../core/records/topic'
import { readableSize } from '../../core/text/readable-size'
import { tellTrouble } from '../app/api'
import type { CollectionSession } from '../sync/collection-session'
import { useCalmPart, useMayEdit, useSessionHandle } from '../sync/use-session'
import styles from './sheet.module.css'
import { upload } from './upload'

interface Running {
  name: string
  part: number
}

/** Files on a topic: drop them here or choose them; each shows how far it is. */
export function FilesSection({ topic }: { topic: TopicRecord }) {
  const session = useSessionHandle()
  const mayEdit = useMayEdit()
  const [running, setRunning] = useState<readonly Running[]>([])
  const [over, setOver] = useState(false)
  const files = useCalmPart(
    useCallback(
      ({ records }: CollectionSession) =>
        records.attachments(topic.id).flatMap(({ id, file }) => {
          const { name, size } = records.get('file', file) ?? {}
          return name === undefined || size === undefined ? [] : { attachment: id, file, name, size }
        }),
      [topic.id],
    ),
  )

  const send = async (files: readonly File[]) => {
    for (const file of files) {
      const entry = { name: file.name, part: 0 }
      setRunning((all) => [...all, entry])
      const report = (part: number) =>
        setRunning((all) => all.map((other) => (other.name === file.name ? { ...other, part } : other)))
      await upload(session.id, topic.id, file, report).catch(tellTrouble)
      setRunning((all) => all.filter((other) => other.name !== file.name))
    }
  }
  return (
    <Stack gap="xs">
      <ul className={styles.entries}>
        {files.map(({ attachment, file, name, size }) => {
          const address = `/api/collections/${session.id}/files/${file}`
          return (
            <li key={attachment}>
              <IconPaperclip size={16} aria-hidden />
              <a className={styles.grow} href={address} target="_blank" rel="noreferrer">
                {name} <span className={styles.where}>{readableSize(size)}</span>
              </a>
              <ActionIcon
                variant="subtle"
                color="gray"
                size="sm"
                component="a"
                href={address}
                download={name}
                aria-label={`Download ${name}`}
              >
                <IconDownload size={14} />
              </ActionIcon>
              {mayEdit && (
                <ActionIcon
                  variant="subtle"
                  color="gray"
                  size="sm"
                  aria-label={`Remove ${name}`}
                  onClick={() => session.run((records, newIds) => removeAttachment(records, { attachment }, newIds))}
                >
                  <IconX size={14} />
                </ActionIcon>
              )}
            </li>
          )
        })}
        {running.map(({ name, part }) => (
          <li key={name}>
            <span className={styles.grow}>
              {name}
              <Progress value={part * 100} size="sm" aria-label={`Uploading ${name}`} />
            </span>
          </li>
        ))}
      </ul>
      {mayEdit && (
        <div
          className={styles.drop}
          data-over={over || undefined}
          onDragOver={(event) => {
            event.preventDefault()
            setOver(true)
          }}
          onDragLeave={() => setOver(false)}
          onDrop={(event) => {
            event.preventDefault()
            setOver(false)
            void send([...event.dataTransfer.files])
          }}
        >
          <Text size="sm" c="dimmed">
            Drop files here, or
          </Text>
          <FileButton multiple onChange={(files) => void send(files)}>
            {(props) => (
              <Button {...props} variant="default" size="xs">
                Choose files
              </Button>
            )}
          </FileButton>
        </div>
      )}
    </Stack>
  )
}
