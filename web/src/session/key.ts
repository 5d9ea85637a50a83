/**
 * The key in the address that the start command prints, or that an invitation holds. It stands behind the #, so that no
 * server on the way and no log ever sees it; it is taken out of the address at once.
 */

import { api, ask, Refused } from "../api/client";
import { signedIn } from "../api/connection";

const [, kind, result] = /^#(key|invited)=([\w-]+)$/.exec(location.hash) ?? [];
if (result) history.replaceState(null, "", location.pathname + location.search);

// Pasted into a tab in which Kemble is open, an address that differs behind the # alone loads nothing by itself.
window.addEventListener("hashchange", () => {
  if (/^#(key|invited)=/.test(location.hash)) location.reload();
});

/** The key of an invitation, if this page was opened by one. */
export const invitation = kind === "invited" ? (result ?? null) : null;

/** Comes in with the key of the start command, if there was one. Gives why it was not taken. */
export const usedKey: Promise<Refused | null> = kind === "key" && result ? use(result) : Promise.resolve(null);

async function use(key: string): Promise<Refused | null> {
  try {
    await ask(api.GET("/api/session")); // which gives this page its token
    await ask(api.POST("/api/session/key", { body: { key } }));
    signedIn();
    return null;
  } catch (error) {
    if (error instanceof Refused) return error;
    throw error;
  }
}
