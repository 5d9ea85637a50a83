/** Text cut to a length, never through a letter: an emoji of several parts stays whole or goes whole. */

const letters = new Intl.Segmenter(undefined, { granularity: "grapheme" });

/** At most so many characters as the server counts them; `end` stands for what was cut off. */
export function cutText(text: string, most: number, end = ""): string {
  if (text.length <= most) return text;
  const room = most - end.length;
  let cut = "";
  let count = 0;
  for (const { segment } of letters.segment(text)) {
    count += [...segment].length;
    if (count > room) return [...text].length <= most ? text : cut + end;
    cut += segment;
  }
  return cut;
}
