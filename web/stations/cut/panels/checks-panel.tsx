import { told } from '@awlbox/core/findings/say'
import { type Check, checkKind, type CheckKind } from '@awlbox/core/cut/checks'
import { clockTime } from '@awlbox/core/words'

const names: Record<CheckKind, string> = {
  counts: 'Counts and number sentences',
  answers: 'Answers after their wait',
  lines: 'Lines and sentences',
  words: 'Words that expire or identify',
  captions: 'Captions',
  overlays: 'Over the picture',
  cards: 'Cards',
  length: 'Length',
  people: 'Faces and names',
  sound: 'Sound',
}
const order: readonly CheckKind[] = [
  'counts',
  'answers',
  'people',
  'words',
  'lines',
  'captions',
  'overlays',
  'cards',
  'sound',
  'length',
]
/** Everything the cut was held against before it is rendered, with what is to be seen to; each goes to its moment. */
export function ChecksPanel({
  checks,
  behind,
  onGo,
}: {
  checks: readonly Check[]
  behind: boolean
  onGo: (c: Check) => void
}) {
  return (
    <div className="grid gap-3" aria-busy={behind}>
      {order.map((kind) => {
        const mine = checks.filter((c) => checkKind(c) === kind)
        return (
          <section key={kind} aria-label={names[kind]} className="grid gap-1">
            <h3 className="flex items-baseline gap-2">
              <b className="font-semibold">{names[kind]}</b>
              <span className={`text-sm ${mine.length ? 'text-brick' : 'text-moss'}`}>
                {mine.length ? mine.length : 'nothing found'}
              </span>
            </h3>
            {mine.length > 0 && (
              <ul className="grid gap-1">
                {mine.slice(0, 12).map((c, i) => (
                  <li key={i}>
                    <button
                      type="button"
                      onClick={() => onGo(c)}
                      className={`w-full text-left rounded-lg border px-2.5 py-1.5 cursor-pointer hover:bg-wash ${c.severity === 'wrong' ? 'border-brick' : 'border-hair'}`}
                    >
                      {c.severity === 'wrong' && <b className="text-brick">Wrong: </b>}
                      {told('cut', c)}
                      {c.start !== null && (
                        <span className="text-sm text-steel figures">
                          {' '}
                          at {clockTime(c.start)} of the segment
                        </span>
                      )}
                    </button>
                  </li>
                ))}
                {mine.length > 12 && <li className="text-sm text-steel">and {mine.length - 12} more</li>}
              </ul>
            )}
          </section>
        )
      })}
      <p className="text-sm text-steel">
        Flashes, black and standing pictures, and whether picture and sound fit are looked for in the finished
        film.
      </p>
    </div>
  )
}
