// @vitest-environment jsdom
/** Alarms: at their instants over two hours of a controlled clock, again until heard, through a reload, on any page. */

import { QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, fireEvent, render, screen } from "@testing-library/react";
import { MemoryRouter } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { RunCard } from "../api/client";
import { queryClient } from "../api/queries";
import { pass, serve } from "../testing";
import { createFormatters } from "../ui/formatters";
import { METRIC } from "../words/measures";
import { AlarmChannelSettings } from "./AlarmChannelSettings";
import { alarmsOf, clocksOf, ringing, stirs } from "./alarms";
import { manners } from "./ring";

const NOW = Date.UTC(2026, 10, 25, 9, 0);
const MIN = 60_000;
const at = (minute: number) => new Date(NOW + minute * MIN).toISOString();

const card = (more: object = {}, clock: object = {}): RunCard =>
  ({
    id: 3,
    title: "Black tea cake",
    way: "set-cake",
    rehearsed: false,
    wall: at(0),
    step: "Steam",
    state: { now: at(0) },
    clocks: [
      {
        step: "steam",
        title: "Steam",
        due: at(44),
        first_check: at(35),
        latest: at(57),
        top_up: at(52),
        top_up_ml: 110,
        ...clock,
      },
    ],
    ...more,
  }) as unknown as RunCard;

/** What rings over so many minutes, looked at twice a second, as (kind, second) pairs. */
function over(minutes: number, cards: RunCard[], heard: Set<string> = new Set(), hearAt: Record<string, number> = {}) {
  const rung = new Map<string, number>();
  const result: [string, number][] = [];
  for (let ms = 0; ms <= minutes * MIN; ms += 500) {
    for (const alarm of ringing(alarmsOf(createFormatters(METRIC), cards, NOW + ms), heard, rung, NOW + ms)) {
      rung.set(alarm.key, NOW + ms);
      result.push([alarm.kind, ms / 1000]);
      const second = hearAt[alarm.kind];
      if (second != null && ms / 1000 >= second) heard.add(alarm.key);
    }
  }
  return result;
}

describe("when somebody is called", () => {
  it("within a second of its instant, over two hours", () => {
    const rings = over(120, [card()]);
    const firsts = Object.fromEntries([...rings].reverse());
    expect(firsts).toEqual({ first: 35 * 60, likely: 44 * 60, "top-up": 52 * 60, latest: 57 * 60 });
  });

  it("calmly first, then again and again until it is heard, most often past the latest", () => {
    const rings = over(60, [card()]);
    const of = (kind: string) => rings.filter(([name]) => name === kind).map(([, second]) => second);
    expect(of("first")).toEqual([35, 37, 39, 41, 43].map((minute) => minute * 60));
    expect(of("latest").slice(0, 4)).toEqual([3420, 3440, 3460, 3480]);
    const heard = over(60, [card()], new Set(), { first: 0, likely: 0, "top-up": 0, latest: 3460 });
    expect(heard.map(([kind]) => kind)).toEqual(["first", "likely", "top-up", "latest", "latest", "latest"]);
  });

  it("softly at every stir, once each, at its own pace in a rehearsal", () => {
    const stirred = card({}, { rhythm: { every_s: 30, says: "Stir", since: at(0) } });
    const turns = [];
    const rung = new Map<string, number>();
    for (let ms = 0; ms <= 2 * MIN; ms += 500)
      for (const alarm of ringing(stirs([stirred], NOW + ms), new Set(), rung, NOW + ms)) {
        rung.set(alarm.key, NOW + ms);
        turns.push(ms / 1000);
      }
    expect(turns).toEqual([30, 60, 90, 120]);
    const quick = card({ rehearsed: true }, { rhythm: { every_s: 30, says: "Stir", since: at(0) } });
    expect(stirs([quick], NOW + 1_600)[0]?.key).toBe("3 steam stir 3");
  });

  it("a step without a window when it is done; a rehearsal sixty times as fast", () => {
    const plain = card({}, { first_check: null, latest: null, top_up: null });
    expect(over(45, [plain])[0]).toEqual(["done", 44 * 60]);
    const quick = over(1, [card({ rehearsed: true })]);
    expect(quick[0]).toEqual(["first", 35]);
  });

  it("nobody is called for what was left running since yesterday", () => {
    expect(alarmsOf(createFormatters(METRIC), [card()], NOW + 26 * 60 * MIN)).toHaveLength(2);
    expect(
      ringing(
        alarmsOf(createFormatters(METRIC), [card()], NOW + 26 * 60 * MIN),
        new Set(),
        new Map(),
        NOW + 26 * 60 * MIN,
      ),
    ).toEqual([]);
  });
});

