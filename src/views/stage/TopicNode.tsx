import { memo, type PointerEvent, useRef } from 'react'
import { badgeName, type Icons } from '../../core/badges/badges'
import { foldTopics } from '../../core/commands/fold-topics'
import type { Sign, TopicBox } from '../../core/layout/boxes'
import type { TopicRecord } from '../../core/records/topic'
import { type Drawing, px } from '../../core/scene/drawing'
import { signName } from '../../core/scene/signs'
import { drawTopic, isLate } from '../../core/scene/topic-drawing'
import { counted } from '../../core/text/counted'
import { calendarHere, sayDays } from '../app/when'
import { useSessionHandle } from '../sync/use-session'
import { framesOf } from '../workspace/told-of'
import { type Section, workspace } from '../workspace/workspace-store'
import { Drawn } from './Drawn'
import { positionAmong } from './position-among'
import styles from './stage.module.css'

const SECTION_OF: Record<Sign, Section> = {
  note: 'note',
  file: 'files',
  web: 'links',
  link: 'links',
  comment: 'comments',
  gathers: 'links',
  open: 'dates',
  begun: 'dates',
  done: 'dates',
}

interface Props {
  box: TopicBox
  pane: number
  selected: boolean
  editing: boolean
  /** Seen here only, as it would be. */
  proposed: boolean
  /** Left out by the filter: it steps back. */
  faded: boolean
  dropZone: 'into' | 'before' | 'after' | null
  siblings: readonly TopicRecord[] | null
  childCount: number
  icons: Icons
  /** Grows when the map has come to rest: then what was moved is drawn where it stands. */
  settled: number
  onPointerDown(event: PointerEvent, box: TopicBox): void
}

/**
 * The drawing of a topic, with where it was made. While a map is being worked on, a topic that only stands elsewhere is moved
 * as it is, since making it anew takes the browser ten times as long; once the map rests it is drawn in its place, because
 * browsers paint what has a transform as a layer of its own.
 */
function useDrawing(box: TopicBox, icons: Icons, settled: number) {
  const { pictureAddress } = useSessionHandle()
  const { face, hue, behind, x, y } = box
  const { today } = calendarHere()
  const given = [face, hue, behind, box.parent !== null, icons, pictureAddress, today] as const
  const made = useRef<{
    given: typeof given
    settled: number
    x: number
    y: number
    drawing: readonly Drawing[]
  } | null>(null)
  const known = made.current
  const isMoved = known !== null && (known.x !== x || known.y !== y)
  if (!known || given.some((value, i) => value !== known.given[i]) || (isMoved && known.settled !== settled))
    made.current = { given, settled, x, y, drawing: drawTopic(box, { icons, pictureAddress, today }) }
  else known.settled = isMoved ? known.settled : settled
  return made.current!
}

/** A topic on the stage: a real element with a role and a name, placed where the layout says. */
export const TopicNode = memo(
  ({
    box,
    pane,
    selected,
    editing,
    proposed,
    faded,
    dropZone,
    siblings,
    childCount,
    icons,
    settled,
    onPointerDown,
  }: Props) => {
    const session = useSessionHandle()
    const { topic } = box
    const { x, y, drawing } = useDrawing(box, icons, settled)
    const [dx, dy] = [px(box.x - x), px(box.y - y)]
    const position = siblings ? positionAmong(siblings, topic.id) : 1
    const extras = [
      ...(box.behind !== null ? [`opens a map with ${counted(box.behind, 'topic', 'topics')}`] : []),
      ...topic.badges.map(badgeName),
      ...box.face.tags.tags.map(({ name }) => `tagged ${name}`),
      ...(topic.picture ? ['with a picture'] : []),
      ...box.signs.map(({ sign, count }) => signName(sign, count, isLate(box, calendarHere().today))),
      ...(topic.dates ? [`dated ${sayDays(topic.dates)}`] : []),
      ...framesOf(session.records, topic.id),
    ]
    return (
      <g
        id={`topic-${pane}-${box.key}`}
        data-topic={topic.id}
        transform={dx === 0 && dy === 0 ? undefined : `translate(${dx} ${dy})`}
        className={styles.topic}
        data-selected={selected || undefined}
        data-faded={faded || undefined}
        data-proposed={proposed || undefined}
        role="treeitem"
        aria-label={[`${box.number ? `${box.number} ` : ''}${topic.text || 'Untitled'}`, ...extras].join(', ')}
        aria-level={box.level + 1}
        aria-posinset={position}
        aria-setsize={siblings?.length ?? 1}
        aria-selected={selected}
        aria-expanded={childCount > 0 ? !topic.folded || !box.parent : undefined}
        onPointerDown={(event) => onPointerDown(event, box)}
        onClick={(event) => {
          const target = event.target as Element
          const badge = target.closest('[data-badge]')?.getAttribute('data-badge')
          const sign = target.closest('[data-sign]')?.getAttribute('data-sign')
          if (badge && session.mayEdit) workspace.dialog({ kind: 'badge', topics: [topic.id], index: Number(badge) })
          else if (sign) {
            // What opens is that of this topic, also where others are selected with it.
            workspace.select(pane, [topic.id])
            workspace.openSection(SECTION_OF[sign as Sign] ?? 'links')
          } else if (target.closest('[data-fold]'))
            session.run((records, newIds) => foldTopics(records, { topics: [topic.id], folded: false }, newIds))
          else if (topic.opensMap && target.closest('.fold, .behind')) workspace.go(pane, topic.opensMap, null)
        }}
      >
        <rect
          x={px(x)}
          y={px(y)}
          width={px(box.width)}
          height={px(box.height)}
          className={styles.reach}
          rx={4}
          data-drop={dropZone ?? undefined}
        />
        {editing ? null : <Drawn drawing={drawing} />}
        {dropZone === 'before' && (
          <path d={`M${px(x)} ${px(y - 2)}H${px(x + box.width)}`} className={styles.dropLine} />
        )}
        {dropZone === 'after' && (
          <path d={`M${px(x)} ${px(y + box.height + 2)}H${px(x + box.width)}`} className={styles.dropLine} />
        )}
      </g>
    )
  },
)
TopicNode.displayName = 'TopicNode'
