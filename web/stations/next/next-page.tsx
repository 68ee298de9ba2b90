import { useLesson } from '../../frame/lesson-context.ts'
import { Threads } from './threads.tsx'

export default function NextPage() {
  const { record, doc } = useLesson()
  return <Threads classId={record.classId} ideaId={doc.ideaId} />
}
