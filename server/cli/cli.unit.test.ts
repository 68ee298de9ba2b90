import { execFileSync, spawnSync } from 'node:child_process'
import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { inflateSync } from 'node:zlib'
import sharp from 'sharp'
import { afterAll, describe, expect, test } from 'vitest'
import { runCommand, type Said } from './run.ts'

const root = path.resolve(import.meta.dirname, '../..')
const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'awlbox-cli-'))
afterAll(() => fs.rmSync(folder, { recursive: true, force: true }))
const write = (name: string, text: string | Buffer) => {
  fs.writeFileSync(path.join(folder, name), text)
  return path.join(folder, name)
}
const awlbox = (...args: string[]): Promise<Said> => runCommand(args)
/** Runs a command as the launcher does, with no database to be reached. */
function inShell(args: string[], env: Record<string, string> = {}): Said {
  const r = spawnSync(process.execPath, ['--import', 'tsx', 'server/cli/main.ts', ...args], {
    cwd: root,
    encoding: 'utf8',
    env: { ...process.env, DATABASE_URL: 'postgres://127.0.0.1:1/none', ...env },
  })
  return { code: r.status as Said['code'], out: r.stdout, err: r.stderr }
}
const clean =
  '# Post\nAge: 4\nNeeds: 5 two-faced counters, 1 ten frame\n\n## Together {together}\nSay: Bobbin has five parcels for the long street.\nDo: Put 5 on the frame\nCount: 1 to 5, touching each\n\n## Close {close}\nSay: Thank you for sorting everything with me.\n'

describe('proof', () => {
  test('clean: exit 0 and says so', async () =>
    expect(await awlbox('proof', write('a.md', clean))).toMatchObject({
      code: 0,
      out: expect.stringContaining('Nothing found wrong') as string,
    }))
  test('with findings: exit 1, as JSON with line and code', async () => {
    const r = await awlbox('proof', write('b.md', clean.replace('1 to 5', '1 to 6')), '--json')
    const json = JSON.parse(r.out) as {
      version: number
      findings: { code: string; line: number }[]
      time: { film: number }
    }
    expect([r.code, json.version, json.findings.map((f) => [f.code, f.line])]).toEqual([
      1,
      1,
      [['count-end', 3]],
    ])
    expect(json.time.film).toBeGreaterThan(5)
  })
  test.each([
    ['missing.md', null],
    ['empty.md', ''],
    ['bad.lesson.json', '{"format": "other"}'],
    ['broken.json', '{oops'],
    ['no-segment.md', '# Only a title'],
  ])('%s: exit 2 and one line without a stack', async (name, text) => {
    const r = await awlbox('proof', text === null ? path.join(folder, name) : write(name, text))
    expect([r.code, r.out]).toEqual([2, ''])
    expect(r.err.trim().split('\n')).toHaveLength(1)
  })
})

describe('table', () => {
  interface Row {
    line: number
    step: number
    read: { how: string; why?: string }
    places: {
      name: string
      covered: boolean
      things: { colour: string; count: number; crossed: boolean }[]
    }[]
    written: string[]
  }
  const rows = async (name: string, text: string): Promise<{ code: number; lines: Row[] }> => {
    const r = await awlbox('table', write(name, text), '--json')
    return { code: r.code, lines: (JSON.parse(r.out) as { lines: Row[] }).lines }
  }
  const played = `# T

## One {show}

Do: Lay out two plates
Do: Put 4 on the first plate
Do: Put 2 blue on the second plate
Do: Cross out 1
Write: 4 + 2 = 6
`
  test('gives after each line every place with its things, and where the line stands in the file', async () => {
    const { code, lines } = await rows('t.md', played)
    expect([code, lines.map((l) => [l.line, l.step, l.read.how])]).toEqual([
      0,
      [
        [5, 1, 'read'],
        [6, 2, 'read'],
        [7, 3, 'read'],
        [8, 4, 'read'],
        [9, 5, 'said'],
      ],
    ])
    const last = lines.at(-1)!
    const on = last.places.flatMap((p) => p.things.map((t) => [p.name, t.count, t.colour, t.crossed]))
    expect(on.map(([, n]) => n).reduce((a, b) => Number(a) + Number(b), 0)).toBe(6)
    expect(on.filter((x) => x[3]).map((x) => x[1])).toEqual([1])
    expect(last.written).toEqual(['4 + 2 = 6'])
  })
  test('what is not read or cannot be done is said at its line: exit 1', async () => {
    const { code, lines } = await rows(
      'u.md',
      played.replace('Cross out 1', 'Take 9 away').replace('two plates', 'two plates\nDo: Wiggle it about'),
    )
    expect(code).toBe(1)
    expect(lines.map((l) => l.read.how)).toEqual(['read', 'not read', 'read', 'read', 'refused', 'said'])
    expect(lines[4]!.read.why).toMatch(/cannot be taken/)
  })
})

