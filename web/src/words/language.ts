/**
 * The language that the page is in, and how it is written where. It is set before anything that says a word is read, by what
 * the server wrote into the page, and changes only with the page; so a table of words may stand at the head of a module like
 * any other.
 */

import { i18n, type Messages } from "@lingui/core";
import { compileMessage } from "@lingui/message-utils/compileMessage";

/** Of every language but English, whose words stand in the code, what `make words` keeps of it. */
const CATALOGUES: Record<string, () => Promise<{ messages: Messages }>> = {};

/** Of no people: every word of the catalogue wears accents, so that one that is not in it can be seen. */
const MADE_UP = "en-XA";
const [PLAIN, WORN] = ["aceinouyACEINOUY", "åçéîñöüýÅÇÉÎÑÖÜÝ"];
const accented = (words: string) => words.replace(/<[^>]*>|[aceinouy]/gi, (word) => WORN[PLAIN.indexOf(word)] ?? word);

let spoken = globalThis.document?.documentElement.lang || "en-GB";

/** Each sentence is read once. */
const read = new Map<string, ReturnType<typeof compileMessage>>();
i18n.setMessagesCompiler((message) => {
  const compiledMessageTokens = read.get(message) ?? compileMessage(message, spoken === MADE_UP ? accented : undefined);
  read.set(message, compiledMessageTokens);
  return compiledMessageTokens;
});

export async function speak(wanted: string) {
  spoken = wanted || spoken;
  const catalogue = await CATALOGUES[spoken.slice(0, 2)]?.();
  i18n.loadAndActivate({ locale: spoken.slice(0, 2), locales: locale(), messages: catalogue?.messages ?? {} });
}

/** What days, clocks and numbers of this page are written by. */
export const locale = () => (spoken === MADE_UP ? "en-DE" : spoken);

const TRIED = "kemble-locale-tried";

/** Where a kitchen's language is not the page's, the page is asked for anew; once, for it may come out of what is kept. */
export function pageIn(wanted: string | undefined) {
  if (!wanted || wanted === spoken || sessionStorage.getItem(TRIED) === wanted) return;
  sessionStorage.setItem(TRIED, wanted);
  location.reload();
}
