import { Accordion, Skeleton } from '@mantine/core'
import { memo, Suspense, useCallback, useEffect } from 'react'
import type { TopicId } from '../../core/records/ids'
import { levelOf } from '../../core/tree/walk'
import { late } from '../app/late'
import type { CollectionSession } from '../sync/collection-session'
import { useCalmPart } from '../sync/use-session'
import { CloseColumn } from '../workspace/CloseColumn'
import { backToFace } from '../workspace/take-focus'
import workspaceStyles from '../workspace/workspace.module.css'
import { type Section, type SheetField, useCalmWorkspace, workspace } from '../workspace/workspace-store'
import { holds } from './holds'
import { NoteSection } from './NoteSection'
import styles from './sheet.module.css'

const CommentsSection = late(() => import('../comments/CommentsSection'))
const DatesSection = late(() => import('./DatesSection'), 'soon')
const FilesSection = late(() => import('./FilesSection'), 'soon')
const LinksSection = late(() => import('./LinksSection'), 'soon')
const LayoutSection = late(() => import('./LayoutSection'), 'soon')
const MarksSection = late(() => import('./MarksSection'), 'soon')
const LookSection = late(() => import('./look/LookSection'), 'soon')

/** In the order of use. */
const SECTION_NAMES: Record<Section, string> = {
  note: 'Note',
  files: 'Files',
  links: 'Links',
  dates: 'Dates and task',
  marks: 'Badges, tags, picture',
  comments: 'Comments',
  layout: 'Layout',
  look: 'Look',
}

/** The name of a section with what it holds, to be read while it is closed; quiet where it holds nothing. */
const SectionHead = ({ name, holds }: { name: string; holds: string }) => (
  <Accordion.Control data-empty={holds === '' || undefined} className={styles.section}>
    <span className={styles.sectionHead}>
      <span>{name}</span> <span className={styles.holds}>{holds}</span>
    </span>
  </Accordion.Control>
)

const SECTIONS = Object.keys(SECTION_NAMES) as Section[]
const NONE: readonly TopicId[] = []

/** What the sheet shows of the selected topics, as of now; its sections ask for the rest. */
function sheetOf(session: CollectionSession, selected: readonly TopicId[]) {
  const { records } = session
  const topics = selected.flatMap((id) => records.get('topic', id) ?? [])
  const topic = records.get('topic', selected.at(-1) ?? null)
  return {
    topics,
    topic,
    level: topic ? levelOf(records, topic) : 0,
    mapTitle: topic ? session.titleOf(topic.place.map) : '',
    held: topic ? SECTIONS.map((section) => holds(records, section, topics)) : [],
  }
}

/** How long what a section holds may take until it is there, in ms. */
const ARRIVAL_MS = 1_500

const PRESSED_OR_WRITTEN = 'input:not([disabled]), textarea, button'

/** Brings a section into view, and once more when what it holds has arrived. */
function keepInView(section: Section): void {
  const item = document.getElementById(`sheet-${section}`)
  if (!item) return
  const observer = new ResizeObserver(() => item.scrollIntoView({ block: 'nearest' }))
  observer.observe(item)
  setTimeout(() => observer.disconnect(), ARRIVAL_MS)
}

/**
 * Gives the keyboard to a field of a section when it is there; where it never comes, as for who may only read, to the section's
 * head. Gives the way to give up.
 */
function whenThere(section: Section, field: SheetField, met: () => void): () => void {
  const item = document.getElementById(`sheet-${section}`)
  const focus = (to: Element | null | undefined) => {
    if (!(to instanceof HTMLElement)) return false
    end()
    to.focus()
    met()
    return true
  }
  const look = () => {
    const part = item?.querySelector(`[data-leads="${field}"]`)
    return focus(part?.matches(PRESSED_OR_WRITTEN) ? part : part?.querySelector(PRESSED_OR_WRITTEN))
  }
  const observer = new MutationObserver(look)
  const timer = setTimeout(() => focus(item?.querySelector('button')), ARRIVAL_MS)
  const end = () => {
    observer.disconnect()
    clearTimeout(timer)
  }
  if (!look() && item) observer.observe(item, { childList: true, subtree: true })
  return end
}

