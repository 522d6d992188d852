import { join } from 'node:path'
import { v7 as uuid } from 'uuid'
import { ALL_ICONS } from '../core/badges/all-icons'
import { applyEdits } from '../core/changes/edit'
import { splitOff } from '../core/commands/split-off'
import { readFolder } from '../core/formats/collection-folder/read-folder'
import { Records } from '../core/records/records'
import type { TopicRecord } from '../core/records/topic'
import { px } from '../core/scene/drawing'
import { sceneMarkup } from '../core/scene/markup'
import { buildScene, type Scene } from '../core/scene/scene'
import { ALL_FONTS } from '../core/text/all-fonts'
import { branch } from '../core/tree/walk'
import { openSource } from './folders/folder-source'
import { log } from './http/endpoint'
import { projectRoot } from './project-root'

let drawn: Promise<string | null> | null = null

/** The home map of the demo as SVG markup, as it is and with one branch split off, for the page on which people begin; null where the demo cannot be read. Drawn once. */
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
  const sceneNow = () => buildScene(records, map, { fonts: ALL_FONTS, countTopics })
  const dressed = (scene: Scene) => sceneMarkup(scene, { icons: ALL_ICONS, pictureAddress: () => null })
  const whole = sceneNow()
  const before = dressed(whole)
  const { x, y, width, height } = whole.bounds
  const largest = largestBranch(records, map)
  if (largest) applyEdits(records, splitOff(records, { topic: largest.id }, { newId: uuid }).change.edits)
  const after = largest ? `<g class="front-after">${dressed(sceneNow())}</g>` : ''
  return `<svg class="scene" viewBox="${px(x)} ${px(y)} ${px(width)} ${px(height)}" role="img" aria-label="A map: the Vennmoor handbook with its chapters"><g class="front-before">${before}</g>${after}</svg>`
}

/** The first-level branch with the most topics: the one to be split off. */
function largestBranch(records: Records, map: string): TopicRecord | undefined {
  const root = records.root(map)
  const size = (head: TopicRecord) => [...branch(records, head)].length
  return root && [...records.children(root.id)].sort((a, b) => size(b) - size(a))[0]
}
