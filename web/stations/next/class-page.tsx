import * as shelfApi from '@awlbox/core/contracts/api/shelf'
import { useAsked } from '../../frame/use-asked.ts'
import { useEffect } from 'react'
import { useParams } from 'react-router'
import { useEvents } from '../../frame/events.ts'
import { Head } from '../../frame/head.tsx'
import { useMe } from '../../frame/me.ts'
import { ClassNav, SignOut } from '../../frame/class-nav.tsx'
import { Threads } from './threads.tsx'

export default function ClassPage() {
  const { classId } = useParams()
  const me = useMe()
  const { data } = useAsked(shelfApi.shelf, {})
  useEvents()
  const name = data?.classes.find((c) => c.id === classId)?.name
  useEffect(() => {
    document.title = `${name ?? 'Class'} · Awlbox`
  }, [name])
  return (
    <>
      <Head where={me?.setting}>
        <SignOut />
      </Head>
      <ClassNav classes={data?.classes ?? []} />
      <Threads classId={classId!} />
    </>
  )
}
