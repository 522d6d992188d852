import { Anchor, Button, Group, Table, Text } from '@mantine/core'
import type { MergeReport } from '../../core/commands/merge-maps'
import { ACT_WORDS, countsInWords } from '../../core/formats/merge-report'
import { FullWindow } from '../app/FullWindow'
import { useSession } from '../sync/use-session'
import styles from './merge.module.css'

/** Rows of a report that are shown; all of them are in what can be downloaded. */
const SHOWN = 500

/** What a merge did, decision by decision, to be read, downloaded, or taken back. */
export function Report({
  collection,
  report,
  change,
  title,
  hueOf,
  onClose,
}: {
  collection: string
  report: MergeReport
  change: string
  /** What the result is called. */
  title: string
  hueOf(map: string): string
  onClose(): void
}) {
  const session = useSession()
  const { counts, rows } = report
  const file = (form: string) => `/api/collections/${collection}/reports/${change}?form=${form}`
  return (
    <FullWindow
      label="Merge report"
      title={`Merged into ${title}`}
      beside={
        <>
          <Anchor size="sm" href={file('csv')} download>
            As a table (CSV)
          </Anchor>
          <Anchor size="sm" href={file('page')} download>
            As a page (CommonMark)
          </Anchor>
        </>
      }
      isBegun
      onClose={onClose}
    >
      <div className={styles.report}>
        <ul className={styles.counts} aria-label="What was done">
          {countsInWords(counts).map(({ count, words }) => (
            <li key={words}>
              <b>{count}</b> {words}
            </li>
          ))}
        </ul>
        <div className={styles.scroll} tabIndex={0}>
          <Table stickyHeader verticalSpacing={4} layout="fixed">
            <Table.Thead>
              <Table.Tr>
                <Table.Th>Topic</Table.Th>
                <Table.Th>What happened</Table.Th>
                <Table.Th>Why</Table.Th>
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {rows.slice(0, SHOWN).map((row, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: two topics can go into one, and rows stay in their order.
                <Table.Tr key={i}>
                  <Table.Td className={styles.text}>
                    <span className={`${styles.hue} ${hueOf(row.from.id)}`} /> {row.text || 'Untitled'}
                  </Table.Td>
                  <Table.Td className={styles.text}>
                    {ACT_WORDS[row.act]} {row.act !== 'leave' && (row.at || 'Untitled')}
                    {row.taken.length > 0 && `, with its ${row.taken.join(', ')}`}
                  </Table.Td>
                  <Table.Td className={styles.text}>
                    {row.sure === null ? row.why : `${Math.round(row.sure * 100)} % sure: ${row.why}`}
                  </Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
          {rows.length > SHOWN && (
            <Text p="sm">and {rows.length - SHOWN} more; all of them are in the files above.</Text>
          )}
        </div>
        <Group gap="sm" className={styles.foot} justify="flex-end">
          <Text size="sm" className={styles.outcome}>
            On the map, bars tell where each topic came from until you put them away.
          </Text>
          <Button
            variant="default"
            onClick={() => {
              void session.takeBack('undo')
              onClose()
            }}
          >
            Take it all back
          </Button>
          <Button onClick={onClose} data-autofocus>
            Done
          </Button>
        </Group>
      </div>
    </FullWindow>
  )
}
