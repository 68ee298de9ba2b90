import { Link } from 'react-router'
import * as lookApi from '@awlbox/core/contracts/api/look'
import * as progressApi from '@awlbox/core/contracts/api/progress'
import { fileAt } from '../../api.ts'
import { useAsked } from '../../frame/use-asked.ts'
import { Card } from '../../kit/card.tsx'

const kindWords: Readonly<Record<string, string>> = {
  frames: 'on frames',
  groups: 'on plates or in rings',
  parts: 'on a part-whole drawing',
  loose: 'lying loose',
}

/** Beside the threads: whether it is fair, how well photos are read, and what can be taken along. */
export function ClassTools({ classId }: { classId: string }) {
  const { data: fair } = useAsked(progressApi.fairnessOf, { classId })
  const { data: seen } = useAsked(lookApi.corrections, {})
  const counted = fair?.items.filter((i) => i.one.replies + i.other.replies > 0) ?? []
  return (
    <div className="grid grid-cols-3 max-lg:grid-cols-1 gap-3 mt-5">
      <Card as="section" aria-label="Is it fair?" className="p-3">
        <h2 className="font-semibold">Is it fair?</h2>
        <p className="text-sm text-steel">
          How often “alone” is said, by what lies outside the child. Counts, not accusations.
        </p>
        <ul className="text-sm mt-1">
          {counted.map((i) => (
            <li key={i.what} className={i.differs ? 'font-semibold' : ''}>
              {i.one.words}: {i.one.alone} of {i.one.replies}; {i.other.words}: {i.other.alone} of{' '}
              {i.other.replies}
              {i.differs && ' — more apart than chance would often make it. Do these homes need another way?'}
            </li>
          ))}
          {!counted.length && <li className="text-steel">No replies to count yet.</li>}
        </ul>
      </Card>
      <Card as="section" aria-label="How photos are read" className="p-3">
        <h2 className="font-semibold">How photos are read</h2>
        {seen && seen.read > 0 ? (
          <>
            <p className="text-sm">
              {seen.corrected} of {seen.read} were put right by hand.
            </p>
            <ul className="text-sm text-steel">
              {seen.byKind
                .filter((k) => k.corrected > 0)
                .map((k) => (
                  <li key={k.kind}>
                    {kindWords[k.kind] ?? k.kind}: {k.corrected} of {k.photos}
                  </li>
                ))}
            </ul>
          </>
        ) : (
          <p className="text-sm text-steel">No photos have been read yet.</p>
        )}
        <Link to="/practice" className="text-moss font-semibold underline min-h-9 inline-grid items-center">
          Practise judging
        </Link>
      </Card>
      <Card as="section" aria-label="Take along" className="p-3">
        <h2 className="font-semibold">Take along</h2>
        <ul className="grid">
          {(
            [
              [progressApi.judgementsCsv, 'Judgements (CSV)'],
              [progressApi.standingsCsv, 'Standings (CSV)'],
              [progressApi.statements, 'Learning statements (xAPI)'],
            ] as const
          ).map(([route, words]) => (
            <li key={words}>
              <a href={fileAt(route, { classId })} className="underline min-h-9 inline-grid items-center">
                {words}
              </a>
            </li>
          ))}
        </ul>
        <p className="text-sm text-steel">
          Names of children are in the tables: keep them as your setting’s policy says.
        </p>
      </Card>
    </div>
  )
}
