import { Anchor, Button, Table, VisuallyHidden } from '@mantine/core'
import { isFollowable } from '../../core/records/weblink'
import { RowSpace, useRowsInView } from '../app/rows-in-view'
import { useSession } from '../sync/use-session'
import type { Place } from './ledger-schema'
import styles from './links.module.css'
import { addressOf, type Facet, type Row } from './rows'

interface Props {
  rows: readonly Row[]
  facet: Facet
  isBusy: boolean
  change(command: string, args: object): void
}

const linkEnds = ({ from, to }: Row) => ({
  name: 'Link',
  command: 'link',
  args: { from: from.topic, to: { kind: 'topic', id: to?.topic }, drawn: 'quiet' },
})

/** What can be done with a row of a facet: its name, and the command with what it is told. */
const ACTS: Record<Facet, ((row: Row) => { name: string; command: string; args: object }) | null> = {
  drawn: ({ key }) => ({ name: 'Make quiet', command: 'draw-links', args: { crosslinks: [key], drawn: 'quiet' } }),
  quiet: ({ key }) => ({ name: 'Draw', command: 'draw-links', args: { crosslinks: [key], drawn: 'line' } }),
  broken: ({ key }) => ({ name: 'Remove', command: 'remove-links', args: { crosslinks: [key] } }),
  named: linkEnds,
  close: linkEnds,
  overlaps: linkEnds,
  stale: null,
  web: null,
}

/** Links as a table, of which only the rows in view are in the page. */
export function LedgerTable({ rows, facet, isBusy, change }: Props) {
  const session = useSession()
  const { body, visible, before, after, measure } = useRowsInView(rows.length, (index) => rows[index]!.key)
  const actOn = ACTS[facet]
  return (
    <Table.ScrollContainer minWidth={300}>
      <Table highlightOnHover layout="fixed" aria-rowcount={rows.length + 1}>
        <Table.Thead>
          <Table.Tr>
            <Table.Th>From</Table.Th>
            <Table.Th>To</Table.Th>
            <Table.Th visibleFrom="sm">How</Table.Th>
            <Table.Th w={facet === 'drawn' || facet === 'quiet' || facet === 'broken' ? 130 : 170}>
              <VisuallyHidden>What can be done</VisuallyHidden>
            </Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody ref={body}>
          <RowSpace height={before} columns={4} />
          {visible.map(({ index }) => {
            const row = rows[index]!
            const act = session.mayEdit && actOn ? actOn(row) : null
            return (
              <Table.Tr key={row.key} ref={measure} data-index={index} aria-rowindex={index + 2}>
                <Table.Td>
                  <PlaceLink place={row.from} beside={row.to} text={row.from.text} />
                </Table.Td>
                <Table.Td>
                  {row.to ? (
                    <PlaceLink place={row.to} beside={row.from} text={row.toWords} />
                  ) : row.url && isFollowable(row.url) ? (
                    <Anchor href={row.url} target="_blank" rel="noreferrer" className={styles.place}>
                      {row.toWords}
                    </Anchor>
                  ) : (
                    <span className={styles.place}>{row.toWords}</span>
                  )}
                </Table.Td>
                <Table.Td visibleFrom="sm" className={styles.place}>
                  {row.how}
                </Table.Td>
                <Table.Td ta="right">
                  {session.mayEdit && facet === 'overlaps' && row.to && row.to.map !== row.from.map && (
                    <Button
                      size="compact-sm"
                      variant="subtle"
                      component="a"
                      href={`/c/${session.id}/m/${row.from.map}?merge=${row.to.map}`}
                      aria-label={`Merge ${session.titleOf(row.to.map)} into ${session.titleOf(row.from.map)} …`}
                    >
                      Merge …
                    </Button>
                  )}
                  {session.mayEdit && (facet === 'named' || facet === 'close') && row.from.topic && row.to?.topic && (
                    <Button
                      size="compact-sm"
                      variant="subtle"
                      color="gray"
                      c="var(--quiet-ink)"
                      disabled={isBusy}
                      aria-label={`Ignore: ${row.from.text} and ${row.toWords}`}
                      onClick={() => change('tell-apart', { a: row.from.topic, b: row.to?.topic })}
                    >
                      Ignore
                    </Button>
                  )}
                  {act && (
                    <Button
                      size="compact-sm"
                      variant="subtle"
                      disabled={isBusy}
                      aria-label={`${act.name}: ${row.from.text} and ${row.toWords}`}
                      onClick={() => change(act.command, act.args)}
                    >
                      {act.name}
                    </Button>
                  )}
                </Table.Td>
              </Table.Tr>
            )
          })}
          <RowSpace height={after} columns={4} />
        </Table.Tbody>
      </Table>
    </Table.ScrollContainer>
  )
}

/** A place, with the map on which it stands; pressed, it is seen with the other one beside it. */
export function PlaceLink({ place, beside, text }: { place: Place; beside: Place | null; text: string }) {
  const session = useSession()
  return (
    <span className={styles.place}>
      <Anchor href={addressOf(session.id, place, beside)}>{text || 'Untitled'}</Anchor>
      <small>{session.titleOf(place.map)}</small>
    </span>
  )
}
