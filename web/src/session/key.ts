/**
 * The key in the address that the start command prints. It stands behind the #, so that no server on the way and no
 * log ever sees it; it is used at once and taken out of the address.
 */

import { api, ask, Refused } from "../api/client";
import { signedIn } from "../api/reach";

const key = /^#key=([\w-]+)$/.exec(location.hash)?.[1];
if (key) history.replaceState(null, "", location.pathname + location.search);

// Pasted into a tab in which Kemble is open, an address that differs behind the # alone loads nothing by itself.
window.addEventListener("hashchange", () => {
  if (location.hash.startsWith("#key=")) location.reload();
});

/** Comes in with the key, if there was one. Gives why it was not taken. */
export const usedKey: Promise<Refused | null> = key ? use(key) : Promise.resolve(null);

async function use(found: string): Promise<Refused | null> {
  try {
    await ask(api.GET("/api/session")); // which gives this page its token
    await ask(api.POST("/api/session/key", { body: { key: found } }));
    signedIn();
    return null;
  } catch (error) {
    if (error instanceof Refused) return error;
    throw error;
  }
}
