// @vitest-environment jsdom
/** The log: the list and its map, a batch told and happened, and what is said of it changed later. */

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { MemoryRouter } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { BatchCard, BatchOpen, WayCard } from "../api/client";
import { Around, fact, facts, pass, type SeenRequest, serve, stubResizes } from "../testing";
import { createFormatters } from "../ui/formatters";
import { METRIC } from "../words/measures";
import BatchPage from "./BatchPage";
import { codeOf } from "./codeOf";
import Log from "./Log";
import { PiecesWeighed, wordsOf } from "./PiecesWeighed";
import { TableIn } from "./TableIn";
import TastePage from "./TastePage";

vi.mock("react-router", async (original) => ({ ...(await original<object>()), useParams: () => ({ batchId: "4" }) }));
beforeEach(() => {
  vi.useFakeTimers();
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

const way = (id: string, name: string) =>
  ({
    id,
    name,
    zone: [
      { hydration_pct: 100, sugar_pct: 60 },
      { hydration_pct: 170, sugar_pct: 60 },
      { hydration_pct: 150, sugar_pct: 110 },
    ],
    zone_words: [],
    tastes: [
      { id: "softness", too_little: "too firm", too_much: "too soft", asked: true },
      { id: "colour", too_little: "too pale", too_much: "too dark", asked: false },
    ],
    faults: [{ id: "specks", seen: "white specks", cause: "lumps", now: "", next_time: "sieve" }],
  }) as unknown as WayCard;
const card = (id: number, of: string, verdict: BatchCard["verdict"], more: Partial<BatchCard> = {}) =>
  ({
    id,
    run: id,
    title: `Cake ${id}`,
    way: of,
    made: `2026-11-${10 + id}T09:00:00Z`,
    rehearsed: false,
    verdict,
    tastes: { softness: 1 },
    hydration_pct: 120 + id,
    sugar_pct: 80,
    note: "",
    ...more,
  }) as BatchCard;
const PAGE = 2; // the server's are longer
const CARDS = [
  card(3, "set-cake", "just right"),
  card(2, "set-cake", "too soft", { rehearsed: true }),
  card(1, "boiled-balls", "too firm", { note: "Crowded." }),
];
const compared = (
  step: string,
  unit: string,
  predicted: number,
  happened: number,
  low: number | null,
  high: number | null,
) => ({
  step,
  label: `step ${step}`,
  unit,
  predicted,
  happened,
  low,
  high,
});
const BATCH = {
  ...card(4, "set-cake", "too soft"),
  sheet: 7,
  pieces: null,
  compared: [
    compared("steam", "min", 30, 33, 25, 40),
    compared("cool", "min", 120, 90, 100, 150),
    compared("rest", "min", 20, 30, null, null),
  ],
  faults: [
    {
      id: "specks",
      seen: "white specks",
      now: "more heat",
      next_time: "sieve",
      causes: [{ says: "lumps went in", speaks_for: ["Sieve was not done when pour began"], speaks_against: [] }],
      sure: true,
    },
  ],
  notes: [{ at: "2026-11-14T09:20:00Z", step: "mix", kind: "noted", text: "thick" }],
  note: "Good with tea.",
  counted: 18,
  grams: null,
  kept: [{ where: "fridge", pieces: 6 }],
  added: [],
  weighed: [],
  tastings: [
    {
      id: 1,
      who: "Wren",
      at: "2026-11-15T09:00:00Z",
      tastes: { softness: -1 },
      liking: 7,
      note: "better cold",
      blind: true,
    },
  ],
  left_out: false,
  facts: facts(fact("mix.hydration_pct", 124, "%")),
} as BatchOpen;

const NEXT = {
  proposals: [
    {
      kind: "please",
      says: "Less water, 118 % and not 124.",
      changes: [{ lever: "hydration_pct", words: "water", was: 124, to: 118 }],
      expected: [{ taste: "softness", words: "just right", now: 0.9, after: 0.2, low: -0.9, high: 1.3 }],
      because: ["It is a little too soft.", "It rests on 5 tastings of this way."],
      rests_on: 5,
    },
  ],
  by_craft: [{ taste: "colour", words: "too pale", said: 3, of: 4, does: "longer at heat, or a darker sugar" }],
  penalties: [{ taste: "softness", words: "too soft", share_pct: 40, drop: 1.8, weight: 0.7 }],
};

function kitchen() {
  return serve((request) => {
    if (request.path === "/api/kitchen")
      return { body: { kitchen: { timezone: "UTC", temperature_unit: "C" }, set_up: true } };
    if (request.path === "/api/ways")
      return { body: [way("boiled-balls", "Boiled balls"), way("set-cake", "Set cake")] };
    if (request.path === "/api/log/4/next" && request.method === "POST") return { body: { revision: 3 } };
    if (request.path === "/api/log/4/next") return { body: NEXT };
    if (request.path === "/api/log/4/tastings") return { body: BATCH };
    if (request.path === "/api/log/4")
      return { body: request.method === "PUT" ? { ...BATCH, ...(request.body as object), faults: [] } : BATCH };
    if (request.path.endsWith("/pictures")) return { body: [] };
    if (request.path === "/api/tables") return { body: [{ id: "batches", label: "every batch" }] };
    if (request.path === "/api/dropped") return { body: [] };
    const of = request.query.get("way") ?? "boiled-balls";
    const all = CARDS.filter((card) => card.way === of);
    const page = Number(request.query.get("page"));
    const count = (way: string) => CARDS.filter((card) => card.way === way).length;
    const right = (way: string) => CARDS.filter((card) => card.way === way && card.verdict === "just right").length;
    return {
      body: {
        ways: ["boiled-balls", "set-cake"].map((way) => ({ way, batches: count(way), right: right(way) })),
        way: of,
        batches: all.slice((page - 1) * PAGE, page * PAGE),
        dots: all.filter((card) => !card.rehearsed),
        page,
        pages: Math.ceil(all.length / PAGE),
        total: all.length,
      },
    };
  }).requests;
}
const show = async (page: React.ReactNode) => {
  const requests = kitchen();
  render(page, { wrapper: Around });
  await pass(100);
  return requests;
};

describe("the log", () => {
  it("shows one way at a time, with how many were just right", async () => {
    await show(<Log />);
    expect(document.body.textContent).toContain("0 of 1 batch just right");
    expect(screen.getByRole("link", { name: "every batch" }).getAttribute("href")).toBe("/api/tables/batches.csv");
    expect(screen.getByText("Crowded.")).toBeTruthy();
    fireEvent.click(screen.getByRole("radio", { name: /^Set cake/ }));
    await pass(30);
    expect(document.body.textContent).toContain("1 of 2 batches just right");
    expect(screen.queryByText("Crowded.")).toBeNull();
  });

  it("asks for what was made so many days back", async () => {
    vi.setSystemTime(new Date("2026-12-01T10:00:00Z"));
    const requests = kitchen();
    render(<Log />, { wrapper: Around });
    await pass(100);
    fireEvent.click(screen.getByRole("radio", { name: "a month back" }));
    await pass(50);
    const last = requests.filter((request) => request.path === "/api/log").at(-1);
    expect([last?.query.get("since"), last?.query.get("page")]).toEqual(["2026-10-31", "1"]);
    expect(screen.getByRole("radio", { name: "a month back" }).getAttribute("aria-checked")).toBe("true");
  });

  it("keeps rehearsals in the list and off the map", async () => {
    await show(<Log />);
    fireEvent.click(screen.getByRole("radio", { name: /^Set cake/ }));
    await pass(30);
    expect(screen.getAllByRole("link", { name: /^Cake \d, / })).toHaveLength(1);
  });
});

describe("a batch", () => {
  it("marks what lay in the told range, what did not, and what had none", async () => {
    await show(<BatchPage />);
    const drawing = screen.getByRole("img", { name: /what was told and what happened/ });
    const marks = [...drawing.querySelectorAll("circle")].map((circle) => circle.getAttribute("fill"));
    expect(marks).toEqual(["var(--color-green)", "var(--color-bean)", "var(--color-sheet)"]);
  });

  it("says what its own numbers point to, and the notes of the day", async () => {
    await show(<BatchPage />);
    expect(document.body.textContent).toContain("Lumps went in: Sieve was not done when pour began");
    expect(document.body.textContent).toContain("Next time: sieve.");
    expect(document.body.textContent).toContain("09:20 “thick”");
    expect(screen.getByRole("img", { name: "a little too soft" })).toBeTruthy();
  });

  it("can be spoken of otherwise later", async () => {
    stubResizes();
    const requests = kitchen();
    render(<BatchPage />, { wrapper: Around });
    await pass(100);
    fireEvent.click(screen.getByRole("button", { name: "Change what is said here" }));
    fireEvent.change(screen.getByLabelText("A note"), { target: { value: "Better the day after." } });
    fireEvent.click(screen.getByRole("button", { name: "Put it in the log" }));
    await pass(100);
    const put = requests.find((request) => request.method === "PUT") as SeenRequest;
    expect(put.body).toEqual({
      tastes: { softness: 1 },
      faults: ["specks"],
      note: "Better the day after.",
      pieces: 18,
      grams: null,
      kept: [{ where: "fridge", pieces: 6 }],
    });
    expect(screen.getByText("“Better the day after.”")).toBeTruthy();
  });
});

describe("next time", () => {
  it("says what to change and what is expected, and one press has it on the sheet", async () => {
    const requests = kitchen();
    render(<BatchPage />, { wrapper: Around });
    await pass(100);
    const next = screen.getByRole("region", { name: "Next time" });
    expect(next.textContent).toContain("Less water, 118 % and not 124.");
    expect(next.textContent).toContain("It rests on 5 tastings of this way.");
    expect(next.textContent).toContain("Too soft, 40 in a hundred");
    expect(next.textContent).toContain("Too pale (3 of 4 say so): longer at heat, or a darker sugar.");
    expect(screen.getByRole("img", { name: "softness: expected just right" })).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: "Make it the next revision of its sheet" }));
    await pass(100);
    expect(requests.find((request) => request.method === "POST")?.body).toMatchObject({ kind: "please" });
    expect(screen.getByText("The sheet says so now: its revision 3.")).toBeTruthy();
  });

  it("shows who else tasted it, and how they liked it", async () => {
    await show(<BatchPage />);
    const others = screen.getByRole("region", { name: "Tasted by" });
    expect(others.textContent).toContain("Wren");
    expect(others.textContent).toContain("likes it 7 of 9");
    expect(others.textContent).toContain("a little too firm");
  });
});

