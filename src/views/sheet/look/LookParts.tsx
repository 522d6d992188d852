import { Text } from '@mantine/core'
import { IconBold, IconItalic } from '@tabler/icons-react'
import { changeLook, type LookTarget } from '../../../core/commands/looks'
import { FAMILY_NAMES, tonesOf } from '../../../core/look/families'
import { PLAIN_SIZE } from '../../../core/look/styles'
import type { Look, LookField } from '../../../core/records/look'
import {
  ConnectorForm,
  HueFamily,
  LookFont,
  MOST_OUTLINE_WIDTH,
  PLAIN_OUTLINE_WIDTH,
  TopicShape,
} from '../../../core/records/look'
import { ColourField } from '../../app/fields/ColourField'
import { NumberField } from '../../app/fields/NumberField'
import type { Command } from '../../sync/trial'
import { useMayEdit, useSessionHandle } from '../../sync/use-session'
import { Choice, type Option, PartHead } from './Choice'
import styles from './look.module.css'
import { CONNECTOR_NAMES, FONT_NAMES, SHAPE_NAMES } from './names'
import { ConnectorPicture, FamilyPicture, HuePicture, ShapePicture } from './small-pictures'

const FONT_STYLE: Record<LookFont, string> = { plain: 'interface', reading: 'reading', hand: 'hand' }

const OUTLINE_WIDTHS = { min: 0.5, max: MOST_OUTLINE_WIDTH, step: 0.5 }

interface Props {
  target: LookTarget
  /** What the target has set itself. */
  own: Look
  /** The value that holds, and where it comes from in words. */
  sourceOf<F extends LookField>(field: F): { value: Look[LookField]; words: string }
}

/** The parts of a look, each with its choices. */
export function LookParts({ target, own, sourceOf }: Props) {
  const session = useSessionHandle()
  const mayEdit = useMayEdit()
  const set =
    (look: Look): Command =>
    (records, newIds) =>
      changeLook(records, { target, set: look, clear: [] }, newIds)
  const clear =
    (...fields: LookField[]): Command =>
    (records, newIds) =>
      changeLook(records, { target, set: {}, clear: fields }, newIds)
  const about = (...fields: [LookField, ...LookField[]]) => ({
    source: sourceOf(fields[0]).words,
    back: fields.some((field) => own[field] !== undefined) ? clear(...fields) : undefined,
  })
  const family = HueFamily.parse(sourceOf('family').value)
  const hue = sourceOf('hue').value
  const text = (field: LookField) => String(sourceOf(field).value ?? '')
  const on = (field: 'bold' | 'italic' | 'tapering' | 'excerpt') => sourceOf(field).value === true
  const either = (field: 'tapering' | 'excerpt', no: string, yes: string): Option[] => [
    { id: 'false', name: no, command: set({ [field]: false }) },
    { id: 'true', name: yes, command: set({ [field]: true }) },
  ]
  const colour = (field: 'letters' | 'fill' | 'fillEnd' | 'outline', label: string) => {
    const value = sourceOf(field).value
    return (
      <div>
        <PartHead label={label} {...about(field)} />
        <ColourField
          size="xs"
          aria-label={label}
          placeholder="none"
          disabled={!mayEdit}
          value={typeof value === 'string' ? value : null}
          swatches={tonesOf(family).flatMap(({ line, wash }) => [line[0], wash[0]])}
          swatchesPerRow={8}
          popoverProps={{ withinPortal: true }}
          take={(picked) => session.run(set({ [field]: picked }))}
        />
      </div>
    )
  }
  const length = (
    field: 'size' | 'outlineWidth',
    label: string,
    name: string,
    range: { min: number; max: number; step?: number },
    plain: number,
  ) => (
    <div>
      <PartHead label={label} {...about(field)} />
      <NumberField
        size="xs"
        aria-label={name}
        {...range}
        suffix=" px"
        disabled={!mayEdit}
        value={Number(sourceOf(field).value ?? plain)}
        take={(picked) => picked !== null && session.run(set({ [field]: picked }))}
      />
    </div>
  )
  return (
    <>
      <Choice
        label="Colours"
        value={family}
        {...about('family')}
        options={HueFamily.options.map((id) => ({
          id,
          name: FAMILY_NAMES[id],
          picture: <FamilyPicture family={id} />,
          command: set({ family: id }),
        }))}
      />
      <Choice
        label="Hue"
        value={hue === undefined ? null : String(hue)}
        source={hue === undefined ? 'by its place' : sourceOf('hue').words}
        back={about('hue').back}
        options={[0, 1, 2, 3, 4, 5, 6, 7].map((id) => ({
          id: String(id),
          name: `Hue ${id + 1}`,
          picture: <HuePicture family={family} hue={id} />,
          command: set({ hue: id }),
        }))}
      />
      <Choice
        label="Shape"
        value={text('shape')}
        {...about('shape')}
        options={TopicShape.options.map((id) => ({
          id,
          name: SHAPE_NAMES[id],
          picture: <ShapePicture shape={id} family={family} />,
          command: set({ shape: id }),
        }))}
      />
      <Choice
        label="Connectors"
        value={text('connector')}
        {...about('connector')}
        options={ConnectorForm.options.map((id) => ({
          id,
          name: CONNECTOR_NAMES[id],
          picture: <ConnectorPicture form={id} />,
          command: set({ connector: id }),
        }))}
      />
      <Choice
        label="Their strength"
        value={String(on('tapering'))}
        {...about('tapering')}
        options={either('tapering', 'all alike', 'stronger near the root')}
      />
      <Choice
        label="Font"
        value={text('font')}
        {...about('font')}
        options={LookFont.options.map((id) => ({
          id,
          name: FONT_NAMES[id],
          picture: <span style={{ fontFamily: `var(--${FONT_STYLE[id]}-font)` }}>{FONT_NAMES[id]}</span>,
          command: set({ font: id }),
        }))}
      />
      <div className={styles.pair}>
        {length('size', 'Size', 'Size in px', { min: 11, max: 60 }, PLAIN_SIZE)}
        <div>
          <PartHead label="Letters" back={about('bold', 'italic').back} />
          <div className={styles.row}>
            {(['bold', 'italic'] as const).map((field) => (
              <button
                key={field}
                type="button"
                className={styles.option}
                aria-pressed={on(field)}
                aria-label={field === 'bold' ? 'Bold' : 'Italic'}
                disabled={!mayEdit}
                onClick={() => session.run(set({ [field]: !on(field) }))}
              >
                {field === 'bold' ? <IconBold size={16} /> : <IconItalic size={16} />}
              </button>
            ))}
          </div>
        </div>
      </div>
      <div className={styles.pair}>
        {colour('letters', 'Their colour')}
        <Text size="xs" c="dimmed" mt="lg">
          Made lighter or darker where it could not be read.
        </Text>
      </div>
      <div className={styles.pair}>
        {colour('fill', 'Fill')}
        {colour('fillEnd', 'Second tone')}
      </div>
      <div className={styles.pair}>
        {colour('outline', 'Outline')}
        {length('outlineWidth', 'Its width', 'Width of the outline in px', OUTLINE_WIDTHS, PLAIN_OUTLINE_WIDTH)}
      </div>
      <Choice
        label="Beginning of the note"
        value={String(on('excerpt'))}
        {...about('excerpt')}
        options={either('excerpt', 'in the sheet only', 'under the text')}
      />
    </>
  )
}
