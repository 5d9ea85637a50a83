/** Numbers as cooks write them: 1.5, 1,5, ¾, 1¾, 1 3/4, 3/4; and words after them, as in "2 cups". */

const PARTS: Record<string, number> = {
  "½": 1 / 2,
  "⅓": 1 / 3,
  "⅔": 2 / 3,
  "¼": 1 / 4,
  "¾": 3 / 4,
  "⅕": 1 / 5,
  "⅛": 1 / 8,
  "⅜": 3 / 8,
  "⅝": 5 / 8,
  "⅞": 7 / 8,
};

const WRITTEN = new RegExp(
  `^([+-]?\\d+(?:[.,]\\d+)?)?\\s*(?:([${Object.keys(PARTS).join("")}])|(\\d+)\\s*/\\s*(\\d+))?\\s*([^\\d]*)$`,
  "u",
);

export interface ReadNumber {
  value: number;
  words: string;
}

/** Null for what is no number. "13/4" is thirteen quarters, "1 3/4" one and three. */
export function readNumber(text: string): ReadNumber | null {
  const plain = text.trim();
  const fraction = /^(\d+)\s*\/\s*(\d+)\s*([^\d]*)$/u.exec(plain);
  if (fraction) return whole(0, Number(fraction[1]) / Number(fraction[2]), fraction[3]);
  const match = WRITTEN.exec(plain);
  if (!match || (match[1] === undefined && match[2] === undefined)) {
    const number = Number(plain.replace(",", "."));
    return plain !== "" && Number.isFinite(number) ? { value: number, words: "" } : null;
  }
  const part = match[2] ? (PARTS[match[2]] ?? 0) : match[3] ? Number(match[3]) / Number(match[4]) : 0;
  return whole(Number((match[1] ?? "0").replace(",", ".")), part, match[5]);
}

function whole(number: number, part: number, words = ""): ReadNumber | null {
  const value = number + (number < 0 ? -part : part);
  return Number.isFinite(value) ? { value, words: words.trim() } : null;
}
