import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import type { SiteAsset } from '../../site/site'
import { projectRoot } from '../project-root'

const FONTS = [
  ['source-sans-3', 'latin-400-normal'],
  ['source-sans-3', 'latin-ext-400-normal'],
  ['source-sans-3', 'latin-600-normal'],
  ['source-sans-3', 'latin-ext-600-normal'],
  ['literata', 'latin-400-normal'],
  ['literata', 'latin-400-italic'],
  ['literata', 'latin-600-normal'],
] as const

/** Style, script and fonts of the published site, read from where they lie in the project. */
export function siteAssets(): SiteAsset[] {
  const root = projectRoot()
  const require = createRequire(join(root, 'package.json'))
  const text = (path: string) => readFileSync(join(root, path), 'utf8')
  const fonts = FONTS.map(([family, cut]): SiteAsset => {
    const name = `${family}-${cut}.woff2`
    const folder = dirname(require.resolve(`@fontsource/${family}/package.json`))
    return { path: `assets/fonts/${name}`, type: 'font/woff2', content: readFileSync(join(folder, 'files', name)) }
  })
  return [
    {
      path: 'assets/site.css',
      type: 'text/css; charset=utf-8',
      content: `${text('src/core/scene/scene.css')}\n${text('src/site/assets/site.css')}`,
    },
    { path: 'assets/reader.js', type: 'text/javascript; charset=utf-8', content: text('src/site/assets/reader.js') },
    { path: 'assets/icon.svg', type: 'image/svg+xml', content: text('public/folvet.svg') },
    ...fonts,
  ]
}
