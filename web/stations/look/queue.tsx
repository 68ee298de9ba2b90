import { Check } from 'lucide-react'
import type { ReplyRecord } from '@awlbox/core/contracts/api/look'
import { Select } from '../../kit/select.tsx'

const orders = {
  oldest: 'oldest first',
  undecided: 'undecided first',
  agreed: 'all checks agree first',
  alike: 'like answers together',
  child: 'by child',
} as const
export type Order = keyof typeof orders

/** The row of small photographs, and in which order they come. */
export function Queue({
  replies,
  current,
  order,
  onOrder,
  onPick,
  line,
}: {
  replies: readonly ReplyRecord[]
  current: ReplyRecord
  order: Order
  onOrder: (o: Order) => void
  onPick: (id: string) => void
  line: string
}) {
  return (
    <div className="flex items-center gap-2 max-sm:flex-col max-sm:items-stretch">
      <ol className="flex gap-2 overflow-x-auto flex-1 py-1 px-0.5" aria-label="Replies">
        {replies.map((r) => (
          <li key={r.id}>
            <button
              type="button"
              aria-current={r.id === current.id || undefined}
              title={r.child}
              onClick={() => onPick(r.id)}
              className={`relative size-[60px] rounded-lg overflow-hidden border-2 cursor-pointer grid place-items-center ${r.id === current.id ? 'border-saffron ring-2 ring-saffron' : 'border-hair'}`}
            >
              {r.photos[0] ? (
                <img
                  src={`/api/photos/${r.photos[0].id}?size=small`}
                  alt=""
                  loading="lazy"
                  className={`w-full h-full object-cover ${r.judgements.length && r.id !== current.id ? 'opacity-60' : ''}`}
                />
              ) : (
                <span className="text-sm text-steel">words</span>
              )}
              <span className="sr-only">
                {' '}
                {r.child}
                {r.judgements.length ? ', looked at' : ''}
              </span>
              {r.judgements.length > 0 && (
                <span className="absolute right-0.5 bottom-0.5 rounded-full bg-moss text-on-moss size-5 grid place-items-center">
                  <Check size={13} />
                </span>
              )}
            </button>
          </li>
        ))}
      </ol>
      <div className="text-steel text-sm text-right whitespace-nowrap max-sm:text-left">
        <b className="text-ink text-base">{current.child}</b>
        <br />
        {line}
        <br />
        <Select
          label="Order"
          look="bare"
          value={order}
          choices={(Object.keys(orders) as Order[]).map((o) => ({ value: o, words: orders[o] }))}
          onChange={onOrder}
        />
      </div>
    </div>
  )
}
