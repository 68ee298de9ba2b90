// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react'
import { afterEach, describe, expect, test } from 'vitest'
import type { Help, JudgementInput } from '@awlbox/core/contracts/reply'
import { showing } from '../../testing/parts.tsx'
import { Tray } from './tray.tsx'

afterEach(cleanup)
function tray(help: Help | null = null, disabled = false) {
  const judged: JudgementInput[] = []
  return {
    judged,
    ...showing(
      <Tray
        idea="Parts of 7"
        help={help}
        onJudge={(j) => void judged.push(j)}
        way={null}
        phrases={[]}
        disabled={disabled}
      />,
    ),
  }
}

describe('judging a reply', () => {
  test('by three keys in any order is one judgement', async () => {
    const { user, judged } = tray()
    await user.keyboard('7n')
    expect(judged).toEqual([])
    await user.keyboard('2')
    expect(judged).toEqual([{ level: 'nearly', help: 'nudged', rung: 'things', note: '' }])
  })
  test('what the home said of its help stands until it is changed', async () => {
    const { user, judged } = tray('together')
    await user.keyboard('10')
    expect(judged).toMatchObject([{ level: 'secure', help: 'together', rung: 'head' }])
  })
  test('the last press is taken back', async () => {
    const { user, judged } = tray()
    await user.keyboard('1a{Backspace}7')
    expect(judged).toEqual([])
    expect(screen.getByRole('button', { name: /alone/ }).getAttribute('aria-pressed')).toBe('false')
  })
  test('by mouse is the same', async () => {
    const { user, judged } = tray()
    for (const name of [/Not yet/, /nudged/, /picture/])
      await user.click(screen.getByRole('button', { name }))
    expect(judged).toMatchObject([{ level: 'not yet', help: 'nudged', rung: 'picture' }])
  })
  test('is not done where one may only look', async () => {
    const { user, judged } = tray('alone', true)
    await user.keyboard('17')
    expect(judged).toEqual([])
  })
})
