import { useRouteError } from 'react-router'
import { Button } from '../kit/button.tsx'

/** Shown where a page broke: what happened, what is kept, what to do. */
export function BrokenPage() {
  const error = useRouteError()
  return (
    <main className="min-h-dvh grid place-items-center p-6">
      <section role="alert" className="max-w-lg rounded-xl border border-hair bg-card p-6 grid gap-3">
        <h1 className="text-xl font-bold">This page stopped working.</h1>
        <p>
          What was saved is kept, and so is what was typed and waits to be saved. Open the page again; if it
          stops again, tell whoever looks after Awlbox what you did last.
        </p>
        <div className="flex gap-2">
          <Button look="main" onClick={() => window.location.reload()}>
            Open it again
          </Button>
          <Button onClick={() => window.location.assign('/')}>To the shelf</Button>
        </div>
        <details className="text-sm text-steel">
          <summary className="cursor-pointer">What the page says</summary>
          <p className="mt-1 break-words">{error instanceof Error ? error.message : 'No words.'}</p>
        </details>
      </section>
    </main>
  )
}
