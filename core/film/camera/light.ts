/** How a picture is lit: mean lightness 0–1, and what to do about it in words; `advice` is empty when it is well lit. */
export interface Light {
  mean: number
  words: string
  advice: string
}
/** Shares and lightness (0–1) beyond which a picture is badly lit. */
const limits = { dark: 0.22, bright: 0.93, burnt: 0.1, uneven: 0.4 } as const

/** Judges a small picture: `rgba` is width × height × 4 bytes. A few thousand pixels are enough. @throws RangeError when the pixels do not fit the size. */
export function judgeLight(rgba: Uint8ClampedArray | Uint8Array, width: number, height: number): Light {
  if (rgba.length !== width * height * 4) throw new RangeError('The pixels do not fit the size.')
  let [sum, burnt] = [0, 0]
  const quarters = [0, 0, 0, 0]
  const sizes = [0, 0, 0, 0]
  for (let i = 0; i < width * height; i++) {
    const luma = (0.2126 * rgba[i * 4]! + 0.7152 * rgba[i * 4 + 1]! + 0.0722 * rgba[i * 4 + 2]!) / 255
    sum += luma
    if (luma > 0.995) burnt++
    const q = (i % width < width / 2 ? 0 : 1) + (Math.floor(i / width) < height / 2 ? 0 : 2)
    quarters[q]! += luma
    sizes[q]!++
  }
  const mean = sum / Math.max(1, width * height)
  const sides = quarters.map((q, i) => q / Math.max(1, sizes[i]!))
  const [dimmest, lightest] = [Math.min(...sides), Math.max(...sides)]
  if (mean < limits.dark)
    return { mean, words: 'dark', advice: 'Too dark for a phone screen: a lamp to the side, not behind you.' }
  if (mean > limits.bright)
    return { mean, words: 'glaring', advice: 'Too bright: turn the lamp away, or shade the window.' }
  if (burnt / (width * height) > limits.burnt)
    return {
      mean,
      words: 'burnt',
      advice: 'A part is burnt white: something shines. Move the lamp, or lay a cloth under.',
    }
  if (lightest - dimmest > limits.uneven)
    return {
      mean,
      words: 'uneven',
      advice: 'One side is much darker: a second lamp, or turn the table to the window.',
    }
  return { mean, words: 'good', advice: '' }
}
