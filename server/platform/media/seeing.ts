import fs from 'node:fs/promises'
import path from 'node:path'
import type { See } from '@awlbox/core/look/photo/seen'

/** Planes of what the network says of a picture, see core/look/photo/seen. */
const planes = 8
let eyes: Promise<See> | null = null
/** The network that sees things in photos, loaded once a process; one thread, so that a photo costs what it says. */
export const photoEyes = (): Promise<See> => (eyes ??= open())

async function open(): Promise<See> {
  const ort = await import('onnxruntime-node')
  ort.env.logLevel = 'error'
  const session = await ort.InferenceSession.create(await fs.readFile(await modelFile()), {
    intraOpNumThreads: 1,
    interOpNumThreads: 1,
  })
  return async (rgb, width, height) => {
    const out = await session.run({ x: new ort.Tensor('float32', rgb, [1, 3, height, width]) })
    const [w, h] = [width / 2, height / 2]
    const data = out.y!.data as Float32Array
    if (data.length !== planes * w * h)
      throw new Error(`The network answered with ${data.length} values for ${w} × ${h} pixels`)
    return { width: w, height: h, planes: data }
  }
}
/** Beside the sources, whether run from them or from dist. */
async function modelFile(): Promise<string> {
  for (let at = import.meta.dirname; ; at = path.dirname(at)) {
    const file = path.join(at, 'server/platform/media/things.onnx')
    if (
      await fs.stat(file).then(
        () => true,
        () => false,
      )
    )
      return file
    if (at === path.dirname(at)) throw new Error('things.onnx is missing')
  }
}
