import { ActionIcon, Button, Checkbox, Loader, Select, Text, TextInput, Tooltip } from '@mantine/core'
import { IconChevronDown, IconChevronUp, IconLink } from '@tabler/icons-react'
import { useCallback, useMemo, useState } from 'react'
import { splitOffAll } from '../../core/commands/split-off'
import { crowdingWords } from '../../core/crowding/crowding'
import { isLegible } from '../../core/crowding/legibility'
import { limitsOf } from '../../core/crowding/piece-cost'
import type { MapAfter } from '../../core/crowding/propose-split'
import {
  canSplit,
  keyOfPart,
  moveCut,
  movedCut,
  type PartFigures,
  proposeRow,
  type ReviewRow,
  toggleBranch,
} from '../../core/crowding/split-review'
import { toneClass } from '../../core/look/families'
import { type MapId, TopicId } from '../../core/records/ids'
import { MAX_TITLE } from '../../core/records/text'
import { counted } from '../../core/text/counted'
import { topicsInOrder } from '../../core/tree/walk'
import { FullWindow } from '../app/FullWindow'
import { useMayEdit, useSession } from '../sync/use-session'
import { tellHappened } from '../workspace/happened'
import { workspace } from '../workspace/workspace-store'
import { MapPicture, partHue } from './MapPicture'
import styles from './split.module.css'
import { useReview } from './use-review'

const hueClass = (number: number) => toneClass('spruce', partHue(number))
const px = (value: number) => String(Math.max(1, Math.floor(value)))

/** Which branches of a map could become maps of their own, and what it would be before and after: seen before anything is done. */
export default function SplitReview({ map, onClose }: { map: MapId; onClose(): void }) {
  const session = useSession()
  const mayEdit = useMayEdit()
  const { rows, isReady, setRows, now, after, figures, partOf, taken, marksBefore, marksAfter } = useReview(
    session,
    map,
  )
  const [lit, setLit] = useState<number | null>(null)
  const { whole, crowding } = now
  const numberOf = (row: ReviewRow) => rows.indexOf(row) + 1
  const propose = (topic: string) => setRows(proposedAt(session.records, rows, topic))
  const split = () => {
    const parts = rows.filter(({ isTaken }) => isTaken).map(({ part }) => part)
    const doorways = session.run((records, newIds) => splitOffAll(records, { parts }, newIds))
    if (!doorways) return
    onClose()
    tellHappened(`Split off ${counted(parts.length, 'branch', 'branches')} of ${whole.name}.`, [
      { name: 'Undo', go: () => void session.takeBack('undo') },
    ])
    workspace.show(0, 'all')
  }
  const count = rows.filter(({ isTaken }) => isTaken).length
  return (
    <FullWindow
      label="Split review"
      title={`${whole.name} ${crowding.isCrowded ? `is hard to read: ${crowdingWords(crowding)}` : 'can be read as it is'}`}
      onClose={onClose}
    >
      <div className={styles.review}>
        <div className={styles.sides}>
          <section className={styles.side} aria-label="Today">
            <h2>Today. Press a branch to propose it; draw over neighbours to make one map of them.</h2>
            <div className={styles.whole}>
              <MapPicture
                layout={whole.layout}
                partOf={partOf}
                lit={lit}
                marks={marksBefore}
                onPick={propose}
                onDraw={(from, to) =>
                  setRows(proposeRow(session.records, rows, TopicId.parse(from), TopicId.parse(to)))
                }
                label={`${whole.name} as it is today`}
              />
            </div>
          </section>
          <section className={styles.side} aria-label="After">
            <h2>After</h2>
            {after && (
              <div className={styles.after}>
                <div className={styles.parent}>
                  <Plate map={after.maps[0]!} number={null} marks={marksAfter} />
                </div>
                <ul className={styles.plates}>
                  {after.maps.slice(1).map((made, i) => (
                    <li
                      key={keyOfPart(taken[i]!.part)}
                      className={`${styles.plate} ${hueClass(taken[i]!.number)}`}
                      data-lit={lit === taken[i]!.number || undefined}
                      onPointerEnter={() => setLit(taken[i]!.number)}
                      onPointerLeave={() => setLit(null)}
                    >
                      <Plate map={made} number={taken[i]!.number} />
                    </li>
                  ))}
                </ul>
              </div>
            )}
          </section>
        </div>
        <div className={styles.figures} role="status">
          {after && <Figures before={whole} after={after.maps} between={after.between} />}
        </div>
        <ul className={styles.rows} aria-label="What could be split off">
          {!isReady && (
            <li>
              <Loader size="sm" aria-label="Looking for what could be split off" />
            </li>
          )}
          {isReady && rows.length === 0 && (
            <li>
              <Text c="dimmed" py="sm">
                {crowding.isCrowded
                  ? 'Nothing here could be split off so that it is easier to read. Press a branch above to try it.'
                  : 'Nothing has to be split off. Press a branch above to see what it would be by itself.'}
              </Text>
            </li>
          )}
          {rows.map((row) => (
            <Row
              key={keyOfPart(row.part)}
              row={row}
              number={numberOf(row)}
              figures={figures.get(keyOfPart(row.part))}
              onPoint={setLit}
              onChange={(changed) => setRows(rows.map((other) => (other === row ? changed : other)))}
              onMove={(way) => setRows(moveCut(session.records, rows, row, way))}
            />
          ))}
        </ul>
        <div className={styles.foot}>
          <ProposeSelect map={map} rows={rows} propose={propose} />
          <span className={styles.grow} />
          <Button variant="default" onClick={onClose}>
            Cancel
          </Button>
          <Button disabled={!mayEdit || count === 0 || !after} onClick={split}>
            {count === 0 ? 'Split off' : `Split off ${counted(count, 'branch', 'branches')}`}
          </Button>
        </div>
      </div>
    </FullWindow>
  )
}

