/** What front-end tests share: a stand-in for the server that answers as told, and facts by hand. */

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, fireEvent, screen } from "@testing-library/react";
import type { ReactNode } from "react";
import { MemoryRouter } from "react-router";
import { vi } from "vitest";
import type { Fact, KitchenSettings, Sheet, SheetOpen, StepResult, WayCard, WorkResult } from "./api/client";
import { TIME_HEADER } from "./api/connection";
import { queryClient } from "./api/queries";
import { newPart } from "./sheet/edits";

export interface SeenRequest {
  method: string;
  path: string;
  query: URLSearchParams;
  body: unknown;
}

/** "hang": it comes there and is answered when the test lets it. "lost": it comes there, and its answer does not. */
export type Answer = { status?: number; body?: unknown } | "unreachable" | "hang" | "lost";

/** Replaces `fetch`. Each request is noted and handed to `answer`; `settle` lets hanging ones go. */
export function serve(answer: (request: SeenRequest) => Answer) {
  const requests: SeenRequest[] = [];
  const hanging: (() => void)[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    const text = await request.text();
    const { pathname, searchParams } = new URL(request.url);
    const isJson = request.headers.get("Content-Type")?.includes("json");
    const body = text && isJson ? JSON.parse(text) : null; // a form with a file is not looked into
    const seen = { method: request.method, path: pathname, query: searchParams, body };
    requests.push(seen);
    let response = answer(seen);
    if (response === "hang") {
      await new Promise<void>((go) => hanging.push(go));
      response = answer(seen);
    }
    if (typeof response === "string") throw new TypeError("no network");
    return new Response(response.status === 204 ? null : JSON.stringify(response.body ?? {}), {
      status: response.status ?? 200,
      headers: { "Content-Type": "application/json", ...timeOf(response.body) },
    });
  });
  return {
    requests,
    settle: () => {
      for (const go of hanging.splice(0)) go();
    },
  };
}

/** A server that says in its answer what its clock shows says so in its head, too. */
const timeOf = (body: unknown): Record<string, string> => {
  const wall = (body as { wall?: string } | undefined)?.wall;
  return wall ? { [TIME_HEADER]: wall } : {};
};

/** Lets so much time pass on the test's own clock, and everything that was waiting for it happen. */
export const pass = (ms: number) =>
  act(async () => {
    await vi.advanceTimersByTimeAsync(ms);
    for (let i = 0; i < 25; i++) await vi.advanceTimersByTimeAsync(0);
  });

/** For what asks how large it is: here nothing ever is. */
export const stubResizes = () =>
  vi.stubGlobal(
    "ResizeObserver",
    class {
      observe() {}
      unobserve() {}
      disconnect() {}
    },
  );

/** Picks out of a menu as the keyboard does. */
export function pick(menu: string | RegExp, item: string | RegExp) {
  fireEvent.keyDown(screen.getByRole("button", { name: menu }), { key: "Enter" });
  fireEvent.click(screen.getByRole("menuitem", { name: item }));
}

export function Around({ children }: { children: ReactNode }) {
  const { mutations } = queryClient.getDefaultOptions();
  const client = new QueryClient({ defaultOptions: { queries: { retry: false }, mutations } });
  return (
    <MemoryRouter>
      <QueryClientProvider client={client}>{children}</QueryClientProvider>
    </MemoryRouter>
  );
}

export const fact = (key: string, value: number | string, unit = "", more: Partial<Fact> = {}): Fact => ({
  key,
  label: key,
  value,
  unit,
  decimals: 0,
  low: null,
  high: null,
  because: { says: `why ${key}`, source: "a test", inputs: [] },
  ...more,
});

export const facts = (...result: Fact[]) => Object.fromEntries(result.map((item) => [item.key, item]));

export const worked = (...result: Fact[]): WorkResult => ({
  facts: facts(...result),
  advice: [],
  cautions: [],
  allergens: [],
  steps: [],
  drawings: { mix: null, shape: null, heat: null, cut: null } as unknown as WorkResult["drawings"],
  problems: [],
  checks: [],
  lines: [],
  parts: [],
  grain: null,
  core: null,
  stages: [],
  hangs: [],
  given_times: [],
  method: { left_out: [], notes: [], dormant: [] },
  cooling: null,
});

export function sheet(water = 375, title = "A cake"): Sheet {
  const line = (ingredient: string, value: number) => ({
    ingredient,
    amount: { value, unit: "g" as const },
    splits: [],
    reserve: null,
    reserve_for: "",
    joins: "",
  });
  return {
    format: "kemble-sheet",
    version: 3,
    title,
    way: "set-cake",
    schools: {},
    parts: [newPart("base", "batter", "", [line("sweet-rice-flour", 300), line("water", water)])],
    grain: { rinses: 3, soak_min: 480, soak_c: 18, drain_min: 30 },
    pieces: {},
    vessel: {
      tin: {
        name: "",
        shape: "round",
        diameter_mm: 180,
        length_mm: 200,
        width_mm: 200,
        height_mm: 60,
        material: "metal",
      },
      count: 1,
    },
    heat: { level: "medium", stages: [] },
    method: [],
    wrap: {},
    start: { batter_c: 45, dough_c: 26 },
    cut: { pieces: 24 },
    serve: null,
  } as unknown as Sheet;
}

/** A kitchen with nothing weighed and a way with one choice, as far as the stations read them. */
export const KITCHEN = {
  name: "Test",
  measures: "metric",
  tins: [],
  pans: [],
  stock: [],
  weighed: [],
  ingredients: [],
  currency: "",
  estimates: {},
  own_cup_ml: null,
  own_spoon_ml: null,
} as unknown as KitchenSettings;
export const WAY = {
  id: "set-cake",
  form: "tin",
  base: "flour",
  words: {},
  choices: [],
  steps: [],
  scalds: {},
  batters: {},
  leaves_each: 0,
} as unknown as WayCard;

export const waterOf = (item: Sheet) => item.parts[0]?.lines[1]?.amount.value;

export const opened = (item: Sheet, revision = 1): SheetOpen => ({
  id: 7,
  revision,
  changed: "2026-11-25T09:00:00Z",
  sheet: item,
  worked: worked(fact("mix.hydration_pct", (waterOf(item) ?? 0) / 3, "%")),
  dots: [],
});

/** A page of a list, as the server gives it, with everything on the first. */
export const pageOf = <T,>(sheets: T[]) => ({ sheets, page: 1, pages: 1, total: sheets.length });

/** A step of a method as the server works it out: by itself, with nothing in it. */
export const stepResult = (id: string, more: Partial<StepResult> = {}): StepResult => ({
  id,
  entry: id,
  part: null,
  title: `Title of ${id}`,
  words: `Words of ${id}.`,
  own_words: "",
  texts: [],
  tins: [],
  serves: false,
  asks: "",
  fact: "",
  minutes: 30,
  hands: "held",
  uses: [],
  after: [],
  cue: null,
  window: null,
  between: null,
  hangs: {},
  target: null,
  to_hand: [],
  work: "messy",
  tools: [],
  brings: [],
  cautions: [],
  ...more,
});
