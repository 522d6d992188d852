import type { TopicBox } from '../../../core/layout/boxes'
import { layoutMap } from '../../../core/layout/map-layout'
import { toneClass } from '../../../core/look/families'
import { WHOLE_LOOKS } from '../../../core/look/whole-looks'
import type { ConnectorForm, HueFamily, TopicShape, WholeLook } from '../../../core/records/look'
import { PLAIN_MAP_LOOK } from '../../../core/records/look'
import { drawConnectors } from '../../../core/scene/connectors'
import { drawTopic } from '../../../core/scene/topic-drawing'
import { useFonts, useIcons } from '../../app/late-parts'
import { Drawn } from '../../stage/Drawn'
import styles from './look.module.css'
import { sampleMap } from './sample-map'

export const FamilyPicture = ({ family }: { family: HueFamily }) => (
  <span className={styles.family}>
    {[0, 1, 2, 3, 4, 5].map((hue) => (
      <span key={hue} className={toneClass(family, hue)} />
    ))}
  </span>
)

export const HuePicture = ({ family, hue }: { family: HueFamily; hue: number }) => (
  <span className={`${styles.hue} ${toneClass(family, hue)}`} />
)

const CENTRED = { textAnchor: 'middle' as const, fontSize: 13 }

/** A word on what a shape puts behind it. */
export function ShapePicture({ shape, family }: { shape: TopicShape; family: HueFamily }) {
  const inside = shape === 'slab' ? ' on-slab' : shape === 'block' ? ' on-block' : ''
  return (
    <svg className={`scene ${toneClass(family, 0)}`} width={38} height={22} aria-hidden>
      {shape === 'bar' && <rect className="bar" x={1} y={1} width={3} height={20} />}
      {shape === 'rule' && <rect className="bar" x={1} y={19} width={36} height={2} />}
      {shape === 'sketch' && (
        <path className="ground ground-sketch" d="M2 3C14 1 26 4 36 2C37 9 35 15 37 20C24 19 12 21 2 19C3 13 1 8 2 3" />
      )}
      {!['bar', 'rule', 'sketch', 'bare'].includes(shape) && (
        <rect className={`ground ground-${shape}`} x={1} y={1} width={36} height={20} rx={shape === 'pill' ? 10 : 4} />
      )}
      <text {...CENTRED} className={`topic-text${inside}`} x={19} y={15}>
        Aa
      </text>
    </svg>
  )
}

const CONNECTOR_PATHS: Record<ConnectorForm, string> = {
  spine: 'M2 11H12M12 3V19M12 3H30M12 19H30',
  curve: 'M2 11C16 11 16 3 30 3M2 11C16 11 16 19 30 19',
  straight: 'M2 11L30 3M2 11L30 19',
  sketch: 'M2 11C5 10 9 12 12 11C13 8 11 5 12 3C18 4 24 2 30 4M12 11C11 14 13 16 12 19C18 18 25 20 30 18',
}

export const ConnectorPicture = ({ form }: { form: ConnectorForm }) => (
  <svg className="scene spruce-0" width={32} height={22} aria-hidden>
    <path className="connector" d={CONNECTOR_PATHS[form]} />
  </svg>
)

/** A whole look as it dresses a small map. */
export function WholeLookPicture({ whole }: { whole: WholeLook }) {
  const { records, map } = sampleMap({ ...PLAIN_MAP_LOOK, whole })
  const [fonts, icons] = [useFonts(), useIcons()]
  const layout = layoutMap(records, map, { fonts, countTopics: () => 0 })
  const { scheme, background } = WHOLE_LOOKS[whole]
  const { x, y, width, height } = layout.bounds
  return (
    <svg
      className={`scene backdrop backdrop-${background.pattern}`}
      style={{
        colorScheme: scheme === 'as-set' ? undefined : scheme,
        backgroundColor: background.tone ?? undefined,
        borderRadius: 4,
      }}
      width="100%"
      height={62}
      viewBox={`${x - 12} ${y - 12} ${width + 24} ${height + 24}`}
      aria-hidden
    >
      {drawConnectors(layout).map((connector) => (
        <Drawn key={connector.key} drawing={connector.drawing} />
      ))}
      {layout.boxes.map((box: TopicBox) => (
        <Drawn key={box.topic.id} drawing={drawTopic(box, { icons, pictureAddress: () => null })} />
      ))}
    </svg>
  )
}
