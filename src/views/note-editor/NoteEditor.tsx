import '@mantine/tiptap/styles.layer.css'
import { RichTextEditor } from '@mantine/tiptap'
import { IconArrowsMaximize, IconMapPin, IconSearch, IconSourceCode } from '@tabler/icons-react'
import { Node } from '@tiptap/core'
import { TaskItem, TaskList } from '@tiptap/extension-list'
import { TableKit } from '@tiptap/extension-table'
import { Placeholder } from '@tiptap/extensions'
import { Fragment, Slice } from '@tiptap/pm/model'
import { type Editor, useEditor } from '@tiptap/react'
import StarterKit from '@tiptap/starter-kit'
import { useEffect, useRef, useState } from 'react'
import type { Change } from '../../core/changes/edit'
import { writeNote } from '../../core/commands/write-note'
import { type OwnAddress, writeOwnAddress } from '../../core/formats/own-address'
import { FileId, TopicId } from '../../core/records/ids'
import { type DocumentNode, type NoteSource, readNote, writeNote as writeBlocks } from '../../core/text/note-document'
import { passageOf } from '../../core/text/passage'
import { tellTrouble } from '../app/api'
import { LateSave } from '../app/late-save'
import { FindDialog } from '../dialogs/FindDialog'
import { picturesAmong } from '../pictures/send-picture'
import { upload } from '../sheet/upload'
import type { CollectionSession } from '../sync/collection-session'
import { useSessionHandle } from '../sync/use-session'
import { FindBar } from './FindBar'
import { FindWords } from './find-words'
import { blocksOf, LIST } from './first-words'
import { ListMark } from './list-mark'
import { NoteFoot } from './NoteFoot'
import styles from './note-editor.module.css'
import { NotePicture } from './note-picture'
import { TableMenu } from './TableMenu'

/** What the editor cannot show, as the text that it is. */
const RawBlock = Node.create({
  name: 'rawBlock',
  group: 'block',
  content: 'text*',
  marks: '',
  code: true,
  defining: true,
  parseHTML: () => [{ tag: 'pre[data-raw]', preserveWhitespace: 'full' as const }],
  renderHTML: () => ['pre', { 'data-raw': '', title: 'Shown as it is written' }, 0],
})

const SHARED = [
  StarterKit.configure({
    trailingNode: false,
    underline: false,
    link: { openOnClick: false, autolink: true, protocols: ['folvet'] },
  }),
  TaskList,
  TaskItem.configure({ nested: true }),
  TableKit.configure({ table: { resizable: false } }),
  RawBlock,
  FindWords,
  ListMark,
  Placeholder.configure({ placeholder: 'Write what lies behind this topic …' }),
]

/** What was pasted into a field before the editor took over: as it was, as words, and behind how many letters of the field. */
export interface Pasted {
  at: number
  html: string
  words: string
}

/** Leads from what is selected, or from a name that is put there, to something of the collection. */
function link(editor: Editor, to: OwnAddress, name: string): void {
  const mark = { type: 'link', attrs: { href: writeOwnAddress(to) } }
  const { from, to: end, empty } = editor.state.selection
  const text = empty ? name.split('\n', 1)[0]!.trim() || 'Untitled' : editor.state.doc.textBetween(from, end, ' ')
  editor
    .chain()
    .focus()
    .insertContent({ type: 'text', text, marks: [mark] })
    // What is typed on stands behind the link.
    .unsetMark('link')
    .run()
}

/** Uploads a picture onto the topic, and shows it in the note at a point, which goes along with what is written meanwhile. */
async function putPicture(
  session: CollectionSession,
  editor: Editor,
  topic: TopicId,
  picture: File,
  at: number,
): Promise<void> {
  let place = at
  const follow = ({ transaction }: { transaction: { mapping: { map(position: number): number } } }) => {
    place = transaction.mapping.map(place)
  }
  editor.on('transaction', follow)
  await session.whenSaved()
  const file = FileId.safeParse(await upload(session.id, topic, picture, () => {}).catch(tellTrouble)).data
  editor.off('transaction', follow)
  if (!file || editor.isDestroyed) return
  const attrs = { src: writeOwnAddress({ kind: 'file', id: file, page: null }), alt: picture.name, title: null }
  editor.chain().insertContentAt(Math.min(place, editor.state.doc.content.size), { type: 'notePicture', attrs }).run()
}

