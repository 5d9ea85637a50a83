/** How long to wait before the next try, after so many that came to nothing: longer each time, half a minute at most. */

const PAUSES_MS = [1_000, 2_000, 4_000, 8_000, 15_000];

export const pauseAfter = (tries: number) => PAUSES_MS[tries] ?? 30_000;
