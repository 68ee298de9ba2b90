import fs from 'node:fs'
import { Resvg } from '@resvg/resvg-js'

/** Andika as TrueType from Debian's fonts-sil-andika: the rasteriser draws no text from web fonts. */
const fontFiles = [
  '/usr/share/fonts/truetype/andika/Andika-Regular.ttf',
  '/usr/share/fonts/truetype/andika/Andika-R.ttf',
  '/usr/share/fonts/truetype/andika/Andika-Bold.ttf',
].filter((f) => fs.existsSync(f))

/** Draws SVG text as a PNG of the given width. */
export function toPng(svg: string, width: number): Buffer {
  return Buffer.from(
    new Resvg(svg, {
      fitTo: { mode: 'width', value: width },
      font: { fontFiles, loadSystemFonts: false, defaultFontFamily: 'Andika' },
    })
      .render()
      .asPng(),
  )
}
