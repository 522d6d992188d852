import { ALL_ICONS, ICON_NAMES } from '../../core/badges/all-icons'
import { badgeName, iconBadge } from '../../core/badges/badges'
import iconWords from '../../core/badges/icon-words.generated.json'

/** A drawing that can be put onto a topic: SVG markup, and the words by which it is found. */
export interface LibraryDrawing {
  name: string
  words: string
  svg: string
}

const svg = (width: number, height: number, inside: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width * 2}" height="${height * 2}">${inside}</svg>`

/** Drawings of our own, in the tones of "paper and spruce". */
const OWN: readonly [name: string, words: string, width: number, height: number, inside: string][] = [
  [
    'pool',
    'water bog lake moor',
    80,
    60,
    '<path d="M4 40q10-8 20 0t20 0 20 0 12-2v18H4z" fill="#2f7fa8"/><path d="M4 46q10-6 20 0t20 0 20 0 12-2" fill="none" stroke="#e3eff5" stroke-width="2"/><path d="M14 38q3-14 2-28M22 38q0-12 5-20M62 38q-1-16 3-30" fill="none" stroke="#6b8a2a" stroke-width="3" stroke-linecap="round"/>',
  ],
  [
    'dam',
    'ditch block water barrier',
    80,
    60,
    '<path d="M2 26h34v32H2z" fill="#2f7fa8"/><path d="M44 42h34v16H44z" fill="#62aad0"/><path d="M34 14h12v44H34z" fill="#b5653a"/><path d="M34 24h12M34 34h12M34 44h12" stroke="#87451f" stroke-width="2"/>',
  ],
  [
    'dipwell',
    'water level measure pipe reading',
    60,
    80,
    '<path d="M0 30h60v50H0z" fill="#b5653a"/><path d="M0 30h60v6H0z" fill="#6b8a2a"/><path d="M24 10h12v62H24z" fill="#f3f1ea" stroke="#5d6a70" stroke-width="2"/><path d="M25 46h10v25H25z" fill="#62aad0"/><path d="M22 6h16v6H22z" fill="#5d6a70"/>',
  ],
  [
    'peat block',
    'peat soil layers ground',
    70,
    60,
    '<path d="M6 20l30-12 28 10v30L34 56 6 44z" fill="#87451f"/><path d="M6 20l30-12 28 10-30 14z" fill="#6b8a2a"/><path d="M6 32l28 12 30-14" fill="none" stroke="#b5653a" stroke-width="2"/>',
  ],
  [
    'cotton grass',
    'plant bog vegetation flower',
    60,
    80,
    '<path d="M30 78q-2-30-10-52M30 78q2-34 14-56" fill="none" stroke="#4a6316" stroke-width="3" stroke-linecap="round"/><circle cx="19" cy="22" r="9" fill="#fbfaf6" stroke="#a3afb5" stroke-width="1.5"/><circle cx="45" cy="18" r="10" fill="#fbfaf6" stroke="#a3afb5" stroke-width="1.5"/>',
  ],
  [
    'sundew',
    'plant insect leaf bog',
    70,
    70,
    '<path d="M35 66V34" stroke="#4a6316" stroke-width="3"/><g fill="#b0476b"><circle cx="35" cy="24" r="11"/><circle cx="14" cy="40" r="8"/><circle cx="56" cy="40" r="8"/></g><path d="M35 50L18 42M35 50l17-8" stroke="#4a6316" stroke-width="2.5"/><path d="M35 8v6M25 12l4 5M45 12l-4 5M6 34l4 3M64 34l-4 3" stroke="#b0476b" stroke-width="2" stroke-linecap="round"/>',
  ],
  [
    'wader',
    'bird animal wildlife survey',
    80,
    70,
    '<path d="M20 36q10-16 30-10 14 4 16 14-16 12-34 8-10-2-12-12z" fill="#8a6a4a"/><circle cx="20" cy="26" r="8" fill="#8a6a4a"/><path d="M13 27L0 34" stroke="#1d2a33" stroke-width="3" stroke-linecap="round"/><path d="M38 48l-2 18M50 47l2 19" stroke="#b8901f" stroke-width="2.5"/><circle cx="18" cy="24" r="1.8" fill="#1d2a33"/>',
  ],
  [
    'dragonfly',
    'insect animal wildlife',
    80,
    60,
    '<g fill="#62aad0" fill-opacity=".7"><ellipse cx="24" cy="18" rx="20" ry="6" transform="rotate(14 24 18)"/><ellipse cx="56" cy="18" rx="20" ry="6" transform="rotate(-14 56 18)"/><ellipse cx="26" cy="32" rx="18" ry="5" transform="rotate(-10 26 32)"/><ellipse cx="54" cy="32" rx="18" ry="5" transform="rotate(10 54 32)"/></g><path d="M40 14v40" stroke="#1b655e" stroke-width="5" stroke-linecap="round"/><circle cx="40" cy="12" r="5" fill="#1b655e"/>',
  ],
  [
    'frog',
    'animal wildlife amphibian',
    70,
    56,
    '<path d="M8 40q4-24 27-24t27 24q-6 12-27 12T8 40z" fill="#6b8a2a"/><circle cx="22" cy="14" r="8" fill="#6b8a2a"/><circle cx="48" cy="14" r="8" fill="#6b8a2a"/><circle cx="22" cy="13" r="3" fill="#1d2a33"/><circle cx="48" cy="13" r="3" fill="#1d2a33"/><path d="M24 34q11 8 22 0" fill="none" stroke="#4a6316" stroke-width="2.5" stroke-linecap="round"/>',
  ],
  [
    'birch',
    'tree wood plant',
    60,
    80,
    '<path d="M28 30h6v48h-6z" fill="#f3f1ea" stroke="#5d6a70"/><path d="M28 44h3M31 54h3M28 64h3" stroke="#1d2a33" stroke-width="2"/><g fill="#9bb85c"><ellipse cx="22" cy="34" rx="14" ry="10"/><ellipse cx="41" cy="32" rx="14" ry="10"/><ellipse cx="24" cy="20" rx="13" ry="11"/><ellipse cx="39" cy="16" rx="12" ry="12"/></g><path d="M31 40l-9-12M32 34l9-14M31 48l-12-8" stroke="#f3f1ea" stroke-width="2"/>',
  ],
  [
    'hut',
    'house building shelter',
    80,
    64,
    '<path d="M14 30h52v32H14z" fill="#b5653a"/><path d="M6 32L40 6l34 26z" fill="#5f7480"/><path d="M34 40h12v22H34z" fill="#3a281d"/><path d="M20 38h9v9h-9zM51 38h9v9h-9z" fill="#f6efd8"/>',
  ],
  [
    'boardwalk',
    'path way bridge walk',
    80,
    60,
    '<path d="M34 6h12l26 50H8z" fill="#d48a61"/><path d="M32 12h16M28 22h24M23 32h34M18 42h44M12 52h56" stroke="#87451f" stroke-width="2"/>',
  ],
  [
    'spade',
    'tool dig work volunteer',
    50,
    80,
    '<path d="M22 8h6v42h-6z" fill="#b8901f"/><path d="M15 4h20v6H15z" fill="#765a08"/><path d="M12 46h26v14q-4 16-13 18-9-2-13-18z" fill="#5f7480"/>',
  ],
  [
    'boots',
    'wellingtons field clothes',
    70,
    64,
    '<path d="M8 4h18v36l10 8v10H8z" fill="#1f6f63"/><path d="M40 8h18v34l10 8v10H40z" fill="#2d8f86"/><path d="M8 54h28v6H8zM40 56h28v6H40z" fill="#1d2a33"/>',
  ],
  [
    'rain gauge',
    'weather water measure',
    50,
    76,
    '<path d="M12 10h26l-3 60H15z" fill="#e3eff5" stroke="#5f7480" stroke-width="2"/><path d="M14 42h22l-2 27H16z" fill="#62aad0"/><path d="M8 6h34l-4 6H12z" fill="#5f7480"/><path d="M30 24h6M30 34h6M30 54h5" stroke="#5f7480" stroke-width="2"/>',
  ],
  [
    'meeting',
    'people talk group evening',
    80,
    60,
    '<ellipse cx="40" cy="46" rx="34" ry="10" fill="#d6b34f"/><g fill="#8a5fa3"><circle cx="16" cy="18" r="8"/><path d="M6 42q0-14 10-14t10 14z"/></g><g fill="#2d8f86"><circle cx="40" cy="14" r="8"/><path d="M30 38q0-14 10-14t10 14z"/></g><g fill="#b5653a"><circle cx="64" cy="18" r="8"/><path d="M54 42q0-14 10-14t10 14z"/></g>',
  ],
]

/** All drawings of the library: our own, then the icons as line drawings. */
export const LIBRARY: readonly LibraryDrawing[] = [
  ...OWN.map(([name, words, width, height, inside]) => ({
    name,
    words: `${name} ${words}`,
    svg: svg(width, height, inside),
  })),
  ...ICON_NAMES.map((icon) => ({
    name: badgeName(iconBadge(icon)),
    words: (iconWords as Record<string, string>)[icon] ?? icon,
    svg: svg(
      24,
      24,
      `<path d="${ALL_ICONS.path(iconBadge(icon))}" fill="none" stroke="#1f6f63" stroke-width="1.6" stroke-linecap="round" stroke-linejoin="round"/>`,
    ).replace(/width="48" height="48"/, 'width="96" height="96"'),
  })),
]

/** A drawing of the library as a file to upload. */
export const drawingFile = ({ name, svg: markup }: LibraryDrawing): File =>
  new File([markup], `${name.replaceAll(' ', '-')}.svg`, { type: 'image/svg+xml' })
