import { type RefObject, useEffect, useRef } from 'react'

function show(element: HTMLVideoElement, stream: MediaStream): void {
  element.srcObject = stream
}
function handOn(to: RefObject<HTMLVideoElement | null> | undefined, element: HTMLVideoElement | null): void {
  if (to) to.current = element
}

/** What a camera sees now, muted. Its element is handed on, for looking at its pixels. */
export function StreamVideo({
  stream,
  video,
  onSize,
}: {
  stream: MediaStream
  video?: RefObject<HTMLVideoElement | null>
  onSize?: (width: number, height: number) => void
}) {
  const own = useRef<HTMLVideoElement>(null)
  useEffect(() => {
    if (own.current) show(own.current, stream)
    handOn(video, own.current)
    return () => handOn(video, null)
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
