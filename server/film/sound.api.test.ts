import { noted } from '../platform/log.ts'
import { execFileSync } from 'node:child_process'
import fs from 'node:fs'
import path from 'node:path'
import { describe, expect, test } from 'vitest'
import type { Hearing } from '@awlbox/core/contracts/heard'
import { until } from '../testing.ts'
import { hook, idOf, linesOf, show, takesWorld } from './test-takes.ts'

const { at, dir, L, film, upload, takes, take, prepare } = takesWorld()

/** The same film with its sound changed. */
function withSound(name: string, from: string, filter: string, more: string[] = []): string {
  const out = path.join(dir, `${name}.mp4`)
  execFileSync('ffmpeg', ['-v', 'error', '-y', '-i', from, '-af', filter, '-c:v', 'copy', ...more, out])
  return out
}
/** What was said of the show segment, as captions: a line a cue. */
const captionsOf = (lines: readonly string[]): string =>
  `WEBVTT\n\n${lines.map((l, i) => `00:${String(i * 4).padStart(2, '0')}.000 --> 00:${String(i * 4 + 3).padStart(2, '0')}.000\n${l}\n`).join('\n')}`

describe('sound as it comes', () => {
  const spoken = () => film('sound', linesOf(show), 1.2)
  const hello = () => film('hello', linesOf(hook), 1.2)
  const slipsAfter = async (file: string, segmentId = show.id) => {
    const id = idOf(await upload(file, segmentId))
    await prepare(id)
    const t = (await take(id))!
    return {
      t,
      codes: t.hearing!.findings.filter(
        (f) => f.code.startsWith('count') || f.code === 'line-skipped' || f.code === 'false-sentence',
      ),
    }
  }
  test('in one ear only it is heard in full, and said so', async () => {
    const { t, codes } = await slipsAfter(
      withSound('oneear', hello(), 'aformat=channel_layouts=mono,pan=stereo|c0=0*c0|c1=c0'),
      hook.id,
    )
    expect(t.sound).toMatchObject({ channels: 2, used: 'right' })
    expect(codes).toEqual([])
  })
  test('with its two channels against each other it is not lost', async () => {
    const { t, codes } = await slipsAfter(
      withSound('against', hello(), 'aformat=channel_layouts=mono,pan=stereo|c0=c0|c1=-1*c0'),
      hook.id,
    )
    expect(t.sound!.notes[0]).toMatch(/cancel/)
    expect(codes).toEqual([])
  })
  test('at 96 kHz it is heard, at 8 kHz every finding is uncertain', async () => {
    expect((await slipsAfter(withSound('high', hello(), 'anull', ['-ar', '96000']), hook.id)).codes).toEqual(
      [],
    )
    const { t } = await slipsAfter(withSound('phone', spoken(), 'anull', ['-ar', '8000']))
    expect(t.sound!.notes[0]).toMatch(/telephone/)
    expect(t.hearing!.findings.every((f) => !f.certain)).toBe(true)
  })
  test('with a corrupt tail it plays and is heard as far as it goes', async () => {
    const whole = path.join(dir, 'tail.mkv')
    execFileSync('ffmpeg', ['-v', 'error', '-y', '-i', spoken(), '-c', 'copy', whole])
    const bytes = fs.readFileSync(whole)
    bytes.fill(0x55, Math.floor(bytes.length * 0.8))
    const { t } = await slipsAfter((fs.writeFileSync(whole, bytes), whole))
    expect(t).toMatchObject({ status: 'ready', hasSound: true })
    expect(t.hearing!.words.length).toBeGreaterThan(8)
  })
})

