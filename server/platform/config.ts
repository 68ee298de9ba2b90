import path from 'node:path'
import { fileURLToPath } from 'node:url'

/** The repository's folder: two above this file, and above dist/server where this is bundled. */
const root = path.resolve(fileURLToPath(new URL('../..', import.meta.url)))
const number = (name: string, fallback: number): number => {
  const value = process.env[name]
  if (value === undefined || value === '') return fallback
  const n = Number(value)
  if (!Number.isFinite(n) || n < 0) throw new Error(`${name} must be a number, not “${value}”`)
  return n
}

/** Settings of one process, from the environment. The launcher sets what it starts itself. */
export const config = {
  root,
  databaseUrl: process.env.DATABASE_URL ?? 'postgres://awlbox@127.0.0.1:5433/awlbox',
  port: number('PORT', 4180),
  host: process.env.AWLBOX_HOST ?? '127.0.0.1',
  blobs: process.env.AWLBOX_BLOBS ?? path.join(root, '.data/blobs'),
  /** Signs home links, so that they can be shown again though only their hash is stored. */
  secret: process.env.AWLBOX_SECRET ?? '',
  /** Address of the camera that films a script by itself; empty when there is none. */
  camera: process.env.AWLBOX_CAMERA ?? '',
  /** Bytes of disk kept free: uploads that would eat into them are refused at their start. */
  diskReserve: number('AWLBOX_DISK_RESERVE', 512 * 1024 * 1024),
  largestTake: number('AWLBOX_LARGEST_TAKE', 4 * 1024 * 1024 * 1024),
  largestPhoto: 30 * 1024 * 1024,
  /** Pixels of a photo accepted for decoding. */
  mostPixels: 64_000_000,
  origin: process.env.AWLBOX_ORIGIN ?? '',
  secureCookies: process.env.AWLBOX_SECURE === '1',
} as const