test('in the shell files are named from where one stands, and what was found is the exit code', () => {
  write('here.md', clean)
  expect(inShell(['proof', 'here.md'], { AWLBOX_FROM: folder })).toMatchObject({ code: 0, err: '' })
  write('here.md', clean.replace('1 to 5', '1 to 6'))
  expect(inShell(['proof', 'here.md'], { AWLBOX_FROM: folder })).toMatchObject({
    code: 1,
    out: expect.stringContaining('count-end') as string,
    err: '',
  })
  expect(inShell(['proof', 'gone.md'], { AWLBOX_FROM: folder })).toMatchObject({ code: 2, out: '' })
})

describe('listen', () => {
  const spoken = (name: string, text: string) => {
    const file = path.join(folder, name)
    execFileSync('flite', ['-voice', 'awb', '--setf', 'duration_stretch=1.2', '-t', text, '-o', file])
    return file
  }
  test('a take of one segment of a lesson is heard against that one', async () => {
    const lesson = write('l.md', clean)
    const whole = await awlbox(
      'listen',
      lesson,
      spoken('one.wav', 'Bobbin has five parcels for the long street. one, two, three, four, five.'),
      '--json',
    )
    expect([whole.code, (JSON.parse(whole.out) as { findings: unknown[] }).findings]).toEqual([0, []])
    const short = await awlbox(
      'listen',
      lesson,
      spoken('two.wav', 'Bobbin has five parcels for the long street. one, two, four, five.'),
      '--json',
    )
    expect([
      short.code,
      (JSON.parse(short.out) as { findings: { code: string; expected: string }[] }).findings.map((f) => [
        f.code,
        f.expected,
      ]),
    ]).toEqual([1, [['count-skip', '3']]])
  })
  test('with no script, from captions and from sound', async () => {
    const vtt = write('c.vtt', 'WEBVTT\n\n00:01.000 --> 00:05.000\none, two, three, five, six\n')
    expect(await awlbox('listen', '--free', vtt)).toMatchObject({
      code: 1,
      out: expect.stringContaining('count-skip') as string,
    })
    expect(
      await awlbox('listen', '--free', spoken('three.wav', 'one, two, three, four, six, seven, eight.')),
    ).toMatchObject({ code: 1, out: expect.stringContaining('5 is left out') as string })
  })
  test('a text file named .mp4: exit 2', async () =>
    expect(await awlbox('listen', '--free', write('list.mp4', 'a shopping list\n'.repeat(9)))).toMatchObject({
      code: 2,
      err: expect.stringContaining('no picture or sound') as string,
    }))
})

describe('count', () => {
  const discs = (n: number) =>
    sharp(
      Buffer.from(
        `<svg xmlns="http://www.w3.org/2000/svg" width="800" height="500"><rect width="800" height="500" fill="#c9b28c"/>${Array.from({ length: n }, (_, i) => `<circle cx="${120 + i * 130}" cy="250" r="38" fill="#1f5f99"/>`).join('')}</svg>`,
      ),
    )
      .jpeg()
      .toBuffer()
  test('counts, and gives a list for several', async () => {
    const [a, b] = [write('4.jpg', await discs(4)), write('5.jpg', await discs(5))]
    expect(JSON.parse((await awlbox('count', a, '--json')).out)).toMatchObject({
      count: 4,
      low: 4,
      high: 4,
      groups: [{ colour: 'blue', count: 4 }],
    })
    expect(
      (JSON.parse((await awlbox('count', a, b, '--json')).out) as { count: number }[]).map((r) => r.count),
    ).toEqual([4, 5])
  })
  test('what is no photo: exit 2', async () =>
    expect(await awlbox('count', write('x.jpg', 'no photo'))).toMatchObject({
      code: 2,
      err: expect.stringContaining('not a photo') as string,
    }))
})
test('an unknown command names the known ones', async () =>
  expect(await awlbox('fly')).toMatchObject({ code: 2, err: expect.stringContaining('proof') as string }))

