import { type RefObject, useEffect, useState } from 'react'
import { hardToTell } from '@awlbox/core/film/camera/colours'
import { Button } from '../../kit/button.tsx'

const spots = ['the first counters', 'the second counters', 'the mat'] as const
type Spot = (typeof spots)[number]
/** What the fields show before a colour is picked; nothing is said about them. */
const usual: Record<Spot, string> = {
  'the first counters': '#f2b705',
  'the second counters': '#1f5f99',
  'the mat': '#f7f5ef',
}

/** Colours picked from the picture, held against each other for everybody's eyes. */
export function CameraColours({ video }: { video: RefObject<HTMLVideoElement | null> }) {
  const [picked, setPicked] = useState<Partial<Record<Spot, string>>>({})
  const [picking, setPicking] = useState<Spot | null>(null)
  useEffect(() => {
    const v = video.current
    if (!picking || !v) return
    const take = (e: MouseEvent) => {
      const r = v.parentElement!.getBoundingClientRect()
      const canvas = document.createElement('canvas')
      canvas.width = v.videoWidth
      canvas.height = v.videoHeight
      const context = canvas.getContext('2d')
      if (!context) return
      context.drawImage(v, 0, 0)
      const [x, y] = [
        ((e.clientX - r.left) / r.width) * canvas.width,
        ((e.clientY - r.top) / r.height) * canvas.height,
      ]
      const d = context.getImageData(Math.max(0, x - 3), Math.max(0, y - 3), 7, 7).data
      const mean = [0, 1, 2].map((k) =>
        Math.round(d.reduce((sum, value, i) => sum + (i % 4 === k ? value : 0), 0) / (d.length / 4)),
      )
      setPicked((all) => ({
        ...all,
        [picking]: `#${mean.map((m) => m.toString(16).padStart(2, '0')).join('')}`,
      }))
      setPicking(null)
    }
    const area = v.parentElement!
    area.addEventListener('click', take)
    return () => area.removeEventListener('click', take)
  }, [picking, video])
  const known = spots.flatMap((name) => (picked[name] ? [[name, picked[name]] as const] : []))
  const alike = hardToTell(known)
  return (
    <fieldset className="grid gap-1.5">
      <legend className="font-semibold mb-1">Colours</legend>
      <div className="flex flex-wrap gap-2">
        {spots.map((name) => (
          <span key={name} className="flex items-center gap-1.5 text-sm">
            <input
              type="color"
              aria-label={name}
              value={picked[name] ?? usual[name]}
              onChange={(e) => setPicked({ ...picked, [name]: e.target.value })}
              className="size-8 rounded border border-hair bg-card cursor-pointer"
            />
            {name}
            <Button
              small
              look="quiet"
              aria-pressed={picking === name}
              onClick={() => setPicking(picking === name ? null : name)}
            >
              {picking === name ? 'now click on it above' : 'pick'}
            </Button>
          </span>
        ))}
      </div>
      {known.length < 2 ? (
        <p className="text-sm text-steel">
          Pick two of them from the picture to see whether they stay apart.
        </p>
      ) : (
        <p className={alike.length ? 'text-brick' : 'text-moss font-semibold'}>
          {alike.length
            ? alike.join(' ')
            : `${known.length < spots.length ? 'Those you picked' : 'These'} stay apart for everybody, colour-blind or not.`}
        </p>
      )}
    </fieldset>
  )
}
