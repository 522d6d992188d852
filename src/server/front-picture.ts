import { join } from 'node:path'
import { v7 as uuid } from 'uuid'
import { ALL_ICONS } from '../core/badges/all-icons'
import { readFolder } from '../core/formats/collection-folder/read-folder'
import { Records } from '../core/records/records'
import { px } from '../core/scene/drawing'
import { sceneMarkup } from '../core/scene/markup'
import { buildScene } from '../core/scene/scene'
import { ALL_FONTS } from '../core/text/all-fonts'
import { openSource } from './folders/folder-source'
import { log } from './http/endpoint'
import { projectRoot } from './project-root'

let drawn: Promise<string | null> | null = null

/** The home map of the demo as SVG markup for the page on which people begin; null where the demo cannot be read. Drawn once. */
export function frontPicture(): Promise<string | null> {
  drawn ??= draw().catch((error: unknown) => {
    log.warn({ error }, 'the picture of the first page could not be drawn')
    return null
  })
  return drawn
}

async function draw(): Promise<string> {
  const source = await openSource(join(projectRoot(), 'demo', 'vennmoor'))
  const texts = new Map<string, string>()
  for (const path of source.paths) if (/\.(?:md|json)$/.test(path)) texts.set(path, await source.text(path))
  source.close()
  const records = new Records()
  for (const { kind, record } of readFolder({ text: (path) => texts.get(path) }, uuid).records)
    records.put(kind, record)
  const map = records.collection()!.homeMap!
  const countTopics = (of: string) => [...records.topicsOf(of)].length
  const scene = buildScene(records, map, { fonts: ALL_FONTS, countTopics })
  const { x, y, width, height } = scene.bounds
  const markup = sceneMarkup(scene, { icons: ALL_ICONS, pictureAddress: () => null })
  return `<svg class="scene" viewBox="${px(x)} ${px(y)} ${px(width)} ${px(height)}" role="img" aria-label="A map: the Vennmoor handbook with its chapters">${markup}</svg>`
}