describe('ways', () => {
  test('a whole list in order: exit 0', async () => {
    const r = await awlbox('ways', '5', '5+0, 4+1, 3+2, 2+3, 1+4, 0+5', '--json')
    expect(r.code).toBe(0)
    expect(JSON.parse(r.out)).toMatchObject({
      version: 1,
      possible: 6,
      found: 6,
      complete: true,
      missing: [],
      order: 'in order',
    })
  })
  test('gaps, untruths and turn-rounds are told: exit 1', async () => {
    const r = await awlbox('ways', '10', '1+9, 2+8, 8+2, 3+3', '--one-way', '--json')
    expect(r.code).toBe(1)
    expect(JSON.parse(r.out)).toMatchObject({
      valid: ['1+9', '2+8'],
      turnRounds: ['8+2'],
      false: ['3+3'],
      possible: 6,
    })
  })
  test.each([[['ten-ish', '1+9']], [['10']], [['200', '1+9']], [['10', '1+9', '--sideways']]])(
    '%j: exit 2 with words',
    async (args) => {
      const r = await awlbox('ways', ...args)
      expect([r.code, r.out]).toEqual([2, ''])
      expect(r.err.trim().split('\n')).toHaveLength(1)
    },
  )
})

describe('convert', () => {
  const out = (name: string) => path.join(folder, name)
  test('Markdown to a lesson file and back is the same lesson', async () => {
    expect((await awlbox('convert', write('c.md', clean), out('c.lesson.json'))).code).toBe(0)
    expect((await awlbox('convert', out('c.lesson.json'), out('c2.md'))).code).toBe(0)
    expect((await awlbox('convert', out('c2.md'), out('c3.md'))).code).toBe(0)
    expect(fs.readFileSync(out('c3.md'), 'utf8')).toBe(fs.readFileSync(out('c2.md'), 'utf8'))
  })
  test('notes become a lesson, and what could not be placed is said: exit 1', async () => {
    const r = await awlbox(
      'convert',
      write(
        'notes.txt',
        'Parcels\n\nWatch me:\nPut 4 on the frame\nHow many parcels are there?\n| a | b |\n',
      ),
      out('notes.md'),
    )
    expect([r.code, fs.readFileSync(out('notes.md'), 'utf8')]).toEqual([
      1,
      expect.stringContaining('Do: Put 4 on the frame\nAsk: How many parcels are there?\nWait: 5 s'),
    ])
    expect(r.out).toMatch(/line 6: not placed/)
  })
  test('to print: a plan on one page and cue cards are PDF', async () => {
    for (const name of ['c.pdf', 'c.cue-cards.pdf']) {
      expect((await awlbox('convert', write('p.md', clean), out(name))).code).toBe(0)
      const bytes = fs.readFileSync(out(name))
      expect(bytes.subarray(0, 5).toString()).toBe('%PDF-')
      expect(bytes.toString('latin1').match(/\/Type \/Page\b/g)).toHaveLength(1)
    }
  })
  test('a screenplay has a scene for each segment', async () => {
    await awlbox('convert', write('f.md', clean), out('f.fountain'))
    expect(fs.readFileSync(out('f.fountain'), 'utf8')).toMatch(
      /\.TOGETHER \(together\)[\s\S]*\.CLOSE \(close\)/,
    )
  })
  test('captions go both ways', async () => {
    expect(
      (
        await awlbox(
          'convert',
          write('s.srt', '1\n00:00:01,000 --> 00:00:02,500\nFour and three\n'),
          out('s.vtt'),
        )
      ).code,
    ).toBe(0)
    expect(fs.readFileSync(out('s.vtt'), 'utf8')).toMatch(
      /^WEBVTT[\s\S]*00:01\.000 --> 00:02\.500|^WEBVTT[\s\S]*00:00:01\.000 --> 00:00:02\.500/,
    )
  })
  test('never writes over a file: exit 2', async () => {
    const there = write('there.md', 'keep me')
    expect(await awlbox('convert', write('q.md', clean), there)).toMatchObject({
      code: 2,
      err: expect.stringContaining('is there already') as string,
    })
    expect(fs.readFileSync(there, 'utf8')).toBe('keep me')
  })
  test('a cut list becomes OpenTimelineIO and CMX 3600 and comes back', async () => {
    const id = 'aaaaaaaa-0000-4000-8000-000000000001'
    const list = {
      format: 'awlbox-cut',
      version: 3,
      repairs: [],
      captions: { burnt: false, edits: [] },
      segments: [
        {
          segmentId: 's1',
          takeId: id,
          byHand: true,
          overlays: [],
          items: [{ kind: 'clip', id: 'a', takeId: id, from: 30, to: 90, why: null }],
        },
      ],
    }
    expect((await awlbox('convert', write('x.cut.json', JSON.stringify(list)), out('x.otio'))).code).toBe(0)
    expect((await awlbox('convert', out('x.otio'), out('y.cut.json'))).code).toBe(0)
    expect(JSON.parse(fs.readFileSync(out('y.cut.json'), 'utf8'))).toEqual(list)
    expect((await awlbox('convert', out('x.otio'), out('x.edl'))).code).toBe(0)
    expect(fs.readFileSync(out('x.edl'), 'utf8')).toMatch(/00:00:01:00 00:00:03:00 00:00:00:00 00:00:02:00/)
    expect((await awlbox('convert', out('x.edl'), out('x.mlt'))).code).toBe(0)
    expect(await awlbox('convert', write('bad.cut.json', '{}'), out('z.otio'))).toMatchObject({
      code: 2,
      err: expect.stringContaining('no cut list') as string,
    })
  })
  test.each([
    ['x.cut.json', 'b.md'],
    ['a.md', 'b.xyz'],
    ['a.md', 'b.vtt'],
    ['gone.md', 'b.md'],
  ])('%s to %s: exit 2', async (a, b) => expect((await awlbox('convert', out(a), out(b))).code).toBe(2))
})

