// @vitest-environment jsdom
/** The heat station: what it shows for each heat, and what each choice leaves of the sheet. */

import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Fact, HeatDrawing, SchoolsCompared, Sheet, WayCard } from "../../api/client";
import type { Editing } from "../../sheet/useSheet";
import { Around, fact, KITCHEN, pass, serve, sheet, WAY, worked } from "../../testing";
import { Heat } from "./Heat";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

const CURVE = { minutes: [0, 20, 40], core_c: [20, 70, 95], surface_c: [90, 98, 99] };
const WINDOW = [
  fact("heat.first_check_min", 25, "min"),
  fact("heat.done_min", 30, "min"),
  fact("heat.latest_min", 38, "min"),
  fact("mix.gel_temperature_c", 75, "°C"),
  fact("heat.boil_c", 99.2, "°C"),
];
const STEAMER = {
  pot_mm: 260,
  rack_mm: 38,
  gap_mm: 10,
  low_mm: 12,
  start_mm: 28,
  tiers: 2,
  minutes: [0, 40],
  water_mm: [28, 8],
  levels: [
    { level: "low", g_per_min: 10, lasts_min: 60, says: "wisps from the lid" },
    { level: "medium", g_per_min: 16, lasts_min: 38, says: "wisps from the lid" },
    { level: "high", g_per_min: 40, lasts_min: 15, says: "fierce: an open top creases" },
  ],
};
const TIN = sheet().vessel.tin;
const DRAWINGS: Record<string, HeatDrawing> = {
  tin: { kind: "steam", steamer: STEAMER, covered: false, tin: TIN, depth_mm: 31 } as HeatDrawing,
  bake: { kind: "bake", tin: TIN, depth_mm: 21, oven_c: 175 } as HeatDrawing,
  pan: {
    kind: "stirred",
    method: "pan",

    power_w: 620,
    warm_kj: 90,
    dry_kj: 60,
    lost_g: 26,
    pan_mm: 240,
    bursts: 0,
  } as HeatDrawing,
  parcels: { kind: "wrapped", form: "parcel", thick_mm: 50, side_mm: 50, steamer: null } as HeatDrawing,
};

function show(drawing: keyof typeof DRAWINGS, facts: Fact[] = [], way: Partial<WayCard> = {}, more: object = {}) {
  const edits: Sheet[] = [];
  const of = worked(...WINDOW, ...facts);
  of.drawings.heat = DRAWINGS[drawing] ?? null;
  of.core = { curve: CURVE, first: 25, done: 30, latest: 38 };
  const editing = {
    sheet: { ...sheet(), heat: { level: "medium", oven_c: 175, stages: [] }, ...more },
    worked: of,
    edit: (next: Sheet) => edits.push(next),
  } as unknown as Editing;
  const card = { ...WAY, batter_c: 45, questions: [], ...way } as WayCard;
  render(<Heat editing={editing} way={card} kitchen={KITCHEN} />, { wrapper: Around });
  return () => edits.at(-1);
}

describe("in stages", () => {
  const stage = (more: object) => ({ level: null, oven_c: null, minutes: null, top_up_ml: 0, says: "", ...more });

  it("begins with two, the second until it is done", () => {
    const edited = show("tin");
    fireEvent.click(screen.getByRole("button", { name: "in stages" }));
    expect(edited()?.heat.stages).toEqual([stage({ level: "high", minutes: 10 }), stage({ level: "medium" })]);
  });

  it("another one may go on until it is done: the one before keeps the minutes that it was told", () => {
    const stages = [stage({ oven_c: 150, minutes: 20 }), stage({})];
    const edited = show("bake", [], {}, { heat: { level: "medium", oven_c: 175, stages } });
    expect(screen.queryByLabelText("Oven")).toBeNull();
    fireEvent.change(screen.getByLabelText("Minutes of stage 1"), { target: { value: "" } });
    expect(edited()?.heat.stages.map((stage) => stage.minutes)).toEqual([null, 10]);
    fireEvent.change(screen.getByLabelText("Oven in stage 2"), { target: { value: "190" } });
    expect(edited()?.heat.stages[1]?.oven_c).toBe(190);
    fireEvent.click(screen.getByRole("button", { name: "Stage 2 away" }));
    expect(edited()?.heat.stages).toEqual([]);
  });
});

