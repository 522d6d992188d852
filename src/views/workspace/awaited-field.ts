import { tell } from '../app/api'
import { activeFace } from './active-face'

/** How long a field may take to come, in ms; after that what was typed for it is told. */
const LONGEST_MS = 10_000

const EDITABLE = 'input, textarea, [contenteditable="true"]'

/** Where the keyboard is on its way to: a field, something to press, or a map. */
export type Aim = 'field' | 'control' | 'map'

/** What counts as arriving there. */
const DESTINATION: Record<Aim, string> = {
  field: EDITABLE,
  control: `${EDITABLE}, [role="dialog"], [role="dialog"] *, [data-leads], [data-leads] *`,
  map: '[role="tree"], [data-face]',
}

/** How keys are kept among the words that come before and after them: Enter is a line's end. */
const KEPT_ESCAPE = '\uE01B'
const KEPT_COMMAND_ENTER = '\uE00D'
const KEPT_KEYS: Record<string, KeyboardEventInit> = {
  '\n': { key: 'Enter' },
  [KEPT_COMMAND_ENTER]: { key: 'Enter', ctrlKey: true },
  [KEPT_ESCAPE]: { key: 'Escape' },
}
const UP_TO_A_KEY = new RegExp(`^[^${Object.keys(KEPT_KEYS).join('')}]*`)

/** Whether a key with Alt or Ctrl is meant for an act, and not for what is being written. */
function isActKey(event: KeyboardEvent): boolean {
  if (event.getModifierState('AltGraph') || /^(Control|Alt|Meta|Shift|Enter)$/.test(event.key)) return false
  return event.altKey || ((event.ctrlKey || event.metaKey) && !/^[acvxyz]$/i.test(event.key))
}

/** A field that nobody sees, for what is typed as long as the one for which it is meant is not there. */
class Waiting {
  private readonly field = document.createElement('textarea')
  private readonly timer: ReturnType<typeof setTimeout>

  constructor(
    readonly aim: Aim,
    private readonly ended: () => void,
    words = '',
  ) {
    const { field } = this
    field.value = words
    field.setAttribute('aria-label', 'On its way')
    field.style.cssText = 'position:fixed;top:0;left:0;width:1px;height:1px;opacity:0;border:0;padding:0'
    field.tabIndex = -1
    field.dataset.onItsWay = ''
    field.addEventListener('keydown', (event) => {
      // Another act, before anything was typed for this one: it is done instead.
      if (isActKey(event) && field.value === '') return this.giveUp()
      event.stopPropagation()
      const isCommand = event.ctrlKey || event.metaKey
      if (event.key === 'Escape' && field.value === '') this.giveUp()
      else if (event.key === 'Escape') field.value += KEPT_ESCAPE
      else if (event.key === 'Enter' && isCommand) field.value += KEPT_COMMAND_ENTER
      else if (event.key !== 'Tab') return
      event.preventDefault()
    })
    document.body.append(field)
    field.focus({ preventScroll: true })
    document.addEventListener('focusin', this.arrive)
    document.addEventListener('pointerdown', this.giveUp, true)
    this.timer = setTimeout(this.giveUp, LONGEST_MS)
  }

  /** After all that belongs to the arrival: what comes with a field may select what is in it. */
  private readonly arrive = ({ target }: FocusEvent): void => {
    if (target === this.field || !(target instanceof Element) || !target.matches(DESTINATION[this.aim])) return
    const words = this.end()
    queueMicrotask(() => typeInto(words))
  }

  private end(): string {
    clearTimeout(this.timer)
    document.removeEventListener('focusin', this.arrive)
    document.removeEventListener('pointerdown', this.giveUp, true)
    const { value } = this.field
    this.ended()
    this.field.remove()
    return value
  }

  readonly giveUp = (): void => {
    const words = this.end()
      .replaceAll(new RegExp(`[${KEPT_ESCAPE}${KEPT_COMMAND_ENTER}]`, 'g'), '')
      .trim()
    if (document.activeElement === null || document.activeElement === document.body) activeFace()?.focus()
    if (words !== '') tell(`There was no field for what you typed: ${words}`, LONGEST_MS)
  }
}

/** Types words where the keyboard is: a line at once into a field, letter by letter where there is none yet, and Enter between lines. */
function typeInto(words: string): void {
  const at = document.activeElement
  if (words === '' || !(at instanceof HTMLElement)) return
  const isField = at.matches(EDITABLE)
  // What is no field and no map takes no letters.
  if (!isField && !at.matches(DESTINATION.map)) return
  const line = UP_TO_A_KEY.exec(words)![0]
  const now = isField ? line : line.slice(0, 1)
  // The first letter on a map brings its field: the others wait for that, and what is typed meanwhile behind them.
  if (!isField && now !== '') {
    const rest = words.slice(now.length)
    if (rest !== '') awaitField('field', rest)
    press(at, { key: now })
    return
  }
  if (isField && now !== '') document.execCommand('insertText', false, now)
  const key = KEPT_KEYS[words.slice(now.length, now.length + 1)]
  if (key?.key === 'Enter' && !key.ctrlKey) pressEnter(at)
  else if (key) press(at, key)
  const rest = words.slice(now.length + (key ? 1 : 0))
  // What was pressed may bring the next field.
  if (rest !== '') setTimeout(() => typeInto(rest))
}

const press = (at: HTMLElement, key: KeyboardEventInit): boolean =>
  at.dispatchEvent(new KeyboardEvent('keydown', { ...key, bubbles: true, cancelable: true }))

function pressEnter(at: HTMLElement): void {
  if (!press(at, { key: 'Enter' })) return
  if (at instanceof HTMLTextAreaElement) document.execCommand('insertText', false, '\n')
  else if (at instanceof HTMLInputElement) at.form?.requestSubmit()
}

let waiting: Waiting | null = null

/** Tells that the keyboard is on its way. What is typed until it has arrived is kept for where it goes, behind `words`, and goes nowhere else. */
export function awaitField(aim: Aim, words = ''): void {
  waiting?.giveUp()
  const began = new Waiting(
    aim,
    () => {
      if (waiting === began) waiting = null
    },
    words,
  )
  waiting = began
}

/** Tells that nothing comes of it: the keyboard goes back to the map. */
export const awaitNothing = (): void => waiting?.giveUp()

/** Where the keyboard is on its way to; null where it is not. */
export const awaited = (): Aim | null => waiting?.aim ?? null
