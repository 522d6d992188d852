import { Alert, Checkbox, Loader, Text } from '@mantine/core'
import type { Page } from '../../core/formats/page-file'
import { wordsFor } from '../app/api'
import { useSession } from '../sync/use-session'
import styles from './beginning.module.css'
import { type PageDifferences, usePageDifferences } from './known-pages'

interface Props {
  pages: readonly Page[]
  /** Maps whose pages are not among these, and those of them that are to go. */
  missing: readonly { path: string; map: string; title: string }[]
  gone: ReadonlySet<string>
  setGone(gone: ReadonlySet<string>): void
}

/** What was changed in pages at their source since they were last brought in. */
export function Differences({ pages, missing, gone, setGone }: Props) {
  const session = useSession()
  const { data, error } = usePageDifferences(session.id, pages)
  if (error) return <Alert color="ember">{wordsFor(error)}</Alert>
  if (!data) return <Loader size="sm" aria-label="Comparing the pages" />
  const others = data.filter(({ state }) => state !== 'same')
  const same = data.length - others.length
  return (
    <section className={styles.differences} aria-label="What is different" tabIndex={0}>
      {others.map((page) => (
        <PageView key={page.path} page={page} />
      ))}
      {same > 0 && (
        <Text size="sm" c="dimmed">
          {same === 1 ? '1 page is' : `${same} pages are`} as before.
        </Text>
      )}
      {missing.length > 0 && (
        <div>
          <Text size="sm" fw={600}>
            Not there any more
          </Text>
          {missing.map(({ path, map, title }) => (
            <Checkbox
              key={map}
              size="sm"
              label={`${path}: put the map ${title || 'Untitled'} into the trash`}
              checked={gone.has(map)}
              onChange={(event) => {
                const next = new Set(gone)
                if (event.currentTarget.checked) next.add(map)
                else next.delete(map)
                setGone(next)
              }}
            />
          ))}
        </div>
      )}
    </section>
  )
}

const KINDS = [
  ['added', 'Added'],
  ['removed', 'Removed'],
  ['moved', 'Moved'],
  ['noted', 'Other notes'],
  ['both', 'Changed here too: your words stay'],
] as const

function PageView({ page }: { page: PageDifferences }) {
  const { path, title, state, reworded, counts } = page
  const isOnlyText = Object.values(counts).every((count) => count === 0)
  return (
    <article className={styles.pageDifferences}>
      <h3>
        {path} <span>{state === 'new' ? 'becomes a map' : `the map ${title || 'Untitled'}`}</span>
      </h3>
      {isOnlyText && state === 'changed' && <Text size="sm">Its text is another one, and says the same as a map.</Text>}
      <dl>
        {reworded.length > 0 && (
          <>
            <dt>Reworded</dt>
            {reworded.map(({ from, to }) => (
              <dd key={`${from} ${to}`}>
                <s>{from}</s> {to}
              </dd>
            ))}
          </>
        )}
        {state === 'changed' &&
          KINDS.map(
            ([kind, name]) =>
              page[kind].length > 0 && (
                <div key={kind}>
                  <dt>{name}</dt>
                  {page[kind].map((text, i) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: the list is only read, and texts can be equal.
                    <dd key={`${i} ${text}`}>{text || 'Untitled'}</dd>
                  ))}
                  {counts[kind]! > page[kind].length && <dd>and {counts[kind]! - page[kind].length} more</dd>}
                </div>
              ),
          )}
      </dl>
    </article>
  )
}
