import { Button, Checkbox, Group, Select, Text, TextInput } from '@mantine/core'
import type { SourceEnd } from '../../core/matching/decisions'
import { MAX_TITLE } from '../../core/records/text'
import { useSession } from '../sync/use-session'
import styles from './merge.module.css'
import type { Asked } from './merge-plan'

const ENDS: Record<SourceEnd, string> = {
  stay: 'stay as they are',
  doorway: 'keep their root, as a doorway to the result',
  trash: 'go into the trash',
}

/** What would come of the plan, how it is carried out, and the act itself. */
export function MergeFoot({
  title,
  asked,
  change,
  outcome,
  isReady,
  isBusy,
  onMerge,
}: {
  /** Of the map that is merged into. */
  title: string
  asked: Asked
  change(part: Partial<Asked>): void
  outcome: string
  isReady: boolean
  isBusy: boolean
  onMerge(): void
}) {
  const session = useSession()
  return (
    <Group gap="sm" className={styles.foot} justify="flex-end">
      <Text size="sm" role="status" className={styles.outcome}>
        {outcome}
      </Text>
      {session.mayEdit && (
        <>
          <TextInput
            size="xs"
            aria-label="Name of the result"
            value={asked.title}
            maxLength={MAX_TITLE}
            onChange={(event) => change({ title: event.currentTarget.value })}
          />
          <Checkbox
            size="xs"
            label="as a new map"
            checked={asked.isNew}
            onChange={(event) =>
              change({
                isNew: event.currentTarget.checked,
                title: nameFor(
                  event.currentTarget.checked,
                  asked.title,
                  title,
                  asked.sources.map((map) => session.titleOf(map)),
                ),
              })
            }
          />
          <Select
            size="xs"
            w={230}
            aria-label="The sources"
            allowDeselect={false}
            value={asked.sourcesThen}
            data={(Object.keys(ENDS) as SourceEnd[]).map((value) => ({
              value,
              label: `The sources ${ENDS[value]}`,
            }))}
            onChange={(value) => change({ sourcesThen: value as SourceEnd })}
          />
          <Checkbox
            size="xs"
            label="links to them follow"
            checked={asked.linksFollow || asked.sourcesThen !== 'stay'}
            disabled={asked.sourcesThen !== 'stay'}
            onChange={(event) => change({ linksFollow: event.currentTarget.checked })}
          />
          <Button loading={isBusy} disabled={!isReady} onClick={onMerge}>
            Merge
          </Button>
        </>
      )}
    </Group>
  )
}

/** A name for the result: of both where a new map is made, unless a person has written one. */
function nameFor(isNew: boolean, written: string, title: string, sources: readonly string[]): string {
  const both = [title, ...sources].join(' and ').slice(0, 200)
  if (isNew) return written === title ? both : written
  return written === both ? title : written
}
