import { spokenLines } from '@awlbox/core/film/follow/spoken'
import { JobList } from '../../frame/jobs.tsx'
import { timeOfDay } from '../../frame/time.ts'
import { Button } from '../../kit/button.tsx'
import { Notice } from '../../kit/notice.tsx'
import { CameraCheck } from './camera-check.tsx'
import { CameraView } from './camera-view.tsx'
import { ClipDrop, ClipList } from './clips.tsx'
import { useFilm } from './film-session.ts'
import { RemoteDialog } from './remote-dialog.tsx'
import { StandInDialog } from './stand-in-dialog.tsx'
import { TakesPane } from './takes-pane.tsx'

/** The desk: the camera with what can be done, what is on its way, and the takes there are. */
export function FilmDesk() {
  const { state, recorder, video, prompter, moments, levels, record, filming, clips } = useFilm()
  return (
    <div className="p-4 grid grid-cols-[minmax(0,1fr)] gap-3 content-start">
      <CameraView
        state={state}
        devices={recorder.devices}
        video={video}
        onOpen={(want) => void recorder.open(want)}
        table={prompter.lines[prompter.at]?.table ?? moments.at(-1)?.after ?? null}
        levels={levels}
        at={recorder.at}
      />
      {record.mayChange && <CameraActs />}
      {filming && !recorder.copied && (
        <Notice kind="wrong">
          This device has no room to keep a copy of what you film. It is being sent as you go: leave the page
          open until it has arrived.
        </Notice>
      )}
      <JustFilmed />
      {record.mayChange && !filming && <ClipDrop disabled={filming} onFiles={(files) => clips.add(files)} />}
      <ClipList clips={clips.clips} onDismiss={clips.dismiss} />
      <Unsent />
      <Work />
      <TakesPane />
      <Dialogs />
    </div>
  )
}

/** What can be done with the camera now. */
function CameraActs() {
  const f = useFilm()
  return (
    <div className="flex flex-wrap items-center gap-2">
      {f.filming ? (
        <>
          <Button look="wrong" onClick={f.recorder.stop}>
            Stop filming
          </Button>
          <Button onClick={f.recorder.pause}>{f.running ? 'Pause' : 'Go on'}</Button>
          <Button onClick={() => f.slip('key')}>Mark a slip</Button>
          <span className="text-sm text-steel">or clap twice</span>
        </>
      ) : (
        f.state.kind === 'open' && (
          <>
            <Button look="main" onClick={f.film}>
              {f.straight ? 'Film straight through' : 'Film this segment'}
            </Button>
            <label className="flex items-center gap-1.5 text-sm">
              <input
                type="checkbox"
                checked={f.straight}
                onChange={(e) => f.setStraight(e.target.checked)}
                className="size-4 accent-ink"
              />
              in one go from here
            </label>
            <Button onClick={() => f.setDialog('check')}>Camera check</Button>
          </>
        )
      )}
      {!f.filming && (
        <Button look="quiet" onClick={() => f.setDialog('remote')}>
          Phone as remote
        </Button>
      )}
      {f.me.camera && !f.filming && (
        <Button look="quiet" onClick={() => f.setDialog('stand-in')}>
          Let the stand-in film it
        </Button>
      )}
      {f.told && (
        <span role="status" className="text-sm font-semibold">
          {f.told}
        </span>
      )}
    </div>
  )
}

function JustFilmed() {
  const { watch, setWatch, filming } = useFilm()
  if (!watch || filming) return null
  return (
    <figure className="grid gap-1">
      <figcaption className="flex justify-between items-center text-sm">
        <b>What was just filmed</b>
        <Button small look="quiet" onClick={() => setWatch(null)}>
          Close
        </Button>
      </figcaption>
      <video src={watch} controls autoPlay className="w-full rounded-xl bg-black max-h-64" />
    </figure>
  )
}

/** Recordings on their way, or kept here because they did not arrive. */
function Unsent() {
  const { kept, filming } = useFilm()
  return (
    <>
      {kept.sending && (
        <p role="status" className="text-sm text-steel">
          Sending the end of the recording…
        </p>
      )}
      {kept.problem && <Notice kind="wrong">{kept.problem}</Notice>}
      {!filming &&
        kept.kept.map((k) => (
          <Notice
            key={k.id}
            kind="info"
            action={
              <span className="flex gap-2">
                <Button small look="act" onClick={() => void kept.sendAgain(k)}>
                  Keep it as a take
                </Button>
                <Button small onClick={() => kept.drop(k)}>
                  Throw it away
                </Button>
              </span>
            }
          >
            A recording of “{k.title}” from {timeOfDay(k.startedAt)} was not wholly sent. It is kept on this
            device.
          </Notice>
        ))}
    </>
  )
}

/** What the server is doing with takes and clips. */
function Work() {
  const { jobs, doc } = useFilm()
  const name = (s: string) => doc.segments.find((x) => x.id === s)?.title ?? 'a clip'
  return (
    <JobList
      jobs={jobs.filter((j) => j.kind === 'film' || j.kind === 'take')}
      name={(j) =>
        j.kind === 'film'
          ? `The stand-in films “${name(j.subject)}”`
          : typeof j.data.segmentId === 'string'
            ? `A take of “${name(j.data.segmentId)}”`
            : 'A clip'
      }
    />
  )
}

function Dialogs() {
  const { dialog, setDialog, record, segment, stream, moments, refresh, doc, me } = useFilm()
  const close = () => setDialog(null)
  switch (dialog) {
    case 'stand-in':
      return <StandInDialog lessonId={record.id} segment={segment} onClose={close} onAsked={refresh} />
    case 'remote':
      return <RemoteDialog lessonId={record.id} onClose={close} />
    case 'check':
      return (
        stream && (
          <CameraCheck
            stream={stream}
            moments={moments}
            firstLine={spokenLines(segment, me.houseStyle)[0]?.text ?? doc.title}
            lessonId={record.id}
            onClose={close}
          />
        )
      )
    case null:
      return null
  }
}
