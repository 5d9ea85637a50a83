/** Has the service worker (sw.ts) keep the shell and what this page reads, where the browser allows one. */

import { queryClient } from "./api/queries";

export function keepShell() {
  if (!("serviceWorker" in navigator) || !import.meta.env.PROD) return;
  const first = navigator.serviceWorker.controller === null;
  // What was read before there was a worker to keep it is read once more.
  if (first)
    navigator.serviceWorker.addEventListener("controllerchange", () => void queryClient.invalidateQueries(), {
      once: true,
    });
  navigator.serviceWorker.register("/sw.js").catch(() => {
    // Not allowed here (a plain address in the house network): the page works, but does not reload without a network.
  });
}
