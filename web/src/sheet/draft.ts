/**
 * What has been typed on a sheet and not yet been saved, kept in this browser until it is.
 *
 * Each tab keeps its own, so that two tabs on one sheet never lose each other's. A tab that was closed or fell over
 * leaves its draft behind: whoever opens the sheet next takes it up.
 */

import type { Sheet } from "../api/client";
import { newId } from "../ui/newId";

export interface Draft {
  revision: number;
  sheet: Sheet;
}

const ABANDONED_MS = 60_000;
const prefix = (id: number) => `kemble-draft-${id}-`;

function tab(): string {
  let name = sessionStorage.getItem("kemble-tab");
  if (!name) {
    name = newId();
    sessionStorage.setItem("kemble-tab", name);
  }
  return name;
}

export function keepDraft(id: number, draft: Draft) {
  localStorage.setItem(prefix(id) + tab(), JSON.stringify({ ...draft, at: Date.now() }));
}

export function dropDraft(id: number) {
  localStorage.removeItem(prefix(id) + tab());
}

/** This tab's own draft, or one that its tab has left behind. */
export function keptDraft(id: number): Draft | null {
  const own = prefix(id) + tab();
  const keys = Object.keys(localStorage).filter((key) => key.startsWith(prefix(id)));
  for (const key of keys.sort((a, b) => Number(b === own) - Number(a === own))) {
    try {
      const draft = JSON.parse(localStorage.getItem(key) ?? "") as Draft & { at: number };
      if (key !== own && Date.now() - draft.at < ABANDONED_MS) continue;
      localStorage.removeItem(key);
      keepDraft(id, { revision: draft.revision, sheet: draft.sheet });
      return draft;
    } catch {
      localStorage.removeItem(key);
    }
  }
  return null;
}
