import { Alert, Button, Group, Loader, MultiSelect, SegmentedControl, Text } from '@mantine/core'
import { type KeyboardEvent, useCallback, useMemo, useState } from 'react'
import type { MergeReport } from '../../core/commands/merge-maps'
import { toneClass } from '../../core/look/families'
import { type Decision, meantIn, ROOTS } from '../../core/matching/decisions'
import { mergeResult } from '../../core/matching/merge-result'
import type { MapId } from '../../core/records/ids'
import { tell, wordsFor } from '../app/api'
import { FullWindow } from '../app/FullWindow'
import { sayWhen } from '../app/when'
import { useSession } from '../sync/use-session'
import { useWorkspace, workspace } from '../workspace/workspace-store'
import { DecisionCard } from './DecisionCard'
import { DecisionList } from './DecisionList'
import { FromCollection } from './FromCollection'
import { FromFile } from './FromFile'
import { MergeFoot } from './MergeFoot'
import styles from './merge.module.css'
import { conflictsIn, KINDS, type Kind, kindOf } from './merge-plan'
import { showOrigins } from './origins'
import { Report } from './Report'
import { ResultView } from './ResultView'
import { forgetReopening, useReopened } from './reopened'
import { SourcePart } from './SourcePart'
import { useMerge } from './use-merge'