/** All that belongs to the selected topic, in one scroll of sections that fold. */
export const TopicSheet = memo(() => {
  const { panes, active, section, sections } = useCalmWorkspace()
  const selected = panes[active]?.selected ?? NONE
  const { topics, topic, level, held, mapTitle } = useCalmPart(
    useCallback((session: CollectionSession) => sheetOf(session, selected), [selected]),
  )
  useEffect(() => {
    if (!section) return undefined
    keepInView(section.name)
    // The note is met by who writes in it, when it has the keyboard.
    if (section.field === 'note') return undefined
    const met = () => workspace.metSection(section.request)
    return section.field === null ? met() : whenThere(section.name, section.field, met)
  }, [section])

  if (!topic) return null
  const unfold = (unfolded: Section[]) => {
    workspace.unfoldSections(unfolded)
    for (const opened of unfolded) if (!sections.includes(opened)) keepInView(opened)
  }
  const several = topics.length > 1
  const head = (section: Section) => (
    <SectionHead name={SECTION_NAMES[section]} holds={held[SECTIONS.indexOf(section)] ?? ''} />
  )
  const lastOf = several && <p className={styles.lastOf}>Of {topic.text || 'Untitled'}, which was selected last.</p>
  return (
    <aside className={workspaceStyles.right} data-column="sheet" aria-label="Topic sheet">
      <CloseColumn label="Close the topic sheet" close={() => workspace.openSheet(false)} />
      <h2 className={styles.title} dir="auto">
        {several ? `${topics.length} topics` : topic.text || 'Untitled'}
      </h2>
      {!several && panes[active]?.map !== topic.place.map && (
        <p className={styles.standsIn}>
          Stands in{' '}
          <button type="button" className={styles.jump} onClick={() => workspace.go(active, topic.place.map, topic.id)}>
            {mapTitle}
          </button>
        </p>
      )}
      {several && <p className={styles.names}>{topics.map(({ text }) => text || 'Untitled').join(' · ')}</p>}
      <Accordion
        multiple
        value={[...sections]}
        onChange={(unfolded) => unfold(unfolded as Section[])}
        variant="default"
        chevronPosition="left"
        transitionDuration={0}
      >
        <Accordion.Item value="note" id="sheet-note">
          {head('note')}
          <Accordion.Panel>
            {lastOf}
            <NoteSection
              topic={topic}
              focusRequest={section?.name === 'note' ? section.request : 0}
              onFocused={workspace.metSection}
              leave={backToFace}
            />
          </Accordion.Panel>
        </Accordion.Item>
        <Accordion.Item value="files" id="sheet-files">
          {head('files')}
          <Accordion.Panel>
            {lastOf}
            {sections.includes('files') && (
              <Suspense fallback={<Skeleton height={60} />}>
                <FilesSection topic={topic} />
              </Suspense>
            )}
          </Accordion.Panel>
        </Accordion.Item>
        <Accordion.Item value="links" id="sheet-links">
          {head('links')}
          <Accordion.Panel>
            {lastOf}
            {sections.includes('links') && (
              <Suspense fallback={<Skeleton height={40} />}>
                <LinksSection topic={topic} pane={active} />
              </Suspense>
            )}
          </Accordion.Panel>
        </Accordion.Item>
        <Accordion.Item value="dates" id="sheet-dates">
          {head('dates')}
          <Accordion.Panel>
            {sections.includes('dates') && (
              <Suspense fallback={<Skeleton height={120} />}>
                <DatesSection key={topic.id} topics={topics} />
              </Suspense>
            )}
          </Accordion.Panel>
        </Accordion.Item>
        <Accordion.Item value="marks" id="sheet-marks">
          {head('marks')}
          <Accordion.Panel>
            {sections.includes('marks') && (
              <Suspense fallback={<Skeleton height={60} />}>
                <MarksSection topic={topic} topics={topics} />
              </Suspense>
            )}
          </Accordion.Panel>
        </Accordion.Item>
        <Accordion.Item value="comments" id="sheet-comments">
          {head('comments')}
          <Accordion.Panel>
            {lastOf}
            {sections.includes('comments') && (
              <Suspense fallback={<Skeleton height={60} />}>
                <CommentsSection topic={topic} />
              </Suspense>
            )}
          </Accordion.Panel>
        </Accordion.Item>
        <Accordion.Item value="layout" id="sheet-layout">
          {head('layout')}
          <Accordion.Panel>
            {lastOf}
            {sections.includes('layout') && (
              <Suspense fallback={<Skeleton height={80} />}>
                <LayoutSection topic={topic} />
              </Suspense>
            )}
          </Accordion.Panel>
        </Accordion.Item>
        <Accordion.Item value="look" id="sheet-look">
          {head('look')}
          <Accordion.Panel>
            {sections.includes('look') && (
              <Suspense fallback={<Skeleton height={140} />}>
                <LookSection key={topic.id} topic={topic} topics={topics} level={level} />
              </Suspense>
            )}
          </Accordion.Panel>
        </Accordion.Item>
      </Accordion>
    </aside>
  )
})
TopicSheet.displayName = 'TopicSheet'
