import { ActionIcon, Autocomplete, Button, Group, Modal, SegmentedControl, Stack, Text, TextInput } from '@mantine/core'
import { IconX } from '@tabler/icons-react'
import { lazy, Suspense, useState } from 'react'
import { addCrosslink } from '../../core/commands/crosslinks'
import { removeTemplate } from '../../core/commands/save-template'
import { insertTemplate } from '../../core/commands/use-template'
import type { Drawn, LinkEnd } from '../../core/records/crosslink'
import type { TopicId } from '../../core/records/ids'
import { GROUP_NAMES, type Situation } from '../acts/act'
import { ACTS } from '../acts/acts'
import { useSession } from '../sync/use-session'
import { useTemplates } from '../sync/use-templates'
import { situationOf } from '../workspace/situation'
import { type Dialog, useWorkspace, workspace } from '../workspace/workspace-store'
import { EnclosureDialog } from './EnclosureDialog'
import { type Doable, FindDialog, type Found, topicOfFound } from './FindDialog'

const BadgePicker = lazy(() => import('../badges/BadgePicker'))
const KeysDialog = lazy(() => import('./KeysDialog'))
const MergeDialog = lazy(() => import('../merge/MergeDialog'))

/** What can be done to the selected topics, by name. */
const doableIn = (situation: Situation): Doable[] =>
  ACTS.filter((act) => act.id !== 'find' && act.whyNot(situation) === null).map((act) => ({
    id: act.id,
    name: act.name(situation),
    where: `${GROUP_NAMES[act.group]}, ${act.section}`,
    run: () => act.act(situation),
  }))

/** The dialog that is asked for, if any. */
export function Dialogs() {
  const session = useSession()
  const { dialog, active, panes } = useWorkspace()
  const close = () => workspace.dialog(null)
  switch (dialog?.kind) {
    case 'find':
      return (
        <FindDialog
          collection={session.id}
          title="Find anything, do anything"
          doable={doableIn(situationOf(session, active))}
          onClose={close}
          onTake={(found) => {
            close()
            workspace.go(active, found.map, topicOfFound(found))
          }}
        />
      )
    case 'beside':
      return (
        <FindDialog
          collection={session.id}
          title="Open which map beside this one?"
          onClose={close}
          footer={
            <Text size="sm" mt="sm">
              Or the same map:{' '}
              <button
                type="button"
                onClick={() => {
                  close()
                  workspace.openBeside(panes[0]!.map, panes[0]!.face === 'map' ? 'outline' : 'map')
                }}
              >
                Show it as {panes[0]!.face === 'map' ? 'outline' : 'map'} beside
              </button>
            </Text>
          }
          onTake={(found) => {
            close()
            workspace.openBeside(found.map, 'map')
          }}
        />
      )
    case 'link':
      return <LinkDialog from={dialog.from} onClose={close} />
    case 'merge':
      return (
        <Suspense>
          <MergeDialog target={dialog.target} onClose={close} />
        </Suspense>
      )
    case 'template':
      return <TemplateDialog topic={dialog.topic} onClose={close} />
    case 'badge':
      return (
        <Suspense>
          <BadgePicker topics={dialog.topics} index={dialog.index} onClose={close} />
        </Suspense>
      )
    case 'enclosure':
      return <EnclosureDialog enclosure={dialog.enclosure} onClose={close} />
    case 'ask':
      return <AskDialog key={dialog.title} asked={dialog} onClose={close} />
    case 'keys':
      return (
        <Suspense>
          <KeysDialog onClose={close} />
        </Suspense>
      )
    default:
      return null
  }
}

/** What was found, as the end of a link. */
function endOf({ kind, id }: Found): LinkEnd {
  if (kind === 'topic') return { kind, id }
  return kind === 'map' ? { kind, id } : { kind, id }
}

function LinkDialog({ from, onClose }: { from: TopicId; onClose(): void }) {
  const session = useSession()
  const [drawn, setDrawn] = useState<Drawn>('line')
  const name = session.records.get('topic', from)?.text ?? ''
  return (
    <FindDialog
      collection={session.id}
      title={`Cross-link ${name} with …`}
      exclude={from}
      onClose={onClose}
      onTake={(found) => {
        onClose()
        session.run((records, newIds) => addCrosslink(records, { from, to: endOf(found), drawn }, newIds))
      }}
      footer={
        <Stack gap={4} mt="md">
          <Text size="sm" id="link-drawn">
            On the same map it is
          </Text>
          <SegmentedControl
            aria-labelledby="link-drawn"
            value={drawn}
            onChange={(value) => setDrawn(value as Drawn)}
            data={[
              { value: 'line', label: 'drawn as a line' },
              { value: 'quiet', label: 'quiet' },
              { value: 'selected', label: 'drawn while selected' },
            ]}
          />
        </Stack>
      }
    />
  )
}

function TemplateDialog({ topic, onClose }: { topic: TopicId; onClose(): void }) {
  const session = useSession()
  const { active } = useWorkspace()
  const templates = useTemplates()
  return (
    <Modal opened onClose={onClose} title="Insert a template" size="lg" transitionProps={{ duration: 0 }}>
      <Stack gap={4}>
        {templates.map(({ id, name, use, kept }) => (
          <Group key={id} gap={4} wrap="nowrap">
            <Button
              variant="subtle"
              color="gray"
              c="var(--ink)"
              justify="flex-start"
              flex={1}
              h="auto"
              py={6}
              onClick={() => {
                onClose()
                const today = new Date().toISOString().slice(0, 10)
                const select = session.run((records, newIds) =>
                  insertTemplate(records, { topic, template: id, today }, newIds),
                )
                if (select) workspace.select(active, select)
              }}
            >
              <span style={{ textAlign: 'left', whiteSpace: 'normal' }}>
                <strong>{name}</strong>
                <br />
                <Text span size="sm" c="var(--quiet-ink)">
                  {use}
                </Text>
              </span>
            </Button>
            {kept && session.mayEdit && (
              <ActionIcon
                variant="subtle"
                color="gray"
                aria-label={`Remove the template ${name}`}
                onClick={() => session.run((records, newIds) => removeTemplate(records, { template: kept }, newIds))}
              >
                <IconX size={16} />
              </ActionIcon>
            )}
          </Group>
        ))}
      </Stack>
    </Modal>
  )
}

function AskDialog({ asked, onClose }: { asked: Extract<Dialog, { kind: 'ask' }>; onClose(): void }) {
  return (
    <Modal opened onClose={onClose} title={asked.title} transitionProps={{ duration: 0 }}>
      <form
        onSubmit={(event) => {
          event.preventDefault()
          onClose()
          asked.take(String(new FormData(event.currentTarget).get('text') ?? ''))
        }}
      >
        <Stack>
          {asked.choices ? (
            <Autocomplete name="text" label={asked.label} data={[...asked.choices]} maxLength={500} data-autofocus />
          ) : (
            <TextInput name="text" label={asked.label} defaultValue={asked.value} maxLength={500} data-autofocus />
          )}
          <Button type="submit">{asked.act}</Button>
        </Stack>
      </form>
    </Modal>
  )
}
