import { ActionIcon, Anchor, Button, Group, SegmentedControl, Switch, Text, TextInput, Title } from '@mantine/core'
import { IconMinus, IconPlus, IconSearch } from '@tabler/icons-react'
import { useCallback, useMemo, useRef, useState } from 'react'
import { atlasByCloseness, atlasOf, LEAST_WIDTH, type Plate, TITLE_HEIGHT } from '../../core/network/atlas'
import { MapId } from '../../core/records/ids'
import { foldForFinding } from '../../core/text/folding'
import { tell } from '../app/api'
import { PageFrame } from '../app/PageFrame'
import { FolderDialog } from '../collection/FolderDialog'
import { TrashMaps } from '../collection/TrashMaps'
import { useSession } from '../sync/use-session'
import { ArcLayer } from './ArcLayer'
import styles from './atlas.module.css'
import { PlateView } from './PlateView'
import { usePanZoom } from './use-pan-zoom'

/** From so many px on the shape of a map tells anything, and from this scale on titles can be read. */
const SHAPE_PX = 40
const TITLE_SCALE = 0.35

/** The collection atlas: every map as a plate with its true shape, and how they hang together. */
export function Atlas() {
  const session = useSession()
  const { maps, id } = session
  const home = session.collection.homeMap
  const [by, setBy] = useState<'doorways' | 'closeness'>('doorways')
  const atlas = useMemo(() => (by === 'doorways' ? atlasOf(maps, home) : atlasByCloseness(maps)), [maps, home, by])
  const [words, setWords] = useState('')
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set())
  // Only the arcs show what is pointed at: nothing else is drawn anew for it.
  const pointer = useRef<(map: string | null) => void>(() => undefined)
  const point = useCallback((map: string | null) => pointer.current(map), [])
  const [areAllDrawn, setAllDrawn] = useState(false)
  const frame = useRef<HTMLDivElement>(null)
  const sheet = useRef<HTMLDivElement>(null)
  const { seen, show, step, release } = usePanZoom(frame, sheet, atlas)
  const wanted = foldForFinding(words).split(/\s+/).filter(Boolean)
  const fits = ({ map }: Plate) => wanted.every((word) => foldForFinding(map.title).includes(word))
  const found = wanted.length > 0 ? atlas.plates.filter(fits) : []
  const inPage = seen ? atlas.plates.filter((plate) => overlaps(plate, seen.part)) : []
  const whole = { x: 0, y: 0, width: Math.max(1, atlas.width), height: Math.max(1, atlas.height) }
  const choose = useCallback(
    (map: string, isMore: boolean) =>
      setChosen((before) => {
        const next = new Set(isMore ? before : [])
        if (before.has(map) && (isMore || before.size === 1)) next.delete(map)
        else next.add(map)
        return next
      }),
    [],
  )
  return (
    <PageFrame
      isWide
      trail={[
        { name: session.collection.title, address: `/c/${id}` },
        { name: 'Atlas', address: `/c/${id}/atlas` },
      ]}
    >
      <div className={styles.page}>
        <Group className={styles.tools} gap="sm">
          <Title order={1} size="h4">
            Atlas
          </Title>
          {atlas.plates.length > 0 && (
            <TextInput
              aria-label="Find a map"
              placeholder={`Find one of ${atlas.plates.length} maps`}
              leftSection={<IconSearch size={18} />}
              value={words}
              onChange={(event) => setWords(event.currentTarget.value)}
              onKeyDown={(event) => {
                if (event.key === 'Enter' && found[0]) show(around(found))
              }}
            />
          )}
          {wanted.length > 0 && (
            <Text size="sm" aria-live="polite">
              {found.length === 0 ? 'No map has these words in its title.' : `${found.length} found`}
            </Text>
          )}
          <SegmentedControl
            size="xs"
            aria-label="Maps stand by"
            value={by}
            data={[
              { value: 'doorways', label: 'as they open one another' },
              { value: 'closeness', label: 'as they are linked' },
            ]}
            onChange={(value) => {
              release()
              setBy(value === 'closeness' ? 'closeness' : 'doorways')
            }}
          />
          <Switch
            label="All cross-links"
            checked={areAllDrawn}
            onChange={(event) => setAllDrawn(event.currentTarget.checked)}
          />
          <Group gap={4} ml="auto">
            <ActionIcon variant="subtle" aria-label="Smaller" onClick={() => step('out')}>
              <IconMinus size={18} />
            </ActionIcon>
            <Button variant="subtle" size="compact-sm" onClick={() => show(whole)}>
              Fit
            </Button>
            <ActionIcon variant="subtle" aria-label="Larger" onClick={() => step('in')}>
              <IconPlus size={18} />
            </ActionIcon>
          </Group>
          <Button variant="default" component="a" href={`/c/${id}`} size="compact-md">
            As a table
          </Button>
        </Group>
        <section ref={frame} className={styles.frame} aria-label="All maps" onPointerLeave={() => point(null)}>
          <div ref={sheet} className={styles.sheet} style={{ width: whole.width, height: whole.height }}>
            <ArcLayer
              atlas={atlas}
              hasSteps={by === 'doorways'}
              chosen={chosen}
              pointer={pointer}
              areAllDrawn={areAllDrawn}
            />
            {atlas.shelf !== null && (
              <div className={styles.shelf} style={{ top: atlas.shelf - 48, width: whole.width }}>
                {by === 'doorways' ? 'Reached from nowhere' : 'Linked with nothing'}
              </div>
            )}
            {inPage.map((plate) => (
              <PlateView
                key={plate.map.id}
                plate={plate}
                isHome={plate.map.id === home}
                isChosen={chosen.has(plate.map.id)}
                isFaint={wanted.length > 0 && !fits(plate)}
                hasShape={plate.side * (seen?.k ?? 1) >= SHAPE_PX}
                hasTitle={(seen?.k ?? 1) >= TITLE_SCALE}
                choose={choose}
                point={point}
              />
            ))}
          </div>
          {chosen.size > 0 && <Chosen maps={[...chosen]} onDone={() => setChosen(new Set())} />}
          {atlas.plates.length === 0 && (
            <Text className={styles.empty}>
              There is no map here yet. <Anchor href={`/c/${id}`}>Make the first one</Anchor>
            </Text>
          )}
        </section>
      </div>
    </PageFrame>
  )
}

