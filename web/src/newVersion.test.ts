// @vitest-environment jsdom
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { loadAnewAfterUpdates } from "./newVersion";

const loadAnew = vi.fn();
loadAnewAfterUpdates(loadAnew);

/** A part of the page is no more; whether the page takes care of it. */
function missing() {
  const event = new Event("vite:preloadError", { cancelable: true });
  window.dispatchEvent(event);
  return event.defaultPrevented;
}

beforeEach(() => {
  vi.useFakeTimers();
  sessionStorage.clear();
  loadAnew.mockClear();
});
afterEach(() => vi.useRealTimers());

it("loads the page anew where a part of it is no more, and not again and again", () => {
  expect(missing()).toBe(true);
  expect(loadAnew).toHaveBeenCalledTimes(1);
  expect(missing()).toBe(false); // it is missing in the new version too: that is said
  vi.advanceTimersByTime(60_000);
  expect(missing()).toBe(true);
  expect(loadAnew).toHaveBeenCalledTimes(2);
});

it("leaves the page alone without the network", () => {
  vi.spyOn(navigator, "onLine", "get").mockReturnValue(false);
  expect(missing()).toBe(false);
  expect(loadAnew).not.toHaveBeenCalled();
});
