import { resample } from '@nibquill/core/tidy/resample'
import { planTidying } from '@nibquill/core/tidy/planTidying'
import type { Tidying } from '@nibquill/core/tidy/tidying'
import { parentPort } from 'node:worker_threads'

/** What the tidying worker of the client does with a photo that is open: plan and sample it. */
parentPort!.on(
  'message',
  ({
    data,
    width,
    height,
    tidying,
  }: {
    data: Uint8ClampedArray
    width: number
    height: number
    tidying: Tidying
  }) => {
    const picture = { data, width, height }
    const made = resample(picture, planTidying(picture, tidying))
    parentPort!.postMessage({ width: made.width, height: made.height })
  },
)
