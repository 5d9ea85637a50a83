/** Pictures on their way: they lie in this browser's store until the kitchen has them, over a reload and without it. */

import { api, ask, Refused } from "../api/client";

export interface Taken {
  uid: string;
  run: number;
  step: string;
}

const NEVER = new Set([404, 410, 413, 422]); // answers that say that it can never be taken
const STORE = "kemble-pictures";
const addressOf = ({ uid, run, step }: Taken) => `/waiting-pictures/${run}/${encodeURIComponent(step)}/${uid}`;

export async function withPicture(taken: Taken, file: Blob) {
  const store = await caches.open(STORE);
  await store.put(addressOf(taken), new Response(file, { headers: { "Content-Type": file.type } }));
}

export async function waitingPictures(): Promise<Taken[]> {
  if (!("caches" in window)) return [];
  const store = await caches.open(STORE);
  return (await store.keys()).map((request) => {
    const [, , run, step, uid] = new URL(request.url).pathname.split("/");
    return { uid: uid ?? "", run: Number(run), step: decodeURIComponent(step ?? "") };
  });
}

/** Sends one; it is let go of when it was taken, or can never be. Throws Refused. */
export async function sendPicture(taken: Taken) {
  const store = await caches.open(STORE);
  const kept = await store.match(addressOf(taken));
  if (!kept) return;
  const body = new FormData();
  body.append("uid", taken.uid);
  body.append("step", taken.step);
  body.append("picture", await kept.blob(), "picture");
  try {
    const path = { run_id: taken.run };
    await ask(
      api.POST("/api/runs/{run_id}/pictures", {
        params: { path },
        body: { uid: taken.uid, step: taken.step, picture: "" },
        bodySerializer: () => body,
      }),
    );
    await store.delete(addressOf(taken));
  } catch (error) {
    if (error instanceof Refused && NEVER.has(error.status)) await store.delete(addressOf(taken));
    throw error;
  }
}
