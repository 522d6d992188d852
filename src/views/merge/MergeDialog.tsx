import {
  Alert,
  Button,
  Group,
  Modal,
  MultiSelect,
  Radio,
  ScrollArea,
  SegmentedControl,
  Stack,
  Table,
  Text,
} from '@mantine/core'
import { useState } from 'react'
import { z } from 'zod'
import type { MergeReport } from '../../core/commands/merge-maps'
import { type Decision, type Meant, type MergePlan, ROOTS } from '../../core/matching/decisions'
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
export default function MergeDialog({
  target,
  chosen = [],
  onClose,
}: {
  target: MapId
  /** The maps that are chosen to begin with. */
  chosen: readonly MapId[] | undefined
  onClose(): void
}) {
  const session = useSession()
  const [sources, setSources] = useState<string[]>([...chosen])
  const [way, setWay] = useState<string>('combined')
  const [answer, setAnswer] = useState<PlanAnswer | null>(null)
  const [said, setSaid] = useState<Said>(new Map())
  const [report, setReport] = useState<MergeReport | null>(null)
  const [busy, setBusy] = useState(false)
  const others = session.maps.filter((map) => !map.trashed && map.id !== target)

  const planned = (said: Said) =>
    ask(PlanAnswer, `/api/collections/${session.id}/merge-plan`, {
      method: 'POST',
      body: { target, sources, way, said: [...said] },
    })
  const working = async (work: () => Promise<void>) => {
    setBusy(true)
    try {
      await work()
    } catch (error) {
      tellTrouble(error)
    } finally {
      setBusy(false)
    }
  }
  const plan = () =>
    working(async () => {
      setSaid(new Map())
      setAnswer(await planned(new Map()))
    })
  const merge = () =>
    working(async () => {
      // What was said is planned anew, with all that follows from it for the topics below.
      const decided = said.size === 0 ? answer! : await planned(said)
      const done = await session.command('merge', { plan: decided.plan })
      if (done) setReport(done.report as MergeReport)
    })

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
          data-autofocus={chosen.length === 0 || undefined}
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
        {answer && (
          <PlanTable
            answer={answer}
            said={said}
            say={(source, into) => setSaid((before) => new Map(before).set(source, into))}
          />
        )}
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
            <Button
              key="plan"
              loading={busy}
              disabled={sources.length === 0}
              onClick={plan}
              data-autofocus={chosen.length > 0 || undefined}
            >
              Show the plan
            </Button>
          )}
        </Group>
      </Stack>
    </Modal>
  )
}

const SHOWN = 400

/** What was decided by hand: the topic of the target that a topic of a source is; null for none. */
type Said = ReadonlyMap<TopicId, TopicId | null>

const KINDS = { decide: 'To decide', join: 'One topic', add: 'Added' } as const
type Kind = keyof typeof KINDS

/** The topic of the target with which one of a source is, or may be, the same. */
const meantBy = (decision: Decision): Meant | null => (decision.act === 'join' ? decision : (decision.likely ?? null))

const kindOf = (decision: Decision): Kind => (decision.act === 'join' ? 'join' : decision.likely ? 'decide' : 'add')

/** Every topic of the sources with what happens to it, those first on which a person should have a look. */
function PlanTable({
  answer,
  said,
  say,
}: {
  answer: PlanAnswer
  said: Said
  say(source: TopicId, into: TopicId | null): void
}) {
  const { decisions } = answer.plan
  const counts = { decide: 0, join: 0, add: 0 }
  for (const decision of decisions) counts[kindOf(decision)]++
  const [kind, setKind] = useState<Kind>(counts.decide > 0 ? 'decide' : 'join')
  const shown = decisions.filter((decision) => kindOf(decision) === kind)
  const joined = decisions.filter((decision) => isJoined(decision, said)).length
  return (
    <>
      <Text fw={600}>
        {joined} {joined === 1 ? 'topic is' : 'topics are'} joined, {decisions.length - joined} added
      </Text>
      {joined <= 1 && decisions.length > 5 && (
        <Alert color="ember">These maps have next to nothing in common. Side by side may suit them better.</Alert>
      )}
      <SegmentedControl
        size="xs"
        aria-label="Which topics"
        value={kind}
        data={(Object.keys(KINDS) as Kind[]).map((value) => ({ value, label: `${KINDS[value]} ${counts[value]}` }))}
        onChange={(value) => setKind(value as Kind)}
      />
      <ScrollArea.Autosize mah={300} type="auto">
        <Table stickyHeader verticalSpacing={4}>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Topic of the source</Table.Th>
              <Table.Th>What happens</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {shown.slice(0, SHOWN).map((decision) => (
              <Table.Tr key={decision.source}>
                <Table.Td>{answer.texts[decision.source] || 'Untitled'}</Table.Td>
                <Table.Td>
                  <WhatHappens decision={decision} texts={answer.texts} said={said} say={say} />
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
        {shown.length === 0 && <Text c="dimmed">None.</Text>}
        {shown.length > SHOWN && <Text c="dimmed">and {shown.length - SHOWN} more</Text>}
      </ScrollArea.Autosize>
      {counts.decide > 0 && (
        <Text size="sm" c="dimmed">
          What is not decided stays two topics.
        </Text>
      )}
    </>
  )
}

function isJoined(decision: Decision, said: Said): boolean {
  const by = said.get(decision.source)
  return by === undefined ? decision.act === 'join' : by !== null
}

interface RowProps {
  decision: Decision
  texts: Record<string, string>
  said: Said
  say(source: TopicId, into: TopicId | null): void
}

/** What happens to a topic, why, and the choice where there is one. Roots are what the maps are of, and always one. */
function WhatHappens({ decision, texts, said, say }: RowProps) {
  const meant = meantBy(decision)
  const nameOf = (id: TopicId) => texts[id] || 'Untitled'
  if (!meant) {
    const below = decision.act === 'add' ? decision.below : decision.into
    return <>is added below {nameOf(typeof below === 'string' ? below : below.copyOf)}</>
  }
  return (
    <Group gap="xs" wrap="nowrap" justify="space-between">
      <div>
        {nameOf(meant.into)}
        <Text size="xs" c="dimmed">
          {Math.round(meant.sure * 100)} % sure: {meant.why}
        </Text>
      </div>
      {meant.why !== ROOTS && (
        <SegmentedControl
          size="xs"
          flex="none"
          aria-label={`${nameOf(decision.source)} and ${nameOf(meant.into)}`}
          value={isJoined(decision, said) ? 'one' : 'two'}
          data={[
            { value: 'one', label: 'One topic' },
            { value: 'two', label: 'Two topics' },
          ]}
          onChange={(value) => say(decision.source, value === 'one' ? meant.into : null)}
        />
      )}
    </Group>
  )
}
