import { createRequire } from 'node:module'

/** The least of OpenCV that forty lines need. */
interface Mat {
  data: Uint8Array
  data32S: Int32Array
  rows: number
  delete: () => void
}
interface Cv {
  Mat: new () => Mat
  Size: new (w: number, h: number) => object
  matFromImageData: (i: { data: Uint8ClampedArray; width: number; height: number }) => Mat
  cvtColor: (a: Mat, b: Mat, code: number) => void
  GaussianBlur: (a: Mat, b: Mat, size: object, s: number) => void
  threshold: (...a: [from: Mat, to: Mat, at: number, most: number, how: number]) => number
  getStructuringElement: (shape: number, size: object) => Mat
  morphologyEx: (a: Mat, b: Mat, op: number, k: Mat) => void
  connectedComponentsWithStats: (a: Mat, labels: Mat, stats: Mat, middles: Mat) => number
  [constant: string]: unknown
}
// In a box of its own: the library has a `then`, and a promise of it would never come to rest.
let loaded: Promise<{ cv: Cv }> | null = null
const load = async (): Promise<{ cv: Cv }> => {
  const cv = createRequire(import.meta.resolve('@techstark/opencv-js'))('@techstark/opencv-js') as Cv & {
    onRuntimeInitialized?: () => void
  }
  if (!(cv.Mat as unknown)) await new Promise<void>((resolve) => (cv.onRuntimeInitialized = resolve))
  return { cv }
}

/** What a plain program counts: Otsu's threshold of a blurred grey picture, opened, parts of a middling size. */
export async function plainCount(rgba: Buffer, width: number, height: number): Promise<number> {
  const { cv } = await (loaded ??= load())
  const mats = Array.from({ length: 5 }, () => new cv.Mat()) as [Mat, Mat, Mat, Mat, Mat]
  const [grey, mask, labels, stats, middles] = mats
  const from = cv.matFromImageData({ data: new Uint8ClampedArray(rgba), width, height })
  try {
    cv.cvtColor(from, grey, cv.COLOR_RGBA2GRAY as number)
    cv.GaussianBlur(grey, grey, new cv.Size(7, 7), 0)
    cv.threshold(grey, mask, 0, 255, (cv.THRESH_BINARY as number) + (cv.THRESH_OTSU as number))
    // The ground is what most pixels are.
    let white = 0
    for (const v of mask.data) white += v ? 1 : 0
    if (white > mask.data.length / 2)
      for (let i = 0; i < mask.data.length; i++) mask.data[i] = 255 - mask.data[i]!
    const kernel = cv.getStructuringElement(cv.MORPH_ELLIPSE as number, new cv.Size(5, 5))
    cv.morphologyEx(mask, mask, cv.MORPH_OPEN as number, kernel)
    kernel.delete()
    const n = cv.connectedComponentsWithStats(mask, labels, stats, middles)
    const areas = Array.from({ length: n - 1 }, (_, i) => stats.data32S[(i + 1) * 5 + 4]!)
    return areas.filter((a) => a > 0.0003 * width * height && a < 0.05 * width * height).length
  } finally {
    for (const m of [...mats, from]) m.delete()
  }
}
