/** What has been typed on a sheet and not yet been saved, kept in this browser until it is. */

import type { Sheet } from "../api/client";

export interface Draft {
  revision: number;
  sheet: Sheet;
}

const key = (id: number) => `kemble-draft-${id}`;

export function keepDraft(id: number, draft: Draft) {
  localStorage.setItem(key(id), JSON.stringify(draft));
}

export function dropDraft(id: number) {
  localStorage.removeItem(key(id));
}

export function keptDraft(id: number): Draft | null {
  const text = localStorage.getItem(key(id));
  if (!text) return null;
  try {
    return JSON.parse(text) as Draft;
  } catch {
    dropDraft(id);
    return null;
  }
}
