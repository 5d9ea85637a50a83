/**
 * An update while a page is open: a part of the page that it has not loaded yet may be no more. Then it loads itself anew,
 * in the new version. What was done lies in this browser's store; a page that has just loaded itself anew for this does not
 * do so again, so that what is missing for good is said and not tried for ever.
 */

const ANEW = "kemble-anew";
const NOT_AGAIN_MS = 30_000;

export function loadAnewAfterUpdates(loadAnew = () => location.reload()) {
  window.addEventListener("vite:preloadError", (event) => {
    const last = Number(sessionStorage.getItem(ANEW)) || 0;
    if (Date.now() - last < NOT_AGAIN_MS || !navigator.onLine) return;
    event.preventDefault();
    sessionStorage.setItem(ANEW, String(Date.now()));
    loadAnew();
  });
}
