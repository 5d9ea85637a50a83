/** Whether something is meant by what was typed, however either is written: accents, hyphens, spaces and case aside. */

const bare = (words: string) =>
  words
    .normalize("NFKD")
    .replace(/\p{M}/gu, "")
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, " ")
    .trim();

const joined = (words: string) => bare(words).replaceAll(" ", "");

/** All of it run together stands in one of the texts, or each of its words begins a word of some. */
export function meant(typed: string, texts: readonly string[]): boolean {
  const whole = joined(typed);
  if (!whole || texts.some((text) => joined(text).includes(whole))) return true;
  const all = texts.flatMap((text) => bare(text).split(" "));
  return bare(typed)
    .split(" ")
    .every((word) => all.some((name) => name.startsWith(word)));
}
