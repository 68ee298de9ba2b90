import { type RefObject, useEffect, useState } from 'react'
import { judgeLight, type Light } from '@awlbox/core/film/camera/light'

const [width, height] = [64, 36]
/** How the picture of a camera is lit, looked at every second; null before there is one. */
export function useLight(
  video: RefObject<HTMLVideoElement | null>,
  stream: MediaStream | null,
): Light | null {
  const [light, setLight] = useState<Light | null>(null)
  useEffect(() => {
    if (!stream) return
    const canvas = document.createElement('canvas')
    canvas.width = width
    canvas.height = height
    const context = canvas.getContext('2d', { willReadFrequently: true })
    const timer = setInterval(() => {
      const v = video.current
      if (!v || !context || v.readyState < 2) return
      context.drawImage(v, 0, 0, width, height)
      setLight(judgeLight(context.getImageData(0, 0, width, height).data, width, height))
    }, 1000)
    return () => clearInterval(timer)
  }, [video, stream])
  return light
}
