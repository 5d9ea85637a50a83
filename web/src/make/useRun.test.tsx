// @vitest-environment jsdom
/** Events outlive a reload and a loss of network; clocks come from instants at the run's own pace. */

import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { NewEvent, RunOpen } from "../api/client";
import { Around, pass, serve } from "../testing";
import { useRun } from "./useRun";

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

const run = (more: Partial<RunOpen> = {}) => ({ id: 3, now: "2026-11-25T09:00:00Z", pace: 1, ...more }) as RunOpen;
const mount = () => renderHook(() => useRun(3), { wrapper: Around });
const kept = () => JSON.parse(localStorage.getItem("kemble-events-3") ?? "[]") as NewEvent[];

describe("an event", () => {
  it("is sent once, with an id and the run's own time", async () => {
    const { asked } = serve(() => ({ body: run() }));
    const { result } = mount();
    await pass(50);
    act(() => result.current.tell({ kind: "started", step: "mix" }));
    await pass(50);
    const sent = asked.filter((one) => one.method === "POST").map((one) => one.body as NewEvent);
    expect(sent).toHaveLength(1);
    expect(sent[0]).toMatchObject({ kind: "started", step: "mix", grams: null });
    expect(sent[0]?.uid.length).toBeGreaterThan(7);
    expect(sent[0]?.at).toMatch(/^2026-11-25T09:00:0\d/);
    expect(result.current.unsent).toBe(0);
    expect(kept()).toEqual([]);
  });

  it("waits for the network, and goes out in order with its own time", async () => {
    let away = false;
    const { asked } = serve((one) => (away && one.method === "POST" ? "unreachable" : { body: run() }));
    const { result } = mount();
    await pass(50);
    away = true;
    act(() => result.current.tell({ kind: "done", step: "mix" }));
    await pass(100);
    act(() => result.current.tell({ kind: "noted", text: "thick" }));
    await pass(100);
    expect(result.current.unsent).toBe(2);
    const tried = asked.filter((one) => one.method === "POST").length;
    away = false;
    await pass(3_100);
    const sent = asked.filter((one) => one.method === "POST").slice(tried);
    expect(sent.map((one) => (one.body as NewEvent).kind)).toEqual(["done", "noted"]);
    expect(result.current.unsent).toBe(0);
  });

  it("outlives a reload", async () => {
    let away = true;
    const { asked } = serve((one) => (away && one.method === "POST" ? "unreachable" : { body: run() }));
    const first = mount();
    await pass(50);
    act(() => first.result.current.tell({ kind: "weighed", step: "mix", grams: 931 }));
    await pass(50);
    first.unmount();
    expect(kept()).toHaveLength(1);
    away = false;
    mount();
    await pass(100);
    expect(asked.some((one) => (one.body as NewEvent | null)?.grams === 931)).toBe(true);
    expect(kept()).toEqual([]);
  });

  it("that will never be taken is said and does not block the next", async () => {
    const problem = { path: "step", says: "is not a step of this run", accepts: "mix" };
    serve((one) =>
      (one.body as NewEvent | null)?.step === "dance"
        ? { status: 422, body: { problems: [problem] } }
        : { body: run() },
    );
    const { result } = mount();
    await pass(50);
    act(() => result.current.tell({ kind: "done", step: "dance" }));
    await pass(50);
    expect(result.current.refused?.problems).toEqual([problem]);
    act(() => result.current.tell({ kind: "done", step: "mix" }));
    await pass(50);
    expect(result.current.refused).toBeNull();
    expect(kept()).toEqual([]);
  });

  it("is kept when the server stumbles", async () => {
    serve((one) => (one.method === "POST" ? { status: 502, body: {} } : { body: run() }));
    const { result } = mount();
    await pass(50);
    act(() => result.current.tell({ kind: "done", step: "mix" }));
    await pass(50);
    expect(result.current.unsent).toBe(1);
    expect(kept()).toHaveLength(1);
  });
});

describe("the run's clock", () => {
  it.each([
    [1, 10_000],
    [60, 600_000],
  ])("goes %i times as fast as the wall's", async (pace, expected) => {
    serve(() => ({ body: run({ pace }) }));
    const { result } = mount();
    await pass(20);
    const before = result.current.now();
    vi.setSystemTime(Date.now());
    const real = vi.spyOn(performance, "now").mockReturnValue(performance.now() + 10_000);
    expect(result.current.now() - before).toBeCloseTo(expected, -3);
    real.mockRestore();
  });
});