describe("under the steamer", () => {
  it("each level says what comes of it, and is taken by a press", () => {
    const edited = show("tin");
    expect(screen.getByRole("radio", { name: /high 40 g\/min 15 min fierce/ })).toBeTruthy();
    expect(screen.getByRole<HTMLInputElement>("radio", { name: /medium/ }).checked).toBe(true);
    fireEvent.click(screen.getByRole("radio", { name: /^low/ }));
    expect(edited()?.heat.level).toBe("low");
  });

  it("strong, then gentle has no level to choose", () => {
    show("tin", [], {}, { schools: { course: "strong-first" } });
    expect(screen.queryByRole("radio", { name: /^low/ })).toBeNull();
  });

  it("the slider tells heart and water of its minute", () => {
    show("tin");
    const slider = screen.getByRole("slider", { name: "Minute" });
    expect(slider.getAttribute("aria-valuetext")).toBe("At 0 min the heart is 20 °C, 28 mm of water");
    // The drawing ends at 38 x 1.08 = 41 minutes; half of that is 20.5, when 28 - 10.3 mm are left.
    fireEvent.change(slider, { target: { value: "0.5" } });
    expect(slider.getAttribute("aria-valuetext")).toBe("At 21 min the heart is 71 °C, 18 mm of water");
    expect(screen.getByRole("img", { name: /after 21 minutes the water is 18 mm deep/ })).toBeTruthy();
  });

  it("a lining is kept on the sheet", () => {
    const edited = show("tin");
    fireEvent.change(screen.getByLabelText("Lined with"), { target: { value: "leaf" } });
    expect(edited()?.vessel.lining).toBe("leaf");
  });
});

describe("what it would cost", () => {
  it("says minutes more or less, and what would be otherwise", () => {
    show(
      "tin",
      [
        fact("heat.deeper_min", 14, "min more", { label: "one centimetre deeper" }),
        fact("heat.cover_min", -9, "min more"),
        fact("heat.tin_min", 2, "min more", { because: { says: "the same in glass", source: "", inputs: [] } }),
        fact("heat.lid_min", 0.9, "min more", { label: "one look under the lid", decimals: 1 }),
      ],
      {},
      { schools: { cover: "covered" } },
    );
    const rows = screen.getAllByRole("listitem").map((row) => row.textContent ?? "");
    expect(rows.find((row) => row.startsWith("One centimetre deeper"))).toContain("+ 14 min");
    expect(rows.find((row) => row.startsWith("Left open"))).toContain("− 9 min");
    expect(rows.find((row) => row.startsWith("The same in glass"))).toContain("+ 2 min");
    expect(rows.find((row) => row.startsWith("One look under the lid"))).toContain("+ 0.9 min");
  });

  it("is not there when nothing could be otherwise", () => {
    show("tin");
    expect(screen.queryByRole("heading", { name: "What it would cost" })).toBeNull();
  });
});

