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

/** What was typed ahead, in its order: words, and keys that are no letters. */
type Typed = string | KeyboardEventInit

const ENTER: KeyboardEventInit = { key: 'Enter', code: 'Enter' }

const keyOf = ({ key, code, ctrlKey, altKey, shiftKey, metaKey }: KeyboardEvent): KeyboardEventInit => {
  return { key, code, ctrlKey, altKey, shiftKey, metaKey }
}

/** Whether a key does nothing alone. */
const isModifier = ({ key }: KeyboardEvent): boolean =>
  /^(Control|Alt|AltGraph|Meta|Shift|\w+Lock|Dead|Process|Unidentified)$/.test(key)

/** Whether a key stands for itself: a letter, or what belongs to writing one. */
const isLetter = (event: KeyboardEvent): boolean =>
  event.key.length === 1 && (event.getModifierState('AltGraph') || !(event.altKey || event.ctrlKey || event.metaKey))

/** Whether a key is for the browser: to copy, to paste, to take back; to load the page anew or to leave it. */
const isForBrowser = ({ key, altKey, ctrlKey, metaKey }: KeyboardEvent): boolean =>
  /^F(5|11|12)$/.test(key) || ((ctrlKey || metaKey) && !altKey && /^[acvxyzlnprtw0+-]$/i.test(key))

/** Whether a key with Alt or Ctrl is meant for an act, and not for what is being written. */
const isActKey = (event: KeyboardEvent): boolean =>
  !isLetter(event) &&
  !isModifier(event) &&
  event.key !== 'Enter' &&
  !isForBrowser(event) &&
  (event.altKey || event.ctrlKey || event.metaKey)

/** A field that nobody sees, for what is typed as long as the one for which it is meant is not there. */
class Waiting {
  private readonly field = document.createElement('textarea')
  private readonly timer: ReturnType<typeof setTimeout>

  constructor(
    readonly aim: Aim,
    private readonly ended: () => void,
    /** What was typed before what stands in the field. */
    private readonly typed: Typed[],
  ) {
    const { field } = this
    field.setAttribute('aria-label', 'On its way')
    field.style.cssText = 'position:fixed;top:0;left:0;width:1px;height:1px;opacity:0;border:0;padding:0'
    field.tabIndex = -1
    field.dataset.onItsWay = ''
    field.addEventListener('keydown', this.press)
    document.body.append(field)
    field.focus({ preventScroll: true })
    document.addEventListener('focusin', this.arrive)
    document.addEventListener('pointerdown', this.giveUp, true)
    this.timer = setTimeout(this.giveUp, LONGEST_MS)
  }

  private readonly press = (event: KeyboardEvent): void => {
    const { field, typed } = this
    const isEmpty = field.value === '' && typed.length === 0
    // Another act, before anything was typed for this one: it is done instead.
    if (isEmpty && isActKey(event)) {
      this.giveUp()
      return
    }
    event.stopPropagation()
    if (event.isComposing || isModifier(event) || isLetter(event) || isForBrowser(event)) return
    if (isEmpty && event.key === 'Escape') this.giveUp()
    // Within words the keys of a field do here what they would do there.
    else if (field.value === '' || isActKey(event) || /^(Enter|Escape|Tab)$/.test(event.key)) {
      this.keepWords()
      typed.push(keyOf(event))
    } else return
    event.preventDefault()
  }

  /** Takes the words out of the field; in what was pasted, the end of a line is Enter. */
  private keepWords(): void {
    this.field.value.split('\n').forEach((line, i) => {
      if (i > 0) this.typed.push(ENTER)
      if (line !== '') this.typed.push(line)
    })
    this.field.value = ''
  }

  private readonly arrive = ({ target }: FocusEvent): void => {
    if (target === this.field || !(target instanceof Element) || !target.matches(DESTINATION[this.aim])) return
    typeAhead(this.end())
  }

  private end(): Typed[] {
    clearTimeout(this.timer)
    document.removeEventListener('focusin', this.arrive)
    document.removeEventListener('pointerdown', this.giveUp, true)
    this.keepWords()
    this.ended()
    this.field.remove()
    return this.typed
  }

