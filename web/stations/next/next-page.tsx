import { useLesson } from '../../frame/lesson-frame.tsx'
import { Threads } from './threads.tsx'

export default function NextPage() {
  const { record, doc } = useLesson()
  return <Threads classId={record.classId} ideaId={doc.ideaId} />
}
