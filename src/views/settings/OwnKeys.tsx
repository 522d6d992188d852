import { Button, Kbd, Text } from '@mantine/core'
import { type KeyboardEvent, useState } from 'react'
import { GROUP_NAMES, type Situation } from '../acts/act'
import { ACTS, keyName, keysOf, readableKey } from '../acts/acts'
import { changeSettings, usePersonalSettings } from '../app/personal'
import styles from './settings.module.css'

/** Keys that must stay what they are: a map cannot be worked on without them. */
const FIXED = /^(Tab|Shift\+Tab|Enter|Delete|Backspace|Escape| )$/
/** What can be a key of one's own: something that writes no letter. */
const CAN_BE = /^(Ctrl\+|Alt\+).|^F\d+$/

/** The keys of all acts, each of which can be another one where it clashes with what somebody else uses. */
export function OwnKeys({ situation }: { situation: Situation }) {
  const own = usePersonalSettings(({ keys }) => keys)
  const [asked, setAsked] = useState<string | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const acts = ACTS.filter((act) => act.keys.length > 0 && !act.keys.some((key) => FIXED.test(key)))
  const press = (event: KeyboardEvent, id: string) => {
    if (/^(Control|Alt|Shift|Meta)$/.test(event.key)) return
    event.preventDefault()
    event.stopPropagation()
    if (event.key === 'Escape') return setAsked(null)
    const key = keyName(event)
    const taken = ACTS.find((act) => act.id !== id && keysOf(act).includes(key))
    if (!CAN_BE.test(key)) return setProblem(`${readableKey(key)} writes something: take one with Ctrl or Alt.`)
    if (taken) return setProblem(`${readableKey(key)} is the key of: ${taken.name(situation)}.`)
    setProblem(null)
    setAsked(null)
    changeSettings({ keys: { ...own, [id]: key } })
  }
  const back = (id: string) => {
    const { [id]: _, ...others } = own
    changeSettings({ keys: others })
  }
  return (
    <div className={styles.keys}>
      <Text size="sm" role="status" c={problem ? 'var(--ember-text)' : 'dimmed'}>
        {problem ?? 'Press a key’s button, then the new key. Esc leaves it as it is.'}
      </Text>
      <ul>
        {acts.map((act) => (
          <li key={act.id}>
            <span>
              {act.name(situation)} <span className={styles.group}>{GROUP_NAMES[act.group]}</span>
            </span>
            {own[act.id] && (
              <Button size="compact-xs" variant="subtle" color="gray" onClick={() => back(act.id)}>
                As it was
              </Button>
            )}
            <Button
              size="compact-sm"
              variant={asked === act.id ? 'light' : 'default'}
              aria-label={`Key of ${act.name(situation)}: ${keysOf(act).map(readableKey).join(', ')}`}
              onClick={() => {
                setProblem(null)
                setAsked(act.id)
              }}
              onKeyDown={(event) => asked === act.id && press(event, act.id)}
              onBlur={() => setAsked(null)}
            >
              {asked === act.id
                ? 'Press the new key …'
                : keysOf(act).map((key) => <Kbd key={key}>{readableKey(key)}</Kbd>)}
            </Button>
          </li>
        ))}
      </ul>
    </div>
  )
}
