import { named, Select } from '../../kit/select.tsx'
import * as filmApi from '@awlbox/core/contracts/api/film'
import { useState } from 'react'
import type { Segment } from '@awlbox/core/contracts/lesson'
import {
  type Habit,
  habits,
  type Slip,
  slips,
  type StandInOrder,
  standInRooms,
  type StandInVoice,
} from '@awlbox/core/contracts/stand-in'
import { ask, wordsOf } from '../../api.ts'
import { Button } from '../../kit/button.tsx'
import { Dialog } from '../../kit/dialog.tsx'
import { Notice } from '../../kit/notice.tsx'

const voices: Record<StandInVoice, string> = {
  slt: 'first voice',
  rms: 'second voice',
  awb: 'third voice',
  kal16: 'fourth voice',
}
const habitWords: Record<Habit, string> = {
  'last number again': 'says the last number again',
  'count twice': 'counts twice to check',
  'repeat an answer': 'repeats an answer',
}
const toggled = <T,>(list: readonly T[], x: T): T[] =>
  list.includes(x) ? list.filter((y) => y !== x) : [...list, x]

/** Asks the stand-in camera for a take of this segment, with any slips. */
export function StandInDialog({
  lessonId,
  segment,
  onClose,
  onAsked,
}: {
  lessonId: string
  segment: Segment
  onClose: () => void
  onAsked: () => void
}) {
  const [order, setOrder] = useState<Omit<StandInOrder, 'seed'>>({
    slips: [],
    habits: [],
    voice: 'slt',
    room: 'studio',
  })
  const [problem, setProblem] = useState<string | null>(null)
  const go = async () => {
    try {
      await ask(
        filmApi.standIn,
        { lessonId },
        {
          segmentId: segment.id,
          ...order,
          seed: Math.floor(Math.random() * 1e9),
        },
      )
      onAsked()
      onClose()
    } catch (error) {
      setProblem(wordsOf(error))
    }
  }
  return (
    <Dialog open wide onClose={onClose} title="Let the stand-in film it">
      <p className="text-steel mb-3">
        It draws the table of “{segment.title}” step by step and speaks the lines: for trying things out with
        no camera. Families should see you.
      </p>
      <fieldset className="mb-3">
        <legend className="font-semibold mb-1">
          Slips it makes, each in a line of its own
          {order.slips.length === 0 && <span className="font-normal text-steel"> (none: as written)</span>}
        </legend>
        <div className="grid sm:grid-cols-3 gap-x-4">
          {slips.map((slip: Slip) => (
            <label key={slip} className="flex items-center gap-2 min-h-9">
              <input
                type="checkbox"
                checked={order.slips.includes(slip)}
                onChange={() => setOrder({ ...order, slips: toggled(order.slips, slip) })}
                className="size-4 accent-ink"
              />
              {slip}
            </label>
          ))}
        </div>
      </fieldset>
      <fieldset className="mb-3">
        <legend className="font-semibold mb-1">Habits that are no slips</legend>
        <div className="grid sm:grid-cols-3 gap-x-4">
          {habits.map((h) => (
            <label key={h} className="flex items-center gap-2 min-h-9">
              <input
                type="checkbox"
                checked={order.habits.includes(h)}
                onChange={() => setOrder({ ...order, habits: toggled(order.habits, h) })}
                className="size-4 accent-ink"
              />
              {habitWords[h]}
            </label>
          ))}
        </div>
      </fieldset>
      <div className="flex flex-wrap gap-4 mb-4">
        <label className="flex items-center gap-2">
          Voice{' '}
          <Select
            value={order.voice}
            choices={Object.entries(voices).map(([v, words]) => ({ value: v as StandInVoice, words }))}
            onChange={(voice) => setOrder({ ...order, voice })}
          />
        </label>
        <label className="flex items-center gap-2">
          Room{' '}
          <Select
            value={order.room}
            choices={named(standInRooms)}
            onChange={(room) => setOrder({ ...order, room })}
          />
        </label>
      </div>
      {problem && (
        <div className="mb-3">
          <Notice kind="wrong">{problem}</Notice>
        </div>
      )}
      <Button look="main" onClick={() => void go()}>
        Film it
      </Button>
    </Dialog>
  )
}
