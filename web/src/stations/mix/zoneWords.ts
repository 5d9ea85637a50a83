/** Where the words on a map stand: beside what they speak of, and off the marks; those that find no room give way. */

export interface Word {
  says: string;
  x: number;
  y: number;
}

export interface Placed extends Word {
  anchor: "start" | "middle" | "end";
}

interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

const LETTER = 7; // px of a letter at the size of these words, about
const HIGH = 15;
const TRIES = [0, -20, 20, -38, 38];

const meets = (a: Box, b: Box) => a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

/** Each word at the first place of its own that is within the frame, on no mark and on no word before it. */
export function placed(words: readonly Word[], marks: readonly { x: number; y: number; r: number }[], frame: Box) {
  const taken: Box[] = marks.map(({ x, y, r }) => ({ left: x - r, right: x + r, top: y - r, bottom: y + r }));
  const placeds: Placed[] = [];
  for (const word of words) {
    const wide = word.says.length * LETTER;
    const sides =
      word.x > (frame.left + frame.right) / 2
        ? (["end", "middle", "start"] as const)
        : (["start", "middle", "end"] as const);
    const places = TRIES.flatMap((dy) => sides.map((anchor) => ({ anchor, y: word.y + dy })));
    for (const { anchor, y } of places) {
      const left = anchor === "start" ? word.x : anchor === "end" ? word.x - wide : word.x - wide / 2;
      const box = { left, right: left + wide, top: y - HIGH + 3, bottom: y + 3 };
      const within =
        box.left >= frame.left && box.right <= frame.right && box.top >= frame.top && box.bottom <= frame.bottom;
      if (!within || taken.some((eachBox) => meets(eachBox, box))) continue;
      taken.push(box);
      placeds.push({ ...word, y, anchor });
      break;
    }
  }
  return placeds;
}
