// @vitest-environment jsdom
/** Pages as a cook works them: what a press changes on the sheet, and what is asked of the server. */

import { act, cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { Route, Routes } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { BallDrawing, BatchOutcome, KitchenSettings, Plan, Problem, Sheet, WayCard } from "./api/client";
import { api, ask, Refused } from "./api/client";
import KitchenPage from "./kitchen/KitchenPage";
import { OutcomeForm } from "./log/OutcomeForm";
import PlanStation from "./plan/PlanStation";
import { SignedOut, SignIn } from "./session/SignIn";
import type { Editing } from "./sheet/useSheet";
import { BowlLines } from "./stations/mix/BowlLines";
import { PieceShape } from "./stations/shape/PieceShape";
import {
  type Answer,
  Around,
  fact,
  KITCHEN,
  pass,
  pick,
  type SeenRequest,
  serve,
  sheet,
  stubResizes,
  WAY,
  waterOf,
  worked,
} from "./testing";
import { Schools } from "./ui/Schools";
import { Foot } from "./ui/StationFoot";

beforeEach(() => {
  vi.useFakeTimers();
  // What the radio group measures itself with, and this stand-in for a browser lacks.
  stubResizes();
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

const press = async (name: RegExp | string) => {
  fireEvent.click(screen.getByRole("button", { name }));
  await pass(30);
};

/** A editing that notes each edit. */
function benchOf(of: Sheet, more: Partial<Editing> = {}) {
  const edits: Sheet[] = [];
  const editing = {
    id: 7,
    sheet: of,
    drawnFrom: more.sheet ?? of,
    worked: worked(),
    moved: [],
    problems: [],
    saving: "saved",
    dots: [],
    edit: (next: Sheet) => edits.push(next),
    adjust: vi.fn(),
    undo: null,
    ...more,
  } as unknown as Editing;
  return { editing, edits };
}

describe("the lines of the bowl", () => {
  const line = (at: number, name: string, grams: number) => ({
    part: 0,
    line: at,
    name,
    group: at ? "liquid" : "flour",
    grams,
    used_g: grams,
    pct: (100 * grams) / 300,
    household: at ? "1½ cups" : "2 cups + 2 tbsp",
    household_error_pct: at ? 0.2 : -1.2,
    part_id: "base",
    water_g: 0,
    question: "",
    carried: at
      ? [
          { to: "base", at: "hot", grams: 131 },
          { to: "base", at: "cool", grams: 244 },
        ]
      : [],
    allergens: [],
    look_alike: "",
  });
  const lines = [line(0, "Sweet rice flour", 300), line(1, "Water", 375)];

  async function show() {
    const salt = { id: "salt", name: "Salt", aliases: [], group: "salt", look_alike: "", packs: {}, density: {} };
    serve((asked) => ({ body: asked.path === "/api/larder" ? [salt] : [] }));
    const made = benchOf(sheet());
    made.editing.worked = { ...made.editing.worked, lines };
    render(<BowlLines editing={made.editing} way={WAY} kitchen={KITCHEN} />, { wrapper: Around });
    await pass(30);
    return { edits: made.edits, editing: made.editing };
  }

  it("show share, household measure and its error where it matters, and where each share goes", async () => {
    await show();
    const [, , flour, water] = screen.getAllByRole("row");
    expect(flour?.textContent).toContain("100 %");
    expect(flour?.textContent).toContain("−1 %");
    expect(water?.textContent).toContain("131 g hot, 244 g cool");
    expect(water?.textContent).not.toContain("+0 %");
  });

  it("change an amount, a unit, and nothing else", async () => {
    const { edits, editing } = await show();
    fireEvent.change(screen.getByLabelText("Water, amount"), { target: { value: "410" } });
    fireEvent.change(screen.getByLabelText("Water, unit"), { target: { value: "cup_us" } });
    expect(waterOf(edits[0] as Sheet)).toBe(410);
    expect(editing.adjust).toHaveBeenCalledWith({ by: "unit", part: 0, line: 1, unit: "cup_us" });
    expect(edits[0]?.parts[0]?.lines[0]).toEqual(sheet().parts[0]?.lines[0]);
  });

  it("take one out and put one in", async () => {
    const { edits } = await show();
    await press("Take out Water");
    expect(edits[0]?.parts[0]?.lines.map((line) => line.ingredient)).toEqual(["sweet-rice-flour"]);
    pick("Add to the batter", "Salt");
    expect(edits[1]?.parts[0]?.lines.map((line) => line.ingredient)).toEqual(["sweet-rice-flour", "water", "salt"]);
  });
});

describe("what runs out first", () => {
  const drawing = {
    kind: "ball",
    outer_mm: 35,
    core_mm: 24,
    least_skin_mm: 3.2,
    dough_total_g: 468,
    filling_total_g: 216,
    form: "ball",
    outside: false,
    dough_name: "dough",
    piece_name: "ball",
    piece_names: "balls",
    filling_name: "date",
    filling_word: "filling",
    remedies: [
      { says: "make 24", pieces: { count: 24, dough_g: 18, filling_g: 9 }, role: null, factor: 1 },
      { says: "26, 8.3 g filling each", pieces: { count: null, dough_g: 18, filling_g: 8.31 }, role: null, factor: 1 },
      {
        says: "18 g more filling",
        pieces: { count: null, dough_g: 18, filling_g: 9 },
        role: "filling",
        factor: 26 / 24,
      },
    ],
    heart_mm: 0,
    heart_g: 0,
    near_skin_mm: 3.6,
    dough_g_per_ml: 1.2,
    filling_g_per_ml: 1.25,
  } as unknown as BallDrawing;
  const of: Sheet = {
    ...sheet(208),
    way: "boiled-balls",
    pieces: { dough_g: 18, filling_g: 9 },
    parts: [
      ...sheet(208).parts,
      {
        role: "filling",
        name: "date",
        lines: [{ ingredient: "date", amount: { value: 216, unit: "g" }, splits: [], reserve: null }],
      },
    ],
  } as Sheet;
  const result = worked(
    fact("shape.base_enough_for", 26),
    fact("shape.filling_enough_for", 24),
    fact("shape.short_of", "filling"),
    fact("shape.pieces", 24),
    fact("shape.left_over_g", 36, "g"),
  );

  it.each([
    ["make 24", { count: 24, dough_g: 18, filling_g: 9 }, 216],
    ["26, 8.3 g filling each", { count: null, dough_g: 18, filling_g: 8.31 }, 216],
    ["18 g more filling", { count: null, dough_g: 18, filling_g: 9 }, 234],
  ])("“%s” is one press", async (name, pieces, filling) => {
    const { editing, edits } = benchOf(of, { worked: result });
    render(<PieceShape editing={editing} way={WAY} drawing={drawing} />, {
      wrapper: Around,
    });
    expect(screen.getByText(/the filling, after 24 balls: 36 g of dough left over/)).toBeTruthy();
    await press(name);
    expect(edits[0]?.pieces).toEqual(pieces);
    expect(edits[0]?.parts[1]?.lines[0]?.amount.value).toBeCloseTo(filling);
    expect(edits[0]?.parts[0]).toEqual(of.parts[0]);
  });
});

describe("the plan", () => {
  const instant = (time: string) => `2026-11-28T${time}:00Z`;
  const plan = (more: Partial<Plan> = {}): Plan => ({
    serve: instant("15:30"),
    begin: instant("11:30"),
    scheduled: [],
    proven: true,
    gap_pct: 0,
    quiet_kept: true,
    gaps_kept: true,
    late_min: 0,
    earliest_serve: null,
    ...more,
  });
  const of = { ...sheet(), serve: "2026-11-28T15:30" };
  const kitchen = { timezone: "UTC", quiet: { begins: "22:00", ends: "07:00" } } as KitchenSettings;

  function show(result: Plan | null, more: Partial<Editing> = {}, error: Error | null = null) {
    const { requests } = serve(() => ({ body: { id: 31, people: 24 } }));
    const made = benchOf(of, more);
    render(<PlanStation editing={made.editing} kitchen={kitchen} plan={result} error={error} />, { wrapper: Around });
    return { ...made, requests };
  }

  it("says when to begin and how long it is, and moves the table by a quarter of an hour", async () => {
    const { edits } = show(plan());
    expect(document.body.textContent).toContain("Begin Sat 28 Nov at 11:30; 4 h from first to last.");
    await press("15 min earlier");
    await press("15 min later");
    expect(edits.map((edit) => edit.serve)).toEqual(["2026-11-28T15:15", "2026-11-28T15:45"]);
  });

  it("over midnight too", async () => {
    const { edits } = show(plan(), { sheet: { ...of, serve: "2026-12-31T23:50" } as Sheet });
    await press("15 min later");
    expect(edits[0]?.serve).toBe("2027-01-01T00:05");
  });

  it("says how late it is and serves when it can", async () => {
    const { edits } = show(plan({ late_min: 40, earliest_serve: instant("16:10") }));
    expect(screen.getByRole("alert").textContent).toContain("This should have begun 40 min ago");
    await press("Serve it then");
    expect(edits[0]?.serve).toBe("2026-11-28T16:10");
  });

  it("says why there is none", () => {
    const problem: Problem = { path: "serve", says: "2020-01-01 10:00 is past", accepts: "a time after now" };
    show(null, {}, new Refused(422, [problem]));
    expect(screen.getByRole("alert").textContent).toBe("Serve: 2020-01-01 10:00 is past. Accepted: a time after now.");
  });

  it("is kept for an occasion, or begun, or rehearsed", async () => {
    const { requests } = show(plan());
    fireEvent.change(screen.getByLabelText("For"), { target: { value: " Mending circle " } });
    fireEvent.change(screen.getByLabelText("People"), { target: { value: "24" } });
    await press("Keep this plan");
    expect(requests.at(-1)).toMatchObject({
      path: "/api/occasions",
      body: {
        occasion: {
          title: "Mending circle",
          servings: [{ at: "2026-11-28T15:30", people: 24 }],
          dishes: [{ sheet: 7, serving: 0 }],
        },
      },
    });
    expect(screen.getByText(/is on the counter/)).toBeTruthy();
    await press("Rehearse, sixty times as fast");
    expect(requests.filter((asked) => asked.path === "/api/runs").map((asked) => asked.body)).toEqual([
      {
        sheet: 7,
        occasion: null,
        dish: null,
        cook: null,
        rehearse: true,
        uid: expect.stringMatching(/^[0-9a-f]{32}$/),
      },
    ]);
  });

  it("begins nothing that is not saved or cannot be worked", () => {
    show(plan(), { saving: "unsaved" });
    expect((screen.getByRole("button", { name: "Make it now" }) as HTMLButtonElement).disabled).toBe(true);
  });
});

describe("how it came out", () => {
  const way = {
    tastes: [
      { id: "softness", too_little: "too firm", too_much: "too soft", asked: true },
      { id: "chew", too_little: "too short", too_much: "too chewy", asked: true },
    ],
    faults: [{ id: "specks", seen: "white specks", cause: "", now: "", next_time: "" }],
  } as unknown as WayCard;

  it("is said on just-about-right scales, with faults and a note", async () => {
    const saved = vi.fn<(outcome: BatchOutcome) => void>();
    render(<OutcomeForm way={way} start={{ tastes: {}, faults: [], note: "" }} busy={false} onSave={saved} />);
    fireEvent.click(screen.getByRole("radio", { name: "much too soft" }));
    fireEvent.click(screen.getAllByRole("radio", { name: "just right" })[1] as HTMLElement);
    await press("white specks");
    fireEvent.change(screen.getByLabelText("A note"), { target: { value: "Sieve." } });
    await press("Put it in the log");
    expect(saved).toHaveBeenCalledWith({ tastes: { softness: 2, chew: 0 }, faults: ["specks"], note: "Sieve." });
  });

  it("may be left unsaid, and starts from what was said before", async () => {
    const saved = vi.fn<(outcome: BatchOutcome) => void>();
    render(
      <OutcomeForm way={way} start={{ tastes: { softness: -1 }, faults: [], note: "" }} busy={false} onSave={saved} />,
    );
    expect(screen.getByRole("radio", { name: "a little too firm" }).getAttribute("data-state")).toBe("checked");
    await press("Put it in the log");
    expect(saved).toHaveBeenCalledWith({ tastes: { softness: -1 }, faults: [], note: "" });
  });
});

describe("the kitchen", () => {
  const kitchen = {
    name: "Weir House",
    altitude_m: 240,
    room_c: 20,
    fridge_c: 5,
    freezer_c: -18,
    measures: "metric",
    temperature_unit: "C",
    timezone: "UTC",
    cooks: 2,
    burners: 4,
    tins: [],
    steamers: [{ name: "steamer", diameter_mm: 260, rack_mm: 38, gap_mm: 10, low_mm: 12, tiers: 2, watts: null }],
    pots: [{ name: "pot", diameter_mm: 240, water_ml: 3000 }],
    ovens: 1,
    oven_shelves: 2,
    toasters: 0,
    machines: 1,
    cold_shelves: 3,
    length_unit: "mm",
    clock_hours: 24,
    learned: {},
    scoops: [],
    burner: { low_w: 380, medium_w: 620, high_w: 1500 },
    quiet: { begins: "22:00", ends: "07:00" },
    time_factor: 1,
    own_cup_ml: null,
    own_spoon_ml: null,
    weighed: [],
    pans: [],
    currency: "",
    estimates: {},
  } as unknown as KitchenSettings;

  /** Keeps settings and counts revisions as the real one does; `refuse` what it is told to. */
  async function show(refuse?: Problem | (() => Answer | null)) {
    const kept = { kitchen, revision: 4 };
    const { requests } = serve((asked) => {
      if (asked.path === "/api/dropped") return { body: [] };
      if (asked.path === "/api/session") return { body: { signed_in: true, name: "owner", has_password: false } };
      if (asked.path === "/api/larder")
        return { body: [{ id: "sweet-rice-flour", name: "Sweet rice flour", density: { spooned: 0.56 }, packs: {} }] };
      if (asked.method === "PUT") {
        const told = typeof refuse === "function" ? refuse() : refuse && { status: 422, body: { problems: [refuse] } };
        if (told) return told;
        const sent = asked.body as { kitchen: KitchenSettings; revision: number };
        if (sent.revision !== kept.revision) return { status: 409, body: { problems: [] } };
        kept.kitchen = sent.kitchen;
        kept.revision += 1;
      }
      return { body: { ...kept, set_up: true } };
    });
    const page = (
      <Routes>
        <Route path="/:in?/:thing?" element={<KitchenPage />} />
      </Routes>
    );
    const { unmount } = render(page, { wrapper: Around });
    await pass(60);
    const puts = () =>
      requests
        .filter((request) => request.method === "PUT")
        .map((request) => (request.body as { kitchen: KitchenSettings }).kitchen);
    return { puts, unmount, kept };
  }

  const go = (thing: RegExp) => fireEvent.click(screen.getByRole("link", { name: thing }));

  it("is put together with what was saved elsewhere", async () => {
    const { kept } = await show();
    kept.kitchen = { ...kitchen, name: "Renamed there" };
    kept.revision += 1;
    fireEvent.change(screen.getByLabelText("Cooks"), { target: { value: "3" } });
    await pass(3_000);
    expect(kept.kitchen).toEqual({ ...kitchen, name: "Renamed there", cooks: 3 });
    expect((screen.getByLabelText("Name of the kitchen") as HTMLInputElement).value).toBe("Renamed there");
  });

  it("is sent once it can be, after a reload too", async () => {
    let away = true;
    const first = await show(() => (away ? "unreachable" : null));
    fireEvent.change(screen.getByLabelText("Cooks"), { target: { value: "3" } });
    await pass(2_000);
    expect(screen.getByText("kept here, not saved yet")).toBeTruthy();
    first.unmount();
    away = false;
    const { kept } = await show();
    expect((screen.getByLabelText("Cooks") as HTMLInputElement).value).toBe("3");
    await pass(2_000);
    expect(kept.kitchen).toEqual({ ...kitchen, cooks: 3 });
    expect(localStorage.getItem("kemble-kitchen-unsaved")).toBeNull();
  });

  it("is saved a moment after the last change, whole", async () => {
    const { puts } = await show();
    fireEvent.change(screen.getByLabelText("Height above the sea"), { target: { value: "900" } });
    fireEvent.change(screen.getByLabelText("Cooks"), { target: { value: "3" } });
    expect(puts()).toEqual([]);
    await pass(700);
    expect(puts()).toEqual([{ ...kitchen, altitude_m: 900, cooks: 3 }]);
  });

  it("keeps a cup, a pan and a scoop weighed by the cook", async () => {
    const { puts } = await show();
    go(/^Cups, spoons/);
    fireEvent.change(screen.getByLabelText("Water in your cup"), { target: { value: "231" } });
    fireEvent.change(screen.getByLabelText("Weighed measure"), { target: { value: "cup_own" } });
    fireEvent.change(screen.getAllByLabelText("weighs")[0] as HTMLElement, { target: { value: "126" } });
    await press("Keep it");
    fireEvent.change(screen.getByLabelText("Name of the new scoop"), { target: { value: "round" } });
    fireEvent.change(screen.getByLabelText("holds"), { target: { value: "22" } });
    fireEvent.submit(screen.getByLabelText("Name of the new scoop"));
    go(/^Pots and pans/);
    fireEvent.change(screen.getByLabelText("Name of the new pan"), { target: { value: "wide" } });
    fireEvent.change(screen.getByLabelText("weighs"), { target: { value: "1185" } });
    fireEvent.submit(screen.getByLabelText("Name of the new pan"));
    await pass(700);
    expect(puts().at(-1)).toMatchObject({
      own_cup_ml: 231,
      weighed: [{ measure: "cup_own", ingredient: "sweet-rice-flour", grams: 126 }],
      pans: [{ name: "wide", empty_g: 1185, across_mm: 200 }],
      scoops: [{ name: "round", ml: 22 }],
    });
  });

  it("is saved at once when the page is left", async () => {
    const { puts, unmount } = await show();
    fireEvent.change(screen.getByLabelText("Cooks"), { target: { value: "4" } });
    unmount();
    await pass(30);
    expect(puts()).toMatchObject([{ cooks: 4 }]);
  });

  it("says what will not do, and does not pretend it is saved", async () => {
    await show({
      path: "kitchen.timezone",
      says: '"Europe/Lisbon" is not a known time zone',
      accepts: "a name such as Europe/Lisbon",
    });
    pick(/^Time zone/, "Lisbon");
    await pass(700);
    expect(screen.getByRole("alert").textContent).toContain("is not a known time zone");
    expect(screen.getByText("not saved")).toBeTruthy();
  });

  it("has several steamers, each by a name of its own", async () => {
    const { puts } = await show();
    go(/^Steamers/);
    await press("Add a steamer");
    const name = screen.getByLabelText("Name of steamer 2") as HTMLInputElement;
    expect(name.value).toBe("steamer 2");
    fireEvent.change(name, { target: { value: "steamer" } });
    fireEvent.blur(name);
    expect(screen.getByRole("alert").textContent).toBe("Another is called that.");
    expect(name.value).toBe("steamer"); // nothing typed is lost, and nothing of it is kept
    expect(screen.getByLabelText("Across, steamer 2")).toBeTruthy();
    fireEvent.change(name, { target: { value: "the wide one" } });
    fireEvent.blur(name);
    fireEvent.change(screen.getByLabelText("Across, the wide one"), { target: { value: "340" } });
    await pass(700);
    expect(puts().at(-1)?.steamers).toMatchObject([
      { name: "steamer", diameter_mm: 260 },
      { name: "the wide one", diameter_mm: 340, tiers: 2 },
    ]);
    await press("Take away steamer");
    await pass(700);
    expect(puts().at(-1)?.steamers).toMatchObject([{ name: "the wide one" }]);
    expect(screen.getByRole("link", { name: /^Steamers/ }).textContent).toContain("1, 34 cm");
  });

  it("takes another tin and gives one away", async () => {
    const { puts } = await show();
    go(/^Tins/);
    fireEvent.change(screen.getByLabelText("Name of the new tin"), { target: { value: "the loaf tin" } });
    fireEvent.change(screen.getByLabelText("Shape of the new tin"), { target: { value: "oblong" } });
    await press("Add it");
    await pass(700);
    expect(puts().at(-1)?.tins).toMatchObject([{ name: "the loaf tin", shape: "oblong" }]);
    await press("Take away");
    await pass(700);
    expect(puts().at(-1)?.tins).toEqual([]);
  });
});

describe("signed out in the middle", () => {
  it("asks over the page, and goes on when another tab has come in", async () => {
    let inside = false;
    serve((asked) =>
      asked.path === "/api/session"
        ? { body: { signed_in: inside, name: inside ? "owner" : "", has_password: true } }
        : { status: inside ? 200 : 401, body: inside ? [] : { problems: [] } },
    );
    render(<SignedOut />, { wrapper: Around });
    expect(screen.queryByRole("alertdialog")).toBeNull();
    await act(() => ask(api.GET("/api/runs")).catch(() => {}));
    expect(screen.getByRole("alertdialog").textContent).toContain("Signed out meanwhile");
    await pass(3_100);
    expect(screen.getByRole("alertdialog")).toBeTruthy();
    inside = true;
    await pass(3_100);
    expect(screen.queryByRole("alertdialog")).toBeNull();
  });
});

describe("the door", () => {
  it("says why it stays shut", async () => {
    const { requests } = serve(() => ({
      status: 422,
      body: { problems: [{ path: "password", says: "does not go with that name", accepts: "" }] },
    }));
    render(<SignIn />, { wrapper: Around });
    fireEvent.change(screen.getByLabelText("Password"), { target: { value: "guess" } });
    await press("Come in");
    expect((requests[0] as SeenRequest).body).toEqual({ username: "owner", password: "guess", code: "" });
    expect(screen.getByRole("alert").textContent).toContain("does not go with that name");
  });
});

describe("schools and the foot", () => {
  const way = {
    choices: [
      {
        id: "cover",
        station: "heat",
        title: "Top of the tin",
        default: "open",
        schools: [
          { id: "open", label: "open", buys: "quicker" },
          { id: "covered", label: "covered with foil", buys: "a smooth top" },
        ],
      },
    ],
  } as unknown as WayCard;

  it("a choice shows what the side taken buys, and cannot be left open", () => {
    const chosen = vi.fn();
    render(<Schools way={way} station="heat" schools={{}} onChoose={chosen} />);
    expect(screen.getByText("quicker.")).toBeTruthy();
    fireEvent.click(screen.getByRole("radio", { name: "open" }));
    expect(chosen).not.toHaveBeenCalled();
    fireEvent.click(screen.getByRole("radio", { name: "covered with foil" }));
    expect(chosen).toHaveBeenCalledWith("cover", "covered");
  });

  it("is shown at its own station only", () => {
    const { container } = render(<Schools way={way} station="mix" schools={{}} onChoose={() => {}} />);
    expect(container.textContent).toBe("");
  });

  it("the foot gives the one most useful sentence, and the cautions on request", async () => {
    const of = {
      ...worked(),
      advice: [
        { station: "heat", kind: "look", says: "Turn it down.", rank: 1 },
        { station: "heat", kind: "look", says: "Something lesser.", rank: 5 },
      ],
      cautions: [{ id: "steam", title: "Steam", says: "Tilt the lid away from you." }],
    } as unknown as Parameters<typeof Foot>[0]["worked"];
    render(<Foot worked={of} station="heat" />);
    expect(screen.getByRole("status").textContent).toBe("LookTurn it down.");
    expect(screen.queryByText(/Tilt the lid/)).toBeNull();
    await press(/Take care: steam/);
    expect(within(screen.getByRole("dialog")).getByText(/Tilt the lid/)).toBeTruthy();
  });
});
