/**
 * Frames and seconds are both numbers, and a film is ruined by taking one for the other. A value known to be one of
 * them cannot be handed over where the other is wanted; a plain number, and what is reckoned from them, can.
 */
export type Frames = number & { readonly unit?: 'frames' }
export type Seconds = number & { readonly unit?: 'seconds' }
