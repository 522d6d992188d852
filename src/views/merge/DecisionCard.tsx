import { Button, Radio, SegmentedControl, Stack, Text, TextInput } from '@mantine/core'
import type { ReactNode } from 'react'
import { type Choice, type ChosenField, type Decision, meantIn, ROOTS } from '../../core/matching/decisions'
import type { TopicId } from '../../core/records/ids'
import { MAX_TOPIC_TEXT } from '../../core/records/text'
import { wordDifference } from '../../core/text/word-difference'
import { sayDays } from '../app/when'
import { OneOrTwo } from './DecisionList'
import styles from './merge.module.css'
import { type Asked, conflictsIn, type Judged, type PlanAnswer } from './merge-plan'
import { Pieces } from './Pieces'

const FIELD_NAMES: Record<ChosenField, string> = {
  text: 'Text',
  dates: 'Dates',
  task: 'Task',
  picture: 'Picture',
  opensMap: 'The map behind it',
  number: 'Number',
  look: 'Look',
}

const NOTHING: Choice = { takes: [], text: null }

interface Props {
  answer: PlanAnswer
  asked: Asked
  decision: Decision
  titleOf(map: string): string
  hueOf(map: string): string
  say(source: TopicId, into: TopicId | null): void
  choose(source: TopicId, choice: Choice): void
}

/** The decision at hand: both topics with what belongs to them, why they are held to be the same, and the choices. */
export function DecisionCard({ answer, asked, decision, titleOf, hueOf, say, choose }: Props) {
  const { topics } = answer
  const { source } = decision
  const meant = meantIn(decision)
  const own = topics[source]
  const other = meant && topics[meant.into]
  if (!own) return null
  const [ownPieces, otherPieces] = wordDifference(own.text, other?.text ?? own.text)
  const isOne = decision.act === 'join'
  const choice = asked.choices.get(source) ?? (decision.act === 'join' ? decision.choice : undefined) ?? NOTHING
  const set = (part: Partial<Choice>) => choose(source, { ...choice, ...part })
  const take = (field: ChosenField, takes: boolean) =>
    set({ takes: takes ? [...choice.takes, field] : choice.takes.filter((each) => each !== field) })
  const text = choice.text !== null ? 'anew' : choice.takes.includes('text') ? 'source' : 'target'
  const below = decision.act === 'add' ? decision.below : null
  const parent = below && topics[typeof below === 'string' ? below : below.copyOf]
  return (
    <Stack gap="sm" className={styles.card}>
      <div className={styles.sides}>
        <Side topics={topics} topic={own} titleOf={titleOf} hueOf={hueOf}>
          <Pieces pieces={ownPieces} />
        </Side>
        {other ? (
          <Side topics={topics} topic={other} titleOf={titleOf} hueOf={hueOf}>
            <Pieces pieces={otherPieces} />
          </Side>
        ) : decision.act === 'leave' ? (
          <Stack gap="xs" align="flex-start">
            <Text size="sm">It stays away: {decision.why}.</Text>
            <Button size="compact-sm" variant="default" onClick={() => say(source, null)}>
              Add it all the same
            </Button>
          </Stack>
        ) : (
          <Text size="sm" className={styles.quiet}>
            Nothing like it is on {titleOf(answer.plan.target)}. It is added below {parent?.text || 'Untitled'}.
          </Text>
        )}
      </div>
      {meant && (
        <>
          <Text size="sm">
            <b>{Math.round(meant.sure * 100)} % sure:</b> {meant.why}
          </Text>
          {meant.why !== ROOTS && (
            <OneOrTwo
              isOne={isOne}
              label={`${own.text} and ${other?.text ?? ''}`}
              say={(one) => say(source, one ? meant.into : null)}
            />
          )}
        </>
      )}
      {isOne && other && own.text !== other.text && (
        <Radio.Group
          label="Text"
          value={text}
          onChange={(value) =>
            set({
              takes: [
                ...choice.takes.filter((field) => field !== 'text'),
                ...(value === 'source' ? ['text' as const] : []),
              ],
              text: value === 'anew' ? other.text : null,
            })
          }
        >
          <Stack gap={4} mt={4}>
            <Radio value="target" label={other.text || 'Untitled'} />
            <Radio value="source" label={own.text || 'Untitled'} />
            <Radio value="anew" label="written anew" />
            {choice.text !== null && (
              <TextInput
                size="xs"
                aria-label="Text written anew"
                value={choice.text}
                maxLength={MAX_TOPIC_TEXT}
                onChange={(event) => set({ text: event.currentTarget.value })}
              />
            )}
          </Stack>
        </Radio.Group>
      )}
      {conflictsIn(answer, decision).map((field) => (
        <div key={field}>
          <Text size="sm" fw={600} id={`of-${field}`}>
            {FIELD_NAMES[field]}
          </Text>
          <SegmentedControl
            size="xs"
            aria-labelledby={`of-${field}`}
            value={choice.takes.includes(field) ? 'source' : 'target'}
            data={[
              { value: 'target', label: saidOf(field, other) ?? `as on ${titleOf(answer.plan.target)}` },
              { value: 'source', label: saidOf(field, own) ?? `as on ${titleOf(own.map)}` },
            ]}
            onChange={(value) => take(field, value === 'source')}
          />
        </div>
      ))}
    </Stack>
  )
}

/** What a topic says in a field, where that can be said in words. */
function saidOf(field: ChosenField, topic: Judged | undefined): string | null {
  if (field === 'dates' && topic?.dates) return sayDays(topic.dates)
  if (field === 'task' && topic?.task) return topic.task
  return null
}

/** How many topics above one are told as the way to it. */
const MOST_ABOVE = 4

function Side({
  topics,
  topic,
  titleOf,
  hueOf,
  children,
}: {
  topics: PlanAnswer['topics']
  topic: Judged
  titleOf(map: string): string
  hueOf(map: string): string
  children: ReactNode
}) {
  const way: string[] = []
  for (let at = topic.parent; at && way.length < MOST_ABOVE; at = topics[at]?.parent)
    way.unshift(topics[at]?.text || 'Untitled')
  return (
    <div className={styles.side}>
      <Text size="xs" className={styles.quiet}>
        <span className={`${styles.hue} ${hueOf(topic.map)}`} /> {[titleOf(topic.map), ...way.slice(1)].join(' › ')}
      </Text>
      <Text fw={600} className={styles.text}>
        {topic.text ? children : 'Untitled'}
      </Text>
      {topic.note && (
        <Text size="sm" className={styles.note}>
          {topic.note}
        </Text>
      )}
      {topic.dates && <Text size="sm">{sayDays(topic.dates)}</Text>}
      {topic.task && <Text size="sm">Task: {topic.task}</Text>}
      {topic.tags && <Text size="sm">Tags: {topic.tags.join(', ')}</Text>}
      {topic.files && <Text size="sm">Files: {topic.files.join(', ')}</Text>}
    </div>
  )
}
