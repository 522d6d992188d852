import { Fragment, memo, type ReactNode, useMemo } from 'react'
import { readOwnAddress } from '../../core/formats/own-address'
import { type DocumentNode, readNote } from '../../core/text/note-document'
import { useSessionHandle } from '../sync/use-session'
import styles from './page.module.css'

/** A note as it reads, without the editor. Links into the collection are handed to `go`; the others open beside. */
export const NoteView = memo(({ text, go }: { text: string; go(address: string): void }) => {
  const { blocks } = useMemo(() => readNote(text), [text])
  return <div className={styles.note}>{blocks.map((block, i) => nodeView(block, i, go))}</div>
})
NoteView.displayName = 'NoteView'

type Go = (address: string) => void

function nodeView(node: DocumentNode, key: number, go: Go): ReactNode {
  const inside = node.content?.map((inner, i) => nodeView(inner, i, go))
  switch (node.type) {
    case 'text':
      return <Fragment key={key}>{markedText(node, go)}</Fragment>
    case 'hardBreak':
      return <br key={key} />
    case 'notePicture':
      return <NotePicture key={key} node={node} />
    case 'paragraph':
      return (
        <p key={key} dir="auto">
          {inside}
        </p>
      )
    case 'heading':
      // The headings of the page are its topics: those inside a note only look like ones.
      return (
        <p key={key} className={styles.noteHeading} dir="auto">
          {inside}
        </p>
      )
    case 'bulletList':
      return <ul key={key}>{inside}</ul>
    case 'orderedList':
      return (
        <ol key={key} start={Number(node.attrs?.start ?? 1)}>
          {inside}
        </ol>
      )
    case 'taskList':
      return (
        <ul key={key} className={styles.tasks}>
          {inside}
        </ul>
      )
    case 'taskItem':
      return (
        <li key={key}>
          <input type="checkbox" checked={node.attrs?.checked === true} readOnly tabIndex={-1} aria-label="Done" />
          <div>{inside}</div>
        </li>
      )
    case 'listItem':
      return (
        <li key={key} dir="auto">
          {inside}
        </li>
      )
    case 'blockquote':
      return <blockquote key={key}>{inside}</blockquote>
    case 'codeBlock':
    case 'rawBlock':
      return <pre key={key}>{inside}</pre>
    case 'horizontalRule':
      return <hr key={key} />
    case 'table':
      return (
        <table key={key}>
          <tbody>{inside}</tbody>
        </table>
      )
    case 'tableRow':
      return <tr key={key}>{inside}</tr>
    case 'tableHeader':
      return <th key={key}>{inside}</th>
    case 'tableCell':
      return <td key={key}>{inside}</td>
    default:
      return <Fragment key={key}>{inside}</Fragment>
  }
}

/** A text within its marks, the outermost first. */
function markedText({ text, marks = [] }: DocumentNode, go: Go): ReactNode {
  let inside: ReactNode = text
  for (const mark of marks.toReversed()) inside = within(mark, inside, go)
  return inside
}

function within({ type, attrs }: NonNullable<DocumentNode['marks']>[number], inside: ReactNode, go: Go): ReactNode {
  switch (type) {
    case 'bold':
      return <strong>{inside}</strong>
    case 'italic':
      return <em>{inside}</em>
    case 'strike':
      return <s>{inside}</s>
    case 'code':
      return <code>{inside}</code>
    case 'link':
      return <NoteLink address={String(attrs?.href ?? '')} go={go} inside={inside} />
    default:
      return inside
  }
}

/** A picture of the collection; its words where it is not there any more. */
function NotePicture({ node }: { node: DocumentNode }) {
  const { id } = useSessionHandle()
  const own = readOwnAddress(String(node.attrs?.src ?? ''))
  const words = String(node.attrs?.alt ?? '')
  if (own?.kind !== 'file') return words
  return (
    <img
      className={styles.notePicture}
      src={`/api/collections/${id}/files/${own.id}?width=1280`}
      alt={words}
      loading="lazy"
    />
  )
}

/** Only addresses of the web, of mail and of our own lead anywhere: a note can hold what others have written. */
function NoteLink({ address, go, inside }: { address: string; go: Go; inside: ReactNode }) {
  if (address.startsWith('folvet:'))
    return (
      <button type="button" className={styles.link} onClick={() => go(address)}>
        {inside}
      </button>
    )
  if (!/^(https?:|mailto:)/i.test(address)) return inside
  return (
    <a href={address} target="_blank" rel="noopener noreferrer">
      {inside}
    </a>
  )
}
