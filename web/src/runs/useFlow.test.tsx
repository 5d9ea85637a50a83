// @vitest-environment jsdom
/** Events outlive a reload and a loss of network; clocks come from instants at the run's own pace. */

import { act, cleanup, renderHook } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { NewEvent, RunOpen } from "../api/client";
import { type Answer, Around, pass, type SeenRequest, serve } from "../testing";
import { type EventSender, KEPT, TellingsProvider } from "./EventSenders";
import { eventOf } from "./fold";
import { useFlow } from "./useFlow";

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

const BEGAN = "2026-11-25T09:00:00Z";
const STEPS = ["mix", "rest"].map((id, i) => ({
  id,
  minutes: 10,
  hands: "held",
  after: i ? [{ step: "mix", at_least: 0 }] : [],
}));
const run = (more: Partial<RunOpen> = {}) =>
  ({
    id: 3,
    began: BEGAN,
    clock_began: BEGAN,
    wall: BEGAN,
    now: BEGAN,
    pace: 1,
    events: [],
    core: null,
    unit: "C",
    flow: [3],
    plan: { serve: BEGAN, begin: BEGAN, scheduled: STEPS.map((step) => ({ step, starts: BEGAN, ends: BEGAN })) },
    ...more,
  }) as unknown as RunOpen;

/** Keeps events as the real one does: the same uid twice is one; it is answered as it was kept. */
function server(how: (request: SeenRequest) => Answer | null = () => null) {
  const events: RunOpen["events"] = [];
  return serve((request) => {
    const told = how(request);
    if (told && told !== "lost") return told;
    if (request.path.endsWith("/news")) return { body: { wall: BEGAN, events: { 3: events.length } } };
    const event = post(request) ? (request.body as NewEvent) : null;
    if (event && !events.some((eachEvent) => eachEvent.uid === event.uid))
      events.push(eventOf(event, Date.parse(BEGAN)));
    if (told) return told;
    return { body: event ? events.find((eachEvent) => eachEvent.uid === event.uid) : run({ events: [...events] }) };
  });
}
const post = (request: SeenRequest) => request.method === "POST" && request.path.endsWith("/events");
const Both = ({ children }: { children: ReactNode }) => (
  <Around>
    <TellingsProvider>{children}</TellingsProvider>
  </Around>
);
const mount = () => renderHook(() => useFlow(3), { wrapper: Both });
const kept = () => JSON.parse(localStorage.getItem(KEPT) ?? "[]") as { one: EventSender }[];

