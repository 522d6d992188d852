import { tell } from '../app/api'
import { settingsNow } from '../app/personal'
import { type Act, perform, type Situation } from './act'
import { DRESS_ACTS } from './dress-acts'
import { ENRICH_ACTS } from './enrich-acts'
import { GATHER_ACTS } from './gather-acts'
import { NETWORK_ACTS } from './network-acts'
import { SHAPE_ACTS } from './shape-acts'
import { VIEW_ACTS } from './view-acts'

/** All that can be done: what feeds the strip below the map, the topic's menu, Ctrl+K, the keys and their list. */
export const ACTS: readonly Act[] = [
  ...GATHER_ACTS,
  ...SHAPE_ACTS,
  ...ENRICH_ACTS,
  ...DRESS_ACTS,
  ...NETWORK_ACTS,
  ...VIEW_ACTS,
]

/** Acts of a group below their headings, in order. */
export function sectionsOf(group: Act['group']): { section: string; acts: Act[] }[] {
  const sections: { section: string; acts: Act[] }[] = []
  for (const act of ACTS) {
    if (act.group !== group) continue
    const last = sections.at(-1)
    if (last?.section === act.section) last.acts.push(act)
    else sections.push({ section: act.section, acts: [act] })
  }
  return sections
}

const MENU = ['edit', 'add-child', 'add-sibling', 'note', 'link', 'open', 'split-off', 'delete']

/** What the topic's menu offers first: the acts that are done most, as far as they apply. At most seven. */
export const mostDone = (situation: Situation): Act[] =>
  MENU.flatMap((id) => ACTS.find((act) => act.id === id && act.whyNot(situation) === null) ?? [])

/** The name of a pressed key with its modifiers, as acts declare it. */
export function keyName(event: {
  key: string
  code: string
  ctrlKey: boolean
  metaKey: boolean
  altKey: boolean
  shiftKey: boolean
}): string {
  // With Alt some systems type another letter: then the place on the keyboard tells which key it was.
  const letter = event.altKey && /^(Key|Digit)./.test(event.code) ? event.code.replace(/^(Key|Digit)/, '') : event.key
  const key = letter.length === 1 ? letter.toLowerCase() : letter
  const shift = event.shiftKey && (key.length > 1 || event.ctrlKey || event.metaKey || event.altKey)
  return `${event.ctrlKey || event.metaKey ? 'Ctrl+' : ''}${event.altKey ? 'Alt+' : ''}${shift ? 'Shift+' : ''}${key}`
}

/** The keys of an act: those of the table, or the one that somebody has given it. */
export function keysOf({ id, keys }: Pick<Act, 'id' | 'keys'>): readonly string[] {
  const own = settingsNow().keys[id]
  return own ? [own] : keys
}

/** Whether a pressed key has an act, whatever speaks against it. */
export const isActKey = (key: string): boolean => ACTS.some((act) => keysOf(act).includes(key))

/** Carries out the act of a pressed key, or says why not; false where the key has none that fits. */
export function actByKey(key: string, situation: Situation): boolean {
  const found = ACTS.find((act) => keysOf(act).includes(key))
  if (!found) return false
  const reason = found.whyNot(situation)
  if (reason === null) perform(found, situation)
  // Keys that move about in any page say nothing where they do nothing.
  else if (/^Alt\+|^Delete$/.test(key) && situation.topics.length > 0) tell(reason)
  else return false
  return true
}

const KEY_NAMES: Record<string, string> = {
  ' ': 'Space',
  ArrowUp: '↑',
  ArrowDown: '↓',
  ArrowLeft: '←',
  ArrowRight: '→',
}

/** A key as a person reads it. */
export const readableKey = (key: string): string =>
  key
    .split('+')
    .map((part) => KEY_NAMES[part] ?? (part.length === 1 ? part.toUpperCase() : part))
    .join(' + ')
