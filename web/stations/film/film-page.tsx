import { Split } from '../../frame/split.tsx'
import { Empty } from '../../kit/notice.tsx'
import { FilmDesk } from './film-desk.tsx'
import { FilmSessionProvider, useFilmSession } from './film-session.ts'
import { FilmStrip } from './film-strip.tsx'

export default function FilmPage() {
  const session = useFilmSession()
  const { segment } = session
  if (!segment)
    return (
      <div className="p-5">
        <Empty>There is nothing to film yet: the script has no segment for children.</Empty>
      </div>
    )
  return (
    <FilmSessionProvider value={{ ...session, segment }}>
      <Split left={<FilmStrip />} right={<FilmDesk />} />
    </FilmSessionProvider>
  )
}
