import fs from 'node:fs/promises'
import path from 'node:path'
import { fileTypeFromFile } from 'file-type'
import { ffmpeg, probe } from '../platform/media/ffmpeg.ts'
import { Problem } from '../platform/problem.ts'
import type { Services } from '../platform/services.ts'
import { inFolder } from '../platform/temporary.ts'
import { readLater } from '../look/read-photo.ts'
import { cleanPhoto } from './photo-file.ts'
import { addPhoto, addRecording, mediaKnown } from './store.ts'

export const mediaKinds = ['photo', 'sound', 'clip'] as const
export type MediaKind = (typeof mediaKinds)[number]
/** Whose it is, and the name its sender gave it: sent twice under one name it is one. */
export interface MediaFor {
  id: string
  publicationId: string
  householdId: string
}
/** The same in a live lesson: what it belongs to is made when it is over. */
export interface LiveMediaFor {
  id: string
  liveId: string
  householdId: string
}
export interface KeptMedia {
  id: string
  width: number
  height: number
}

/** Seconds a voice may last, and a film of hands: what the page lets one record, and a little for a slow thumb. */
const longest = { sound: 65, clip: 35 }
/** Pixels along a clip's longer side: hands and things are seen, and little else. */
const clipSide = 640

/**
 * Takes in what a home sent for an answer: a photo, a voice or a short film, made anew with nothing hidden in it; the
 * clip without its sound, so that no voice comes along unasked. Its file stays where it is. @throws Problem with words for the adult.
 */
export async function takeIn(s: Services, kind: MediaKind, file: string, to: MediaFor): Promise<KeptMedia> {
  const known = await mediaKnown(s.db, kind, to)
  if (known === 'other')
    throw new Problem(409, 'Known already', 'This was sent before by somebody else. Choose it again.')
  if (known) return known
  if (kind === 'photo') return photoIn(s, file, to)
  const { ending, mime } = kind === 'sound' ? sound : clip
  await inFolder(kind, async (folder) => {
    const out = path.join(folder, `clean.${ending}`)
    const seconds = await (kind === 'sound' ? cleanSound(file, out) : cleanClip(file, out))
    await addRecording(s.db, { ...to, kind, seconds, file: await s.blobs.put(s.db, { file: out }, mime) })
  })
  return { id: to.id, width: 0, height: 0 }
}
const sound = { ending: 'm4a', mime: 'audio/mp4' }
const clip = { ending: 'mp4', mime: 'video/mp4' }

/** Takes in a photo of a live lesson: small, upright, with nothing hidden in it. @throws Problem with words for the adult */
export const livePhotoIn = (s: Services, file: string, to: LiveMediaFor): Promise<KeptMedia> =>
  photoIn(s, file, to)

async function photoIn(s: Services, file: string, to: MediaFor | LiveMediaFor): Promise<KeptMedia> {
  const kept = await inFolder('photo', async (folder) => {
    const clean = await cleanPhoto(file, s.config.mostPixels, folder)
    return {
      width: clean.width,
      height: clean.height,
      image: await s.blobs.put(s.db, { file: clean.image }, 'image/jpeg'),
      small: await s.blobs.put(s.db, { file: clean.small }, 'image/jpeg'),
    }
  })
  await addPhoto(s.db, { ...to, ...kept })
  await readLater(s, [to.id])
  return { id: to.id, width: kept.width, height: kept.height }
}

const notMedia = (what: string): Problem =>
  new Problem(415, `Not a ${what}`, `This file is no ${what} we can read. Your answers are kept.`)
async function lengthOf(file: string, kind: 'sound' | 'clip'): Promise<number> {
  if ((await fs.stat(file)).size === 0) throw notMedia(kind === 'sound' ? 'recording' : 'film')
  const type = await fileTypeFromFile(file)
  const media = type && /^(video|audio)\//.test(type.mime) ? await probe(file) : null
  if (!media || (kind === 'clip' ? !media.video : !media.audio) || media.seconds <= 0)
    throw notMedia(kind === 'sound' ? 'recording' : 'film')
  if (media.seconds > longest[kind])
    throw new Problem(
      413,
      'Too long',
      `This is ${Math.round(media.seconds)} seconds long; ${kind === 'sound' ? 'a minute' : 'half a minute'} is the most. Your answers are kept.`,
    )
  return media.seconds
}
const bare = ['-map_metadata', '-1', '-map_chapters', '-1', '-fflags', '+bitexact']
async function cleanSound(file: string, out: string): Promise<number> {
  const seconds = await lengthOf(file, 'sound')
  await ffmpeg(
    [
      '-i',
      file,
      '-map',
      '0:a:0',
      '-t',
      String(longest.sound),
      ...bare,
      '-ac',
      '1',
      '-ar',
      '24000',
      '-c:a',
      'aac',
      '-b:a',
      '40k',
      '-movflags',
      '+faststart',
      out,
    ],
    { limit: 60_000 },
  )
  return seconds
}
async function cleanClip(file: string, out: string): Promise<number> {
  const seconds = await lengthOf(file, 'clip')
  const scale = `scale='if(gt(iw,ih),min(${clipSide},iw),-2)':'if(gt(iw,ih),-2,min(${clipSide},ih))',scale=trunc(iw/2)*2:trunc(ih/2)*2`
  await ffmpeg(
    [
      '-i',
      file,
      '-map',
      '0:v:0',
      '-an',
      '-t',
      String(longest.clip),
      ...bare,
      '-vf',
      scale,
      '-r',
      '24',
      '-pix_fmt',
      'yuv420p',
      '-c:v',
      'libx264',
      '-preset',
      'veryfast',
      '-crf',
      '27',
      '-movflags',
      '+faststart',
      out,
    ],
    { limit: 120_000 },
  )
  return seconds
}
