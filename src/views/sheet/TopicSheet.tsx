import { Accordion, Skeleton } from '@mantine/core'
import { lazy, memo, Suspense, useEffect } from 'react'
import { incomingAt } from '../../core/network/crosslinks'
import { levelOf } from '../../core/tree/walk'
import { useCalmSession } from '../sync/use-session'
import { CloseColumn } from '../workspace/CloseColumn'
import workspaceStyles from '../workspace/workspace.module.css'
import { type Section, useCalmWorkspace, workspace } from '../workspace/workspace-store'
import { DatesSection } from './DatesSection'
import { FilesSection } from './FilesSection'
import { LayoutSection } from './LayoutSection'
import { LinksSection } from './LinksSection'
import { MarksSection } from './MarksSection'
import { NoteSection } from './NoteSection'
import styles from './sheet.module.css'

const LookSection = lazy(() => import('./look/LookSection'))

/** All that belongs to the selected topic, in one scroll of sections that fold. */
export const TopicSheet = memo(() => {
  const session = useCalmSession()
  const { panes, active, section, sections } = useCalmWorkspace()
  const pane = panes[active]
  const topic = session.records.get('topic', pane?.selected.at(-1) ?? null)
  useEffect(() => {
    if (!section) return
    document.getElementById(`sheet-${section.name}`)?.scrollIntoView({ block: 'nearest' })
    // The note is met by who writes in it, when it has the keyboard.
    if (section.name !== 'note') workspace.metSection(section.request)
  }, [section])

  if (!pane || !topic) return null
  const topics = pane.selected.flatMap((id) => session.records.get('topic', id) ?? [])
  const leave = () => document.querySelector<HTMLElement>('[data-active="true"] [role="tree"], [role="tree"]')?.focus()
  const links =
    session.records.crosslinksFrom(topic.id).length +
    incomingAt(session.records, topic).length +
    session.records.weblinks(topic.id).length
  const marks = topic.badges.length + topic.tags.length + (topic.picture ? 1 : 0)
  const files = session.records.attachments(topic.id).length
  const title = (name: string, count: number) => (count > 0 ? `${name} (${count})` : name)
  return (
    <aside className={workspaceStyles.right} aria-label="Topic sheet">
      <CloseColumn label="Close the topic sheet" close={() => workspace.openSheet(false)} />
      <h2 className={styles.title}>{topic.text || 'Untitled'}</h2>
      <Accordion
        multiple
        value={[...sections]}
        onChange={(unfolded) => workspace.unfoldSections(unfolded as Section[])}
        variant="default"
        chevronPosition="left"
        transitionDuration={0}
      >
        <Accordion.Item value="note" id="sheet-note">
          <Accordion.Control>Note</Accordion.Control>
          <Accordion.Panel>
            <NoteSection
              topic={topic}
              focusRequest={section?.name === 'note' ? section.request : 0}
              onFocused={workspace.metSection}
              leave={leave}
            />
          </Accordion.Panel>
        </Accordion.Item>
        <Accordion.Item value="links" id="sheet-links">
          <Accordion.Control>{title('Links', links)}</Accordion.Control>
          <Accordion.Panel>
            <LinksSection topic={topic} pane={active} />
          </Accordion.Panel>
        </Accordion.Item>
        <Accordion.Item value="marks" id="sheet-marks">
          <Accordion.Control>{title('Badges, tags, picture', marks)}</Accordion.Control>
          <Accordion.Panel>
            <MarksSection topic={topic} topics={topics} />
          </Accordion.Panel>
        </Accordion.Item>
        <Accordion.Item value="dates" id="sheet-dates">
          <Accordion.Control>Dates and task</Accordion.Control>
          <Accordion.Panel>
            <DatesSection key={topic.id} topic={topic} topics={topics} />
          </Accordion.Panel>
        </Accordion.Item>
        <Accordion.Item value="layout" id="sheet-layout">
          <Accordion.Control>Layout</Accordion.Control>
          <Accordion.Panel>
            <LayoutSection topic={topic} />
          </Accordion.Panel>
        </Accordion.Item>
        <Accordion.Item value="look" id="sheet-look">
          <Accordion.Control>Look</Accordion.Control>
          <Accordion.Panel>
            {sections.includes('look') && (
              <Suspense fallback={<Skeleton height={140} />}>
                <LookSection key={topic.id} topic={topic} topics={topics} level={levelOf(session.records, topic)} />
              </Suspense>
            )}
          </Accordion.Panel>
        </Accordion.Item>
        <Accordion.Item value="files" id="sheet-files">
          <Accordion.Control>{title('Files', files)}</Accordion.Control>
          <Accordion.Panel>
            <FilesSection topic={topic} />
          </Accordion.Panel>
        </Accordion.Item>
      </Accordion>
    </aside>
  )
})
TopicSheet.displayName = 'TopicSheet'
