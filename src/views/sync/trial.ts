import type { Change } from '../../core/changes/edit'
import { type Problem, Refusal } from '../../core/changes/problem'
import { type IdSource, named, type Outcome } from '../../core/commands/command'
import type { TopicId } from '../../core/records/ids'
import type { Records } from '../../core/records/records'
import type { HeldState } from './held-state'

/** What a person does, asked of the records as they are held here. */
export type Command = (records: Records, newIds: IdSource) => Outcome

/** What is shown here alone and not sent: a command tried out, and a topic that is still being written. */
export class Trial {
  private previewed: Change | null = null
  private composed: Change | null = null
  private readonly proposed = new Set<string>()

  constructor(
    private readonly held: HeldState,
    private readonly newIds: IdSource,
    /** A change with the places that what it brings takes. */
    private readonly withPlaces: (change: Change) => Change = (change) => change,
  ) {}

  /** Shows what a command would do, until something else happens; null shows things as they are. Returns whether anything changed. */
  preview(command: Command | null): boolean {
    const ended = this.endPreview()
    try {
      const { change } = command?.(this.held.records, this.newIds) ?? { change: null }
      if (change && this.held.perform(this.withPlaces(change)).ok) {
        this.previewed = change
        for (const edit of change.edits) if (edit.kind === 'topic' && edit.before === null) this.proposed.add(edit.id)
      }
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
    }
    return ended || this.previewed !== null
  }

  endPreview(): boolean {
    if (!this.previewed) return false
    this.held.drop(this.previewed.id)
    this.previewed = null
    this.proposed.clear()
    return true
  }

  /** Whether a topic is only shown, by what is previewed. */
  isProposed(topic: string): boolean {
    return this.proposed.has(topic)
  }

  /** Adds a topic that is still being written. Throws a Refusal, or returns the problem, where it cannot be. */
  compose(command: Command): { topic: TopicId | null } | { problem: Problem } {
    const { change, select } = command(this.held.records, this.newIds)
    const performed = this.held.perform(this.withPlaces(change))
    if (!performed.ok) return { problem: performed.problem }
    this.composed = change
    return { topic: select[0] ?? null }
  }

  isComposing(topic: string): boolean {
    return (
      this.composed?.edits.some((edit) => edit.kind === 'topic' && edit.before === null && edit.id === topic) ?? false
    )
  }

  /** Takes the topic being written away; returns the change that adds it with a text, null without one. */
  finish(text: string | null): { change: Change | null } | null {
    if (!this.composed) return null
    const change = this.composedAs(text)
    this.held.drop(this.composed.id)
    this.composed = null
    return { change }
  }

  /** The change that adds the topic being written with a text; null where there is none, or no text. */
  composedAs(text: string | null): Change | null {
    const change = this.composed
    if (!change || text === null || text.trim() === '') return null
    const edits = change.edits.map((edit) =>
      edit.kind === 'topic' && edit.before === null ? { ...edit, after: { ...edit.after, text } } : edit,
    )
    return { ...change, label: `Add ${named(text)}`, edits }
  }
}
