import { type ChildProcess, fork } from 'node:child_process'
import { existsSync } from 'node:fs'
import fs from 'node:fs/promises'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import { fileTypeFromFile } from 'file-type'
import { Problem } from '../platform/problem.ts'
import type { Done, Order } from './photo-helper.ts'

/** Files of a photo made safe; whoever asked takes them in and removes them with their folder. */
export interface CleanPhoto {
  image: string
  small: string
  width: number
  height: number
}
const accepted = new Set(['image/jpeg', 'image/png', 'image/webp'])

/**
 * A family's photo made safe: its type told from its bytes, its pixels limited before decoding, turned upright,
 * written anew into `folder` so that place, time and device are gone. @throws Problem with words for the adult.
 */
export async function cleanPhoto(file: string, mostPixels: number, folder: string): Promise<CleanPhoto> {
  if ((await fs.stat(file)).size === 0)
    throw new Problem(
      400,
      'Empty photo',
      'This photo has nothing in it: it may not have finished saving. Your answers are kept; choose it again.',
    )
  const type = await fileTypeFromFile(file)
  const heic = type?.mime === 'image/heic' || type?.mime === 'image/heif'
  if (!type || !(heic || accepted.has(type.mime)))
    throw new Problem(
      415,
      'Not a photo',
      'This file is not a photo (JPEG, PNG, WebP or HEIC). Your answers are kept.',
    )
  const [image, small] = [path.join(folder, 'image.jpg'), path.join(folder, 'small.jpg')]
  const done = await helped({ file, heic, mostPixels, image, small })
  if ('width' in done) return { image, small, width: done.width, height: done.height }
  throw done.problem === 'too many pixels' ? tooLarge : notWhole
}
const tooLarge = new Problem(
  413,
  'Photo too large',
  'This photo has more than 64 million dots. Your answers are kept; choose a smaller size on the phone and send it again.',
)
const notWhole = new Problem(
  400,
  'Photo cut short',
  'This photo did not arrive whole. Your answers are kept; send the photo again.',
)

/** Seconds without a photo after which the helper ends, and gives back what memory it took. */
const idleFor = 30
let helper: ChildProcess | null = null
let idle: NodeJS.Timeout | undefined
let asked = 0
const waiting = new Map<number, (done: Done) => void>()
/** Has the helper decode a photo; one is started where none runs. A helper that dies had more to do than it could. */
function helped(order: Omit<Order, 'id'>): Promise<Done> {
  const id = (asked += 1)
  clearTimeout(idle)
  const child = (helper ??= open())
  return new Promise((resolve) => {
    waiting.set(id, resolve)
    child.send({ id, ...order } satisfies Order)
  })
}
function open(): ChildProcess {
  // The bundled helper beside the bundled program, else the source, compiled as it loads.
  const bundled = fileURLToPath(new URL('./photo-helper.mjs', import.meta.url))
  const child = existsSync(bundled)
    ? fork(bundled)
    : fork(fileURLToPath(new URL('./photo-helper.ts', import.meta.url)), { execArgv: ['--import', 'tsx'] })
  child.on('message', (done: Done) => {
    waiting.get(done.id)?.(done)
    waiting.delete(done.id)
    if (!waiting.size) {
      idle = setTimeout(() => {
        if (helper === child) helper = null
        child.disconnect()
      }, idleFor * 1000)
      idle.unref()
    }
  })
  child.on('exit', () => {
    if (helper !== child) return
    helper = null
    for (const [id, tell] of waiting) tell({ id, problem: 'not whole' })
    waiting.clear()
  })
  // A helper that waits keeps no program from ending.
  child.unref()
  child.channel?.unref()
  return child
}
