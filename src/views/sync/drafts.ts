import type { Change, Edit } from '../../core/changes/edit'
import { browserStorage } from '../app/browser-storage'
import { goneTabs, TAB } from '../app/tab'
import { keepUnsent, nextOrder } from './unsent'

/** What is being written is kept so long after a key, in ms. */
const KEEP_AFTER_MS = 250
/** Where it takes long to make a change of it, that takes at most one part in so many of the time. */
const PART_OF_TIME = 10

const NAME = 'folvet-draft:'

/** A field of a collection, by what is written in it: the text of a topic, its note, what hangs below it as text. */
export interface Field {
  topic: string
  part: 'text' | 'note' | 'outline'
}

interface Draft {
  collection: string
  person: string
  order: number
  field: Field
  change: Change
}

const nameOf = ({ topic, part }: Field) => `${NAME}${TAB}:${part} ${topic}`

interface Writing {
  /** The change that it would be if the writing ended now; null where that is none. */
  make(): Change | null
  timer: ReturnType<typeof setTimeout> | null
  pause: number
  change: Change | null
}

/** What is being written and is no change yet. It is kept as the change that it would be, for when the page does not come to its end. */
export class Drafts {
  private readonly fields = new Map<string, Writing>()
  private readonly listeners = new Set<() => void>()

  constructor(
    private readonly collection: string,
    private readonly person: string,
  ) {}

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  private told(): void {
    for (const listener of this.listeners) listener()
  }

  /** Whether something is half written and not saved. */
  isWriting = (): boolean => {
    for (const { change, timer } of this.fields.values()) if (change || timer !== null) return true
    return false
  }

  /** A key was pressed in a field: what stands there is kept a moment later. */
  write(field: Field, make: () => Change | null): void {
    const name = nameOf(field)
    const known = this.fields.get(name)
    // Of a topic's text the first is made at once, as that costs nothing: should it be impossible a moment later, it can be set aside.
    const first = () => (field.part === 'text' ? make() : null)
    const writing = known ?? { make, timer: null, pause: KEEP_AFTER_MS, change: first() }
    writing.make = make
    this.fields.set(name, writing)
    writing.timer ??= setTimeout(() => this.keep(field, writing), writing.pause)
    this.told()
  }

  private keep(field: Field, writing: Writing): void {
    const began = performance.now()
    writing.timer = null
    writing.change = writing.make()
    const { collection, person } = this
    const order = nextOrder()
    if (writing.change === null) browserStorage.remove(nameOf(field))
    else {
      const draft: Draft = { collection, person, order, field, change: writing.change }
      browserStorage.set(nameOf(field), JSON.stringify(draft))
    }
    writing.pause = Math.max(KEEP_AFTER_MS, (performance.now() - began) * PART_OF_TIME)
    this.told()
  }

  /** The last change that was made of what is written in a field, with these words; null where there never was one. */
  last(field: Field, words: string): Change | null {
    const writing = this.fields.get(nameOf(field))
    const change = writing?.change ?? writing?.make()
    if (!change || field.part === 'outline') return change ?? null
    const edits = change.edits.map((edit) =>
      'text' in edit.after ? ({ ...edit, after: { ...edit.after, text: words } } as Edit) : edit,
    )
    return { ...change, edits }
  }

  /** What was written in a field is a change now, or was given up. */
  end(field: Field): void {
    const name = nameOf(field)
    const writing = this.fields.get(name)
    if (!writing) return
    if (writing.timer !== null) clearTimeout(writing.timer)
    this.fields.delete(name)
    browserStorage.remove(name)
    this.told()
  }
}

/** What was being written in tabs that are gone: each is an unsent change from now on. Returns the fields with their changes, in order. */
export async function recoverDrafts(collection: string, person: string): Promise<Draft[]> {
  const names = browserStorage.below(NAME)
  if (names.length === 0) return []
  const gone = await goneTabs(names.map(tabOf))
  const found = names
    .filter((name) => gone.has(tabOf(name)))
    .flatMap((name) => {
      const draft = browserStorage.json<Draft>(NAME + name)
      return draft ? [{ name, draft }] : []
    })
    .filter(({ draft }) => draft.collection === collection && draft.person === person)
    .sort((a, b) => a.draft.order - b.draft.order)
  for (const { name, draft } of found) {
    const { order, change } = draft
    void keepUnsent({ collection, person, order, change }).catch(() => undefined)
    browserStorage.remove(NAME + name)
  }
  return found.map(({ draft }) => draft)
}

const tabOf = (name: string) => name.slice(0, name.indexOf(':'))

/** Forgets what this person was writing: whoever comes next at this computer finds nothing of it. */
export function forgetDrafts(person: string): void {
  for (const name of browserStorage.below(NAME))
    if (browserStorage.json<Draft>(NAME + name)?.person === person) browserStorage.remove(NAME + name)
}
