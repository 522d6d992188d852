import { ActionIcon, Button, FileButton, Progress, Stack, Text } from '@mantine/core'
import { IconDownload, IconPaperclip, IconX } from '@tabler/icons-react'
import { useState } from 'react'
import { removeAttachment } from '../../core/commands/attachments'
import type { TopicRecord } from '../../core/records/topic'
import { readableSize } from '../../core/text/readable-size'
import { tellTrouble } from '../app/api'
import { useCalmSession } from '../sync/use-session'
import styles from './sheet.module.css'
import { upload } from './upload'

interface Running {
  name: string
  part: number
}

/** Files on a topic: drop them here or choose them; each shows how far it is. */
export function FilesSection({ topic }: { topic: TopicRecord }) {
  const session = useCalmSession()
  const [running, setRunning] = useState<readonly Running[]>([])
  const [over, setOver] = useState(false)
  const attachments = session.records.attachments(topic.id)

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
        {attachments.map((attachment) => {
          const file = session.records.get('file', attachment.file)
          if (!file) return null
          const address = `/api/collections/${session.id}/files/${file.id}`
          return (
            <li key={attachment.id}>
              <IconPaperclip size={16} aria-hidden />
              <a className={styles.grow} href={address} target="_blank" rel="noreferrer">
                {file.name} <span className={styles.where}>{readableSize(file.size)}</span>
              </a>
              <ActionIcon
                variant="subtle"
                color="gray"
                size="sm"
                component="a"
                href={address}
                download={file.name}
                aria-label={`Download ${file.name}`}
              >
                <IconDownload size={14} />
              </ActionIcon>
              {session.mayEdit && (
                <ActionIcon
                  variant="subtle"
                  color="gray"
                  size="sm"
                  aria-label={`Remove ${file.name}`}
                  onClick={() =>
                    session.run((records, newIds) => removeAttachment(records, { attachment: attachment.id }, newIds))
                  }
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
      {session.mayEdit && (
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
