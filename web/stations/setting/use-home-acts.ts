import { useEffect, useRef } from 'react'
import type { ChildFields, ChildRow } from '@awlbox/core/contracts/api/homes'
import * as homesApi from '@awlbox/core/contracts/api/homes'
import type { Body } from '@awlbox/core/contracts/api/route'
import { ask } from '../../api.ts'
import type { Undoing } from './use-undo.ts'

/** What is done to the table of children and homes, each with how it is taken back. */
export function useHomeActs(rows: readonly ChildRow[], undoing: Undoing) {
  const latest = useRef(rows)
  useEffect(() => {
    latest.current = rows
  }, [rows])
  /** Changes one child over what is there now; taking it back changes it back. */
  const change = (row: ChildRow, to: Partial<ChildFields>) => {
    const before = Object.fromEntries(
      Object.keys(to).map((k) => [k, row[k as keyof ChildFields]]),
    ) as Partial<ChildFields>
    const save = (what: Partial<ChildFields>) => async () => {
      const now = latest.current.find((r) => r.id === row.id) ?? row
      const saved = await ask(
        homesApi.saveChild,
        { childId: row.id },
        { revision: now.revision, change: what },
      )
      latest.current = latest.current.map((r) => (r.id === row.id ? saved : r))
    }
    return undoing.act({ what: `the change of ${row.name}`, redo: save(to), undo: save(before) })
  }
  const move = (row: ChildRow, to: string | null) => {
    const go = (classId: string | null) => () => ask(homesApi.moveChild, { childId: row.id }, { classId })
    return undoing.act({
      what: to === null ? `${row.name} leaving` : `the move of ${row.name}`,
      redo: go(to),
      undo: go(row.classId),
    })
  }
  const add = (classId: string, list: Body<typeof homesApi.addChildren>) => {
    let added: string[] = []
    return undoing.act({
      what: 'children added',
      redo: async () => {
        added = (await ask(homesApi.addChildren, { classId }, list)).added
      },
      undo: async () => {
        for (const childId of added) {
          const { name, kept } = await ask(homesApi.keptOfChild, { childId })
          if (kept.some((k) => k.count > 0))
            throw new Error(`${name} has work here already and stays. Let the child leave instead.`)
          await ask(homesApi.deleteChild, { childId })
        }
      },
    })
  }
  return { change, move, add }
}
