import { backdropOf } from '../look/styles'
import type { Records } from '../records/records'
import type { PictureAddress } from './topic-drawing'

/** What lies behind a drawn map: a class, a colour scheme, and what was picked. The styles stand in scene.css. */
export interface Backdrop {
  name: string
  /** For `color-scheme`; null follows what is around. */
  scheme: 'light' | 'dark' | null
  tone: string | null
  /** Address of a picture. */
  picture: string | null
}

/** Width in which pictures behind maps are shown, in px. */
const PICTURE_WIDTH = 2_560

export function backdrop(records: Records, map: string, pictureAddress: PictureAddress): Backdrop {
  const { scheme, pattern, tone, picture } = backdropOf(records, map)
  return {
    name: `backdrop backdrop-${pattern}${picture ? ' backdrop-picture' : ''}`,
    scheme: scheme === 'as-set' ? null : scheme,
    tone,
    picture: picture && pictureAddress(picture, PICTURE_WIDTH),
  }
}
