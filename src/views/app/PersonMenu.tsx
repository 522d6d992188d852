import { Box, Button, Menu } from '@mantine/core'
import { IconAdjustments, IconBookmark, IconDoorExit, IconTrashX, IconUser, IconUserPlus } from '@tabler/icons-react'
import { Suspense, useState } from 'react'
import { z } from 'zod'
import { useWorkspace, workspace } from '../workspace/workspace-store'
import { ask, tellTrouble } from './api'
import { forgetPerson } from './forget'
import { late } from './late'
import { usePerson } from './person'

const PersonDialog = late(() => import('./PersonDialog'))
const SettingsDialog = late(() => import('../settings/SettingsDialog'))

/** Who is here, what they have set, and the way out. */
export function PersonMenu() {
  const person = usePerson()
  const [asked, setAsked] = useState<'claim' | 'end' | 'settings' | null>(null)
  if (!person) return null
  // On a map they are one of its dialogs, with the keys of its acts.
  const openSettings = () =>
    useWorkspace.getState().panes.length > 0 ? workspace.dialog({ kind: 'settings' }) : setAsked('settings')
  const signOut = () =>
    ask(z.unknown(), '/api/sessions', { method: 'DELETE' }).then(async () => {
      await forgetPerson(person.id)
      window.location.assign('/')
    }, tellTrouble)
  return (
    <>
      <Menu position="bottom-end" width={240}>
        <Menu.Target>
          <Button
            variant="subtle"
            color="gray"
            c="var(--ink)"
            leftSection={<IconUser size={18} />}
            size="compact-md"
            aria-label={person.name}
          >
            <Box component="span" visibleFrom="xs">
              {person.name}
            </Box>
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item leftSection={<IconAdjustments size={16} />} onClick={openSettings}>
            Personal settings
          </Menu.Item>
          <Menu.Divider />
          <Menu.Item component="a" href="/capture" leftSection={<IconBookmark size={16} />}>
            Keep pages from the web
          </Menu.Item>
          {person.address ? (
            <Menu.Item leftSection={<IconDoorExit size={16} />} onClick={signOut}>
              Sign out
            </Menu.Item>
          ) : (
            <>
              <Menu.Item leftSection={<IconUserPlus size={16} />} onClick={() => setAsked('claim')}>
                Keep this as my account
              </Menu.Item>
              <Menu.Item leftSection={<IconTrashX size={16} />} color="ember" onClick={() => setAsked('end')}>
                End and leave nothing here
              </Menu.Item>
            </>
          )}
        </Menu.Dropdown>
      </Menu>
      {asked === 'settings' && (
        <Suspense>
          <SettingsDialog onClose={() => setAsked(null)} />
        </Suspense>
      )}
      {asked && asked !== 'settings' && (
        <Suspense>
          <PersonDialog asked={asked} person={person} onClose={() => setAsked(null)} />
        </Suspense>
      )}
    </>
  )
}
