import { Button, FileButton, Group, Progress } from '@mantine/core'
import { useCallback, useState } from 'react'
import { setBackground } from '../../../core/commands/looks'
import { backdropOf } from '../../../core/look/styles'
import type { CollectionId, MapId } from '../../../core/records/ids'
import type { Background } from '../../../core/records/look'
import { BackgroundPattern } from '../../../core/records/look'
import { tellTrouble } from '../../app/api'
import { ColourField } from '../../app/fields/ColourField'
import type { CollectionSession } from '../../sync/collection-session'
import type { Command } from '../../sync/trial'
import { useCalmPart, useMayEdit, useSessionHandle } from '../../sync/use-session'
import { upload } from '../upload'
import { Choice, PartHead } from './Choice'
import styles from './look.module.css'

const NAMES: Record<BackgroundPattern, string> = {
  plain: 'plain',
  ruled: 'ruled',
  dotted: 'dotted',
  squared: 'squared',
  paper: 'paper',
}

/** What lies behind the map, or behind all maps: a pattern, a tone, a picture. */
export function BackgroundChoice({ at, map }: { at: { map: MapId } | { collection: CollectionId }; map: MapId }) {
  const session = useSessionHandle()
  const mayEdit = useMayEdit()
  const [part, setPart] = useState<number | null>(null)
  const ofMap = 'map' in at ? at.map : null
  const { now, isOwn, root } = useCalmPart(
    useCallback(
      ({ records, collection }: CollectionSession) => {
        const { pattern, tone, picture } = backdropOf(records, map)
        const now: Background = { pattern, tone, picture }
        const look = ofMap ? records.get('map', ofMap)?.look : collection.look
        return { now, isOwn: Boolean(look?.background), root: records.root(map)?.id }
      },
      [map, ofMap],
    ),
  )
  const { pattern, tone, picture } = now
  const set =
    (change: Partial<Background>): Command =>
    (records, newIds) =>
      setBackground(records, { at, background: { ...now, ...change } }, newIds)
  const send = async (file: File | null) => {
    if (!file || !root) return
    setPart(0)
    await upload(session.id, root, file, setPart, { use: 'background' }).catch(tellTrouble)
    setPart(null)
  }
  return (
    <>
      <Choice
        label="Background"
        value={pattern}
        source={isOwn ? 'set here' : 'from the whole look'}
        back={isOwn ? (records, newIds) => setBackground(records, { at, background: null }, newIds) : undefined}
        options={BackgroundPattern.options.map((id) => ({
          id,
          name: NAMES[id],
          picture: <span className={`${styles.patternTile} backdrop backdrop-${id}`} />,
          command: set({ pattern: id }),
        }))}
      />
      <div>
        <PartHead label="Tone behind the map" />
        <ColourField
          size="xs"
          aria-label="Tone behind the map"
          placeholder="that of the application"
          disabled={!mayEdit}
          value={tone ?? null}
          take={(picked) => session.run(set({ tone: picked }))}
        />
      </div>
      {mayEdit && ofMap && (
        <Group gap="xs">
          <FileButton accept="image/*" onChange={(file) => void send(file)}>
            {(props) => (
              <Button {...props} variant="default" size="xs">
                {picture ? 'Another picture behind the map' : 'A picture behind the map'}
              </Button>
            )}
          </FileButton>
          {picture && (
            <Button variant="default" size="xs" onClick={() => session.run(set({ picture: null }))}>
              Without the picture
            </Button>
          )}
          {part !== null && <Progress flex={1} value={part * 100} aria-label="Uploading the picture" />}
        </Group>
      )}
    </>
  )
}
