import { expect, test } from 'vitest'
import { storm } from './storm'

const kills = Number(process.env.FOLVET_STORM ?? 2)

test(
  'nothing that was acknowledged is lost, and nothing is there by half, when server and database are killed',
  async () => {
    const { acknowledged, isPageWhole, lost, half, isGapless, stuck, heard, last } = await storm(kills)
    console.log(
      `${kills} kills of each: ${acknowledged} changes acknowledged, ${lost.length} lost, ${half.length} by half`,
    )
    expect({ lost, half, isGapless, isPageWhole, stuck }).toEqual({
      lost: [],
      half: [],
      isGapless: true,
      isPageWhole: true,
      stuck: 0,
    })
    expect(acknowledged).toBeGreaterThan(20)
    expect(heard).toBe(last)
  },
  60_000 + kills * 30_000,
)