/** The branch that is meant by a topic: its own, or where it has none the one on which it hangs. */
function proposedAt(records: Parameters<typeof toggleBranch>[0], rows: readonly ReviewRow[], id: string): ReviewRow[] {
  let topic = records.get('topic', id)
  if (topic && !canSplit(records, topic) && 'parent' in topic.place) topic = records.get('topic', topic.place.parent)
  return topic ? toggleBranch(records, rows, topic.id) : [...rows]
}

const PartNumber = ({ number }: { number: number }) => (
  <span className={`${styles.number} ${hueClass(number)}`}>{number}</span>
)

/** One of the maps that there would be: its shape, name, size, and whether it can be read. */
function Plate({ map, number, marks }: { map: MapAfter; number: number | null; marks?: ReadonlyMap<string, number> }) {
  // All that is of one part has its hue; on the map that stays, its doorway.
  const partOf = useCallback((topic: string) => number ?? marks?.get(topic), [number, marks])
  const limits = limitsOf(useSession().records)
  const isCrowded = !isLegible(map, limits) || map.topics > limits.limit
  return (
    <>
      <span className={styles.plateName} title={map.name}>
        {number !== null && <PartNumber number={number} />}
        <span>{map.name}</span>
      </span>
      <span className={styles.platePicture}>
        <MapPicture layout={map.layout} partOf={partOf} marks={marks} label={`${map.name} as it would be`} />
      </span>
      <span className={styles.plateFigures} data-warn={isCrowded || undefined}>
        {counted(map.topics, 'topic', 'topics')}, text {px(map.px)} px{isCrowded ? ', still hard to read' : ''}
      </span>
    </>
  )
}

function Figures({ before, after, between }: { before: MapAfter; after: readonly MapAfter[]; between: number }) {
  const largest = Math.max(...after.map(({ topics }) => topics))
  const smallest = Math.min(...after.map((each) => each.px))
  const figures: [string, string, string][] = [
    ['largest map', `${before.topics}`, counted(largest, 'topic', 'topics')],
    ['smallest text when fitted', px(before.px), `${px(smallest)} px`],
    ['links between these maps', '0', `${between}`],
    ['maps', '1', `${after.length}`],
  ]
  return figures.map(([name, was, is]) => (
    <span key={name}>
      {name} <b>{was}</b> → <b>{is}</b>
    </span>
  ))
}

interface RowProps {
  row: ReviewRow
  number: number
  figures: PartFigures | undefined
  onPoint(number: number | null): void
  onChange(row: ReviewRow): void
  onMove(way: 'up' | 'down'): void
}

