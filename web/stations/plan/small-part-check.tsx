import { fieldLook } from '../../kit/field.ts'
import { Select } from '../../kit/select.tsx'
import { useState } from 'react'
import { isSmallPart } from '@awlbox/core/plan/things'

const box = `${fieldLook} w-[72px] figures`

/** Whether a thing from the drawer is a small part, by its size in any orientation. */
export function SmallPartCheck() {
  const [size, setSize] = useState<[number, number, number]>([25, 25, 10])
  const [shape, setShape] = useState<'box' | 'disc' | 'ball'>('box')
  const small = isSmallPart(
    shape === 'ball' ? [size[0], size[0], size[0]] : shape === 'disc' ? [size[0], size[0], size[1]] : size,
    shape,
  )
  const field = (label: string, i: 0 | 1 | 2) => (
    <label className="grid gap-0.5 text-sm text-steel">
      {label}
      <input
        type="number"
        min={1}
        max={400}
        value={size[i]}
        onChange={(e) =>
          setSize(
            size.map((n, k) => (k === i ? Math.max(1, Math.min(400, Number(e.target.value) || 1)) : n)) as [
              number,
              number,
              number,
            ],
          )
        }
        className={`${box} text-ink`}
      />
    </label>
  )
  return (
    <details className="mt-2">
      <summary className="cursor-pointer min-h-8 text-steel">Is it a small part? Measure it</summary>
      <div className="flex flex-wrap items-end gap-2 mt-1">
        <label className="grid gap-0.5 text-sm text-steel">
          Shape
          <Select
            className="text-ink"
            value={shape}
            choices={[
              { value: 'box', words: 'any' },
              { value: 'disc', words: 'round and flat' },
              { value: 'ball', words: 'ball' },
            ]}
            onChange={setShape}
          />
        </label>
        {field(shape === 'box' ? 'Long, mm' : 'Across, mm', 0)}
        {shape !== 'ball' && field(shape === 'disc' ? 'Thick, mm' : 'Wide, mm', 1)}
        {shape === 'box' && field('High, mm', 2)}
      </div>
      <p role="status" className={`mt-1.5 ${small ? 'text-brick' : ''}`}>
        {small
          ? 'A small part: it fits the cylinder that toys for under-threes are tested with. Choose something larger where a little one lives.'
          : 'Not a small part by its size. Look at its shape too, and stay beside them.'}
      </p>
    </details>
  )
}
