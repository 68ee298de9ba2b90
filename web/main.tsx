import { lazy, StrictMode, Suspense } from 'react'
import { createRoot } from 'react-dom/client'
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router'
import { SWRConfig } from 'swr'
import { isAway, ProblemError } from './api.ts'
import { BrokenPage } from './frame/broken-page.tsx'
import { ShelfPage } from './stations/shelf/shelf-page.tsx'
import './styles.css'

const LessonFrame = lazy(() => import('./frame/lesson-frame.tsx').then((m) => ({ default: m.LessonFrame })))
const SignInPage = lazy(() =>
  import('./stations/sign-in/sign-in-page.tsx').then((m) => ({ default: m.SignInPage })),
)
const PlanPage = lazy(() => import('./stations/plan/plan-page.tsx'))
const NewLessonPage = lazy(() => import('./stations/plan/new-lesson-page.tsx'))
const ScriptPage = lazy(() => import('./stations/script/script-page.tsx'))
const FilmPage = lazy(() => import('./stations/film/film-page.tsx'))
const RemotePage = lazy(() => import('./stations/film/remote-page.tsx'))
const CutPage = lazy(() => import('./stations/cut/cut-page.tsx'))
const SendPage = lazy(() => import('./stations/send/send-page.tsx'))
const LookPage = lazy(() => import('./stations/look/look-page.tsx'))
const SecondPage = lazy(() => import('./stations/look/second-page.tsx'))
const PairsPage = lazy(() => import('./stations/look/pairs-page.tsx'))
const PracticePage = lazy(() => import('./stations/look/practice-page.tsx'))
const ChildProgressPage = lazy(() => import('./stations/next/child-progress-page.tsx'))
const LivePage = lazy(() => import('./stations/live/live-page.tsx'))
const DeskPage = lazy(() => import('./stations/live/desk-page.tsx'))
const WindowPage = lazy(() => import('./stations/live/window-page.tsx'))
const NextPage = lazy(() => import('./stations/next/next-page.tsx'))
const LadderPage = lazy(() => import('./stations/ladder/ladder-page.tsx'))
const HouseStylePage = lazy(() => import('./stations/house-style/house-style-page.tsx'))
const SetUpPage = lazy(() => import('./stations/set-up/set-up-page.tsx'))
const KeepingPage = lazy(() => import('./stations/keep/keeping-page.tsx'))
const HomesPage = lazy(() => import('./stations/setting/homes-page.tsx'))
const ClassesPage = lazy(() => import('./stations/setting/classes-page.tsx'))
const PeoplePage = lazy(() => import('./stations/setting/people-page.tsx'))
const WordsPage = lazy(() => import('./stations/setting/words-page.tsx'))
const RecordPage = lazy(() => import('./stations/setting/record-page.tsx'))
const AccountPage = lazy(() => import('./stations/setting/account-page.tsx'))
const ChildPage = lazy(() => import('./stations/setting/child-page.tsx'))
const JoinPage = lazy(() => import('./stations/set-up/join-page.tsx'))
const WeekPage = lazy(() => import('./stations/week/week-page.tsx'))
const ClassPage = lazy(() => import('./stations/next/class-page.tsx'))

const router = createBrowserRouter([
  {
    errorElement: <BrokenPage />,
    children: [
      { path: '/sign-in', element: <SignInPage /> },
      { path: '/set-up/:token', element: <SetUpPage /> },
      { path: '/join/:link', element: <JoinPage /> },
      { path: '/', element: <ShelfPage /> },
      { path: '/homes', element: <HomesPage /> },
      { path: '/classes', element: <ClassesPage /> },
      { path: '/people', element: <PeoplePage /> },
      { path: '/words', element: <WordsPage /> },
      { path: '/record', element: <RecordPage /> },
      { path: '/account', element: <AccountPage /> },
      { path: '/children/:childId', element: <ChildPage /> },
      { path: '/children/:childId/progress', element: <ChildProgressPage /> },
      { path: '/practice', element: <PracticePage /> },
      { path: '/plan', element: <NewLessonPage /> },
      { path: '/classes/:classId', element: <ClassPage /> },
      { path: '/ladder', element: <LadderPage /> },
      { path: '/house-style', element: <HouseStylePage /> },
      { path: '/keeping', element: <KeepingPage /> },
      { path: '/week', element: <WeekPage /> },
      { path: '/live/:liveId', element: <DeskPage /> },
      { path: '/live/:liveId/window', element: <WindowPage /> },
      { path: '/lessons/:lessonId/remote', element: <RemotePage /> },
      {
        path: '/lessons/:lessonId',
        element: <LessonFrame />,
        children: [
          { index: true, element: <Navigate to="script" replace /> },
          { path: 'plan', element: <PlanPage /> },
          { path: 'script', element: <ScriptPage /> },
          { path: 'film', element: <FilmPage /> },
          { path: 'cut', element: <CutPage /> },
          { path: 'live', element: <LivePage /> },
          { path: 'send', element: <SendPage /> },
          { path: 'look', element: <LookPage /> },
          { path: 'look/second', element: <SecondPage /> },
          { path: 'look/pairs', element: <PairsPage /> },
          { path: 'next', element: <NextPage /> },
        ],
      },
      { path: '*', element: <Navigate to="/" replace /> },
    ],
  },
])

const onError = (error: unknown) => {
  if (
    error instanceof ProblemError &&
    error.status === 401 &&
    !window.location.pathname.startsWith('/sign-in')
  )
    void router.navigate(
      `/sign-in?to=${encodeURIComponent(window.location.pathname + window.location.search)}`,
    )
}
createRoot(document.getElementById('app')!).render(
  <StrictMode>
    <SWRConfig
      value={{
        onError,
        revalidateOnFocus: true,
        keepPreviousData: true,
        shouldRetryOnError: isAway,
        errorRetryInterval: 2000,
      }}
    >
      <Suspense fallback={<p className="p-8 text-steel">Opening…</p>}>
        <RouterProvider router={router} />
      </Suspense>
    </SWRConfig>
  </StrictMode>,
)
