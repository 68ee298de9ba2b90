import { describe, expect, test } from 'vitest'
import { readTable, writeTable } from './children-table.ts'

const table = (text: string): string[][] => text.split('\n').map((l) => l.split('|').map((c) => c.trim()))
const read = (
  text: string,
  known: { given: string; home: string; className: string }[] = [],
  homes: string[] = [],
) => readTable(table(text), known, homes)
const whys = (r: ReturnType<typeof read>) =>
  r.rows.map((x) => x.wrong ?? x.doubts.map((d) => d.why).join(' '))

describe('a table of children', () => {
  test('with headings in any order and other words', () => {
    const r = read(
      'Home | First name | Languages | Printer\nWeir Lane | Suri | English; Urdu | yes\nMill Bank | Otis | | no',
    )
    expect(r.rows.map(({ given, home, languages, printer }) => [given, home, languages, printer])).toEqual([
      ['Suri', 'Weir Lane', ['English', 'Urdu'], true],
      ['Otis', 'Mill Bank', [], false],
    ])
    expect([r.problem, whys(r)]).toEqual([null, ['', '']])
  })
  test('without headings: name, home, second home', () =>
    expect(read('Suri | Weir Lane | Mill Bank').rows[0]).toMatchObject({
      given: 'Suri',
      home: 'Weir Lane',
      second: 'Mill Bank',
    }))
  test('birth dates, surnames and addresses are left behind and said to be', () =>
    expect(
      read('Name | Surname | Date of birth | Address | Colour\nSuri | X | 1.1.2022 | Y | red'),
    ).toMatchObject({
      rows: [{ given: 'Suri' }],
      leftOut: [
        { head: 'Surname', why: 'not needed, so not kept' },
        { head: 'Date of birth', why: 'not needed, so not kept' },
        { head: 'Address', why: 'not needed, so not kept' },
        { head: 'Colour', why: 'no such column here' },
      ],
    }))
  test('every doubtful row is named with the reason', () => {
    const r = read(
      'name | home | printer\nSuri | Weir Lane |\nSuri | weir lane |\nOtis | Mill Bank |\nAna Fell | Moon Row | perhaps\n | Weir Lane |\n=1+1 | Weir Lane |\nKofi | |',
      [{ given: 'Otis', home: 'Mill Bank', className: 'Wagtails' }],
      ['Weir Lane', 'Mill Bank'],
    )
    expect(whys(r)).toEqual([
      '',
      expect.stringContaining('Twice'),
      expect.stringContaining('Here already'),
      expect.stringMatching(/full name.*neither yes nor no.*No such home/),
      'No name.',
      expect.stringContaining('formula'),
      expect.stringContaining('No home said'),
    ])
    expect(r.rows.map((x) => x.line)).toEqual([2, 3, 4, 5, 6, 7, 8])
  })
  test('another child of a name is told, for they will be shown with their homes', () => {
    const r = read('name | home\nSuri | Mill Bank\nOtis | Weir Lane\nOtis | Moon Row', [
      { given: 'Suri', home: 'Weir Lane', className: 'Wagtails' },
    ])
    expect(r.rows.map((x) => x.doubts.map((d) => d.why).join())).toEqual([
      expect.stringContaining('Another child of this name'),
      '',
      expect.stringContaining('Another child of this name'),
    ])
  })
  test('empty, too long, or without names is said', () => {
    expect(read('').problem).toContain('nothing')
    expect(read('home\nWeir Lane').problem).toContain('name')
    expect(read('name | home').problem).toContain('no rows')
    expect(
      readTable(
        Array.from({ length: 5002 }, (_, i) => [`C${i}`]),
        [],
        [],
      ).problem,
    ).toContain('5000')
    expect(
      readTable(
        Array.from({ length: 5000 }, (_, i) => [`C${i}`]),
        [],
        [],
      ).rows,
    ).toHaveLength(5000)
  })
  test('signs nobody can see are no part of a name', () =>
    expect(readTable([['\u202ESuri\u0000\u200B', 'Weir\u00A0Lane']], [], []).rows[0]).toMatchObject({
      given: 'Suri',
      home: 'Weir Lane',
    }))
  test('what is written is read as the same', () => {
    const child = {
      given: 'Suri',
      className: 'Wagtails',
      home: 'Weir Lane',
      second: '',
      languages: ['English', 'Urdu'],
      youngerChild: true,
      phone: null,
      printer: false,
      metered: true,
      email: 'weir@lane.example',
      consents: { photos: { given: true, day: '2026-11-01' }, sound: null, showing: null, naming: null },
    }
    const { consents: _c, ...same } = child
    expect(readTable(writeTable([child]), [], []).rows[0]).toMatchObject(same)
  })
})