/** The merge plan: what would become of each topic, the decision at hand, and the result beside it; then the report. */
export default function MergeScreen({
  target,
  chosen,
  onClose,
}: {
  target: MapId
  /** The maps that are chosen to begin with. */
  chosen: readonly MapId[] | undefined
  onClose(): void
}) {
  const session = useSession()
  const active = useWorkspace((state) => state.active)
  const merge = useMerge(target, chosen)
  const { asked, answer, change, say, choose } = merge
  const [kind, setKind] = useState<Kind | null>(null)
  const [at, setAt] = useState(0)
  const [report, setReport] = useState<{ report: MergeReport; change: string; title: string } | null>(null)
  const [busy, setBusy] = useState(false)
  /** Maps that came in from files or other collections here. */
  const [brought, setBrought] = useState(0)
  const others = session.maps.filter((map) => !map.trashed && map.id !== target)
  const titleOf = useCallback((map: string) => session.titleOf(map), [session])
  const numberOf = useCallback(
    (map: string) => (map === target ? 0 : asked.sources.indexOf(map as MapId) + 1),
    [target, asked.sources],
  )
  const hueOf = useCallback((map: string) => toneClass('spruce', numberOf(map) % 8), [numberOf])
  useReopened(session.id, target)

  const lists = useMemo(() => {
    const found: Record<Kind, Decision[]> = { decide: [], same: [], conflict: [], apart: [], only: [], left: [] }
    for (const decision of answer?.plan.decisions ?? []) {
      found[kindOf(decision, asked)].push(decision)
      if (answer && conflictsIn(answer, decision).length > 0) found.conflict.push(decision)
    }
    return found
  }, [answer, asked])
  const counts = Object.fromEntries(Object.entries(lists).map(([name, { length }]) => [name, length])) as Record<
    Kind,
    number
  >
  const shownKind = kind ?? (counts.decide > 0 ? 'decide' : 'same')
  const shown = lists[shownKind]
  const decision = shown[Math.min(at, shown.length - 1)]
  const isHeld = session.isOpen(target)
  const result = useMemo(
    () =>
      answer && isHeld
        ? mergeResult(session.records, answer.plan, (id) => answer.topics[id] ?? { text: '', map: target })
        : [],
    [answer, isHeld, session, target],
  )
  const inCommon = counts.same - asked.sources.length
  const hasLittle = asked.way === 'combined' && answer && inCommon < 1 && answer.plan.decisions.length > 5

  const press = (event: KeyboardEvent) => {
    if ((event.target as Element).closest('input, textarea, [role="option"], [role="listbox"]')) return
    if (event.key === 'ArrowDown') setAt(Math.min(at + 1, Math.max(0, shown.length - 1)))
    else if (event.key === 'ArrowUp') setAt(Math.max(0, Math.min(at, shown.length - 1) - 1))
    else if (event.key === 'Enter' && decision?.act === 'add' && decision.likely && !isButton(event))
      say(decision.source, decision.likely.into)
    else if (event.key === 'Backspace' && decision && isAskable(decision)) say(decision.source, null)
    else return
    event.preventDefault()
  }
  const carryOut = async () => {
    if (!answer) return
    setBusy(true)
    const { title, isNew, sourcesThen, linksFollow } = asked
    const manner = { title: title.trim() === '' ? null : title.trim(), isNew, sourcesThen, linksFollow }
    const done = await session.server.command('merge', { plan: { ...answer.plan, manner } })
    setBusy(false)
    if (!done) return merge.planAgain()
    const told = done.report as MergeReport
    merge.forget()
    forgetReopening()
    showOrigins(told)
    setReport({ report: told, change: done.change.id, title: manner.title ?? session.titleOf(target) })
  }
  /** Takes maps over that were just brought in for it: once they are merged, nobody needs them. */
  const bringIn = (maps: readonly MapId[]) => {
    setBrought(brought + maps.length)
    change({ sources: [...asked.sources, ...maps], ...(asked.sources.length === 0 ? { sourcesThen: 'trash' } : {}) })
  }
  const close = () => {
    forgetReopening()
    onClose()
    if (!report && brought > 0)
      tell(`What was brought in stays as ${brought === 1 ? 'a map' : 'maps'}. Undo takes it away again.`)
    if (report && report.report.result !== target) workspace.go(active, report.report.result, null)
  }
  const title = session.titleOf(target)
  if (report) return <Report collection={session.id} {...report} hueOf={hueOf} onClose={close} />
  return (
    <FullWindow
      label="Merge plan"
      title={
        <>
          {session.mayEdit ? 'Merge into' : 'Compare with'} <span className={`${styles.hue} ${hueOf(target)}`} />{' '}
          {title}
        </>
      }
      beside={merge.isPlanning && <Loader size={16} aria-label="Planning" />}
      isBegun={asked.sources.length === 0}
      onClose={close}
      onKeyDown={press}
    >
      <div className={styles.screen}>
        <Group gap="sm" className={styles.sources} align="flex-end">
          <MultiSelect
            className={styles.choice}
            size="xs"
            label="Maps to take over"
            placeholder={asked.sources.length === 0 ? 'Choose one or more maps' : ''}
            data={others.map((map) => ({ value: map.id, label: map.title || 'Untitled' }))}
            value={[...asked.sources]}
            onChange={(value) =>
              change({
                sources: value as MapId[],
                parts: asked.parts.filter(([map]) => value.includes(map)),
              })
            }
            searchable
            data-autofocus={asked.sources.length === 0 || undefined}
          />
          {session.mayEditAll && <FromFile onBrought={bringIn} />}
          {session.mayEditAll && <FromCollection onBrought={bringIn} />}
          {answer?.plan.sources.map((map) => (
            <SourcePart key={map} map={map} hue={hueOf(map)} asked={asked} answer={answer} change={change} />
          ))}
          <SegmentedControl
            size="xs"
            aria-label="How"
            value={asked.way}
            data={[
              { value: 'combined', label: 'combined' },
              { value: 'beside', label: 'side by side' },
            ]}
            onChange={(way) => change({ way: way === 'beside' ? 'beside' : 'combined' })}
          />
        </Group>
        <div className={styles.told}>
          {merge.kept && (
            <Group gap="sm">
              <Text size="sm">
                Your plan of {sayWhen(merge.kept.at)} goes on
                {merge.since ? `. Since then: ${merge.since}.` : '.'}
              </Text>
              <Button size="compact-xs" variant="default" onClick={merge.beginAnew}>
                Begin anew
              </Button>
            </Group>
          )}
          {merge.error && <Alert color="ember">{wordsFor(merge.error)}</Alert>}
          {hasLittle && (
            <Alert color="ember">These maps have next to nothing in common. Side by side may suit them better.</Alert>
          )}
        </div>
        {answer && decision !== undefined ? (
          <div className={styles.columns}>
            <DecisionList
              answer={answer}
              kind={shownKind}
              counts={counts}
              setKind={(next) => {
                setKind(next)
                setAt(0)
              }}
              shown={shown}
              at={Math.min(at, shown.length - 1)}
              go={setAt}
              hueOf={hueOf}
            />
            <section className={styles.middle} aria-label="The decision at hand">
              <DecisionCard
                key={decision.source}
                answer={answer}
                asked={asked}
                decision={decision}
                titleOf={titleOf}
                hueOf={hueOf}
                say={say}
                choose={choose}
              />
            </section>
            <ResultView
              rows={result}
              at={decision.act === 'join' ? decision.into : decision.source}
              title={asked.title}
              hueOf={hueOf}
              numberOf={numberOf}
            />
          </div>
        ) : (
          <div className={styles.empty}>
            {answer ? (
              <>
                <Text>None of them is in “{KINDS[shownKind]}”.</Text>
                <Button variant="default" onClick={() => setKind(null)}>
                  Show the others
                </Button>
              </>
            ) : (
              <Text>
                {others.length === 0
                  ? 'There is no other map in this collection yet.'
                  : merge.isPlanning
                    ? 'Looking for what the maps have in common'
                    : 'Choose the maps that should come into this one. Nothing is changed before you press Merge.'}
              </Text>
            )}
          </div>
        )}
        <MergeFoot
          title={title}
          asked={asked}
          change={change}
          outcome={answer ? outcomeOf(counts.same, counts.decide + counts.apart + counts.only, counts.decide) : ''}
          isReady={answer !== null && !merge.isPlanning}
          isBusy={busy}
          onMerge={() => void carryOut()}
        />
      </div>
    </FullWindow>
  )
}

const outcomeOf = (joined: number, added: number, open: number): string =>
  `${joined} joined, ${added} added${open === 0 ? '' : open === 1 ? '; 1 that is not decided stays two topics' : `; ${open} that are not decided stay two topics`}`

const isButton = ({ target }: KeyboardEvent) => (target as Element).closest('button') !== null
/** Whether a person can say that both are two topics. */
const isAskable = (decision: Decision) => (meantIn(decision)?.why ?? ROOTS) !== ROOTS
