import { existsSync } from 'node:fs'
import { mkdir, rename, rm } from 'node:fs/promises'
import { dirname } from 'node:path'

/**
 * Writes a file or folder beside its place and exchanges the two when it is whole: whatever goes wrong, what stood there
 * before still does.
 */
export async function exchange(target: string, write: (unfinished: string) => Promise<void>): Promise<void> {
  const [unfinished, before] = [`${target}.unfinished`, `${target}.before`]
  await mkdir(dirname(target), { recursive: true })
  await rm(unfinished, { recursive: true, force: true })
  try {
    await write(unfinished)
    const stood = existsSync(target)
    if (stood) await rename(target, before)
    try {
      await rename(unfinished, target)
    } catch (error) {
      if (stood) await rename(before, target)
      throw error
    }
    await rm(before, { recursive: true, force: true })
  } finally {
    await rm(unfinished, { recursive: true, force: true })
  }
}
