import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import type { SiteAsset } from '../../site/site'
import { projectRoot } from '../project-root'

/** A shipped cut of a font, as the site declares it. */
interface Cut {
  folder: string
  family: string
  cut: string
  weight: number
  style: 'normal' | 'italic'
}

const cuts = (folder: string, family: string, weights: readonly number[], styles: readonly Cut['style'][]): Cut[] =>
  weights.flatMap((weight) => styles.map((style) => ({ folder, family, cut: `${weight}-${style}`, weight, style })))

const CUTS = [
  ...cuts('source-sans-3', 'Source Sans 3', [400, 600], ['normal', 'italic']),
  ...cuts('literata', 'Literata', [400, 600], ['normal', 'italic']),
  ...cuts('kalam', 'Kalam', [400, 700], ['normal']),
]
/** Parts of a font, each loaded only where a page has letters of it. */
const SUBSETS = [
  ['latin', 'U+0000-00FF, U+0131, U+0152-0153, U+02BB-02BC, U+02C6, U+02DA, U+02DC, U+2000-206F, U+20AC, U+2122'],
  ['latin-ext', 'U+0100-02BA, U+1E00-1E9F, U+1EF2-1EFF'],
] as const

const fontName = ({ folder, cut }: Cut, subset: string) => `${folder}-${subset}-${cut}.woff2`

const fontFaces = (): string =>
  CUTS.flatMap((cut) =>
    SUBSETS.map(
      ([subset, range]) =>
        `@font-face { font-family: "${cut.family}"; font-weight: ${cut.weight}; font-style: ${cut.style}; font-display: swap; src: url(fonts/${fontName(cut, subset)}); unicode-range: ${range}; }`,
    ),
  ).join('\n')

/** Style, script and fonts of the published site, read from where they lie in the project. */
export function siteAssets(): SiteAsset[] {
  const root = projectRoot()
  const require = createRequire(join(root, 'package.json'))
  const text = (path: string) => readFileSync(join(root, path), 'utf8')
  const fonts = CUTS.flatMap((cut) =>
    SUBSETS.map(([subset]): SiteAsset => {
      const name = fontName(cut, subset)
      const folder = dirname(require.resolve(`@fontsource/${cut.folder}/package.json`))
      return { path: `assets/fonts/${name}`, type: 'font/woff2', content: readFileSync(join(folder, 'files', name)) }
    }),
  )
  const emoji = dirname(require.resolve('@fontsource/noto-emoji/package.json'))
  const emojiFaces = readFileSync(join(emoji, '400.css'), 'utf8').replace(/, url\([^)]*\.woff\) format\('woff'\)/g, '')
  for (const [, name = ''] of emojiFaces.matchAll(/\.\/files\/([\w-]+\.woff2)/g))
    fonts.push({ path: `assets/fonts/${name}`, type: 'font/woff2', content: readFileSync(join(emoji, 'files', name)) })
  return [
    {
      path: 'assets/site.css',
      type: 'text/css; charset=utf-8',
      content: [
        fontFaces(),
        emojiFaces.replaceAll('./files/', 'fonts/'),
        text('src/core/scene/scene.css'),
        text('src/core/scene/scene.generated.css'),
        text('src/site/assets/site.css'),
      ].join('\n'),
    },
    { path: 'assets/reader.js', type: 'text/javascript; charset=utf-8', content: text('src/site/assets/reader.js') },
    { path: 'assets/icon.svg', type: 'image/svg+xml', content: text('public/folvet.svg') },
    ...fonts,
  ]
}
