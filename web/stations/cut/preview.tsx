import type { Card } from '@awlbox/core/contracts/cut'
import { framesPerSecond } from '@awlbox/core/contracts/cut'
import { cardShapes, ringPlace, ringShapes } from '@awlbox/core/cut/card'
import { toSvg } from '@awlbox/core/script/table/drawing/table'
import { clockTime } from '@awlbox/core/words'
import { Button } from '../../kit/button.tsx'
import { type Program, shotAt } from '@awlbox/core/cut/program'
import type { Player } from './use-player.ts'

interface Props {
  program: Program
  player: Player
  /** What is said now, or null. */
  caption: string | null
  onWord(step: -1 | 1): void
}
/** The whole film as it will be, played from the takes: cards, rings and captions over them. */
export function Preview({ program, player, caption, onWord }: Props) {
  const { screens, seen, frame, playing } = player
  const shot = program.shots[shotAt(program, frame)]
  const card = shot?.run.kind === 'card' ? shot.run.card : shot?.still && 'look' in shot.still ? shot.still : null
  const inShot = shot ? (frame - shot.at) / Math.max(1, shot.run.frames) : 0
  return (
    <div className="grid gap-2">
      <div className="relative rounded-xl overflow-hidden bg-black aspect-video" role="img" aria-label={caption ? `The film: “${caption}”` : 'The film'}>
        {screens.map((ref, i) => <video key={i} ref={ref} preload="auto" playsInline aria-hidden className="absolute inset-0 w-full h-full" style={{ opacity: i === seen ? 1 : 0 }} />)}
        {card && <Drawn svg={cardPicture(card)} className="absolute inset-0" />}
        {(shot?.run.kind === 'hold' || (shot?.run.kind === 'card' && shot.run.card.look === 'stop')) && <Ring share={inShot} place={shot.run.kind === 'hold' ? ringPlace.hold : ringPlace.stop} />}
        {caption && <span className="absolute left-1/2 -translate-x-1/2 bottom-[4%] w-max max-w-[86%] rounded-lg bg-black/80 text-white font-child text-lg leading-snug px-3 py-1.5 text-center whitespace-pre-line">{caption}</span>}
      </div>
      <div className="flex gap-2 items-center flex-wrap"><Button onClick={() => (playing ? player.stop() : player.play())}>{playing ? 'Stop' : 'Play'}</Button><Button onClick={() => onWord(-1)}>Back a word</Button><Button onClick={() => onWord(1)}>On a word</Button><Button onClick={() => player.play(0)}>From the start</Button>
        <span className="flex-1" /><span className="text-steel text-sm figures">{clockTime(frame / framesPerSecond)} of {clockTime(program.frames / framesPerSecond)}</span></div>
    </div>
  )
}
const cardPicture = (card: Card): string => toSvg(cardShapes(card), 1280, 720)
/** A drawing of the house as a picture: the same drawing code as the rendered film’s. */
function Drawn({ svg, className, style }: { svg: string; className: string; style?: React.CSSProperties }) {
  return <img alt="" className={className} style={style} src={`data:image/svg+xml,${encodeURIComponent(svg)}`} />
}
function Ring({ share, place }: { share: number; place: { x: number; y: number } }) {
  return <Drawn svg={toSvg(ringShapes(Math.round(share * 60) / 60), 160, 160)} className="absolute" style={{ left: `${place.x / 12.8}%`, top: `${place.y / 7.2}%`, width: `${160 / 12.8}%` }} />
}
