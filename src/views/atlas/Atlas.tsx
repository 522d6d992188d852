import { Anchor, Text } from '@mantine/core'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { folderAround } from '../../core/commands/folders'
import { atlasByCloseness, atlasOf, heightOf, type Plate, widthOf } from '../../core/network/atlas'
import { atlasByHand, folderFrames } from '../../core/network/atlas-by-hand'
import { FolderId } from '../../core/records/ids'
import type { AtlasPlace } from '../../core/records/map'
import { foldForFinding } from '../../core/text/folding'
import { tell } from '../app/api'
import { CollectionFrame } from '../frame/CollectionFrame'
import { useSession } from '../sync/use-session'
import { ArcLayer } from './ArcLayer'
import { AtlasTable } from './AtlasTable'
import { type Arrangement, AtlasTools } from './AtlasTools'
import styles from './atlas.module.css'
import { BranchDropped } from './BranchDropped'
import { ChosenMaps } from './ChosenMaps'
import { DroppedOnto } from './DroppedOnto'
import { PlateView } from './PlateView'
import { usePanZoom } from './use-pan-zoom'
import { type Dropped, usePlateDrag } from './use-plate-drag'

/** From so many px on the shape of a map tells anything, and from this scale on titles can be read. */
const SHAPE_PX = 40
const TITLE_SCALE = 0.35
/** From so many px on a plate has room for the words of its first topics, which are set at least so high. */
const [WORDS_PX, WORD_PX] = [200, 12]

const wordSizeIn = (side: number, k: number) => (side * k >= WORDS_PX ? Math.max(side / 21, WORD_PX / k) : null)

const ARRANGED = { doorways: atlasOf, closeness: atlasByCloseness, hand: atlasByHand }

