import { ActionIcon, Box, Button, Container, Drawer, Kbd } from '@mantine/core'
import { useDisclosure } from '@mantine/hooks'
import { IconLayoutSidebar, IconSearch } from '@tabler/icons-react'
import type { ReactNode } from 'react'
import { NewVersion } from '../sync/NewVersion'
import { NotSavedNotice } from '../sync/NotSavedNotice'
import { useSession } from '../sync/use-session'
import { findAnything } from './FindKey'
import styles from './frame.module.css'
import { TopBar } from './PageFrame'
import { PlaceList } from './PlaceList'
import { PLACES, type Place } from './places'
import { UndoButton } from './UndoButton'

/** The frame of the screens that show all of a collection in one respect: its places at the left, the way up and the finder above. */
export function CollectionFrame({
  place,
  isWide = false,
  children,
}: {
  place: Place
  /** Whether the matter fills what is beside the places. */
  isWide?: boolean
  children: ReactNode
}) {
  const session = useSession()
  const [isOpen, { open, close }] = useDisclosure()
  const { name } = PLACES.find((each) => each.place === place)!
  const trail = [{ name: session.collection.title, address: `/c/${session.id}` }]
  if (place !== 'maps') trail.push({ name, address: `/c/${session.id}/${place}` })
  return (
    <>
      <TopBar
        trail={trail}
        before={
          <ActionIcon
            className={styles.opener}
            variant="subtle"
            color="gray"
            c="var(--ink)"
            aria-label="Places of the collection"
            onClick={open}
          >
            <IconLayoutSidebar size={18} />
          </ActionIcon>
        }
      >
        <NewVersion />
        <NotSavedNotice />
        <UndoButton />
        <Button
          variant="default"
          size="compact-sm"
          aria-label="Find anything"
          leftSection={<IconSearch size={16} aria-hidden />}
          className={styles.find}
          onClick={findAnything}
        >
          <Box component="span" visibleFrom="sm">
            Find … <Kbd size="xs">Ctrl K</Kbd>
          </Box>
        </Button>
      </TopBar>
      <div className={styles.sides}>
        <div className={styles.column}>
          <PlaceList here={place} />
        </div>
        {isWide ? (
          <main>{children}</main>
        ) : (
          <Container size="md" py="lg" component="main" w="100%">
            {children}
          </Container>
        )}
      </div>
      <Drawer opened={isOpen} onClose={close} size={240} title={session.collection.title} hiddenFrom="lg">
        <PlaceList here={place} />
      </Drawer>
    </>
  )
}