/** A note is saved so long after the last key, and at the latest so long after the first that is not saved, in ms. */
const SAVE_AFTER_MS = 600
const LONGEST_UNSAVED_MS = 1_500

const FORMS = { 'in the sheet': '', 'in a text': styles.inText, 'in the whole window': styles.inWindow } as const

/** A note of which a part is to be a topic of its own: what it was, what stays, and the text and note of the topic. CommonMark. */
export interface NoteSplit {
  base: string
  before: string
  text: string
  after: string
}

interface Loaded {
  topic: TopicId
  text: string
  source: NoteSource
  blocks: DocumentNode[]
}

function load(editor: Editor, { topic, text }: Pick<Loaded, 'topic' | 'text'>): Loaded {
  const source = readNote(text)
  editor.commands.setContent(
    { type: 'doc', content: source.blocks.length > 0 ? source.blocks : [{ type: 'paragraph' }] },
    { emitUpdate: false },
  )
  return {
    topic,
    text,
    source,
    blocks: source.blocks.length > 0 ? (editor.getJSON().content as DocumentNode[]) : [],
  }
}

/** What an editor says as CommonMark, null where that is what it was loaded with; and its blocks. */
function writtenIn(editor: Editor, { text, source, blocks: before }: Loaded) {
  const blocks = editor.getJSON().content as DocumentNode[]
  const isEmpty = blocks.every((block) => block.type === 'paragraph' && !block.content?.length)
  const written = isEmpty ? '' : writeBlocks(source, before, blocks)
  return { written: written === text || (isEmpty && text.trim() === '') ? null : written, blocks }
}

/**
 * The rich text editor of a note. `text` is CommonMark. It is saved, against the text that the person began with, a moment after
 * the last key and when the editor loses the focus. Opening and leaving alters nothing.
 */
