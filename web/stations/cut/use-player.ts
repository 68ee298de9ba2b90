// The two pictures and the voice are elements driven by hand, from animation frames: nothing of them is drawn by React.
/* eslint-disable react-hooks/immutability */
import type { Frames, Seconds } from '@awlbox/core/contracts/units'
import { noted } from '../../noted.ts'
import { useCallback, useEffect, useMemo, useRef, useState, type RefObject } from 'react'
import { framesPerSecond } from '@awlbox/core/contracts/cut'
import type { ClipRun } from '@awlbox/core/cut/timeline'
import { type Program, type Shot, shotAt } from '@awlbox/core/cut/program'

export interface Player {
  /** Two pictures: one plays while the other waits at the start of the next run. */
  screens: readonly [RefObject<HTMLVideoElement | null>, RefObject<HTMLVideoElement | null>]
  /** Heard in place of the picture's own sound. */
  voice: RefObject<HTMLAudioElement | null>
  /** Which screen is seen; null on a card. */
  seen: 0 | 1
  frame: Frames
  playing: boolean
  play: (from?: number) => void
  stop: () => void
  seek: (frame: Frames) => void
}
interface Now {
  frame: Frames
  playing: boolean
  seen: 0 | 1
  shot: number
  since: number
}
const filmOf = (takeId: string): string => `/api/takes/${takeId}/film`
/** Plays a screen. A play that is broken off by the next act, or by a page nobody has touched yet, is no failure to tell. */
const startPlaying = (v: HTMLMediaElement | null): void => {
  v?.play().catch((error: unknown) => {
    if (!(error instanceof DOMException)) noted('a film would not play')(error)
  })
}

/** Seconds by which a picture may be off before it is moved. */
const near = 0.04

/** What is heard while a shot is seen, where that is not its own picture's sound going along with it. */
const heardInstead = ({ run }: Shot): { takeId: string; from: number } | null =>
  run.kind !== 'clip' ? null : (run.voice ?? (run.still ? { takeId: run.takeId, from: run.from } : null))

/** Whether two shots show the same picture at a frame of the film. */
function sameFrame(a: Shot, b: Shot, frame: Frames): boolean {
  if (a.run.kind !== 'clip' || b.run.kind !== 'clip') return false
  const at = (s: Shot & { run: ClipRun }): number => s.run.from + (s.run.still ? 0 : frame - s.at)
  return a.run.takeId === b.run.takeId && at({ ...a, run: a.run }) === at({ ...b, run: b.run })
}