  readonly giveUp = (): void => {
    const typed = this.end()
    if (document.activeElement === null || document.activeElement === document.body) activeFace()?.focus()
    tellLost(typed)
  }
}

function tellLost(typed: readonly Typed[]): void {
  const words = typed.filter((part) => typeof part === 'string').join(' ')
  if (words.trim() !== '') tell(`There was no field for what you typed: ${words}`, LONGEST_MS)
}

/** What is being typed for the person where the keyboard has arrived; what the person types meanwhile comes behind it. */
let ahead: Typed[] = []
let isTyping = false

/**
 * Types what was typed ahead, one key after the other and each a moment after the one before, as its effects are drawn first. Where
 * one of them sends the keyboard on its way again, the rest waits with it.
 */
function typeAhead(typed: readonly Typed[]): void {
  ahead.push(...typed)
  if (isTyping || ahead.length === 0) return
  isTyping = true
  window.addEventListener('keydown', comeBehind, true)
  window.addEventListener('pointerdown', stop, true)
  // After all that belongs to the arrival: what comes with a field may select what is in it.
  queueMicrotask(next)
}

function next(): void {
  const part = ahead.shift()
  if (typeof part === 'string') typeWords(part)
  else if (part) pressKey(part)
  if (ahead.length > 0) setTimeout(next)
  else done()
}

function done(): void {
  isTyping = false
  window.removeEventListener('keydown', comeBehind, true)
  window.removeEventListener('pointerdown', stop, true)
}

/** A hand that goes elsewhere ends it. */
function stop(): void {
  const left = ahead
  ahead = []
  done()
  tellLost(left)
}

/** A key of the person, while what came before it is still being typed. */
function comeBehind(event: KeyboardEvent): void {
  if (!event.isTrusted || event.isComposing || isModifier(event) || isForBrowser(event)) return
  event.preventDefault()
  event.stopImmediatePropagation()
  const last = ahead.at(-1)
  if (!isLetter(event)) ahead.push(keyOf(event))
  else if (typeof last === 'string') ahead[ahead.length - 1] = last + event.key
  else ahead.push(event.key)
}

/** Types words where the keyboard is: all at once into a field; on a map the first letter, which may bring a field for the others. */
function typeWords(words: string): void {
  const at = document.activeElement
  if (!(at instanceof HTMLElement)) return
  if (at.matches(EDITABLE)) document.execCommand('insertText', false, words)
  // What is no field and no map takes no letters.
  else if (at.matches(DESTINATION.map)) {
    if (words.length > 1) ahead.unshift(words.slice(1))
    press(at, { key: words.slice(0, 1) })
  }
}

function pressKey(key: KeyboardEventInit): void {
  const at = document.activeElement
  if (at instanceof HTMLElement && press(at, key) && key.key === 'Enter') enter(at)
}

const press = (at: HTMLElement, key: KeyboardEventInit): boolean =>
  at.dispatchEvent(new KeyboardEvent('keydown', { ...key, bubbles: true, cancelable: true }))

/** What a browser does with Enter where nobody else does something with it. */
function enter(at: HTMLElement): void {
  if (at instanceof HTMLTextAreaElement) document.execCommand('insertText', false, '\n')
  else if (at instanceof HTMLInputElement) at.form?.requestSubmit()
  else if (at.matches('button, a[href]')) at.click()
}

let waiting: Waiting | null = null

/** Tells that the keyboard is on its way. What is typed until it has arrived is kept for where it goes, and goes nowhere else. */
export function awaitField(aim: Aim): void {
  waiting?.giveUp()
  // What was typed behind the key that led here, where that was typed ahead, waits too.
  const behind = ahead
  ahead = []
  const began = new Waiting(
    aim,
    () => {
      if (waiting === began) waiting = null
    },
    behind,
  )
  waiting = began
}

/** Tells that nothing comes of it: the keyboard goes back to the map. */
export const awaitNothing = (): void => waiting?.giveUp()

/** Where the keyboard is on its way to; null where it is not. */
export const awaited = (): Aim | null => waiting?.aim ?? null
