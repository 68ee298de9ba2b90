import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { describe, expect, test } from 'vitest'
import { hangs, type Seen, seenOf, stuck, watching } from './watch.ts'

/** Asks a watch once a second, the program computing so much in each; when and how it was said to hang. */
function after(seconds: number, share: number, turns = (_second: number) => false) {
  const seen: Seen = { computed: 100, state: 'R' }
  const watch = watching(() => ({ ...seen }))
  watch.turned()
  for (let s = 1; s <= seconds; s++) {
    seen.computed += share
    if (turns(s)) watch.turned()
    const words = watch.hanging()
    if (words) return { s, words }
  }
  return null
}

describe('a program that should turn once a second', () => {
  test('one that computes without end hangs after some seconds', () => {
    const hung = after(100, 1)
    expect(hung?.s).toBe(hangs + 1)
    expect(hung?.words).toMatch(/computed 9 of 9 seconds/)
  })
  test('one that is let compute a fifth of the time has five times as long, up to a minute', () => {
    const slow = after(100, 0.2)
    expect(slow?.s).toBe(hangs / 0.2)
  })
  test('one that waits for something that never comes hangs after a minute', () => {
    const waits = after(100, 0)
    expect(waits?.s).toBe(stuck + 1)
    expect(waits?.words).toMatch(/computed 0 of 61 seconds/)
  })
  test('one that turns now and then does not, however much it computes', () => {
    expect(after(400, 1, (s) => s % 7 === 0)).toBeNull()
  })
  test('one that has never turned is still starting', () => {
    const watch = watching(() => ({ computed: 500, state: 'R' }))
    for (let s = 0; s < 200; s++) expect(watch.hanging()).toBeNull()
  })
  test('where nothing can be seen of it, it has a minute', () => {
    const watch = watching(() => null)
    watch.turned()
    for (let s = 0; s < stuck; s++) expect(watch.hanging()).toBeNull()
    expect(watch.hanging()).toMatch(/not seen/)
  })
})

test.runIf(process.platform === 'linux')('what the kernel tells of a process', async () => {
  expect(seenOf(0x3fffff)).toBeNull()
  const busy =
    'process.send("here"); const until = performance.now() + 700; while (performance.now() < until); process.send("done"); setInterval(() => {}, 99)'
  const child = spawn(process.execPath, ['-e', busy], { stdio: ['ignore', 'inherit', 'inherit', 'ipc'] })
  await once(child, 'message')
  const before = seenOf(child.pid!)!
  await once(child, 'message')
  const done = seenOf(child.pid!)!
  child.kill('SIGKILL')
  expect(before.state).toMatch(/^[RSD]$/)
  expect(done.computed).toBeGreaterThan(before.computed)
  expect(done.computed).toBeLessThan(30)
})
