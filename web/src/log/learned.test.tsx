// @vitest-environment jsdom
/** What was learned, revisions and things side by side: what each press tells the kitchen, and what is said of it. */

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { MemoryRouter, Route, Routes } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { LearnedPage as Page, SideBySide } from "../api/client";
import RevisionsPage from "../sheet/RevisionsPage";
import { type Answer, pass, type SeenRequest, serve } from "../testing";
import ComparePage from "./ComparePage";
import LearnedPage from "./LearnedPage";

beforeEach(() => {
  vi.useFakeTimers();
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

const KITCHEN = { kitchen: { timezone: "UTC", temperature_unit: "C" }, set_up: true };

async function show(path: string, answer: (request: SeenRequest) => Answer) {
  const { requests } = serve((request) => (request.path === "/api/kitchen" ? { body: KITCHEN } : answer(request)));
  render(
    <MemoryRouter initialEntries={[path]}>
      <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
        <Routes>
          <Route path="/log/learned" element={<LearnedPage />} />
          <Route path="/compare" element={<ComparePage />} />
          <Route path="/sheets/:sheetId/revisions" element={<RevisionsPage />} />
          <Route path="*" element={<p>elsewhere</p>} />
        </Routes>
      </QueryClientProvider>
    </MemoryRouter>,
  );
  await pass(100);
  return requests;
}

const MADE = "2026-11-20T10:00:00Z";
const PAGE: Page = {
  batches: 6,
  rows: [
    {
      id: "burner",
      about: "stove",
      words: "the burner's power",
      unit: "x",
      moves: "all that boils",
      is_log: true,
      craft: { low: 0.75, value: 1, high: 1.33 },
      own: { low: 0.78, value: 0.84, high: 0.9 },
      measured: false,
      held: false,
      pulls: [{ batch: 4, title: "Quince cake", made: MADE, by: -0.3 }],
    },
  ],
  teaches: [
    {
      says: "Put a thermometer in the steam",
      brings_min: 4.2,
      takes_min: 5,
      measurement: "steam",
      because: "it settles the steam's leak",
    },
  ],
  left_out: [{ batch: 9, title: "Tea cake", made: MADE, why: ["you left it out"], whole: true, chosen: true }],
  odd: [],
  pace: [{ step: "ball-filling", title: "Ball the filling", times: 1.3 }],
  cups: [
    {
      words: "own cup of sweet rice flour",
      craft: { low: 110, value: 130, high: 160 },
      own: { low: 122, value: 126, high: 130 },
    },
  ],
  moved: [],
};

describe("what this kitchen has learned", () => {
  it("shows each row as cooks have it and as it is here, and the makings that moved it", async () => {
    await show("/log/learned", () => ({ body: PAGE }));
    const row = screen.getByRole("region", { name: "Stove and pots" });
    expect(row.textContent).toContain("The burner's power");
    expect(row.textContent).toContain("0.84");
    expect(
      screen.getByRole("img", { name: "Cooks have 0.75 to 1.33, you have 0.78 to 0.90 x" }).querySelectorAll("rect"),
    ).toHaveLength(2);
    expect(
      within(row)
        .getByRole("link", { name: /^Quince cake/ })
        .getAttribute("href"),
    ).toBe("/log/4");
    expect(screen.getByRole("region", { name: "What would teach most" }).textContent).toContain("4.2 min less");
    expect(screen.getByText("Ball the filling")).toBeTruthy();
    const cups = screen.getByRole("region", { name: "Your cups" });
    expect(cups.textContent).toContain("Own cup of sweet rice flour126 g · cooks have 130");
    expect(screen.getByRole("img", { name: "Cooks have 110 to 160, you have 122 to 130 g" })).toBeTruthy();
  });

  it("sets a row back, and says what that moved", async () => {
    const moved = [{ words: "the burner's power", unit: "x", was: 0.84, now: 1 }];
    const requests = await show("/log/learned", (request) => ({
      body: request.method === "PUT" ? { ...PAGE, rows: [], moved } : PAGE,
    }));
    fireEvent.click(screen.getByText("set it back, and hold it there"));
    await pass(50);
    const put = requests.find((request) => request.method === "PUT");
    expect([put?.path, put?.body]).toEqual(["/api/learned/burner", { held: true }]);
    expect(screen.getByRole("status").textContent).toContain("The burner's power 0.84 to 1.00 x");
  });

  it("leaves a making out, and learns from it again", async () => {
    const requests = await show("/log/learned", () => ({ body: PAGE }));
    fireEvent.click(screen.getByText("leave it out"));
    await pass(50);
    fireEvent.click(screen.getByText("learn from it again"));
    await pass(50);
    expect(
      requests.filter((request) => request.method === "PUT").map((request) => [request.path, request.body]),
    ).toEqual([
      ["/api/log/4/left-out", { left_out: true }],
      ["/api/log/9/left-out", { left_out: false }],
    ]);
  });

  it("with nothing learned says how it begins", async () => {
    await show("/log/learned", () => ({
      body: { ...PAGE, batches: 0, rows: [], teaches: [], pace: [], left_out: [], cups: [] },
    }));
    expect(screen.getByText(/Time a step, weigh a dough, read a heart/)).toBeTruthy();
  });
});

describe("side by side", () => {
  const TIN = { kind: "tin" as const, wide_mm: 180, high_mm: 32, core_mm: 0 };
  const TWO: SideBySide = {
    columns: [
      { kind: "batch", id: 1, title: "Tea cake", made: MADE, verdict: "too soft", way: "set-cake", section: TIN },
      { kind: "sheet", id: 7, title: "Quince cake", made: null, verdict: "", way: "set-cake", section: null },
    ],
    rows: [{ key: "shape.depth_mm", label: "how deep it lies", unit: "mm", values: ["32", null], numbers: [32, null] }],
    differs: [[], ["water 320 g, not 300 g"]],
  };

  it("shows only what differs, and what one has that the other has not", async () => {
    await show("/compare?batches=1&sheets=7", (request) => ({ body: request.path === "/api/ways" ? [] : TWO }));
    const row = screen.getByRole("row", { name: /^How deep it lies/ });
    expect(
      within(row)
        .getAllByRole("cell")
        .map((cell) => cell.textContent),
    ).toEqual(["32 mm", "– "]);
    expect(screen.getByText("Water 320 g, not 300 g")).toBeTruthy();
    expect(screen.getByRole("link", { name: "Quince cake" }).getAttribute("href")).toBe("/sheets/7/mix");
  });
});

describe("revisions", () => {
  const SHEET = { title: "Tea cake", way: "set-cake", parts: [] };
  const CARDS = {
    title: "Tea cake",
    at: 2,
    page: 1,
    pages: 1,
    total: 2,
    revisions: [
      { number: 2, saved: MADE, name: "", changed: ["water 320 g, not 300 g"], batches: [] },
      {
        number: 1,
        saved: MADE,
        name: "the first",
        changed: [],
        batches: [{ batch: 4, made: MADE, verdict: "too soft" }],
      },
    ],
  };
  const answer = (request: SeenRequest): Answer => {
    if (request.path === "/api/sheets/7/revisions") return { body: CARDS };
    if (request.path === "/api/sheets/7/revisions/1" && request.method === "GET") return { body: SHEET };
    if (request.method === "PUT" && request.path === "/api/sheets/7") return { body: { revision: 3 } };
    if (request.method === "POST") return { body: { id: 12 } };
    return { body: CARDS };
  };

  it("says of each what changed and what was made from it", async () => {
    await show("/sheets/7/revisions", answer);
    expect(screen.getByText("Water 320 g, not 300 g.")).toBeTruthy();
    expect(screen.getByText("As it began.")).toBeTruthy();
    expect(screen.getByRole("link", { name: /too soft/ }).getAttribute("href")).toBe("/log/4");
    expect(screen.getAllByText("go back to it")).toHaveLength(1);
  });

  it("goes back over the newest", async () => {
    const requests = await show("/sheets/7/revisions", answer);
    fireEvent.click(screen.getByText("go back to it"));
    await pass(50);
    expect(requests.find((request) => request.method === "PUT")?.body).toMatchObject({ revision: 2, sheet: SHEET });
  });

  it("branches off as a sheet of its own", async () => {
    const requests = await show("/sheets/7/revisions", answer);
    fireEvent.click(screen.getAllByText("a sheet of its own")[1] as HTMLElement);
    await pass(50);
    expect(requests.find((request) => request.method === "POST")?.body).toMatchObject({
      sheet: { title: "Tea cake, from revision 1" },
    });
    expect(screen.getByText("elsewhere")).toBeTruthy();
  });

  it("gives one a name", async () => {
    const requests = await show("/sheets/7/revisions", answer);
    const field = screen.getByLabelText("A name for revision 2");
    fireEvent.change(field, { target: { value: "softer" } });
    fireEvent.blur(field);
    await pass(50);
    expect(requests.find((request) => request.method === "PUT")).toMatchObject({
      path: "/api/sheets/7/revisions/2",
      body: { name: "softer" },
    });
  });
});