/** A proposal: to be taken or left, named, and cut elsewhere. */
function Row({ row, number, figures, onPoint, onChange, onMove }: RowProps) {
  const { records } = useSession()
  const [open, setOpen] = useState(false)
  const { part, isTaken } = row
  const nameOf = (id: TopicId) => records.get('topic', id)?.text || 'Untitled'
  const leaving = figures?.leaving ?? []
  return (
    <li
      className={styles.row}
      data-left={!isTaken || undefined}
      onPointerEnter={() => onPoint(number)}
      onPointerLeave={() => onPoint(null)}
    >
      <Checkbox
        checked={isTaken}
        aria-label={`Split off ${part.name}`}
        onChange={(event) => onChange({ ...row, isTaken: event.currentTarget.checked })}
        onFocus={() => onPoint(number)}
        onBlur={() => onPoint(null)}
      />
      <PartNumber number={number} />
      <TextInput
        size="xs"
        aria-label={`Name of map ${number}`}
        value={part.name}
        maxLength={MAX_TITLE}
        onChange={(event) => onChange({ ...row, part: { ...part, name: event.currentTarget.value } })}
      />
      <span className={styles.reason}>{figures && reasonOf(part, figures)}</span>
      <span className={styles.ways}>
        {leaving.length > 0 && (
          <Tooltip label="The links that would lead from map to map">
            <ActionIcon
              variant="subtle"
              color="gray"
              aria-label={`Links of ${part.name}`}
              aria-expanded={open}
              onClick={() => setOpen(!open)}
            >
              <IconLink size={16} />
            </ActionIcon>
          </Tooltip>
        )}
        {(['up', 'down'] as const).map((way) => (
          <Tooltip
            key={way}
            label={
              way === 'up'
                ? 'Cut one level higher: more comes along'
                : 'Cut one level lower: its branches, each by itself'
            }
          >
            <ActionIcon
              variant="subtle"
              color="gray"
              aria-label={`Cut ${part.name} one level ${way === 'up' ? 'higher' : 'lower'}`}
              disabled={movedCut(records, row, way).length === 0}
              onClick={() => onMove(way)}
            >
              {way === 'up' ? <IconChevronUp size={16} /> : <IconChevronDown size={16} />}
            </ActionIcon>
          </Tooltip>
        ))}
      </span>
      {open && (
        <ul className={styles.links}>
          {leaving.map(({ id, from, to }) => (
            <li key={id}>
              {nameOf(from)} → {to.kind === 'topic' ? nameOf(to.id) : ''}
            </li>
          ))}
        </ul>
      )}
    </li>
  )
}

function reasonOf(part: ReviewRow['part'], { topics, share, leaving }: PartFigures): string {
  const parts = [
    counted(topics, 'topic', 'topics'),
    `${Math.round(share * 100)} % of the map`,
    ...('row' in part ? [`${part.row.length} neighbours, under a new topic of this name`] : []),
  ]
  const links =
    leaving.length === 0 ? 'no link leaves it' : `${counted(leaving.length, 'link leaves', 'links leave')} it`
  return `${parts.join(', ')}; ${links}`
}

/** Proposes a branch by its name, for who does not press it in the picture. */
function ProposeSelect({
  map,
  rows,
  propose,
}: {
  map: MapId
  rows: readonly ReviewRow[]
  propose(topic: string): void
}) {
  const { records, sceneVersion } = useSession()
  // biome-ignore lint/correctness/useExhaustiveDependencies: the records change in place; the version tells when.
  const branches = useMemo(
    () => [...topicsInOrder(records, map)].filter((topic) => canSplit(records, topic)),
    [records, map, sceneVersion],
  )
  const proposed = new Set<string>(rows.map(({ part }) => keyOfPart(part)))
  return (
    <Select
      size="sm"
      aria-label="Propose another branch"
      placeholder="Propose another branch …"
      searchable
      limit={50}
      value={null}
      data={branches
        .filter(({ id }) => !proposed.has(id))
        .map(({ id, text }) => ({ value: id, label: text.split('\n', 1)[0]!.slice(0, 80) || 'Untitled' }))}
      nothingFoundMessage="No branch of this name"
      onChange={(topic) => topic && propose(topic)}
      comboboxProps={{ position: 'top-start' }}
    />
  )
}
