import * as peopleApi from '@awlbox/core/contracts/api/people'
import { useForm } from 'react-hook-form'
import { useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import { useSWRConfig } from 'swr'
import { ask, wordsOf } from '../../api.ts'
import { Mark } from '../../frame/head.tsx'
import { Button } from '../../kit/button.tsx'
import { Notice } from '../../kit/notice.tsx'

export function SignInPage() {
  const { register, handleSubmit, formState } = useForm<{ email: string; password: string }>()
  const [problem, setProblem] = useState<string | null>(null)
  const [search] = useSearchParams()
  const navigate = useNavigate()
  const { mutate } = useSWRConfig()
  const signIn = handleSubmit(async (values) => {
    setProblem(null)
    try {
      await ask(peopleApi.signIn, {}, values)
      await mutate(() => true, undefined, { revalidate: false })
      const to = search.get('to') ?? '/'
      void navigate(to.startsWith('/') && !to.startsWith('//') ? to : '/')
    } catch (error) {
      setProblem(wordsOf(error))
    }
  })
  const field = 'w-full min-h-11 rounded-lg border border-hair bg-card px-3'
  return (
    <main className="min-h-dvh grid place-items-center p-5">
      <form
        onSubmit={(e) => void signIn(e)}
        className="w-full max-w-sm rounded-xl border border-hair bg-card p-6 grid gap-4"
      >
        <h1 className="flex items-center gap-3 text-lg font-bold">
          <Mark />
          Awlbox
        </h1>
        <p className="text-steel">Lessons made at home, from plan to next.</p>
        <label className="grid gap-1">
          <span className="font-semibold">Email</span>
          <input
            className={field}
            type="email"
            autoComplete="username"
            // eslint-disable-next-line jsx-a11y-x/no-autofocus -- there is nothing else to do on this page
            autoFocus
            required
            {...register('email')}
          />
        </label>
        <label className="grid gap-1">
          <span className="font-semibold">Password</span>
          <input
            className={field}
            type="password"
            autoComplete="current-password"
            required
            {...register('password')}
          />
        </label>
        {problem && <Notice kind="wrong">{problem}</Notice>}
        <Button look="main" type="submit" disabled={formState.isSubmitting} className="min-h-11">
          Sign in
        </Button>
      </form>
    </main>
  )
}
