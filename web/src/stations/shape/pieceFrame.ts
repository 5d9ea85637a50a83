/** The middle of a piece's drawing, in px. */

export const CX = 190;

export const CY = 190;