/** The collection atlas: every map as a plate with its true shape, and how they hang together. */
export function Atlas() {
  const session = useSession()
  const { id } = session
  const home = session.collection.homeMap
  /** As it was asked for here; null as long as nobody has: then as maps stand, also where that is told a moment later. */
  const [wish, setBy] = useState<Arrangement | null>(null)
  const by = wish ?? (session.maps.some(({ inAtlas }) => inAtlas) ? 'hand' : 'doorways')
  /** What was just put somewhere, until the server says so. */
  const [put, setPut] = useState<ReadonlyMap<string, AtlasPlace>>(new Map())
  const maps = useMemo(
    () => session.maps.map((map) => (put.has(map.id) ? { ...map, inAtlas: put.get(map.id)! } : map)),
    [session.maps, put],
  )
  const atlas = useMemo(() => ARRANGED[by](maps, home), [maps, home, by])
  const [words, setWords] = useState('')
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set())
  // Only the arcs show what is pointed at: nothing else is drawn anew for it.
  const pointer = useRef<(map: string | null) => void>(() => undefined)
  const point = useCallback((map: string | null) => pointer.current(map), [])
  const [areAllDrawn, setAllDrawn] = useState(false)
  const [hasTable, setTable] = useState(false)
  const [asked, setAsked] = useState<Dropped | null>(null)
  const frame = useRef<HTMLElement>(null)
  const sheet = useRef<HTMLDivElement>(null)
  const { seen, show, step, release } = usePanZoom(frame, sheet, atlas)
  const wanted = foldForFinding(words).split(/\s+/).filter(Boolean)
  const fits = ({ map }: Plate) => wanted.every((word) => foldForFinding(map.title).includes(word))
  const found = wanted.length > 0 ? atlas.plates.filter(fits) : null
  const wantedInPage = seen ? atlas.plates.filter((plate) => overlaps(plate, seen.part)) : []
  const inPage = useSoManyMore(wantedInPage)
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
  const frames = useMemo(() => {
    if (by !== 'hand') return []
    const { records } = session
    return folderFrames(
      atlas,
      (folder) => folderAround(records, records.get('folder', folder)?.parent ?? null)?.id ?? null,
    )
  }, [session, atlas, by])

  const putThere = async ({ maps: dragged, by: { x, y } }: Dropped) => {
    const places = atlas.plates
      .filter(({ map }) => dragged.includes(map.id))
      .map((plate) => ({
        map: plate.map.id,
        at: { x: Math.round(plate.x + x - atlas.origin.x), y: Math.round(plate.y + y - atlas.origin.y) },
      }))
    if (by === 'closeness') {
      tell('Here maps stand as they are linked. Choose “as I put them” to put them elsewhere.')
      return
    }
    setBy('hand')
    setPut(new Map(places.map(({ map, at }) => [map, at])))
    await session.server.command('place-in-atlas', { places })
    setPut(new Map())
  }
  const drop = (dropped: Dropped) => {
    if (dropped.topic) {
      if (dropped.onto && dropped.onto !== dropped.maps[0]) setAsked(dropped)
    } else if (dropped.onto && dropped.maps.length === 1) setAsked(dropped)
    else void putThere(dropped)
  }
  const startDrag = usePlateDrag(frame, (map) => (chosen.has(map) ? [...chosen] : [map]), drop)
  const arrange = (arrangement: Arrangement) => {
    release()
    setBy(arrangement)
  }
  const byHand = maps.flatMap(({ id: map, inAtlas }) => (inAtlas ? map : []))
  return (
    <CollectionFrame place="atlas" isWide>
      {/* Who has begun to do something here finds everything where it was. */}
      <div className={styles.page} onPointerDownCapture={() => setBy(by)} onKeyDownCapture={() => setBy(by)}>
        <AtlasTools
          count={atlas.plates.length}
          words={words}
          onWords={setWords}
          found={found?.length ?? null}
          onFound={() => found?.[0] && show(around(found))}
          by={by}
          onArrange={arrange}
          onLetGo={
            by === 'hand' && session.mayEditAll && byHand.length > 0
              ? () =>
                  void session.server.command('place-in-atlas', { places: byHand.map((map) => ({ map, at: null })) })
              : null
          }
          areAllDrawn={areAllDrawn}
          onDrawAll={setAllDrawn}
          hasTable={hasTable}
          onTable={setTable}
          onStep={step}
          onFit={() => show(whole)}
        />
        <div className={styles.sides} data-table={hasTable || undefined}>
          <section
            ref={frame}
            className={styles.frame}
            aria-label="All maps"
            onPointerLeave={() => point(null)}
            onPointerDown={session.mayEditAll ? startDrag : undefined}
          >
            <div ref={sheet} className={styles.sheet} style={{ width: whole.width, height: whole.height }}>
              {frames.map(({ folder, ...box }) => (
                <div
                  key={folder}
                  className={styles.folder}
                  style={{ left: box.x, top: box.y, width: box.width, height: box.height }}
                >
                  {session.records.get('folder', FolderId.parse(folder))?.title}
                </div>
              ))}
              <ArcLayer atlas={atlas} by={by} chosen={chosen} pointer={pointer} areAllDrawn={areAllDrawn} />
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
                  isFaint={found !== null && !fits(plate)}
                  hasShape={plate.side * (seen?.k ?? 1) >= SHAPE_PX}
                  hasTitle={(seen?.k ?? 1) >= TITLE_SCALE}
                  wordSize={wordSizeIn(plate.side, seen?.k ?? 1)}
                  choose={choose}
                  point={point}
                />
              ))}
            </div>
            {chosen.size > 0 && <ChosenMaps maps={[...chosen]} onDone={() => setChosen(new Set())} />}
            {asked?.topic && <BranchDropped dropped={asked} onClose={() => setAsked(null)} />}
            {asked && !asked.topic && (
              <DroppedOnto dropped={asked} onPut={() => void putThere(asked)} onClose={() => setAsked(null)} />
            )}
            {atlas.plates.length === 0 && (
              <Text className={styles.empty}>
                There is no map here yet. <Anchor href={`/c/${id}`}>Make the first one</Anchor>
              </Text>
            )}
          </section>
          {hasTable && (
            <AtlasTable
              maps={atlas.plates.map(({ map }) => map)}
              chosen={chosen}
              choose={choose}
              chooseAll={(all) => setChosen(new Set(all))}
              point={point}
            />
          )}
        </div>
      </div>
    </CollectionFrame>
  )
}

/** Plates that come into the page in one frame: with more of them it would stand still. */
const IN_A_FRAME = 120

/** As much of a list as there has been time for: some more in each frame. */
function useSoManyMore<Item>(all: readonly Item[]): readonly Item[] {
  const [count, setCount] = useState(IN_A_FRAME)
  useEffect(() => {
    if (count >= all.length) return
    const frame = requestAnimationFrame(() => setCount((before) => before + IN_A_FRAME))
    return () => cancelAnimationFrame(frame)
  })
  return all.slice(0, count)
}

const overlaps = (plate: Plate, part: { x: number; y: number; width: number; height: number }) =>
  plate.x < part.x + part.width &&
  part.x < plate.x + widthOf(plate) &&
  plate.y < part.y + part.height &&
  part.y < plate.y + heightOf(plate)

function around(plates: readonly Plate[]) {
  const [x, y] = [Math.min(...plates.map((plate) => plate.x)), Math.min(...plates.map((plate) => plate.y))]
  const right = Math.max(...plates.map((plate) => plate.x + plate.side))
  const foot = Math.max(...plates.map((plate) => plate.y + heightOf(plate)))
  return { x, y, width: right - x, height: foot - y }
}
