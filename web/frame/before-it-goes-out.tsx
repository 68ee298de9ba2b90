import { Link } from 'react-router'
import type { Concern } from '@awlbox/core/contracts/concern'
import { Button } from '../kit/button.tsx'
import { Dialog } from '../kit/dialog.tsx'

const stations = [
  ['script', 'Script'],
  ['film', 'Film'],
  ['cut', 'Cut'],
] as const

/** What is not in order, station by station, each with the place to mend it; asked once, and recorded when sent all the same. */
export function BeforeItGoesOut({
  lessonId,
  concerns,
  doing,
  onClose,
  onGo,
}: {
  lessonId: string
  concerns: readonly Concern[]
  /** What is about to be done with it all the same. */
  doing: 'send' | 'render'
  onClose: () => void
  onGo: () => void
}) {
  return (
    <Dialog open onClose={onClose} title="Before it goes out">
      <p className="text-steel mb-3">
        {concerns.length === 1 ? 'One thing is' : `${concerns.length} things are`} not in order.{' '}
        {doing === 'send'
          ? 'Homes see what you send, and children believe it.'
          : 'A film keeps what is in it until it is rendered again.'}
      </p>
      {stations.map(([station, name]) => {
        const here = concerns.filter((c) => c.station === station)
        if (!here.length) return null
        return (
          <section key={station} aria-label={name} className="mb-3">
            <h3 className="font-bold">{name}</h3>
            <ul>
              {here.map((c) => (
                <li key={c.key} className="flex items-start gap-3 border-t border-hair py-1.5">
                  <span className="flex-1 min-w-0">{c.what}</span>
                  <Link
                    to={`/lessons/${lessonId}/${station}${c.segmentId ? `?at=${c.segmentId}` : ''}`}
                    className="text-sm underline underline-offset-2 whitespace-nowrap min-h-8"
                  >
                    Mend it
                  </Link>
                </li>
              ))}
            </ul>
          </section>
        )
      })}
      <div className="flex flex-wrap gap-2 justify-end">
        <Button onClick={onGo}>{doing === 'send' ? 'Send' : 'Render'} all the same</Button>
        <Button look="main" onClick={onClose}>
          Not yet
        </Button>
      </div>
      {doing === 'send' && (
        <p className="text-sm text-steel mt-2">What was not in order is kept with the sending.</p>
      )}
    </Dialog>
  )
}
