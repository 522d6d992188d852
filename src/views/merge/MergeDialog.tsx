import { Alert, Badge, Button, Group, Modal, MultiSelect, Radio, ScrollArea, Stack, Table, Text } from '@mantine/core'
import { useState } from 'react'
import { z } from 'zod'
import type { MergeReport } from '../../core/commands/merge-maps'
import type { Decision, MergePlan } from '../../core/matching/merge-plan'
import type { MapId, TopicId } from '../../core/records/ids'
import { ask, tellTrouble } from '../app/api'
import { useSession } from '../sync/use-session'

const PlanAnswer = z.object({
  plan: z.custom<MergePlan>((value) => typeof value === 'object' && value !== null),
  texts: z.record(z.string(), z.string()),
})
type PlanAnswer = z.infer<typeof PlanAnswer>

const WORDS: Record<keyof MergeReport, string> = {
  joined: 'topics joined with one that was there',
  added: 'topics added',
  notesAdded: 'notes added',
  notesCombined: 'notes set after the one that was there',
  notesEqual: 'notes that were the same',
  files: 'files taken over',
  weblinks: 'web links taken over',
  crosslinks: 'cross-links taken over',
}

/** Chooses sources, shows what a merge would do, does it, and reports. */
export default function MergeDialog({ target, onClose }: { target: MapId; onClose(): void }) {
  const session = useSession()
  const [sources, setSources] = useState<string[]>([])
  const [way, setWay] = useState<string>('combined')
  const [answer, setAnswer] = useState<PlanAnswer | null>(null)
  const [report, setReport] = useState<MergeReport | null>(null)
  const [busy, setBusy] = useState(false)
  const others = session.maps.filter((map) => !map.trashed && map.id !== target)

  const plan = async () => {
    setBusy(true)
    try {
      setAnswer(
        await ask(PlanAnswer, `/api/collections/${session.id}/merge-plan`, {
          method: 'POST',
          body: { target, sources, way },
        }),
      )
    } catch (error) {
      tellTrouble(error)
    } finally {
      setBusy(false)
    }
  }
  const merge = async () => {
    setBusy(true)
    const done = await session.command('merge', { plan: answer!.plan })
    setBusy(false)
    if (done) setReport(done.report as MergeReport)
  }

  if (report)
    return (
      <Modal opened onClose={onClose} title="Merge report">
        <Stack>
          <Table>
            <Table.Tbody>
              {(Object.keys(WORDS) as (keyof MergeReport)[])
                .filter((key) => report[key] > 0)
                .map((key) => (
                  <Table.Tr key={key}>
                    <Table.Td ta="right" fw={600}>
                      {report[key]}
                    </Table.Td>
                    <Table.Td>{WORDS[key]}</Table.Td>
                  </Table.Tr>
                ))}
            </Table.Tbody>
          </Table>
          <Text size="sm">The sources stay as they are. One undo takes all of it back.</Text>
          <Group justify="flex-end">
            <Button onClick={onClose} autoFocus>
              Done
            </Button>
          </Group>
        </Stack>
      </Modal>
    )
  return (
    <Modal opened onClose={onClose} title={`Merge other maps into ${session.titleOf(target)}`} size="xl">
      <Stack>
        {others.length === 0 && <Alert color="spruce">There is no other map in this collection yet.</Alert>}
        <MultiSelect
          label="Maps to take over"
          placeholder={sources.length === 0 ? 'Choose one or more maps' : ''}
          data={others.map((map) => ({ value: map.id, label: map.title || 'Untitled' }))}
          value={sources}
          onChange={(value) => {
            setSources(value)
            setAnswer(null)
          }}
          searchable
          data-autofocus
        />
        <Radio.Group
          label="How"
          value={way}
          onChange={(value) => {
            setWay(value)
            setAnswer(null)
          }}
        >
          <Stack gap={6} mt={6}>
            <Radio
              value="combined"
              label="Combined: topics whose texts agree become one, the rest is added where it belongs"
            />
            <Radio value="beside" label="Side by side: every map becomes a branch of its own" />
          </Stack>
        </Radio.Group>
        {answer && <PlanTable answer={answer} />}
        <Group justify="flex-end">
          <Button variant="default" onClick={onClose}>
            Cancel
          </Button>
          {answer ? (
            // It takes the place of the button that was pressed, and the keyboard with it.
            <Button key="merge" loading={busy} onClick={merge} autoFocus>
              Merge
            </Button>
          ) : (
            <Button key="plan" loading={busy} disabled={sources.length === 0} onClick={plan}>
              Show the plan
            </Button>
          )}
        </Group>
      </Stack>
    </Modal>
  )
}

const SHOWN = 400

function PlanTable({ answer }: { answer: PlanAnswer }) {
  const { decisions } = answer.plan
  const joined = decisions.filter(({ act }) => act === 'join').length
  return (
    <>
      <Text fw={600}>
        {joined} {joined === 1 ? 'topic is' : 'topics are'} joined, {decisions.length - joined} added
      </Text>
      <ScrollArea.Autosize mah={300} type="auto">
        <Table stickyHeader verticalSpacing={4}>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Topic of the source</Table.Th>
              <Table.Th>What happens</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {decisions.slice(0, SHOWN).map((decision) => (
              <Table.Tr key={decision.source}>
                <Table.Td>{answer.texts[decision.source] || 'Untitled'}</Table.Td>
                <Table.Td>{wordsOf(decision, answer.texts)}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
        {decisions.length > SHOWN && <Text c="dimmed">and {decisions.length - SHOWN} more</Text>}
      </ScrollArea.Autosize>
    </>
  )
}

function wordsOf(decision: Decision, texts: Record<string, string>) {
  if (decision.act === 'join')
    return (
      <>
        <Badge variant="light" color="spruce" mr={6}>
          {decision.why === 'root' ? 'root' : 'same text'}
        </Badge>
        joins {texts[decision.into] || 'Untitled'}
      </>
    )
  const below = typeof decision.below === 'string' ? decision.below : decision.below.copyOf
  return `is added below ${texts[below as TopicId] || 'Untitled'}`
}
