/** Sizes of paper, millimetres, upright. */
export const papers = { A4: { width: 210, height: 297 }, Letter: { width: 215.9, height: 279.4 } } as const
export type Paper = keyof typeof papers

/** What no home printer prints on, and room for the check ruler at the foot. */
export const margin = 12
const foot = 16

/** The part of a sheet that may be drawn on. */
export const inside = (paper: Paper, turned = false): { x: number; y: number; w: number; h: number } => {
  const { width, height } = turned
    ? { width: papers[paper].height, height: papers[paper].width }
    : papers[paper]
  return { x: margin, y: margin, w: width - 2 * margin, h: height - 2 * margin - foot }
}
