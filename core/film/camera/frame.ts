import { tableHeight, tableWidth } from '../../script/table/drawing/paper.ts'

/** The picture of every take and film, pixels. */
export const film = { width: 1280, height: 720 } as const
/** Letters lower than this, in pixels of the 720 lines, cannot be read on a phone held upright: there the film is some 220 pixels high. */
export const readable = 34
/** How large a unit of the table's drawing is in a picture: the table fills the height but for a narrow edge. */
const scale = 1.5
/**
 * Where the planned table lies in a take's picture: the camera's guide shows it there, the stand-in camera films it
 * there, and what is put over a film keeps clear of it there.
 */
export const tableInTake = {
  scale,
  x: (film.width - tableWidth * scale) / 2,
  y: (film.height - tableHeight * scale) / 2,
  w: tableWidth * scale,
  h: tableHeight * scale,
} as const