export default function NoteEditor({
  topic,
  text,
  takeOver,
  editable,
  focusRequest,
  onFocused,
  caret = null,
  stands = 'in the sheet',
  widen,
  onCover,
  split,
  leave,
}: {
  /** Another topic takes the place of the one before in the same editor: making an editor anew costs many frames. */
  topic: TopicId
  text: string
  /**
   * Called once, when the editor stands: gives what was typed before, whether the person is still there, and the request after
   * which the person went elsewhere: what is drawn of that may come later than the editor.
   */
  takeOver(): { words: string; focused: boolean; pasted?: readonly Pasted[]; left?: number }
  editable: boolean
  focusRequest: number
  /** Told when it has the keyboard that was asked for. */
  onFocused(request: number): void
  /** In a running text it has no frame, and its tools below, so that the words stay where they were read; a window it fills. */
  stands?: 'in the sheet' | 'in a text' | 'in the whole window'
  /** Shows the note in the whole window; without it there is no such way. */
  widen?(): void
  /** Told whether something lies over it that Escape closes first. */
  onCover?(isCovered: boolean): void
  /** Where the person pressed to write there, in px of the window; at the end where nothing is said. */
  caret?: { x: number; y: number } | null
  /**
   * Makes a topic of a part of the note: of the block at the caret with Ctrl+Enter, a new one with Enter in an empty last
   * paragraph. Without it these keys do what they do in any text.
   */
  split?(parts: NoteSplit): void
  leave(): void
}) {
  const loaded = useRef<Loaded | null>(null)
  const asked = useRef(focusRequest)
  asked.current = focusRequest
  const session = useSessionHandle()
  const [late] = useState(() => new LateSave(SAVE_AFTER_MS, LONGEST_UNSAVED_MS))
  const editorNow = useRef<Editor | null>(null)
  const saveNow = useRef((_: Editor) => {})
  saveNow.current = (editor) => {
    late.settle()
    const before = loaded.current
    if (!before) return
    const { topic, text: base } = before
    const { written, blocks } = writtenIn(editor, before)
    session.endWriting({ topic, part: 'note' }, written, () =>
      written === null
        ? true
        : session.run((records, newIds) => writeNote(records, { topic, base, text: written }, newIds)) !== null,
    )
    if (written === null) return
    const source = readNote(written)
    // Where the editor shows other blocks than a reading of the text gives, the next writing starts from the text.
    loaded.current = { ...before, text: written, source, blocks: source.slices.length === blocks.length ? blocks : [] }
  }
  /** The change that the note would be now. */
  const draft = useRef((_: Editor): Change | null => null)
  draft.current = (editor) => {
    const before = loaded.current
    const written = before && !editor.isDestroyed ? writtenIn(editor, before).written : null
    if (!before || written === null) return null
    const { topic, text: base } = before
    return session.wouldBe((records, newIds) => writeNote(records, { topic, base, text: written }, newIds))
  }
  const splitAt = useRef<(editor: Editor, at: 'block' | 'end') => boolean>(() => false)
  splitAt.current = (editor, at) => {
    const now = loaded.current
    const { $from } = editor.state.selection
    const blocks = editor.getJSON().content as DocumentNode[]
    const index = $from.index(0)
    const block = editor.state.doc.child(index)
    const isEmptyEnd = block.type.name === 'paragraph' && block.content.size === 0 && index === blocks.length - 1
    if (!now || !split || (at === 'end' && !(isEmptyEnd && index > 0))) return false
    late.settle()
    session.drafts.end({ topic, part: 'note' })
    const written = (part: DocumentNode[]) => (part.length > 0 ? writeBlocks(now.source, now.blocks, part) : '')
    // What is left here is written by the split: leaving the editor writes nothing more.
    loaded.current = null
    split({
      base: now.text,
      before: written(blocks.slice(0, index)),
      text: block.textBetween(0, block.content.size, ' ', ' ').trim(),
      after: written(blocks.slice(index + 1)),
    })
    return true
  }
  const [extensions] = useState(() => [
    ...SHARED,
    NotePicture.configure({ address: (file) => `/api/collections/${session.id}/files/${file}?width=1280` }),
  ])
  const [isPicking, setPicking] = useState(false)
  const [isFinding, setFinding] = useState(false)
  const takePictures = (files: readonly File[], at: number) => {
    const editor = editorNow.current
    const pictures = picturesAmong(files)
    if (!editor || !editable || pictures.length === 0) return false
    for (const picture of pictures) void putPicture(session, editor, topic, picture, at)
    return true
  }
  // What was written here is read there.
  const widenSaved =
    widen &&
    (() => {
      if (editorNow.current) saveNow.current(editorNow.current)
      widen()
    })
  const widenNow = useRef(widenSaved)
  widenNow.current = widenSaved
  const isCovered = isPicking || isFinding
  // biome-ignore lint/correctness/useExhaustiveDependencies: told when that changes, whoever listens
  useEffect(() => onCover?.(isCovered), [isCovered])
  const takeNow = useRef(takePictures)
  takeNow.current = takePictures
  const editor = useEditor({
    extensions,
    editable,
    immediatelyRender: true,
    shouldRerenderOnTransaction: false,
    editorProps: {
      attributes: {
        'aria-label': 'Note',
        role: 'textbox',
        'aria-multiline': 'true',
        ...(stands === 'in the whole window' ? { 'data-autofocus': 'true' } : {}),
      },
      handlePaste: (view, event) => takeNow.current([...(event.clipboardData?.files ?? [])], view.state.selection.to),
      // Where it is dropped: what is selected elsewhere stays.
      handleDrop: (view, event) => {
        const at = view.posAtCoords({ left: event.clientX, top: event.clientY })?.pos
        return takeNow.current([...(event.dataTransfer?.files ?? [])], at ?? view.state.selection.to)
      },
      clipboardTextParser: (pasted, _, isPlain, view) => {
        // A list that was copied as text is one here too; whatever else is pasted as it is.
        const blocks = isPlain || !LIST.test(pasted) ? [] : readNote(pasted).blocks
        const nodes = blocks.map((block) => view.state.schema.nodeFromJSON(block))
        return (nodes.length > 0 ? Slice.maxOpen(Fragment.from(nodes)) : null) as Slice
      },
      handleTextInput: (view, from, _to, text) => {
        // Two brackets ask for something to lead to, and are no part of the text.
        const isInCode = view.state.selection.$from.parent.type.spec.code
        if (text !== '[' || isInCode || view.state.doc.textBetween(Math.max(0, from - 1), from) !== '[') return false
        view.dispatch(view.state.tr.delete(from - 1, from))
        setPicking(true)
        return true
      },
      handleKeyDown: (view, event) => {
        if (event.key.toLowerCase() === 'f' && (event.ctrlKey || event.metaKey) && !event.shiftKey) {
          setFinding(true)
          event.preventDefault()
          return true
        }
        if (event.altKey && event.shiftKey && event.code === 'KeyN' && widenNow.current) {
          widenNow.current()
          event.preventDefault()
          return true
        }
        if (event.key !== 'Enter' || event.shiftKey || event.isComposing || !editorNow.current) return false
        const isCommand = event.ctrlKey || event.metaKey
        // A key can be faster than the event that tells where a press has put the caret.
        if (isCommand) view.dom.ownerDocument.dispatchEvent(new Event('selectionchange'))
        return splitAt.current(editorNow.current, isCommand ? 'block' : 'end')
      },
    },
    onCreate: ({ editor: created }) => {
      editorNow.current = created
      loaded.current = load(created, { topic, text })
      const { words, focused, pasted = [], left = 0 } = takeOver()
      const first = words.slice(0, pasted[0]?.at)
      if (first.trim() !== '' && words.trim() !== text.trim()) {
        // Behind what somebody else has written meanwhile.
        const before = text.trim() === '' ? [] : (created.getJSON().content ?? [])
        created.commands.setContent({ type: 'doc', content: [...before, ...blocksOf(first)] }, { emitUpdate: true })
      }
      pasted.forEach(({ at, html }, i) => {
        created.commands.setTextSelection(created.state.doc.content.size)
        created.view.pasteHTML(html)
        const then = words.slice(at, pasted[i + 1]?.at)
        if (then !== '') created.commands.insertContent({ type: 'text', text: then })
      })
      // At once, not in the next frame as the command would: no key may fall between the field and the editor.
      const isAsked = asked.current > 0 && asked.current !== left
      if (focused || isAsked) {
        const pressed = caret && created.view.posAtCoords({ left: caret.x, top: caret.y })
        created.commands.setTextSelection(pressed?.pos ?? created.state.doc.content.size)
        created.view.focus()
      }
      if (asked.current > 0) onFocused(asked.current)
      // What was asked for while the editor was on its way.
      if (focused && words.endsWith('[[')) {
        const end = created.state.doc.content.size - 1
        created.commands.deleteRange({ from: end - 2, to: end })
        setPicking(true)
      }
    },
    onUpdate: ({ editor: changed }) => {
      late.ask(() => saveNow.current(changed))
      session.drafts.write({ topic, part: 'note' }, () => draft.current(changed))
    },
    onBlur: ({ editor: left }) => saveNow.current(left),
  })

  // biome-ignore lint/correctness/useExhaustiveDependencies: only another topic loads another text here
  useEffect(() => {
    if (!editor || editor.isDestroyed || !loaded.current || loaded.current.topic === topic) return
    saveNow.current(editor)
    loaded.current = load(editor, { topic, text })
  }, [topic, editor])

  // Words of others, or an undo, arrive: shown at once unless this person has written since the last save.
  useEffect(() => {
    const before = loaded.current
    if (!editor || editor.isDestroyed || !before || before.topic !== topic || text === before.text) return
    const blocks = editor.getJSON().content as DocumentNode[]
    const written =
      before.blocks.length === 0 && before.text.trim() === '' ? '' : writeBlocks(before.source, before.blocks, blocks)
    if (written.trim() !== before.text.trim()) return
    const { from } = editor.state.selection
    loaded.current = load(editor, { ...before, text })
    if (editor.isFocused) editor.commands.setTextSelection(Math.min(from, editor.state.doc.content.size))
  }, [text, topic, editor])

  useEffect(() => {
    // Until the editor has taken over, the keyboard stays with the field: what is typed into it sooner would be lost.
    if (focusRequest === 0 || !editor || editor.isDestroyed || !loaded.current) return
    editor.commands.setTextSelection(editor.state.doc.content.size)
    // At once, where the command waits for a frame: a key could come between.
    editor.view.focus()
    editor.commands.scrollIntoView()
    onFocused(focusRequest)
  }, [focusRequest, editor, onFocused])
  useEffect(() => {
    const save = () => {
      if (editor && !editor.isDestroyed) saveNow.current(editor)
    }
    // A page that is left, or hidden, may not come back.
    const hide = () => document.visibilityState === 'hidden' && save()
    window.addEventListener('pagehide', save)
    document.addEventListener('visibilitychange', hide)
    return () => {
      window.removeEventListener('pagehide', save)
      document.removeEventListener('visibilitychange', hide)
      save()
    }
  }, [editor])

  return (
    <>
      <RichTextEditor
        editor={editor}
        className={`${styles.editor} ${FORMS[stands]}`}
        onKeyDown={(event) => {
          event.stopPropagation()
          if (event.key === 'Escape') leave()
        }}
      >
        {editable && (
          <RichTextEditor.Toolbar className={styles.toolbar}>
            <RichTextEditor.ControlsGroup>
              <RichTextEditor.Bold />
              <RichTextEditor.Italic />
              <RichTextEditor.Strikethrough />
              <RichTextEditor.Code />
            </RichTextEditor.ControlsGroup>
            <RichTextEditor.ControlsGroup>
              <RichTextEditor.H2 />
              <RichTextEditor.H3 />
              <RichTextEditor.Blockquote />
              <RichTextEditor.BulletList />
              <RichTextEditor.OrderedList />
              <RichTextEditor.TaskList />
              <RichTextEditor.CodeBlock icon={() => <IconSourceCode size={16} stroke={1.5} />} />
              {editor && <TableMenu editor={editor} />}
            </RichTextEditor.ControlsGroup>
            <RichTextEditor.ControlsGroup>
              <RichTextEditor.Link />
              <RichTextEditor.Control
                aria-label="Link to a topic, a map or a file"
                title="Link to a topic, a map or a file: type [["
                onClick={() => setPicking(true)}
              >
                <IconMapPin size={16} stroke={1.5} />
              </RichTextEditor.Control>
              <RichTextEditor.Control
                aria-label="Find and replace"
                title="Find and replace (Ctrl + F)"
                aria-expanded={isFinding}
                onClick={() => setFinding(!isFinding)}
              >
                <IconSearch size={16} stroke={1.5} />
              </RichTextEditor.Control>
              {widenSaved && (
                <RichTextEditor.Control
                  aria-label="Write in the whole window"
                  title="Write in the whole window (Alt + Shift + N)"
                  onClick={widenSaved}
                >
                  <IconArrowsMaximize size={16} stroke={1.5} />
                </RichTextEditor.Control>
              )}
            </RichTextEditor.ControlsGroup>
          </RichTextEditor.Toolbar>
        )}
        {isFinding && editor && (
          <FindBar
            editor={editor}
            editable={editable}
            close={() => {
              setFinding(false)
              editor.view.focus()
            }}
          />
        )}
        <RichTextEditor.Content />
        {editor && <NoteFoot editor={editor} topic={TopicId.parse(topic)} countsWords={stands !== 'in the sheet'} />}
      </RichTextEditor>
      {isPicking && editor && (
        <FindDialog
          collection={session.id}
          title="Link to what?"
          onTake={(found) => {
            setPicking(false)
            const own: OwnAddress =
              found.kind === 'map'
                ? { kind: 'map', id: found.id }
                : { kind: 'topic', id: found.kind === 'topic' ? found.id : found.topic, passage: null }
            link(editor, own, found.text)
          }}
          onTakeBehind={({ kind, id, topic: carrier, topicText, text: name, page }) => {
            setPicking(false)
            const file = kind === 'file' || kind === 'file text' ? FileId.safeParse(id).data : undefined
            if (file) link(editor, { kind: 'file', id: file, page }, kind === 'file' ? name : topicText)
            else
              link(
                editor,
                { kind: 'topic', id: carrier, passage: kind === 'note' ? passageOf(name) || null : null },
                topicText,
              )
          }}
          onClose={() => {
            setPicking(false)
            editor.view.focus()
          }}
        />
      )}
    </>
  )
}
