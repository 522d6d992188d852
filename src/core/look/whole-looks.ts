import type { Background, Look, WholeLook } from '../records/look'

/** A look for everything. Made from plain looks, so that each part can be changed by itself. */
export interface WholeLookParts {
  name: string
  /** What it is good for, in a few words. */
  about: string
  /** Whether it is light or dark whatever the application is. */
  scheme: 'as-set' | 'light' | 'dark'
  every: Look
  /** Root, first, second and deeper levels. */
  levels: readonly [Look, Look, Look, Look]
  background: Background
}

const plain: Background = { pattern: 'plain', tone: null, picture: null }

export const WHOLE_LOOKS: Record<WholeLook, WholeLookParts> = {
  laid: {
    name: 'Laid',
    about: 'plain words at upright bars',
    scheme: 'as-set',
    every: { family: 'spruce', shape: 'bar', connector: 'spine', tapering: false, font: 'plain', excerpt: false },
    levels: [{ shape: 'slab', size: 20, bold: true }, { size: 17, bold: true }, { size: 15 }, { size: 15 }],
    background: plain,
  },
  lantern: {
    name: 'Lantern',
    about: 'dark, for a projector in a dim room',
    scheme: 'dark',
    every: { family: 'spruce', shape: 'card', connector: 'curve', tapering: true, font: 'plain', excerpt: false },
    levels: [
      { shape: 'pill', size: 22, bold: true },
      { shape: 'block', size: 18, bold: true },
      { size: 16 },
      { shape: 'bare', size: 15 },
    ],
    background: { pattern: 'plain', tone: '#10171b', picture: null },
  },
  galley: {
    name: 'Galley',
    about: 'black on white, for printing',
    scheme: 'light',
    every: { family: 'ink', shape: 'rule', connector: 'straight', tapering: false, font: 'reading', excerpt: false },
    levels: [{ shape: 'frame', size: 20, bold: true }, { size: 16, bold: true }, { size: 15 }, { size: 14 }],
    background: { pattern: 'plain', tone: '#ffffff', picture: null },
  },
  pencil: {
    name: 'Pencil',
    about: 'drawn by hand, for what is not settled',
    scheme: 'as-set',
    every: { family: 'peat', shape: 'bare', connector: 'sketch', tapering: false, font: 'hand', excerpt: false },
    levels: [{ shape: 'sketch', size: 24, bold: true }, { shape: 'sketch', size: 19 }, { size: 17 }, { size: 17 }],
    background: { pattern: 'squared', tone: null, picture: null },
  },
  mosaic: {
    name: 'Mosaic',
    about: 'filled blocks, for maps with short words',
    scheme: 'as-set',
    every: { family: 'heather', shape: 'card', connector: 'curve', tapering: true, font: 'plain', excerpt: false },
    levels: [
      { shape: 'slab', size: 22, bold: true },
      { shape: 'block', size: 17, bold: true },
      { size: 15 },
      { size: 14 },
    ],
    background: { pattern: 'dotted', tone: null, picture: null },
  },
  willow: {
    name: 'Willow',
    about: 'soft curves and reading type, with the beginning of notes',
    scheme: 'as-set',
    every: { family: 'sedge', shape: 'bare', connector: 'curve', tapering: true, font: 'reading', excerpt: true },
    levels: [
      { shape: 'pill', size: 20, bold: true },
      { shape: 'rule', size: 17, bold: true },
      { size: 15 },
      { size: 15 },
    ],
    background: { pattern: 'paper', tone: null, picture: null },
  },
}
