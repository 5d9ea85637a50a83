// @vitest-environment jsdom
/** Her way and mine: the clouds and clocks are true to the numbers, and what is not told apart says so. */

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { MemoryRouter, Route, Routes } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Comparison } from "../api/client";
import { pass, serve } from "../testing";
import SheetComparisonPage from "./SheetComparisonPage";

beforeEach(() => vi.useFakeTimers());
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

const lies = (likely: number, by: number) => ({ likely, low: likely - by, high: likely + by });
const square = (water: number, sugar: number, by: number) =>
  [
    [-1, 0],
    [0, 1],
    [1, 0],
    [0, -1],
  ].map(([a = 0, b = 0]) => ({ water: water + a * by, sugar: sugar + b * by }));
const TOLD: Comparison = {
  hers: {
    title: "Hers",
    hydration: lies(140, 20),
    sugar: lies(80, 20),
    outline: square(140, 80, 20),
    minutes: lies(60, 15),
    given_min: 70,
    open: [{ words: "how a cup of flour is filled", weigh: "Weigh a cup of flour", narrows_pct: 62 }],
  },
  mine: {
    title: "Mine",
    hydration: lies(120, 0),
    sugar: lies(80, 0),
    outline: square(120, 80, 0),
    minutes: lies(40, 10),
    given_min: null,
    open: [],
  },
  explained: [
    { outcome: "water", says: "more: hers has 140 %, mine 120", by: [], sure: false },
    { outcome: "time", says: "20 min longer in its heat", by: ["the tin alone: 14 min longer"], sure: true },
  ],
  methods: [{ title: "Rest the batter", hers: "15 min", mine: "" }],
  weigh: "Weigh a cup of flour: the cloud of Hers becomes 62 % smaller",
};
const WAY = {
  id: "set-cake",
  name: "Steamed set cake",
  base: "flour",
  zone: [
    { hydration_pct: 100, sugar_pct: 60 },
    { hydration_pct: 170, sugar_pct: 60 },
    { hydration_pct: 150, sugar_pct: 110 },
  ],
};

async function show(path: string, sheets = [{ id: 2, title: "Hers", way: "set-cake" }]) {
  const { requests } = serve((request) => {
    if (request.path === "/api/ways") return { body: [WAY] };
    if (request.path === "/api/sheets")
      return { body: { sheets: [...sheets, { id: 1, title: "Mine", way: "set-cake" }] } };
    if (request.path === "/api/sheets/1") return { body: { sheet: { title: "Mine", way: "set-cake" } } };
    if (request.path === "/api/beside") return { body: TOLD };
    return { body: {} };
  });
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <MemoryRouter initialEntries={[path]}>
        <Routes>
          <Route path="/sheets/:sheetId/beside" element={<SheetComparisonPage />} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  );
  await pass(100);
  return requests;
}

const numbers = (element: Element, ...names: string[]) => names.map((name) => Number(element.getAttribute(name)));

describe("her way and mine", () => {
  it("asks which is hers, and then for both", async () => {
    const requests = await show("/sheets/1/beside");
    expect(screen.queryByRole("radio", { name: "Mine" })).toBeNull();
    fireEvent.click(screen.getByRole("radio", { name: "Hers" }));
    await pass(100);
    const query = requests.find((request) => request.path === "/api/beside")?.query;
    expect([query?.get("hers"), query?.get("mine")]).toEqual(["2", "1"]);
  });

  it("draws both on one map and one clock", async () => {
    await show("/sheets/1/beside?hers=2");
    const [clouds, clocks] = [screen.getByRole("img", { name: /^Map/ }), screen.getByRole("img", { name: /^Heat/ })];
    const corners = (clouds.querySelector('[data-cloud="hers"] polygon')?.getAttribute("points") ?? "")
      .split(" ")
      .map((point) => Number(point.split(",")[0]));
    const [mine = 0] = numbers(clouds.querySelector('[data-cloud="mine"] circle') as Element, "cx");
    const [left = 0, , right = 0] = corners; // 120, 140, 160
    expect(mine).toBeCloseTo(left, 0); // mine lies where hers begins
    expect(right).toBeGreaterThan(left);
    const [hers, my] = [...clocks.querySelectorAll("rect")].map((bar) => numbers(bar, "x", "width"));
    const [hersX = 0, hersWide = 0] = hers ?? [];
    const [myX = 0, myWide = 0] = my ?? [];
    expect(hersWide / myWide).toBeCloseTo(1.5, 6); // 45 to 75 over 30 to 50
    expect((hersX - myX) / myWide).toBeCloseTo(15 / 20, 6);
    expect(clocks.textContent).toContain("given 70");
  });

  it("says what explains what, what is not told apart, and what to weigh", async () => {
    await show("/sheets/1/beside?hers=2");
    const told = screen.getByRole("region", { name: "What explains what" });
    expect(told.textContent).toContain("mine 120; not told apart");
    expect(told.textContent).toContain("the tin alone: 14 min longer");
    expect(screen.getByText("Weigh a cup of flour: the cloud of Hers becomes 62 % smaller.")).toBeTruthy();
    expect(screen.getByRole("region", { name: "What stays open of hers" }).textContent).toContain("62 % of the cloud");
    expect(screen.queryByRole("region", { name: "What stays open of mine" })).toBeNull();
  });

  it("alone it says how to enter hers", async () => {
    await show("/sheets/1/beside", []);
    expect(screen.getByRole("link", { name: "paste it" }).getAttribute("href")).toBe("/paste");
  });
});
