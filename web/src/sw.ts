/**
 * The service worker: keeps the shell (the built files and the page that carries them) and the last answer to everything
 * that was read, so that a reload without the network opens what was open. It never answers for the kitchen while that
 * can be reached, and says of each kept answer when it was given. Changes do not pass through here: the page keeps those.
 */

/// <reference lib="webworker" />

import { clientsClaim } from "workbox-core";
import { ExpirationPlugin } from "workbox-expiration";
import { cleanupOutdatedCaches, precacheAndRoute } from "workbox-precaching";
import { registerRoute } from "workbox-routing";
import { NetworkFirst } from "workbox-strategies";

declare const self: ServiceWorkerGlobalScope & { __WB_MANIFEST: (string | { url: string; revision: string | null })[] };

const SHELL = "kemble-shell";
const ANSWERS = "kemble-answers";
const KEPT_HEADER = "kemble-kept"; // as in api/connection.ts
const PATIENCE_S = 8;
const FILES = /^\/api\/|\.txt$/; // addresses that are no page, though a browser may go there

void self.skipWaiting();
clientsClaim();
cleanupOutdatedCaches();
precacheAndRoute(self.__WB_MANIFEST);

/**
 * Keeps an answer only once all of it is here: one that breaks off must not take the place of the whole one before. Files
 * that somebody takes along (paper, tables, a whole kitchen) are not kept: only what a page is made of.
 */
const whole = (kind: RegExp) => ({
  cacheWillUpdate: async ({ response }: { response: Response }) => {
    if (response.status !== 200 || !kind.test(response.headers.get("Content-Type") ?? "")) return null;
    try {
      const body = await response.clone().arrayBuffer();
      return new Response(body, { status: response.status, headers: response.headers });
    } catch {
      return null;
    }
  },
});

// One page serves every address: what is kept of one opens all. Its policy and its nonce are kept with it.
const onePage = { cacheKeyWillBeUsed: async () => "/" };
registerRoute(
  ({ request, url }) => request.mode === "navigate" && !FILES.test(url.pathname),
  new NetworkFirst({ cacheName: SHELL, networkTimeoutSeconds: PATIENCE_S, plugins: [onePage, whole(/^text\/html/)] }),
);
self.addEventListener("install", (event) => {
  event.waitUntil(caches.open(SHELL).then((shell) => shell.add("/")));
});

const saysWhen = {
  cachedResponseWillBeUsed: async ({ cachedResponse }: { cachedResponse?: Response }) => {
    if (!cachedResponse) return null;
    const headers = new Headers(cachedResponse.headers);
    headers.set(KEPT_HEADER, headers.get("date") ?? "");
    return new Response(cachedResponse.body, { status: cachedResponse.status, headers });
  },
};
registerRoute(
  ({ url, request }) => url.pathname.startsWith("/api/") && !request.headers.get("accept")?.includes("event-stream"),
  new NetworkFirst({
    cacheName: ANSWERS,
    networkTimeoutSeconds: PATIENCE_S,
    plugins: [whole(/json|^image\/webp/), saysWhen, new ExpirationPlugin({ maxEntries: 300, purgeOnQuotaError: true })],
  }),
);

/** Whoever signs out, or comes in as somebody else, leaves nothing behind for the next. */
const forgets = async ({ request }: { request: Request }) => {
  const answer = await fetch(request);
  if (answer.ok) await caches.delete(ANSWERS);
  return answer;
};
registerRoute(({ url }) => url.pathname === "/api/session", forgets, "DELETE");
registerRoute(({ url }) => url.pathname === "/api/session/invited", forgets, "POST");
