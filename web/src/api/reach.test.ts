// @vitest-environment jsdom
/** The server's clock, as a page knows it from answers that took their time. */

import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { serverNow, setClock } from "./reach";

const AT = (s: number) => Date.UTC(2026, 10, 25, 9, 0, s);
const said = (s: number) => new Date(AT(s)).toISOString();

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
});
afterEach(() => vi.useRealTimers());

it("is the server's, to within what the answer took", () => {
  vi.setSystemTime(AT(100)); // this page is 60 s fast
  setClock(said(40), AT(99));
  expect(serverNow()).toBeGreaterThanOrEqual(AT(40));
  expect(serverNow()).toBeLessThanOrEqual(AT(41));
});

it("is not set back by an answer that was long on its way", () => {
  vi.setSystemTime(AT(10));
  setClock(said(10), AT(10));
  vi.setSystemTime(AT(20));
  setClock(said(13), AT(12)); // said at 13, heard at 20
  expect(serverNow()).toBe(AT(20));
});

it("follows a server whose clock was changed", () => {
  vi.setSystemTime(AT(10));
  setClock(said(10), AT(10));
  setClock(said(55), AT(10));
  expect(serverNow()).toBe(AT(55));
});