describe("in the oven, in the pan, in the pot", () => {
  it("the oven's degrees and the batter's are the sheet's", () => {
    const edited = show(
      "bake",
      [],
      {},
      { heat: { level: "medium", oven_c: 175, stages: [] }, start: { batter_c: null, dough_c: 26 } },
    );
    expect(screen.getByLabelText<HTMLInputElement>("Goes in at").value).toBe("45"); // as is usual for the way
    fireEvent.change(screen.getByLabelText("Oven"), { target: { value: "190" } });
    expect(edited()?.heat.oven_c).toBe(190);
    fireEvent.change(screen.getByLabelText("Goes in at"), { target: { value: "8" } });
    expect(edited()?.start.batter_c).toBe(8);
  });

  it("a pan has a burner, and says the power that goes in", () => {
    const edited = show("pan", [fact("heat.power_w", 620, "W")], { form: "ball" });
    expect(screen.getByText(/620 W into the pan/)).toBeTruthy();
    fireEvent.change(screen.getByLabelText("Burner level"), { target: { value: "high" } });
    expect(edited()?.heat.level).toBe("high");
  });

  it("parcels go in at their own temperature", () => {
    const edited = show("parcels", [], { form: "parcel" });
    expect(screen.getByRole("img", { name: "Parcels under water, 50 mm through" })).toBeTruthy();
    fireEvent.change(screen.getByLabelText("Goes in at"), { target: { value: "10" } });
    expect(edited()?.start.dough_c).toBe(10);
  });

  it("loads are shown when there are several, and only then", () => {
    const all = fact("heat.all_loads_min", 63, "min", { label: "all loads" });
    show("bake", [fact("heat.loads", 1, "", { label: "loads" }), all]);
    expect(screen.queryByText("All loads")).toBeNull();
    cleanup();
    show("bake", [fact("heat.loads", 2, "", { label: "loads" }), all]);
    expect(screen.getByText("All loads")).toBeTruthy();
  });

  it("what is done once it has set has a place of its own", () => {
    show("tin", [fact("finish.all_min", 9, "min", { label: "all of it" })]);
    expect(screen.getByRole("heading", { name: "Once it has set" })).toBeTruthy();
  });
});

describe("a dough steamed in a dish", () => {
  it("is picked from the kitchen's tins", async () => {
    vi.useFakeTimers();
    const wide = { ...TIN, name: "the wide tin", diameter_mm: 200 };
    serve(() => ({ body: { kitchen: { ...KITCHEN, tins: [TIN, wide] }, set_up: true } }));
    const edited = show("tin", [], { form: "ball" });
    await pass(50);
    fireEvent.change(screen.getByLabelText("Dish"), { target: { value: "1" } });
    expect(edited()?.vessel.tin.diameter_mm).toBe(200);
  });
});

describe("where cooks disagree", () => {
  const way = {
    questions: [
      { id: "syrup", title: "Syrup", station: "mix" },
      { id: "cover", title: "Top of the tin", station: "heat" },
    ],
  };
  const sides = (question: string): SchoolsCompared => ({
    id: question,
    title: question,
    rows: [],
    units: [],
    sides: ["one", "other"].map((id) => ({
      id,
      label: `${question} ${id}`,
      buys: "",
      followed: id === "one",
      first: 20,
      done: 25,
      latest: 30,
      shown: [],
      says: [],
      problems: [],
    })),
  });

  it("asks for the heat's own question first, then for the one that is picked, with the sheet as it is", async () => {
    vi.useFakeTimers();
    const { requests } = serve((request) => ({ body: sides((request.body as { question: string }).question) }));
    show("tin", [], way);
    fireEvent.click(screen.getByText(/Where cooks disagree/));
    const details = screen.getByText(/Where cooks disagree/).closest("details") as HTMLDetailsElement;
    details.open = true;
    fireEvent(details, new Event("toggle"));
    await pass(50);
    expect(screen.getByText("Cover one")).toBeTruthy();
    expect(screen.getByText("No figure differs: it is a matter of taste and of the hand.")).toBeTruthy();
    fireEvent.click(screen.getByRole("radio", { name: "Syrup" }));
    await pass(50);
    expect(screen.getByText("Syrup other")).toBeTruthy();
    const bodies = requests
      .filter((request) => request.path === "/api/sides")
      .map((request) => request.body as { question: string });
    expect(bodies.map((body) => body.question)).toEqual(["cover", "syrup"]);
    expect(bodies[0]).toMatchObject({ sheet: { title: sheet().title } });
  });
});