it("all clocks of all runs stand in the order in which they want somebody", () => {
  const other = card(
    { id: 4, title: "Balls" },
    { step: "boil", title: "Boil", due: at(9), first_check: at(7), latest: at(11), top_up: null },
  );
  const told = clocksOf([card(), other], NOW).map((clock) => [clock.runTitle, (clock.next - NOW) / MIN]);
  expect(told).toEqual([
    ["Balls", 7],
    ["Black tea cake", 35],
  ]);
  expect((clocksOf([other], NOW + 20 * MIN)[0]?.next ?? 0) - NOW).toBe(11 * MIN); // over since then
});

describe("on every page", () => {
  const notes: number[] = [];
  beforeEach(() => {
    vi.useFakeTimers({ now: NOW });
    vi.stubGlobal("Worker", undefined);
    const node = () => ({
      connect: (to: unknown) => to,
      start: () => notes.push(Date.now()),
      stop: () => {},
      frequency: {},
      gain: { setValueAtTime: () => {}, linearRampToValueAtTime: () => {}, exponentialRampToValueAtTime: () => {} },
    });
    vi.stubGlobal(
      "AudioContext",
      class {
        currentTime = 0;
        destination = {};
        createOscillator = node;
        createGain = node;
      },
    );
    serve(() => ({ body: [card()] }));
    notes.length = 0;
    document.title = "Counter · Kemble";
  });
  afterEach(() => {
    cleanup();
    queryClient.clear();
    localStorage.clear();
    vi.useRealTimers();
    vi.unstubAllGlobals();
    vi.resetModules();
  });

  async function show(path = "/") {
    const { ClockStrip } = await import("./ClockStrip"); // anew, as after a reload
    const { TellingsProvider } = await import("../runs/EventSenders");
    render(
      <QueryClientProvider client={queryClient}>
        <MemoryRouter initialEntries={[path]}>
          <TellingsProvider>
            <ClockStrip />
          </TellingsProvider>
        </MemoryRouter>
      </QueryClientProvider>,
    );
    await act(() => pass(600));
  }

  it("the clock is named, goes down, and stands in the tab's title", async () => {
    await show();
    expect(screen.getByRole("link", { name: /Steam/ }).textContent).toContain("34:5");
    expect(document.title).toMatch(/^\(34:5\d Steam\) Counter · Kemble$/);
    await act(() => pass(10 * MIN));
    expect(document.title).toMatch(/^\(24:[45]\d Steam\) Counter · Kemble$/);
  });

  it("it rings at the first look, until it is heard, and a reload does not ring again", async () => {
    await show();
    await act(() => pass(36 * MIN));
    expect(screen.getByRole("alert").textContent).toContain("Steam: the first look");
    expect(Math.abs((notes[0] as number) - (NOW + 35 * MIN))).toBeLessThan(1_000);
    fireEvent.click(screen.getByRole("button", { name: "Heard" }));
    await act(() => pass(600));
    expect(screen.queryByRole("alert")).toBeNull();
    notes.length = 0;
    cleanup();
    queryClient.clear();
    vi.resetModules();
    await show();
    await act(() => pass(3 * MIN));
    expect(notes).toEqual([]);
  });

  it("what is past its latest is red in words and shape", async () => {
    await show();
    await act(() => pass(58 * MIN));
    expect(screen.getByText(/past its latest/)).toBeTruthy();
    expect(screen.getByRole("link", { name: /Steam/ }).textContent).toContain(", over");
  });
});

it("each way of calling is chosen on this device, and tried out", () => {
  const shaken: unknown[] = [];
  Object.defineProperty(navigator, "vibrate", { value: (how: unknown) => shaken.push(how), configurable: true });
  render(<AlarmChannelSettings />);
  fireEvent.click(screen.getByRole("button", { name: "try it: a vibration" }));
  expect(shaken).toEqual([[200]]);
  fireEvent.click(screen.getByRole("checkbox", { name: "a spoken line" }));
  expect(manners()).toMatchObject({ tone: true, speech: true });
  cleanup();
  localStorage.clear();
});