describe('what was heard wrong', () => {
  test('is corrected by typing, holds when it is heard again, and teaches how a name sounds', async () => {
    const id = idOf(
      await upload(
        film(
          'named',
          linesOf(show).map((l) => l.replace('bobbin', 'robin')),
        ),
      ),
    )
    await prepare(id)
    const heard = (await take(id))!.hearing!
    const line = heard.lines[0]!
    const correction = {
      from: line.start!,
      to: line.end!,
      heard: line.words.map((w) => (w.word === 'bobbin' ? 'robin' : w.word)).join(' '),
      said: line.words.map((w) => w.word).join(' '),
    }
    const r = await at.world.teacher.call('POST', `/api/takes/${id}/corrections`, correction)
    expect((r.body.hearing as Hearing).lines[0]!.words.every((w) => w.status === 'said')).toBe(true)
    expect((await at.world.teacher.call('GET', `${L()}/pronunciations`)).body.items).toEqual([
      expect.objectContaining({ segmentId: show.id, word: 'bobbin', heard: 'robin' }),
    ])
    await prepare(id)
    const again = (await take(id))!
    expect(again.corrections).toEqual([correction])
    expect(again.hearing!.lines[0]!.words.every((w) => w.status === 'said')).toBe(true)
    await at.world.teacher.call('POST', `/api/takes/${id}/corrections`, { takeBack: correction.from })
    expect((await take(id))!.corrections).toEqual([])
    expect((await at.world.teacher.call('DELETE', `${L()}/pronunciations/${show.id}/bobbin`)).status).toBe(
      200,
    )
    expect((await at.world.teacher.call('GET', `${L()}/pronunciations`)).body.items).toEqual([])
  })
  test('captions judge a take in place of its sound; what are none change nothing', async () => {
    const id = idOf(await upload(film('captioned', ['nothing of the script is said here'])))
    await prepare(id)
    const said = linesOf(show).map((l) => (l.startsWith('one, two') ? l.replace('four, ', '') : l))
    expect(
      (await at.world.teacher.call('POST', `/api/takes/${id}/captions`, { text: 'a shopping list' })).status,
    ).toBe(422)
    expect((await take(id))!.captioned).toBe(false)
    const r = await at.world.teacher.call('POST', `/api/takes/${id}/captions`, { text: captionsOf(said) })
    expect(
      (r.body.hearing as Hearing).findings
        .filter((f) => f.code.startsWith('count'))
        .map((f) => [f.code, f.expected]),
    ).toEqual([['count-skip', '4']])
    expect((await take(id))!.captioned).toBe(true)
    await at.world.teacher.call('DELETE', `/api/takes/${id}/captions`)
    expect((await take(id))!.captioned).toBe(false)
  })
})

describe('before and while filming', () => {
  test('the microphone test gives back words and a judgement, and keeps nothing', async () => {
    const wav = path.join(dir, 'mic.wav')
    execFileSync('flite', [
      '-voice',
      'rms',
      '-t',
      'Bobbin has seven parcels to sort into two places',
      '-o',
      wav,
    ])
    const before = (await takes()).length
    const r = await at.world.teacher.call('POST', `${L()}/mic-test`, new Uint8Array(fs.readFileSync(wav)), {
      'content-type': 'application/octet-stream',
    })
    expect((r.body.words as { word: string }[]).map((w) => w.word)).toEqual(
      expect.arrayContaining(['bobbin', 'seven', 'parcels']),
    )
    expect(r.body.good).toBe(true)
    expect((await takes()).length).toBe(before)
    expect(
      (
        await at.world.teacher.call('POST', `${L()}/mic-test`, new Uint8Array(5000), {
          'content-type': 'application/octet-stream',
        })
      ).status,
    ).toBe(422)
  })
  test('a remote reaches its own person’s prompter, and nobody else’s', async () => {
    const listening = async (who: typeof at.world.teacher) => {
      const stop = new AbortController()
      const response = await fetch(`${at.app.address}/api/events`, {
        headers: { cookie: who.cookie },
        signal: stop.signal,
      })
      const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader()
      let text = ''
      const done = (async () => {
        for (;;) {
          const { value, done: end } = await reader.read()
          if (end) return
          text += value
        }
      })().catch(noted('the events ended'))
      await until('it is connected', () => Promise.resolve(text.includes('hello')))
      return {
        text: () => text,
        close: () => {
          stop.abort()
          return done
        },
      }
    }
    const [mine, other] = [await listening(at.world.teacher), await listening(at.world.colleague)]
    await at.world.teacher.call('POST', `${L()}/prompter`, { to: 'prompter', act: 'next' })
    await until('it has arrived', () => Promise.resolve(mine.text().includes('"act":"next"')))
    // A change that both are told of comes after it: had the message been for both, it would be there.
    await upload(film('remote', ['a film of its own']))
    await until('both heard of the change', () => Promise.resolve(other.text().includes('"kind":"takes"')))
    expect(other.text()).not.toContain('prompter')
    expect(
      (await at.world.stranger.call('POST', `${L()}/prompter`, { to: 'prompter', act: 'next' })).status,
    ).toBe(404)
    await Promise.all([mine.close(), other.close()])
  })
})
