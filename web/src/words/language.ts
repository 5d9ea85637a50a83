/**
 * Which language the page is in. It is set before anything that says a word is read, by what the server wrote into the
 * page, and changes only with the page; so a table of words may stand at the head of a module like any other.
 */

import { i18n, type Messages } from "@lingui/core";
import { compileMessage } from "@lingui/message-utils/compileMessage";

const catalogues: Record<string, () => Promise<{ messages: Messages }>> = {
  de: () => import("../../../kemble/words/de/pages.po"),
};

const compiled = new Map<string, ReturnType<typeof compileMessage>>();

/** English is not in a catalogue but in the code, and is read once for each sentence. */
i18n.setMessagesCompiler((message) => {
  const found = compiled.get(message) ?? compileMessage(message);
  compiled.set(message, found);
  return found;
});

export async function speak(language: string) {
  const catalogue = await catalogues[language]?.();
  i18n.loadAndActivate({ locale: catalogue ? language : "en", messages: catalogue?.messages ?? {} });
}

/** The language of this page, for numbers, days and clocks. */
export const locale = () => i18n.locale;
