import { useEffect, useImperativeHandle, useRef, useState, type Ref } from 'react'
import { type CutSegment, framesPerSecond } from '@awlbox/core/contracts/cut'
import { keptSpans } from '@awlbox/core/cut/spans'
import { clockTime } from '@awlbox/core/words'
import type { TakeRecord } from '../../frame/types.ts'
import { Button } from '../../kit/button.tsx'

export interface PreviewHandle { playFrom(seconds: number): void; toggle(): void }

/** Plays one segment's take as it will be cut: dropped spans are jumped over. */
export function Preview({ ref, take, cut, onTime }: { ref: Ref<PreviewHandle>; take: TakeRecord | null; cut: CutSegment; onTime: (s: number | null) => void }) {
  const video = useRef<HTMLVideoElement>(null)
  const [playing, setPlaying] = useState(false)
  const [words, setWords] = useState('')
  const spans = take?.seconds ? keptSpans(cut, take.seconds).map((s) => ({ from: s.from / framesPerSecond, to: s.to / framesPerSecond })) : []
  const jump = (t: number): number | null => {
    const inside = spans.find((s) => t >= s.from - 0.02 && t < s.to - 0.01)
    if (inside) return t
    return spans.find((s) => s.from >= t - 0.02)?.from ?? null
  }
  useEffect(() => {
    let frame = 0
    const tick = () => {
      const v = video.current
      if (v && !v.paused) {
        const to = jump(v.currentTime)
        if (to === null) v.pause()
        else if (Math.abs(to - v.currentTime) > 0.03) v.currentTime = to
        onTime(v.currentTime)
        const line = take?.hearing?.lines.find((l) => l.start !== null && l.end !== null && v.currentTime >= l.start - 0.2 && v.currentTime <= l.end + 0.3)
        setWords(line?.words.map((w) => w.word).join(' ') ?? '')
      }
      frame = requestAnimationFrame(tick)
    }
    frame = requestAnimationFrame(tick)
    return () => cancelAnimationFrame(frame)
  })
  const play = (from?: number) => {
    const v = video.current
    if (!v) return
    v.currentTime = jump(from ?? v.currentTime) ?? spans[0]?.from ?? 0
    void v.play()
  }
  useImperativeHandle(ref, () => ({ playFrom: play, toggle: () => (video.current?.paused ? play() : video.current?.pause()) }))
  if (!take?.seconds) return <div className="aspect-video rounded-xl border border-hair bg-card grid place-items-center text-steel">No take to show yet.</div>
  return (
    <div className="grid gap-2">
      <div className="relative rounded-xl overflow-hidden bg-black aspect-video">
        <video ref={video} src={`/api/takes/${take.id}/film`} preload="auto" playsInline className="w-full h-full" onPlay={() => setPlaying(true)} onPause={() => setPlaying(false)} />
        {words && <span className="absolute left-1/2 -translate-x-1/2 bottom-4 max-w-[86%] rounded-lg bg-black/80 text-white font-child text-lg leading-snug px-3 py-1.5 text-center">{words}</span>}
      </div>
      <div className="flex gap-2 items-center"><Button onClick={() => (playing ? video.current?.pause() : play())}>{playing ? 'Stop' : 'Play'}</Button><Button onClick={() => play(spans[0]?.from ?? 0)}>From the start</Button><span className="flex-1" /><span className="text-steel text-sm figures">take {take.number} · filmed {clockTime(take.seconds)}</span></div>
    </div>
  )
}
