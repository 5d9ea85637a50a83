// @vitest-environment jsdom
/** The server's clock, as a page knows it from answers that took their time; and this device's own, by that. */

import { act, cleanup, render, screen } from "@testing-library/react";
import { createElement } from "react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { ClockLine } from "../ui/ClockLine";
import { clockOff, KEPT_HEADER, noteResponse, serverNow, TIME_HEADER } from "./connection";

const AT = (s: number) => Date.UTC(2026, 10, 25, 9, 0, s);
/** An answer that was asked for at `asked` on this device's clock, says what time it was there, and is heard now. */
const hear = (said: number, asked: number, more: Record<string, string> = {}) =>
  act(() =>
    noteResponse(new Response("{}", { headers: { [TIME_HEADER]: new Date(said).toISOString(), ...more } }), asked),
  );

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

it("is the server's, to within what the answer took", () => {
  vi.setSystemTime(AT(100)); // this page is 60 s fast
  hear(AT(40), AT(99));
  expect(serverNow()).toBeGreaterThanOrEqual(AT(40));
  expect(serverNow()).toBeLessThanOrEqual(AT(41));
});

it("is not set back by an answer that was long on its way", () => {
  vi.setSystemTime(AT(10));
  hear(AT(10), AT(10));
  vi.setSystemTime(AT(20));
  hear(AT(13), AT(12)); // said at 13, heard at 20
  expect(serverNow()).toBe(AT(20));
});

it("follows a server whose clock was changed", () => {
  vi.setSystemTime(AT(10));
  hear(AT(10), AT(10));
  hear(AT(55), AT(10));
  expect(serverNow()).toBe(AT(55));
});

const HOURS = 3_600_000;

it("is not measured by an answer out of this browser's store", () => {
  vi.setSystemTime(AT(10));
  hear(AT(0) - 5 * HOURS, AT(10), { [KEPT_HEADER]: new Date(AT(0)).toISOString() });
  expect(clockOff()).toBeNull();
});

it("is measured at every answer, kept over a reload, and said where it is off", () => {
  vi.setSystemTime(AT(0) - 3 * HOURS);
  render(createElement(ClockLine));
  expect(screen.queryByRole("status")).toBeNull();
  hear(AT(0), AT(0) - 3 * HOURS);
  expect(clockOff()).toBe(3 * HOURS);
  expect(screen.getByRole("status").textContent).toMatch(/clock is 3 h slow.*corrects the times/);
});

it("that was set meanwhile is said, until somebody has seen it", () => {
  vi.setSystemTime(AT(0) - 3 * HOURS);
  hear(AT(0), AT(0) - 3 * HOURS);
  render(createElement(ClockLine));
  vi.setSystemTime(AT(30)); // the network came back, and set it
  hear(AT(30), AT(30));
  expect(screen.getByRole("status").textContent).toMatch(/clock was set forward by 3 h.*Check the times/);
  act(() => screen.getByRole("button", { name: "I have seen it" }).click());
  expect(screen.queryByRole("status")).toBeNull();
});