describe("a plate without a name", () => {
  it("goes by three figures, none like another's", () => {
    const codes = new Set(Array.from({ length: 900 }, (_, i) => codeOf(i + 1)));
    expect(codes.size).toBe(900);
    expect(Math.min(...codes)).toBe(100);
    expect(Math.max(...codes)).toBe(999);
  });
  it("is tasted by them: its title is nowhere on the page", async () => {
    stubResizes();
    const requests = kitchen();
    const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
    render(
      <MemoryRouter initialEntries={["/log/4/taste?blind"]}>
        <QueryClientProvider client={client}>
          <TastePage />
        </QueryClientProvider>
      </MemoryRouter>,
    );
    await pass(100);
    expect(screen.getByText("Number 999")).toBeTruthy();
    expect(document.body.textContent).not.toContain("Cake 4");
    fireEvent.click(screen.getByRole("radio", { name: "7" }));
    fireEvent.click(screen.getByRole("button", { name: "That is how it is" }));
    await pass(100);
    expect(requests.find((request) => request.method === "POST")?.body).toMatchObject({ liking: 7, blind: true });
  });
});

describe("a table that comes in", () => {
  const rows = [
    { number: 2, says: "Tea cake, 20 Nov", problem: "", here: false },
    { number: 3, says: "Tea cake, 21 Nov", problem: "", here: true },
    { number: 4, says: "Moon cake", problem: "no sheet is called “Moon cake”", here: false },
  ];
  it("is looked at first; what will do goes in by a second press", async () => {
    const { requests } = serve(({ body }) => ({
      body: { of: "batches", rows, added: (body as { keep: boolean }).keep ? 1 : 0 },
    }));
    render(<TableIn />, { wrapper: Around });
    const file = new File(["made,title"], "log.csv", { type: "text/csv" });
    file.text = async () => "made,title";
    fireEvent.change(screen.getByLabelText("Batches or weighings from a table"), { target: { files: [file] } });
    await pass(100);
    expect(screen.getByText("1 batch to put in; 1 here already; 1 left out:")).toBeTruthy();
    expect(screen.getByText(/row 4, Moon cake: no sheet is called/)).toBeTruthy();
    expect(requests.map((request) => (request.body as { keep: boolean }).keep)).toEqual([false]);
    fireEvent.click(screen.getByRole("button", { name: "Put it in" }));
    await pass(100);
    expect(screen.getByText("1 batch came in.")).toBeTruthy();
    expect(requests[1]?.body).toMatchObject({ text: "made,title", keep: true });
  });
});

