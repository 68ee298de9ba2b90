import { wordsOf } from '../api.ts'
import { Notice } from '../kit/notice.tsx'
import { Head } from './head.tsx'

/** A page that could not be opened, with why. */
export function Away({ error }: { error: unknown }) {
  return (
    <>
      <Head />
      <div className="p-8 max-w-xl">
        <Notice kind="wrong">{wordsOf(error)}</Notice>
      </div>
    </>
  )
}
