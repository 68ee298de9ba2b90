import { noted } from '../log.ts'
import fs from 'node:fs/promises'
import { createRequire } from 'node:module'
import type { FilmBox } from '@awlbox/core/contracts/cut'

/** Debian's opencv-data. Without it no face is looked for, and the take says nothing about faces. */
const cascade = '/usr/share/opencv4/haarcascades/haarcascade_frontalface_alt2.xml'
/** The least of OpenCV that is used here: its own types are far larger than its words. */
interface Cv {
  Mat: new () => Mat
  matFromArray: (rows: number, cols: number, type: number, data: ArrayLike<number>) => Mat
  CV_8UC1: number
  Size: new (w: number, h: number) => object
  RectVector: new () => {
    size: () => number
    get: (i: number) => { x: number; y: number; width: number; height: number }
    delete: () => void
  }
  CascadeClassifier: new () => {
    load: (name: string) => boolean
    detectMultiScale: (
      m: Mat,
      out: object,
      scale: number,
      neighbours: number,
      flags: number,
      least: object,
    ) => void
  }
  FS_createDataFile: (
    folder: string,
    name: string,
    data: Uint8Array,
    read: boolean,
    write: boolean,
    own: boolean,
  ) => void
  equalizeHist: (from: Mat, to: Mat) => void
}
interface Mat {
  delete: () => void
}

/** Faces in a grey picture, boxes in its own pixels. */
export type FaceFinder = (grey: Uint8Array, width: number, height: number) => FilmBox[]
let finder: Promise<FaceFinder | null> | null = null

/** Finds frontal faces with a cascade of Haar features; null where the machine has no cascade file. */
export const faceFinder = (): Promise<FaceFinder | null> => (finder ??= load())
async function load(): Promise<FaceFinder | null> {
  const file = await fs.readFile(cascade).catch(noted('the faces model cannot be read'))
  if (!file) return null
  const cv = createRequire(import.meta.url)('@techstark/opencv-js') as Cv & {
    onRuntimeInitialized?: () => void
  }
  // Its WebAssembly is compiled after the file was read.
  if (!(cv.Mat as unknown)) await new Promise<void>((resolve) => (cv.onRuntimeInitialized = resolve))
  cv.FS_createDataFile('/', 'face.xml', file, true, false, false)
  const classifier = new cv.CascadeClassifier()
  if (!classifier.load('face.xml')) return null
  return (grey, width, height) => {
    const m = cv.matFromArray(height, width, cv.CV_8UC1, grey)
    const found = new cv.RectVector()
    try {
      cv.equalizeHist(m, m)
      // Faces below a twelfth of the picture's height tell nobody apart.
      classifier.detectMultiScale(
        m,
        found,
        1.15,
        4,
        0,
        new cv.Size(Math.round(height / 12), Math.round(height / 12)),
      )
      return Array.from({ length: found.size() }, (_, i) => {
        const r = found.get(i)
        return { x: r.x, y: r.y, w: r.width, h: r.height }
      })
    } finally {
      found.delete()
      m.delete()
    }
  }
}
