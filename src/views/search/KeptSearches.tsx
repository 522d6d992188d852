import { ActionIcon, Button, Menu, Text, UnstyledButton } from '@mantine/core'
import { IconBookmark, IconDots } from '@tabler/icons-react'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { keepSearch } from '../../core/commands/searches'
import { type AskedNames, askedWords } from '../../core/gathering/asked'
import type { SearchAsked, SearchRecord } from '../../core/records/search'
import { NameDialog } from '../app/NameDialog'
import { useSession } from '../sync/use-session'
import { searchesKey, useSearches } from './kept'
import styles from './search.module.css'

/** Keeps what is asked for under a name, for everybody in the collection. */
export function KeepSearch({ asked, proposed }: { asked: SearchAsked; proposed: string }) {
  const session = useSession()
  const queries = useQueryClient()
  const [isNaming, setNaming] = useState(false)
  if (!session.mayEditAll) return null
  return (
    <>
      <Button
        size="compact-sm"
        variant="default"
        leftSection={<IconBookmark size={16} aria-hidden />}
        onClick={() => setNaming(true)}
      >
        Keep this search …
      </Button>
      {isNaming && (
        <NameDialog
          title="Keep this search"
          act="Keep"
          name={proposed.slice(0, 200)}
          most={200}
          onClose={() => setNaming(false)}
          onName={(name) => {
            setNaming(false)
            session.run((records, newIds) => keepSearch(records, { name, asked }, newIds))
            void session.whenSaved().then(() => queries.invalidateQueries({ queryKey: searchesKey(session.id) }))
          }}
        />
      )}
    </>
  )
}

/** The searches that were kept: done again, renamed, removed. */
export function KeptSearches({ names, onChoose }: { names: AskedNames; onChoose(asked: SearchAsked): void }) {
  const session = useSession()
  const queries = useQueryClient()
  const searches = useSearches(session.id, session.readsAll)
  const [renamed, setRenamed] = useState<SearchRecord | null>(null)
  const command = async (name: string, args: object) => {
    const isDone = (await session.server.command(name, args)) !== null
    await queries.invalidateQueries({ queryKey: searchesKey(session.id) })
    return isDone
  }
  if (searches.length === 0) return null
  return (
    <section aria-label="Kept searches">
      <Text fw={600} size="sm">
        Kept searches
      </Text>
      <ul className={styles.kept}>
        {searches.map((search) => (
          <li key={search.id}>
            <UnstyledButton className={styles.keptName} onClick={() => onChoose(search.asked)}>
              <IconBookmark size={16} aria-hidden />
              <span>
                {search.name}
                <span className={styles.where}> {askedWords(search.asked, names)}</span>
              </span>
            </UnstyledButton>
            {session.mayEditAll && (
              <Menu position="bottom-end" transitionProps={{ duration: 0 }}>
                <Menu.Target>
                  <ActionIcon variant="subtle" color="gray" aria-label={`${search.name}: what can be done`}>
                    <IconDots size={16} />
                  </ActionIcon>
                </Menu.Target>
                <Menu.Dropdown>
                  <Menu.Item onClick={() => setRenamed(search)}>Rename …</Menu.Item>
                  <Menu.Item c="var(--ember-text)" onClick={() => void command('remove-search', { search: search.id })}>
                    Keep it no longer
                  </Menu.Item>
                </Menu.Dropdown>
              </Menu>
            )}
          </li>
        ))}
      </ul>
      {renamed && (
        <NameDialog
          title={`Rename the search ${renamed.name}`}
          name={renamed.name}
          most={200}
          onClose={() => setRenamed(null)}
          onName={(name) => {
            const { id, asked } = renamed
            void command('change-search', { search: id, name, asked }).then((isDone) => isDone && setRenamed(null))
          }}
        />
      )}
    </section>
  )
}