describe('print', () => {
  test('a sheet in true size: the page is the paper’s, readers may not shrink it, and what is 100 mm long is', async () => {
    const file = path.join(folder, 'frame.pdf')
    const r = await awlbox('print', 'ten-frame', '--out', file, '--paper', 'Letter', '--json')
    expect(r.code).toBe(0)
    expect(JSON.parse(r.out)).toMatchObject({ kind: 'ten-frame', paper: 'Letter', sheets: 1, upTo: 10 })
    const pdf = fs.readFileSync(file)
    const text = pdf.toString('latin1')
    expect(text).toMatch(/\/MediaBox \[0 0 612 792\]|\/MediaBox \[0 0 612\.\d* 79[12][.\d]*\]/)
    expect(text).toContain('/PrintScaling /None')
    const streams = [...text.matchAll(/stream\r?\n([\s\S]*?)\r?\nendstream/g)].flatMap((m) => {
      try {
        return [inflateSync(Buffer.from(m[1]!, 'latin1')).toString('latin1')]
      } catch {
        return []
      }
    })
    const drawn = streams.join('\n')
    const mm = (points: string): number => (Number(points) * 25.4) / 72
    const lines = [...drawn.matchAll(/([\d.]+) ([\d.]+) m\s+([\d.]+) \2 l/g)].map(
      (m) => mm(m[3]!) - mm(m[1]!),
    )
    expect(lines.filter((l) => Math.abs(l - 100) < 0.3)).toHaveLength(1)
    const cells = [...drawn.matchAll(/([\d.]+) ([\d.]+) re/g)].map((m) => [mm(m[1]!), mm(m[2]!)])
    expect(cells.filter(([w, h]) => Math.abs(w! - 32) < 0.3 && Math.abs(h! - 32) < 0.3)).toHaveLength(10)
  })
  test('from a lesson, with its numbers', async () => {
    const lesson = path.join(folder, 'share.md')
    fs.writeFileSync(
      lesson,
      '# Stamps\n\n## Home {home task}\nAsk: Share ten stamps on three plates. {share 10 on 3}\n',
    )
    const r = await awlbox('print', lesson, 'plates', path.join(folder, 'plates.pdf'), '--json')
    expect([r.code, JSON.parse(r.out)]).toEqual([0, expect.objectContaining({ parts: 3 })])
  })
  test.each([
    [['print'], /say which sheet/],
    [['print', 'elephants', '--out', 'x.pdf'], /say which sheet|is not there/],
    [['print', 'ten-frame'], /say where it goes/],
    [['print', 'ten-frame', '--out', 'x.txt'], /say where it goes/],
    [['print', 'ten-frame', '--out', 'x.pdf', '--paper', 'A9'], /A4 and Letter/],
    [['print', 'ten-frame', '--out', 'x.pdf', '--to', '0'], /1 to 1000/],
    [['print', 'ten-frame', '--out', 'x.pdf', '--to', 'many'], /no number/],
  ])('%j is told in words', async (words, why) => {
    const r = await awlbox(...words)
    expect([r.code, r.err]).toEqual([2, expect.stringMatching(why)])
  })
})