/** Plays the film as it will be, straight from the takes: no render is needed. Cards and holds run by the clock. */
export function usePlayer(program: Program): Player {
  const screens = useMemo(
    () =>
      [{ current: null }, { current: null }] as [
        RefObject<HTMLVideoElement | null>,
        RefObject<HTMLVideoElement | null>,
      ],
    [],
  )
  const voice = useRef<HTMLAudioElement | null>(null)
  const [state, setState] = useState({ frame: 0, playing: false, seen: 0 as 0 | 1 })
  const now = useRef<Now>({ frame: 0, playing: false, seen: 0, shot: -1, since: 0 })
  const latest = useRef(program)
  useEffect(() => {
    latest.current = program
  }, [program])
  const show = useCallback(() => {
    const { frame, playing, seen } = now.current
    setState((s) =>
      s.frame === frame && s.playing === playing && s.seen === seen ? s : { frame, playing, seen },
    )
  }, [])

  /** Brings a screen to a second of a take, without playing it. */
  const ready = useCallback(
    (screen: 0 | 1, takeId: string, seconds: Seconds) => {
      const v = screens[screen].current
      if (!v) return
      const src = filmOf(takeId)
      if (v.dataset.src !== src) {
        v.dataset.src = src
        v.src = src
      }
      if (Math.abs(v.currentTime - seconds) > near) v.currentTime = seconds
    },
    [screens],
  )
  /** Lets the sound be heard that stands in place of a picture's own. */
  const sound = useCallback((shot: Shot, frame: Frames) => {
    const v = voice.current
    const instead = heardInstead(shot)
    if (!v) return
    if (!instead) {
      v.pause()
      return
    }
    const src = filmOf(instead.takeId)
    if (v.dataset.src !== src) {
      v.dataset.src = src
      v.src = src
    }
    const at = (instead.from + frame - shot.at) / framesPerSecond
    if (Math.abs(v.currentTime - at) > near) v.currentTime = at
    if (now.current.playing) startPlaying(v)
    else v.pause()
  }, [])
  /** Puts the shot at a frame on a screen; the other one gets ready for the next run. */
  const enter = useCallback(
    (frame: Frames) => {
      const p = latest.current
      const i = shotAt(p, frame)
      const shot = p.shots[i]
      const n = now.current
      const follows = i === n.shot + 1
      n.shot = i
      n.frame = frame
      n.since = performance.now() - ((frame - (shot?.at ?? 0)) / framesPerSecond) * 1000
      if (!shot) return
      const other: 0 | 1 = n.seen === 0 ? 1 : 0
      sound(shot, frame)
      if (shot.run.kind === 'clip') {
        const at = (shot.run.from + (shot.run.still ? 0 : frame - shot.at)) / framesPerSecond + 0.001
        if (follows && screens[other].current?.dataset.src === filmOf(shot.run.takeId)) {
          screens[n.seen].current?.pause()
          n.seen = other
        }
        ready(n.seen, shot.run.takeId, at)
        const seen = screens[n.seen].current
        if (seen) seen.muted = heardInstead(shot) !== null
        if (n.playing && !shot.run.still) startPlaying(screens[n.seen].current)
        else screens[n.seen].current?.pause()
      } else {
        screens[n.seen].current?.pause()
        if (shot.still && 'takeId' in shot.still)
          ready(n.seen, shot.still.takeId, shot.still.frame / framesPerSecond + 0.001)
      }
      const next = p.shots.slice(i + 1).find((s) => s.run.kind === 'clip')
      if (next?.run.kind === 'clip')
        ready(n.seen === 0 ? 1 : 0, next.run.takeId, next.run.from / framesPerSecond + 0.001)
    },
    [ready, screens, sound],
  )
  const stop = useCallback(() => {
    now.current.playing = false
    screens.forEach((s) => s.current?.pause())
    voice.current?.pause()
    show()
  }, [screens, show])
  const seek = useCallback(
    (frame: Frames) => {
      now.current.shot = -2
      enter(Math.max(0, Math.min(latest.current.frames - 1, Math.round(frame))))
      show()
    },
    [enter, show],
  )
  const play = useCallback(
    (from?: number) => {
      const p = latest.current
      if (!p.frames) return
      const start = from ?? (now.current.frame >= p.frames - 2 ? 0 : now.current.frame)
      now.current.playing = true
      now.current.shot = -2
      enter(Math.max(0, Math.min(p.frames - 1, Math.round(start))))
      show()
    },
    [enter, show],
  )
  useEffect(() => {
    let handle = 0
    const tick = () => {
      const n = now.current
      const p = latest.current
      if (n.playing) {
        const shot = p.shots[n.shot]
        if (!shot) stop()
        else {
          const v = screens[n.seen].current
          const moves = shot.run.kind === 'clip' && !shot.run.still
          const past =
            shot.run.kind === 'clip' && moves
              ? v
                ? Math.round(v.currentTime * framesPerSecond) - shot.run.from
                : 0
              : Math.floor(((performance.now() - n.since) / 1000) * framesPerSecond)
          const end = shot.at + shot.run.frames
          const over = past >= shot.run.frames || (moves && v?.ended)
          n.frame = over ? end : Math.max(shot.at, shot.at + past)
          if (over && end >= p.frames) {
            n.frame = p.frames - 1
            stop()
          } else if (over) enter(end)
          show()
        }
      }
      handle = requestAnimationFrame(tick)
    }
    handle = requestAnimationFrame(tick)
    return () => cancelAnimationFrame(handle)
  }, [enter, screens, show, stop])
  // A changed cut leaves the picture where it was, or at the new end; where the same picture is still there nothing is sought.
  const before = useRef(program)
  useEffect(() => {
    const [old, n] = [
      before.current.shots[shotAt(before.current, now.current.frame)],
      program.shots[shotAt(program, now.current.frame)],
    ]
    before.current = program
    if (!now.current.playing && old && n && now.current.shot >= 0 && sameFrame(old, n, now.current.frame))
      now.current.shot = program.shots.indexOf(n)
    else if (!now.current.playing) seek(Math.min(now.current.frame, Math.max(0, program.frames - 1)))
    else now.current.shot = shotAt(program, now.current.frame)
  }, [program, seek])
  return { screens, voice, ...state, play, stop, seek }
}