describe("pieces that were weighed", () => {
  const item: BatchOpen["weighed"][number] = {
    step: "shape",
    label: "one piece",
    key: "shape.base_g",
    told_g: 27,
    practice: [31, 24, 28],
    meant: [26, 27, 28],
    mean_g: 27,
    spread_g: 1,
  };
  it("are drawn with the first few apart, and what they came to is of the others", () => {
    render(<PiecesWeighed all={[item]} />);
    const drawn = screen.getByRole("img");
    const at = [...drawn.querySelectorAll("circle")].map((dot) => Number(dot.getAttribute("cx")));
    const gaps = at.slice(1).map((x, i) => x - (at[i] as number));
    expect(gaps[2]).toBeGreaterThan(1.2 * (gaps[1] as number)); // between the third and the fourth
    const hollow = [...drawn.querySelectorAll("circle")].map(
      (dot) => dot.getAttribute("fill") === "var(--color-paper)",
    );
    expect(hollow).toEqual([true, true, true, false, false, false]);
    expect(wordsOf(createFormatters(METRIC), item)).toBe(
      "One piece: 3 meant, 27.0 g on the mean, spread 1.0 g; 27.0 g told. The first 3 were practice, and do not count.",
    );
  });
  it("are all practice while there are only a few", () => {
    expect(
      wordsOf(createFormatters(METRIC), { ...item, practice: [31, 25], meant: [], mean_g: 28, spread_g: 4.2 }),
    ).toBe("One piece: 2 for practice, 28.0 g on the mean, spread 4.2 g; 27.0 g told.");
  });
});

describe("one more tongue", () => {
  it("is told with marks and a liking, and asked for nothing else", async () => {
    stubResizes();
    const requests = kitchen();
    render(<TastePage />, { wrapper: Around });
    await pass(100);
    const done = () => screen.getByRole<HTMLButtonElement>("button", { name: "That is how it is" });
    expect(done().disabled).toBe(true);
    fireEvent.click(screen.getByRole("radio", { name: "7" }));
    expect(screen.queryByRole("radio", { name: "a little too pale" })).toBeNull();
    fireEvent.click(screen.getByRole("button", { name: "More to say: colour" }));
    fireEvent.click(screen.getByRole("radio", { name: "a little too pale" }));
    fireEvent.click(screen.getByRole("radio", { name: "a little too soft" }));
    fireEvent.click(done());
    await pass(100);
    expect(requests.find((request) => request.method === "POST")?.body).toMatchObject({
      liking: 7,
      tastes: { softness: 1, colour: -1 },
    });
  });
});
