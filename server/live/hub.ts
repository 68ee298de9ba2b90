import type { Response } from 'express'
import type { AskedBefore } from '@awlbox/core/live/tally'
import { seenBy } from '@awlbox/core/live/view'
import { log, noted } from '../platform/log.ts'
import type { Services } from '../platform/services.ts'
import { streamHead } from '../platform/stream.ts'
import type { LiveChild } from '@awlbox/core/contracts/api/live'
import { childrenSeen, deskOf } from './desk.ts'
import { earlierFor, runFor } from './now.ts'
import {
  cameIn,
  childrenOfHome,
  closedLinks,
  liveById,
  liveNow,
  type LiveRow,
  stillIn,
  tellOf,
  wentOut,
} from './store.ts'

/** Milliseconds in which a desk's news is gathered: a class that sends at once is told of in a few goes. */
const gather = 120
/** A desk is told at most this share of the time, however much comes. */
const atMost = 0.25
/** Milliseconds for which it is known who lives where and who is here; whoever comes or goes is told of at once. */
const knownFor = 5_000
/** Milliseconds after which it is looked whether something was missed while the database was not listened to. */
const lookAgain = 2_000
/** Milliseconds between signs of life; pages think a connection lost after three of them. */
const beat = 15_000
/** Bytes that may wait for a slow connection before it is let go: it comes back and is told how things stand. */
const mostWaiting = 256 * 1024

interface Page {
  res: Response
  householdId: string
  device: string
}
/** Everybody in this process who follows one live lesson. */
interface Room {
  row: LiveRow
  homes: Set<Page>
  desks: Set<Response>
  earlier: Promise<readonly AskedBefore[]>
  children: { at: number; list: Promise<LiveChild[]> } | null
  /** Children of each household, as asked of it before. */
  kids: Map<string, { at: number; list: ReturnType<typeof childrenOfHome> }>
  /** Milliseconds the last telling took, and when it ended. */
  took: number
  told: number
  /** Whether other processes are to be told of answers that came here. */
  others: ReturnType<typeof setTimeout> | null
  stop: () => void
  due: ReturnType<typeof setTimeout> | null
  telling: boolean
  again: boolean
  loading: Promise<void> | null
  stale: boolean
}
export interface Hub {
  /** Children of a home in the class of a live lesson. */
  kidsOf: (row: LiveRow, householdId: string) => ReturnType<typeof childrenOfHome>
  /** An answer was kept: desks here are told soon, and those of other processes. */
  answered: (row: LiveRow) => void
  /** A live lesson as this process knows it; from the database where nobody here follows it, or `fresh`. */
  rowOf: (liveId: string, fresh?: boolean) => Promise<LiveRow | undefined>
  followHome: (row: LiveRow, page: Page) => Promise<void>
  followDesk: (row: LiveRow, res: Response) => void
}

function send(res: Response, text: string): void {
  if (res.writableLength > mostWaiting) res.destroy()
  else res.write(text)
}

