import { type RefObject, useEffect, useRef } from 'react'

/** What a camera sees now, muted. Its element is handed on, for looking at its pixels. */
export function StreamVideo({
  stream,
  video,
  onSize,
}: {
  stream: MediaStream
  video?: RefObject<HTMLVideoElement | null>
  onSize?(width: number, height: number): void
}) {
  const own = useRef<HTMLVideoElement>(null)
  useEffect(() => {
    const element = own.current
    if (element) element.srcObject = stream
    if (video) video.current = element
    return () => {
      if (video) video.current = null
    }
  }, [stream, video])
  return (
    <video
      ref={own}
      autoPlay
      muted
      playsInline
      aria-label="What the camera sees"
      className="w-full h-full object-cover"
      onLoadedMetadata={(e) => onSize?.(e.currentTarget.videoWidth, e.currentTarget.videoHeight)}
    />
  )
}
