import { UnstyledButton } from '@mantine/core'
import { IconBinaryTree } from '@tabler/icons-react'
import { type ReactNode, useMemo } from 'react'
import { Silhouette } from '../pictures/Silhouette'
import { useSession } from '../sync/use-session'
import styles from './beginning.module.css'
import { previewTemplate } from './previews'

/** Templates with more topics are not drawn: their shape could not be seen, and many of them would keep the page waiting. */
const MOST_DRAWN = 300

/** One thing to choose by its picture, with its name and what it is for. */
export function Plate({
  name,
  use,
  onChoose,
  children,
}: {
  name: string
  use: string
  onChoose(): void
  children: ReactNode
}) {
  return (
    <UnstyledButton className={styles.plate} onClick={onChoose} aria-label={`${name}: ${use}`}>
      <span className={styles.picture}>{children}</span>
      <span className={styles.name}>{name}</span>
      <span className={styles.use}>{use}</span>
    </UnstyledButton>
  )
}

/** The true shape of what a template makes. */
export function TemplatePicture({ template, name }: { template: string; name: string }) {
  const session = useSession()
  const kept = session.records.get('template', template)
  const isLarge = kept !== undefined && kept.lines.length > MOST_DRAWN
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is kept under an id never changes but by its record.
  const preview = useMemo(
    () => (isLarge ? null : previewTemplate(session.records, session.collection.id, template, name)),
    [session, template, name, kept],
  )
  return preview ? (
    <Silhouette records={preview.records} map={preview.map} />
  ) : (
    <IconBinaryTree size={36} stroke={1.4} />
  )
}