/** Tells all who follow a live lesson, from whichever process it was moved on. */
export function liveHub(s: Services): Hub {
  const rooms = new Map<string, Room>()

  const homeNews = (room: Room): string => {
    const { row } = room
    return `data: ${JSON.stringify(seenBy(runFor(row, row.state), row.state, row.style, Date.now()))}\n\n`
  }
  const tellDesks = async (room: Room): Promise<void> => {
    if (!room.desks.size) return
    if (room.telling) {
      room.again = true
      return
    }
    room.telling = true
    try {
      const began = performance.now()
      if (!room.children || Date.now() - room.children.at > knownFor)
        room.children = { at: Date.now(), list: childrenSeen(s.db, room.row) }
      const news = await deskOf(s.db, room.row, {
        children: await room.children.list,
        earlier: await room.earlier,
        now: Date.now(),
      })
      const text = `data: ${JSON.stringify(news)}\n\n`
      for (const res of room.desks) send(res, text)
      room.took = performance.now() - began
      room.told = performance.now()
    } catch (error) {
      room.children = null
      log.debug({ error: String(error) }, 'desks could not be told')
    } finally {
      room.telling = false
      if (room.again) {
        room.again = false
        soon(room)
      }
    }
  }
  const soon = (room: Room): void => {
    const rest = room.took / atMost - (performance.now() - room.told)
    room.due ??= setTimeout(
      () => {
        room.due = null
        void tellDesks(room)
      },
      Math.max(gather, rest),
    )
  }
  /** Reads the lesson anew and tells everybody where it has moved on. */
  const renew = (room: Room, liveId: string): Promise<void> => {
    if (room.loading) {
      room.stale = true
      return room.loading
    }
    const load = async (): Promise<void> => {
      const now = await liveNow(s.db, liveId)
      // The script itself is read again only where another one was taken.
      const row =
        now && (now.revision === room.row.revision ? { ...room.row, ...now } : await liveById(s.db, liveId))
      if (!row) {
        for (const p of room.homes) p.res.end()
        for (const d of room.desks) d.end()
        return
      }
      const moved =
        row.state.seq !== room.row.state.seq ||
        +row.startsAt !== +room.row.startsAt ||
        row.revision !== room.row.revision
      room.row = row
      if (!moved) return
      const text = homeNews(room)
      for (const p of room.homes) send(p.res, text)
      void tellDesks(room)
      // At "all at once" desks are told what was shut until then.
      const shows = row.state.rounds.at(-1)?.shows
      if (shows && shows > Date.now()) setTimeout(() => void tellDesks(room), shows - Date.now() + 20).unref()
    }
    room.loading = load()
      .catch(noted('a live lesson could not be read'))
      .finally(() => {
        room.loading = null
        if (room.stale) {
          room.stale = false
          void renew(room, liveId)
        }
      })
    return room.loading
  }
  const open = (row: LiveRow): Room => {
    const known = rooms.get(row.id)
    if (known) return known
    const off = s.events.subscribe(row.settingId, (t) => {
      if (t.live !== row.id) return
      if (t.kind === 'live') void renew(room, row.id)
      else {
        if (t.kind === 'live came') room.children = null
        soon(room)
      }
    })
    const looking = setInterval(() => {
      void renew(room, row.id)
      // What another process could not tell of.
      soon(room)
    }, lookAgain)
    const beating = setInterval(() => {
      for (const p of room.homes) send(p.res, 'event: beat\ndata: {}\n\n')
      for (const d of room.desks) send(d, 'event: beat\ndata: {}\n\n')
      soon(room)
      const pages = [...room.homes]
      stillIn(s.db, row.id, pages).catch(noted('pages could not be noted'))
      closedLinks(s.db, [...new Set(pages.map((p) => p.householdId))])
        .then((closed) => {
          for (const p of pages) if (closed.has(p.householdId)) p.res.end()
        })
        .catch(noted('links could not be looked at'))
    }, beat)
    const room: Room = {
      row,
      homes: new Set(),
      desks: new Set(),
      earlier: earlierFor(s.db, row).catch((): AskedBefore[] => []),
      children: null,
      kids: new Map(),
      took: 0,
      told: 0,
      others: null,
      stop() {
        off()
        clearInterval(looking)
        clearInterval(beating)
        if (room.due) clearTimeout(room.due)
        if (room.others) clearTimeout(room.others)
      },
      due: null,
      telling: false,
      again: false,
      loading: null,
      stale: false,
    }
    rooms.set(row.id, room)
    return room
  }
  const left = (room: Room): void => {
    if (room.homes.size || room.desks.size) return
    room.stop()
    rooms.delete(room.row.id)
  }
  return {
    kidsOf(row, householdId) {
      const room = rooms.get(row.id)
      const known = room?.kids.get(householdId)
      if (known && Date.now() - known.at < knownFor) return known.list
      const list = childrenOfHome(s.db, householdId, row.classId)
      room?.kids.set(householdId, { at: Date.now(), list })
      return list
    },
    answered(row) {
      const room = rooms.get(row.id)
      if (room) soon(room)
      const others = (): void =>
        void tellOf(s.db, 'live answers', row).catch(noted('answers could not be told of'))
      if (!room) others()
      else
        room.others ??= setTimeout(() => {
          room.others = null
          others()
        }, gather)
    },
    rowOf: async (liveId, fresh = false) => (!fresh && rooms.get(liveId)?.row) || liveById(s.db, liveId),
    async followHome(row, page) {
      const at = { liveId: row.id, householdId: page.householdId, device: page.device }
      page.res.writeHead(200, streamHead)
      const room = open(row)
      // What happened between the question and this answer is not missed.
      if (room.row.state.seq < row.state.seq) room.row = row
      room.homes.add(page)
      page.res.write(`retry: 1000\n${homeNews(room)}`)
      page.res.on('close', () => {
        room.homes.delete(page)
        left(room)
        wentOut(s.db, at)
          .then(() => tellOf(s.db, 'live came', row))
          .catch(noted('a page that closed could not be noted'))
      })
      await cameIn(s.db, at)
      await tellOf(s.db, 'live came', row)
    },
    followDesk(row, res) {
      res.writeHead(200, streamHead)
      const room = open(row)
      if (room.row.state.seq < row.state.seq) room.row = row
      room.desks.add(res)
      res.write('retry: 1000\n\n')
      soon(room)
      res.on('close', () => {
        room.desks.delete(res)
        left(room)
      })
    },
  }
}