const overlaps = ({ x, y, side }: Plate, part: { x: number; y: number; width: number; height: number }) =>
  x < part.x + part.width &&
  part.x < x + Math.max(side, LEAST_WIDTH) &&
  y < part.y + part.height &&
  part.y < y + side + TITLE_HEIGHT

function around(plates: readonly Plate[]) {
  const [x, y] = [Math.min(...plates.map((plate) => plate.x)), Math.min(...plates.map((plate) => plate.y))]
  const right = Math.max(...plates.map((plate) => plate.x + plate.side))
  const foot = Math.max(...plates.map((plate) => plate.y + plate.side + TITLE_HEIGHT))
  return { x, y, width: right - x, height: foot - y }
}

/** What can be done with the maps that are chosen. */
function Chosen({ maps, onDone }: { maps: readonly string[]; onDone(): void }) {
  const session = useSession()
  const [first, ...more] = maps
  const [isFolder, setFolder] = useState(false)
  const [isTrash, setTrash] = useState(false)
  const title = session.titleOf(first!)
  const { homeMap } = session.collection
  const leaving = maps.filter((map) => map !== homeMap).map((map) => MapId.parse(map))
  const trash = () => {
    if (leaving.length < maps.length) tell('The home map stays: a collection begins there.')
    setTrash(true)
  }
  const isHomeAlone = maps.length === 1 && first === session.collection.homeMap
  return (
    <Group gap="sm" className={styles.chosen} role="group" aria-label="Chosen maps">
      <Text size="sm" fw={600} truncate maw={320}>
        {more.length === 0 ? title : `${maps.length} maps chosen`}
      </Text>
      {more.length === 0 && (
        <Button size="compact-sm" component="a" href={`/c/${session.id}/m/${first}`}>
          Open
        </Button>
      )}
      {session.mayEdit && more.length > 0 && (
        <Button
          size="compact-sm"
          component="a"
          href={`/c/${session.id}/m/${first}?${more.map((map) => `merge=${map}`).join('&')}`}
        >
          Merge into {title} …
        </Button>
      )}
      {session.mayEditAll && (
        <Button size="compact-sm" variant="default" onClick={() => setFolder(true)}>
          Put into a folder …
        </Button>
      )}
      {isTrash && <TrashMaps maps={leaving} onClose={onDone} />}
      {isFolder && <FolderDialog maps={maps.map((map) => MapId.parse(map))} onClose={() => setFolder(false)} />}
      {session.mayEditAll && !isHomeAlone && (
        <Button size="compact-sm" variant="subtle" color="ember" onClick={trash}>
          Put into the trash
        </Button>
      )}
      <Button size="compact-sm" variant="subtle" color="gray" c="var(--quiet-ink)" onClick={onDone}>
        Choose none
      </Button>
    </Group>
  )
}
