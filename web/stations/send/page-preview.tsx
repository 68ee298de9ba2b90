import type { SentHome } from '@awlbox/core/contracts/api/send'
import { Empty } from '../../kit/notice.tsx'
import { Select } from '../../kit/select.tsx'

/** The home's page as its phone shows it, made from the script as it stands: before anything is sent, and for each home. */
export function PagePreview({
  lessonId,
  homes,
  shown,
  now,
  onShow,
}: {
  lessonId: string
  homes: readonly SentHome[]
  shown: string | null
  /** Changes when the page would. */
  now: string
  onShow: (householdId: string) => void
}) {
  const each = [...new Map(homes.map((h) => [h.householdId, h])).values()]
  if (!shown) return <Empty>Who may send the lesson sees here how each home’s phone shows it.</Empty>
  const children = (id: string): string =>
    homes
      .filter((h) => h.householdId === id)
      .map((h) => h.child)
      .join(', ')
  return (
    <section aria-label="As the phone shows it" className="grid gap-2 justify-items-center">
      <label className="flex items-center gap-2 text-steel text-sm">
        As the phone shows it in
        <Select
          label="Home"
          look="small"
          value={shown}
          choices={each.map((h) => ({
            value: h.householdId,
            words: `${h.home} (${children(h.householdId)})`,
          }))}
          onChange={onShow}
        />
      </label>
      <iframe
        key={`${shown} ${now}`}
        title="The home page"
        src={`/see/${lessonId}/${shown}`}
        className="w-[390px] max-w-full h-[620px] rounded-[22px] border-4 border-ink bg-ground"
      />
      <p className="text-sm text-steel">Here nothing is sent and nothing is kept.</p>
    </section>
  )
}
