import { defaultKeymap, indentWithTab } from '@codemirror/commands'
import { indentUnit } from '@codemirror/language'
import { Annotation, EditorState } from '@codemirror/state'
import { Decoration, EditorView, highlightActiveLine, keymap, MatchDecorator, ViewPlugin } from '@codemirror/view'
import { useEffect, useRef, useState } from 'react'
import type { IdSource } from '../../core/commands/command'
import { rewriteOutline } from '../../core/commands/rewrite-outline'
import {
  linesBelow,
  type OutlineForm,
  readOutlineText,
  type TopicLine,
  writeOutlineText,
} from '../../core/formats/outline-text'
import { pastedList } from '../../core/formats/pasted-list'
import type { TopicId } from '../../core/records/ids'
import type { Records } from '../../core/records/records'
import { LateSave } from '../app/late-save'
import { useSession } from '../sync/use-session'
import styles from './outline.module.css'

/** A moment after the last key what was written becomes topics. */
const WRITE_AFTER_MS = 350
/** The same for who writes without a pause, counted from the first key. */
const LONGEST_UNWRITTEN_MS = 1_500
const fromRecords = Annotation.define<boolean>()

/** Enter goes on with another item or heading on the same level. */
function newItem(view: EditorView): boolean {
  const { state } = view
  const { from, to } = state.selection.main
  const indent = /^(?:#{1,6} +|[ \t]*(?:[-*+•] +)?)/.exec(state.doc.lineAt(from).text)?.[0] ?? ''
  const insert = `\n${indent.trim() === '' ? indent : indent.replace(/[*+•]/, '-')}`
  view.dispatch({ changes: { from, to, insert }, selection: { anchor: from + insert.length }, scrollIntoView: true })
  return true
}

const HEADING = /^#{1,6}(?= |$)/gm
const headings = new MatchDecorator({ regexp: /^#{1,6} .*$/gm, decoration: Decoration.mark({ class: 'cm-heading' }) })

/** Headings stand out as such. */
const showHeadings = ViewPlugin.define(
  (view) => ({
    decorations: headings.createDeco(view),
    update(update) {
      this.decorations = headings.updateDeco(update, this.decorations)
    },
  }),
  { decorations: (plugin) => plugin.decorations },
)

/** Tab and Shift+Tab on headings: a level down or up. */
const stepHeading =
  (deeper: boolean) =>
  (view: EditorView): boolean => {
    const { doc, selection } = view.state
    const [first, last] = [doc.lineAt(selection.main.from), doc.lineAt(selection.main.to)]
    const changes = [...doc.sliceString(first.from, last.to).matchAll(HEADING)].flatMap(({ index, 0: { length } }) => {
      const from = first.from + index
      if (deeper) return length < 6 ? { from, insert: '#' } : []
      return length > 1 ? { from, to: from + 1 } : []
    })
    if (changes.length === 0) return first.number === last.number && /^#{1,6}(?: |$)/.test(first.text)
    view.dispatch({ changes })
    return true
  }

const sameLines = (a: string, b: string): boolean =>
  writeOutlineText(readOutlineText(a)) === writeOutlineText(readOutlineText(b))

/**
 * What hangs below a topic as plain text, to be written, moved and indented line by line. Both ways live: lines become
 * topics a moment after the last key, and what happens on the map appears here.
 */
export default function OutlineText({ head, form, title }: { head: TopicId; form: OutlineForm; title: string }) {
  const session = useSession()
  const host = useRef<HTMLDivElement>(null)
  const editor = useRef<EditorView | null>(null)
  const [late] = useState(() => new LateSave(WRITE_AFTER_MS, LONGEST_UNWRITTEN_MS))
  const lines = linesBelow(session.records, head)
  const written = writeOutlineText(lines, form)
  /** What the text in the editor said when it last agreed with the records: what was written since is the person's. */
  const base = useRef<readonly TopicLine[]>(lines)

  /** What is written and no topics yet; null where nothing is. */
  const unwritten = () => {
    const text = editor.current?.state.doc.toString()
    return text === undefined || sameLines(text, writeOutlineText(base.current)) ? null : text
  }
  const rewrite = (text: string) => (records: Records, newIds: IdSource) =>
    rewriteOutline(records, { head, base: base.current, text }, newIds)
  const write = useRef(() => {})
  write.current = () => {
    late.settle()
    const text = unwritten()
    session.endWriting({ topic: head, part: 'outline' }, text, () => {
      if (text === null) return true
      let lines: readonly TopicLine[] = []
      const written = session.run((records, newIds) => {
        const outcome = rewrite(text)(records, newIds)
        lines = outcome.lines
        return outcome
      })
      if (written) base.current = lines
      return written !== null
    })
  }

  // biome-ignore lint/correctness/useExhaustiveDependencies: the text at the beginning; later ones come as changes.
  useEffect(() => {
    if (!host.current) return
    const undo = (which: 'undo' | 'redo') => () => {
      write.current()
      void session.takeBack(which)
      return true
    }
    const view = new EditorView({
      parent: host.current,
      state: EditorState.create({
        doc: written,
        extensions: [
          EditorState.readOnly.of(!session.mayEdit),
          indentUnit.of('  '),
          EditorView.lineWrapping,
          highlightActiveLine(),
          showHeadings,
          EditorView.contentAttributes.of({ 'aria-label': `Outline of ${title} as text` }),
          keymap.of([
            { key: 'Enter', run: newItem },
            { key: 'Mod-z', run: undo('undo'), preventDefault: true },
            { key: 'Mod-Shift-z', run: undo('redo'), preventDefault: true },
            { key: 'Tab', run: stepHeading(true), shift: stepHeading(false) },
            indentWithTab,
            ...defaultKeymap,
          ]),
          EditorView.domEventHandlers({
            blur: () => write.current(),
            paste: (event, view) => {
              const { from, to } = view.state.selection.main
              const line = view.state.doc.lineAt(from)
              const insert = pastedList(
                line.text.slice(0, from - line.from),
                event.clipboardData?.getData('text/plain') ?? '',
              )
              if (insert === null || !session.mayEdit) return false
              view.dispatch({
                changes: { from, to, insert },
                selection: { anchor: from + insert.length },
                scrollIntoView: true,
              })
              return true
            },
          }),
          EditorView.updateListener.of((update) => {
            if (!update.docChanged || update.transactions.some((one) => one.annotation(fromRecords))) return
            late.ask(() => write.current())
            session.drafts.write({ topic: head, part: 'outline' }, () => {
              const text = unwritten()
              return text === null ? null : session.wouldBe(rewrite(text))
            })
          }),
        ],
      }),
    })
    editor.current = view
    view.focus()
    return () => {
      write.current()
      view.destroy()
      editor.current = null
    }
  }, [session, head, form, title])

  // What others do, an undo, or the map beside it: only the part that differs is replaced, so that the cursor stays.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the lines are those of the text.
  useEffect(() => {
    const view = editor.current
    // What could not become topics is tried again, and stays as it is written where it still cannot.
    if (view && !late.isDue) write.current()
    if (!view || late.isDue || unwritten() !== null) return
    const shown = view.state.doc.toString()
    base.current = lines
    if (sameLines(shown, written)) return
    let from = 0
    while (from < shown.length && from < written.length && shown[from] === written[from]) from++
    let end = 0
    while (
      end < shown.length - from &&
      end < written.length - from &&
      shown[shown.length - 1 - end] === written[written.length - 1 - end]
    )
      end++
    const changes = { from, to: shown.length - end, insert: written.slice(from, written.length - end) }
    view.dispatch({ changes, annotations: fromRecords.of(true) })
  }, [written])

  return <div ref={host} className={styles.asText} />
}