describe("an event", () => {
  it("is sent once, with an id and the run's own time", async () => {
    const { requests } = server();
    const { result } = mount();
    await pass(50);
    act(() => result.current.tell(3, { kind: "started", step: "mix" }));
    await pass(50);
    const sent = requests.filter(post).map((request) => request.body as NewEvent);
    expect(sent).toHaveLength(1);
    expect(sent[0]).toMatchObject({ kind: "started", step: "mix", grams: null });
    expect(sent[0]?.uid.length).toBeGreaterThan(7);
    expect(sent[0]?.at).toMatch(/^2026-11-25T09:00:0\d/);
    expect(result.current.outbox.waiting).toEqual([]);
    expect(kept()).toEqual([]);
  });

  it("is seen at once, and goes out in order with its own time when the network is back", async () => {
    let away = false;
    const { requests } = server((request) => (away && post(request) ? "unreachable" : null));
    const { result } = mount();
    await pass(50);
    away = true;
    act(() => result.current.tell(3, { kind: "done", step: "mix" }));
    expect(result.current.run?.state.steps.map((step) => step.status)).toEqual(["done", "ready"]);
    await pass(100);
    act(() => result.current.tell(3, { kind: "noted", text: "thick" }));
    await pass(100);
    expect(result.current.run?.state.notes.map((note) => note.text)).toEqual(["thick"]);
    expect(result.current.outbox.waiting).toHaveLength(2);
    const tried = requests.filter(post).length;
    away = false;
    await pass(3_100);
    const sent = requests.filter(post).slice(tried);
    expect(sent.map((request) => (request.body as NewEvent).kind)).toEqual(["done", "noted"]);
    expect(result.current.outbox.waiting).toEqual([]);
    expect(result.current.run?.state.steps.map((step) => step.status)).toEqual(["done", "ready"]);
  });

  it("never comes before what the page shows, though the clock was set back meanwhile", async () => {
    server();
    const { result } = mount();
    await pass(30_000);
    act(() => result.current.tell(3, { kind: "noted", text: "first" }));
    await pass(50);
    const [first] = result.current.run?.events ?? [];
    act(() => localStorage.setItem("kemble-clock-off", String(Date.parse(BEGAN) - Date.now())));
    act(() => result.current.tell(3, { kind: "noted", text: "second" }));
    await pass(50);
    expect(result.current.run?.state.notes.map((note) => note.text)).toEqual(["first", "second"]);
    expect(result.current.run?.events[1]?.at).toBe(first?.at);
  });

  it("whose answer was lost is sent again and stands once", async () => {
    let lose = true;
    const { requests } = server((request) => {
      if (!post(request) || !lose) return null;
      lose = false;
      return "lost";
    });
    const { result } = mount();
    await pass(50);
    act(() => result.current.tell(3, { kind: "not_yet", step: "mix" }));
    await pass(2_000);
    const uids = requests.filter(post).map((request) => (request.body as NewEvent).uid);
    expect(uids).toEqual([uids[0], uids[0]]);
    expect(result.current.run?.events).toHaveLength(1);
  });

  it("outlives a reload", async () => {
    let away = true;
    const { requests } = server((request) => (away && post(request) ? "unreachable" : null));
    const first = mount();
    await pass(50);
    act(() => first.result.current.tell(3, { kind: "weighed", step: "mix", grams: 931 }));
    await pass(50);
    first.unmount();
    expect(kept()).toHaveLength(1);
    away = false;
    mount();
    await pass(100);
    expect(requests.some((request) => (request.body as NewEvent | null)?.grams === 931)).toBe(true);
    expect(kept()).toEqual([]);
  });

  it("stands, though the rest was being thought over before it was told", async () => {
    let thought: RunOpen | null = null; // as it was read, and answered only later
    const held = server((request) => {
      if (!request.path.endsWith("/rest")) return null;
      const answer = thought ?? run({ events: [...(result.current.run?.events ?? [])] });
      const answered = thought !== null;
      thought = answer;
      return answered ? { body: answer } : "hang";
    });
    const { result } = mount();
    await pass(50);
    act(() => result.current.tell(3, { kind: "started", step: "mix" }));
    await pass(50);
    act(() => result.current.tell(3, { kind: "done", step: "mix" }));
    await pass(50);
    expect(held.requests.filter((request) => request.path.endsWith("/rest")).length).toBeGreaterThan(0);
    held.settle();
    await pass(50);
    expect(result.current.run?.state.steps.map((step) => step.status)).toEqual(["done", "ready"]);
  });

  it("that will never be taken is kept, shown, and does not block the next", async () => {
    const problem = { path: "step", says: "is not a step of this run", accepts: "mix" };
    server((request) =>
      (request.body as NewEvent | null)?.step === "dance" ? { status: 422, body: { problems: [problem] } } : null,
    );
    const { result } = mount();
    await pass(50);
    act(() => result.current.tell(3, { kind: "done", step: "dance" }));
    await pass(50);
    act(() => result.current.tell(3, { kind: "done", step: "mix" }));
    await pass(50);
    expect(result.current.outbox.refused.map((entry) => entry.refused)).toEqual([[problem]]);
    expect(result.current.run?.events.map((event) => event.step)).toEqual(["mix"]);
    expect(kept()).toHaveLength(1);
    act(() => result.current.outbox.seen(result.current.outbox.refused[0]?.one.uid as string));
    expect(kept()).toEqual([]);
  });

  it.each([401, 403, 404, 409, 410, 429, 500, 502, 503, 507])("answered %i is kept, and sent again", async (status) => {
    let stumbles = true;
    const { requests } = server((request) => (stumbles && post(request) ? { status, body: {} } : null));
    const { result } = mount();
    await pass(50);
    act(() => result.current.tell(3, { kind: "done", step: "mix" }));
    await pass(8_000); // after 1, 2 and 4 seconds
    expect(requests.filter(post)).toHaveLength(4);
    expect(result.current.outbox.waiting).toHaveLength(1);
    expect(kept()).toHaveLength(1);
    stumbles = false;
    await pass(8_000);
    expect(kept()).toEqual([]);
    expect(result.current.run?.events.map((event) => event.kind)).toEqual(["done"]);
  });
});

it("what is told says what this device's clock showed, and how far that is known to be off", async () => {
  vi.setSystemTime(Date.parse(BEGAN) - 3 * 3_600_000);
  const { requests } = server(() => null);
  const { result } = mount();
  await pass(50);
  act(() => result.current.tell(3, { kind: "done", step: "mix" }));
  const pressed = Date.now();
  await pass(50);
  const body = requests.find(post)?.body as NewEvent;
  expect(body.device_at).toBe(new Date(pressed).toISOString());
  expect(Date.parse(body.device_now ?? "")).toBeGreaterThanOrEqual(pressed);
  expect(body.clock_error_s).toBeCloseTo(10_800, 0); // as the first answer told
  expect(Math.abs(Date.parse(body.at ?? "") - Date.parse(BEGAN))).toBeLessThan(5_000);
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
    expect(Math.abs(before - Date.parse(BEGAN))).toBeLessThan(1_000 * pace);
    vi.setSystemTime(Date.now() + 10_000);
    expect(result.current.now() - before).toBe(expected);
  });
});
