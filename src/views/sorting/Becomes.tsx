import { Button, Group, SegmentedControl, Text, TextInput } from '@mantine/core'
import { useMemo, useState } from 'react'
import { encloseSorted, hangSorted, mapOfSorted } from '../../core/commands/bands'
import { splitOff } from '../../core/commands/split-off'
import type { TopicId } from '../../core/records/ids'
import type { TopicRecord } from '../../core/records/topic'
import { Silhouette } from '../pictures/Silhouette'
import { useSession } from '../sync/use-session'
import { tellHappened } from '../workspace/happened'
import { workspace } from '../workspace/workspace-store'
import { previewSorted } from './preview'
import styles from './sorting.module.css'

type Form = 'branch' | 'map' | 'enclosures'
const FORMS = [
  { value: 'branch', label: 'branches' },
  { value: 'map', label: 'a map' },
  { value: 'enclosures', label: 'enclosures' },
]

interface Props {
  bands: readonly TopicId[]
  /** Where what was sorted goes: the topic that is selected on the map, or its root; or the one below which it is sorted. */
  target: TopicRecord
  /** Whether the bands hang on the target already. */
  isThere: boolean
  index: number
  onDone(): void
}

/** What the bands become: branches of a topic, a map of their own, or enclosures. */
export function Becomes({ bands, target, isThere, index, onDone }: Props) {
  const session = useSession()
  const [form, setForm] = useState<Form>('branch')
  const [title, setTitle] = useState(isThere ? target.text : '')
  const name = target.text.slice(0, 40) || 'Untitled'
  // biome-ignore lint/correctness/useExhaustiveDependencies: the records change in place; the version tells when.
  const preview = useMemo(
    () => previewSorted(session.records, session.collection, bands, form === 'enclosures'),
    [session, session.sceneVersion, bands.join(' '), form],
  )
  const isAsItIs = isThere && form === 'branch'
  const become = () => {
    if (isAsItIs) return onDone()
    const done = session.run((records, newIds) => {
      if (form === 'enclosures') return encloseSorted(records, { topics: bands, parent: target.id }, newIds)
      if (form === 'branch') return hangSorted(records, { topics: bands, parent: target.id }, newIds)
      return isThere
        ? splitOff(records, { topic: target.id, name: title }, newIds)
        : mapOfSorted(records, { topics: bands, title, doorwayBelow: target.id }, newIds)
    })
    if (!done) return
    onDone()
    workspace.select(index, done)
    const opened = form === 'map' ? session.records.get('topic', done[0] ?? null)?.opensMap : null
    tellHappened(form === 'map' ? `Made the map ${title}.` : `Placed below ${name}.`, [
      ...(opened ? [{ name: 'Open', go: () => workspace.go(index, opened, null) }] : []),
      { name: 'Undo', go: () => void session.takeBack('undo') },
    ])
  }
  const isNameless = form === 'map' && title.trim() === ''
  return (
    <Group gap="sm" justify="flex-end" className={styles.becomes}>
      {preview && (
        <span className={styles.preview}>
          <Silhouette records={preview.records} map={preview.map} />
        </span>
      )}
      <Text size="sm" id="becomes">
        The bands become
      </Text>
      <SegmentedControl
        size="xs"
        aria-labelledby="becomes"
        value={form}
        data={FORMS}
        onChange={(value) => setForm(value as Form)}
      />
      {form === 'map' ? (
        <TextInput
          size="xs"
          aria-label="Name of the map"
          placeholder="Name of the map"
          value={title}
          onChange={(event) => setTitle(event.currentTarget.value)}
          onKeyDown={(event) => event.stopPropagation()}
        />
      ) : (
        <Text size="sm" className={styles.target}>
          below {name}
        </Text>
      )}
      <Button disabled={bands.length === 0 || isNameless} onClick={become}>
        {isAsItIs ? 'Leave them there' : form === 'map' ? 'Make the map' : 'Place them'}
      </Button>
    </Group>
  )
}
