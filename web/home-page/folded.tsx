import { type ComponentType, useState } from 'react'
import { box } from './looks.ts'
import { useWords } from './words.ts'

/** A part of the page that few open: what it is made of is fetched when it is asked for. */
export function Folded<P extends object>({
  title,
  load,
  props,
}: {
  title: string
  load: () => Promise<ComponentType<P>>
  props: P
}) {
  const { say } = useWords()
  const [open, setOpen] = useState(false)
  const [Part, setPart] = useState<ComponentType<P> | null>(null)
  const [away, setAway] = useState(false)
  const show = () => {
    setOpen(!open)
    if (Part) return
    setAway(false)
    load().then(
      (part) => setPart(() => part),
      () => setAway(true),
    )
  }
  return (
    <section className={box}>
      <button
        type="button"
        aria-expanded={open}
        onClick={show}
        className="w-full min-h-12 text-start font-semibold cursor-pointer"
      >
        {title}
      </button>
      {open && Part && <Part {...props} />}
      {open && !Part && (
        <p role={away ? 'alert' : 'status'} className={`pb-3 ${away ? 'text-brick' : 'text-steel'}`}>
          {say(away ? 'problem.away' : 'page.opening')}
        </p>
      )}
    </section>
  )
}
