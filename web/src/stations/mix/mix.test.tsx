// @vitest-environment jsdom
/** The mix as an instrument: what is fixed, what is held, where it goes, the soak, exchanges. */

import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type {
  GrainResult,
  KitchenSettings,
  Line,
  LineResult,
  MixDrawing,
  OutputResult,
  PartResult,
  Sheet,
  WorkResult,
} from "../../api/client";
import { newLine, newPart, withNewTake, withoutPart } from "../../sheet/edits";
import type { Editing } from "../../sheet/useSheet";
import { Around, fact, facts, KITCHEN, pageOf, pass, pick, serve, sheet, WAY, worked } from "../../testing";
import { createFormatters } from "../../ui/formatters";
import { unitName, unitNamed, unitsFor } from "../../ui/units";
import { METRIC } from "../../words/measures";
import { BowlLines } from "./BowlLines";
import { Flows } from "./Flows";
import { drawnFlow } from "./flow";
import { MakeIt } from "./MakeIt";
import { Mix } from "./Mix";
import { feeds, placesFor, takeable } from "./places";
import { Soak } from "./Soak";
import { withWater } from "./water";

beforeEach(() => vi.useFakeTimers());
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

const shownLine = (at: number, name: string, grams: number, more: Partial<LineResult> = {}): LineResult => ({
  part: 0,
  line: at,
  part_id: "base",
  name,
  group: at ? "sugar" : "flour",
  grams,
  used_g: grams,
  pct: grams / 3,
  water_g: 0,
  household: "",
  household_error_pct: 0,
  carried: [],
  allergens: [],
  look_alike: "",
  question: "",
  ...more,
});

const syrup: PartResult = {
  id: "syrup",
  role: "syrup",
  name: "syrup",
  family: "coconut-syrup",
  family_name: "Coconut syrup",
  says: "two thirds solids",
  reduced: true,
  raw_g: 495,
  made_g: 434,
  low_g: 410,
  high_g: 460,
  scale_g: 1894,
  pan: "deep",
  kept_g: 0,
  kept_for: "",
  away_g: 0,
  away_to: [],
  made_on: "",
  have_g: 434,
  nth: 0,
  outputs: [
    {
      id: "syrup",
      name: "syrup",
      group: "sugar",
      made_g: 434,
      household: "",
      place: { to: "base", where: null, joins: "fold" },
      goes: [{ to: "base", name: "rice", grams: 434, where: "", joins: "fold", take: -1, short_g: 0 }],
    },
  ],
};

const two: Sheet = {
  ...sheet(),
  parts: [
    newPart("base", "rice", "", [newLine("sweet-rice-flour", 300), newLine("white-sugar", 180)]),
    newPart("syrup", "syrup", "coconut-syrup", [newLine("coconut-milk-thick", 300)]),
  ],
};
const drawing: MixDrawing = { bar: [], in_zone: true, outcome: "", bite: "" };
const weighed = [
  shownLine(0, "Sweet rice flour", 300),
  shownLine(1, "White sugar", 180, {
    carried: [
      { to: "base", at: "first", grams: 60 },
      { to: "syrup", at: "then", grams: 90 },
      { to: "", at: "a glaze", grams: 30 },
    ],
    used_g: 150,
  }),
  shownLine(0, "Coconut milk, thick", 300, { part: 1, part_id: "syrup", group: "liquid" }),
];
const halved = weighed.map((item) => ({ ...item, grams: item.grams / 2, used_g: item.used_g / 2 }));

function benchOf(of: Sheet = two, result = worked()) {
  const edits: Sheet[] = [];
  const editing = {
    id: 7,
    sheet: of,
    drawnFrom: of,
    worked: {
      ...result,
      lines: weighed,
      parts: result.parts.length ? result.parts : [syrup],
      drawings: { ...result.drawings, mix: drawing },
    },
    says: [],
    saving: "saved",
    edit: (next: Sheet) => edits.push(next),
    adjust: vi.fn(),
    look: vi.fn(),
  } as unknown as Editing;
  return { editing, edits };
}

const LARDER = [
  {
    id: "white-sugar",
    name: "White sugar",
    per_100_g: { sugar: 100 },
    density: { spooned: 0.85 },
    packs: { bag: 1000 },
  },
  {
    id: "sweet-rice-flour",
    name: "Sweet rice flour",
    per_100_g: {},
    density: { spooned: 0.56, packed: 0.66 },
    packs: {},
  },
].map((item) => ({ ...item, aliases: [], allergens: [], figures: "from a test", g_per_piece: null }));
const FAMILIES = [
  {
    id: "coconut-syrup",
    name: "Coconut syrup",
    says: "",
    roles: ["syrup", "glaze"],
    finish: "",
    outputs: [{ id: "made", name: "made" }],
    choices: [],
    lines: [],
  },
  {
    id: "coat",
    name: "Coat or dust",
    says: "",
    roles: ["coat"],
    finish: "",
    outputs: [{ id: "made", name: "made" }],
    choices: [],
    lines: [newLine("potato-starch", 60)],
  },
];

async function lines(made = benchOf()) {
  serve((request) => {
    if (request.path.endsWith("/exchanges"))
      return { body: [{ to: "mild-honey", label: "Honey, mild", says: "Browns sooner." }] };
    const body: Record<string, unknown> = {
      "/api/larder": LARDER,
      "/api/parts": FAMILIES,
      "/api/sheets": pageOf([
        { id: 7, title: "A cake" },
        { id: 8, title: "Other" },
      ]),
    };
    return { body: body[request.path] ?? {} };
  });
  render(<BowlLines editing={made.editing} way={WAY} kitchen={KITCHEN} />, { wrapper: Around });
  await pass(30);
  return made;
}
const type = (label: string | RegExp, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const press = async (name: string | RegExp) => {
  fireEvent.click(screen.getByRole("button", { name }));
  await pass(30);
};

describe("the lines", () => {
  it("with the ratios held, an amount is what there is of it", async () => {
    const { editing, edits } = await lines();
    fireEvent.click(screen.getByLabelText("hold the ratios"));
    type("White sugar, amount", "310");
    expect(edits).toEqual([]);
    expect(editing.adjust).toHaveBeenCalledWith({ by: "line", part: 0, line: 1, amount: 310 });
  });

  it("an amount means what it says while the figures are still those of an earlier sheet", async () => {
    const made = benchOf();
    // Worked when there was half of everything: 180 g are written, 90 g are shown.
    Object.assign(made.editing, { drawnFrom: structuredClone(two), worked: { ...made.editing.worked, lines: halved } });
    const { editing } = await lines(made);
    fireEvent.click(screen.getByLabelText("hold the ratios"));
    type("White sugar, amount", "310");
    expect(editing.adjust).toHaveBeenCalledWith({ by: "line", part: 0, line: 1, amount: 310 });
  });

  it("tell the weight at which a part is done, pan and all", async () => {
    await lines(benchOf(two, worked(fact("part.syrup.scale_g", 1894, "g"))));
    expect(screen.getByText("done at 1894 g with the pan")).toBeTruthy();
  });

  it("exchange one ingredient for another", async () => {
    const { editing } = await lines();
    await press(/^White sugar: exchange/);
    await pass(30);
    type("Exchange it for", "mild-honey");
    expect(screen.getByText(/Browns sooner/)).toBeTruthy();
    await press("Exchange");
    expect(editing.adjust).toHaveBeenCalledWith({ by: "exchange", part: 0, line: 1, ingredient: "mild-honey" });
  });

  it("split a line so that its shares always add up", async () => {
    const { edits } = await lines();
    await press(/^White sugar: exchange/);
    await press("Split it over steps or parts");
    const line = edits[0]?.parts[0]?.lines[1] as Line;
    expect(line.splits.map((split) => split.share)).toEqual([1 / 3, expect.closeTo(2 / 3)]);
  });

  it("move one share and the last takes the rest; send it to another part", async () => {
    const split: Sheet = structuredClone(two);
    const line = split.parts[0]?.lines[1] as Line;
    line.splits = [
      { share: 0.5, at: "first", to: null, joins: "" },
      { share: 0.5, at: "then", to: null, joins: "" },
    ];
    const { edits } = await lines(benchOf(split));
    await press(/^White sugar: exchange/);
    type("Share 1", "30");
    type("Share 2 goes to", "syrup");
    expect(edits[0]?.parts[0]?.lines[1]?.splits).toEqual([
      { share: 0.3, at: "first", to: null, joins: "" },
      { share: 0.7, at: "then", to: null, joins: "" },
    ]);
    expect(edits[1]?.parts[0]?.lines[1]?.splits[1]).toEqual({ share: 0.5, at: "then", to: "syrup", joins: "" });
  });

  it("hold some back, for something", async () => {
    const { edits } = await lines();
    await press(/^White sugar: exchange/);
    type("Hold back", "30");
    expect(edits[0]?.parts[0]?.lines[1]?.reserve).toEqual({ value: 30, unit: "g" });
  });

  it("put in a part with a formula to start from", async () => {
    const { edits } = await lines();
    pick("Add a part", /\(coat\)$/);
    expect(edits[0]?.parts[2]).toMatchObject({
      role: "coat",
      family: "coat",
      lines: [{ ingredient: "potato-starch" }],
    });
    fireEvent.keyDown(screen.getByRole("button", { name: "Add a part" }), { key: "Enter" });
    expect(screen.queryByRole("menuitem", { name: "Coconut syrup (syrup)" })).toBeNull();
    expect(screen.getByRole("menuitem", { name: "Coconut syrup (one more syrup)" })).toBeTruthy();
  });

  it("put in one more part of a role, with an id and a name of its own", async () => {
    const { edits } = await lines();
    pick("Add a part", /\(one more syrup\)$/);
    expect(edits[0]?.parts.map((part) => part.id)).toEqual(["base", "syrup", "syrup-2"]);
    expect(edits[0]?.parts[2]).toMatchObject({ role: "syrup", name: "coconut syrup" });
  });
});

describe("a part", () => {
  async function slip() {
    const made = benchOf(two, worked(fact("part.syrup.made_g", 434, "g"), fact("shape.pieces", 24)));
    const requests: { path: string; body: unknown }[] = [];
    serve((eachAsked) => {
      requests.push({ path: eachAsked.path, body: eachAsked.body });
      const body: Record<string, unknown> = {
        "/api/larder": LARDER,
        "/api/parts": [
          {
            ...FAMILIES[0],
            choices: [
              {
                id: "stir",
                title: "Stirred",
                default: "late",
                schools: [
                  { id: "late", label: "near the end", buys: "less work" },
                  { id: "all", label: "all along", buys: "no skin" },
                ],
              },
            ],
          },
        ],
        "/api/sheets": pageOf([
          { id: 7, title: "A cake" },
          { id: 8, title: "Other" },
        ]),
      };
      return { body: body[eachAsked.path] ?? {} };
    });
    const kitchen = { ...KITCHEN, pans: [{ name: "deep", empty_g: 1460, across_mm: 220 }] } as KitchenSettings;
    render(<BowlLines editing={made.editing} way={WAY} kitchen={kitchen} />, { wrapper: Around });
    await pass(30);
    await press(/^syrup: what kind/);
    return { ...made, requests };
  }

  it("takes a pan, a school, a weight for each piece and a share kept back", async () => {
    const { edits } = await slip();
    type("Finished in", "deep");
    type("Stirred", "all");
    type("For each piece", "4");
    type("Kept back", "20");
    expect(edits.map((edit) => edit.parts[1])).toMatchObject([
      { pan: "deep" },
      { schools: { stir: "all" } },
      { each_g: 4 },
      { kept: { share: 0.2 } },
    ]);
  });

  it("is made half as much again, and taken out", async () => {
    const { editing, edits } = await slip();
    await press("× 1.5");
    expect(editing.adjust).toHaveBeenCalledWith({ by: "part", part_id: "syrup", factor: 1.5 });
    await press("Take the part out");
    expect(edits[0]?.parts.map((part) => part.role)).toEqual(["base"]);
  });

  it("is made for another sheet too, and both are read anew", async () => {
    const { requests, editing } = await slip();
    fireEvent.keyDown(screen.getByRole("button", { name: /^Make it for another sheet too/ }), { key: "Enter" });
    const others = screen.getAllByRole("menuitem");
    expect(others.map((element) => element.textContent)).not.toContain("A cake");
    fireEvent.click(others[0] as HTMLElement);
    await pass(30);
    expect(requests.find((item) => item.path === "/api/sheets/7/share")?.body).toEqual({
      role: "syrup",
      with_sheet: 8,
      uid: expect.any(String),
    });
    expect(editing.look).toHaveBeenCalled();
  });
});

describe("words after a number", () => {
  it.each([
    ["cups", "cup_us"],
    ["g", "g"],
    ["tablespoons", "tbsp_us"],
    ["litre", "l"],
    ["furlongs", null],
  ])("%s", (words, unit) => {
    expect(unitNamed(words, ["g", "ml", "l", "cup_us", "cup_metric", "tbsp_us", "tbsp_metric"])).toBe(unit);
  });

  it("give the amount and the unit of a line", async () => {
    const { edits } = await lines();
    type("Sweet rice flour, amount", "1½ cups");
    expect(edits[0]?.parts[0]?.lines[0]?.amount).toEqual({ value: 1.5, unit: "cup_us" });
  });
});

describe("by feel", () => {
  it("so much more is added to what there was, however it is typed", async () => {
    const { edits } = await lines();
    const field = screen.getByLabelText("Sweet rice flour, amount");
    fireEvent.focus(field);
    fireEvent.change(field, { target: { value: "+1" } });
    fireEvent.change(field, { target: { value: "+15" } });
    fireEvent.change(field, { target: { value: "+ 15" } });
    expect(edits.map((edit) => edit.parts[0]?.lines[0]?.amount.value)).toEqual([301, 315, 315]);
  });
});

describe("taking a part out", () => {
  it("keeps what other lines sent to it where it is written", () => {
    const split = structuredClone(two);
    const line = split.parts[0]?.lines[1] as Line;
    line.splits = [
      { share: 0.5, at: "first", to: null, joins: "" },
      { share: 0.5, at: "then", to: "syrup", joins: "" },
    ];
    const without = withoutPart(split, "syrup");
    expect(without.parts.map((part) => part.role)).toEqual(["base"]);
    expect(without.parts[0]?.lines[1]?.splits[1]).toEqual({ share: 0.5, at: "then", to: null, joins: "" });
  });
});

describe("what is fixed", () => {
  const result = worked(
    fact("mix.base_g", 300, "g"),
    fact("mix.cooked_g", 900, "g"),
    fact("shape.depth_mm", 30, "mm"),
    fact("shape.pieces", 24),
    fact("shape.base_g", 18, "g"),
  );
  const show = (form: "tin" | "ball") => {
    const { editing } = benchOf(two, result);
    render(<MakeIt editing={editing} way={{ ...WAY, form }} />, { wrapper: Around });
    return editing;
  };
  const choose = (name: string) => fireEvent.click(screen.getByRole("radio", { name }));

  it.each([
    ["from the flour", "From flour of", "410", { by: "base", grams: 410 }],
    ["cooked weight", "Cooked, it is to weigh", "1200", { by: "cooked", grams: 1200 }],
    ["fill the tin", "Fill the tin", "40", { by: "depth", mm: 40 }],
    ["so many pieces", "of", "25", { by: "pieces", count: 24, piece_g: 25 }],
    ["short of …", "only", "210", { by: "line", part: 0, line: 0, grams: 210 }],
  ])("%s", (name, label, value, to) => {
    const editing = show("tin");
    choose(name);
    type(label, value);
    expect(editing.adjust).toHaveBeenCalledWith(to);
  });

  it("so many people, so many each", () => {
    const editing = show("ball");
    choose("so many people");
    type("For", "30");
    expect(editing.adjust).toHaveBeenLastCalledWith({ by: "people", people: 30, each: 2 });
    expect(screen.queryByRole("radio", { name: "fill the tin" })).toBeNull();
  });

  it("short of a part that is made", () => {
    const editing = show("ball");
    choose("short of …");
    type("Short of", "syrup");
    expect((screen.getByLabelText("only") as HTMLInputElement).value).toBe("434");
    type("only", "310");
    expect(editing.adjust).toHaveBeenCalledWith({ by: "have", part_id: "syrup", grams: 310 });
  });

  it("short of another line", () => {
    const editing = show("ball");
    choose("short of …");
    type("Short of", "1 0");
    type("only", "200");
    expect(editing.adjust).toHaveBeenCalledWith({ by: "line", part: 1, line: 0, grams: 200 });
  });
});

describe("where it goes", () => {
  const base: PartResult = {
    ...syrup,
    id: "base",
    role: "base",
    name: "rice",
    reduced: false,
    raw_g: 360,
    made_g: 780,
    nth: 1,
    outputs: [
      {
        id: "base",
        name: "rice",
        group: "grain",
        made_g: 780,
        household: "",
        place: { to: "whole", where: "through", joins: "" },
        goes: [{ to: "whole", name: "", grams: 780, where: "through", joins: "", take: -1, short_g: 0 }],
      },
    ],
  };
  const show = (from: Sheet = two, parts = [base, syrup]) => {
    const made = benchOf(from, { ...worked(), lines: weighed, parts });
    const way = { ...WAY, steps: [{ id: "fold", title: "Fold", heats: false }] };
    render(<Flows editing={made.editing} way={way} />, { wrapper: Around });
    return made;
  };
  const flow = () => screen.getByRole("button", { name: /g of syrup/ });

  it("draws parts in working order, each band as thick as it is heavy", () => {
    const drawn = drawnFlow(two, weighed, [base, syrup]);
    expect(drawn.bars.map((bar) => bar.id)).toEqual(["syrup", "base"]);
    expect(drawn.bars[1]?.x).toBeGreaterThan(drawn.bars[0]?.x ?? 0);
    const thick = (grams: number) => drawn.bands.find((band) => band.grams === grams)?.thick ?? 0;
    expect(thick(90) / thick(30)).toBeCloseTo(3, 6);
    expect(thick(434) / thick(300)).toBeCloseTo(434 / 300, 6);
  });

  it("ends what is taken where the part that takes it begins, and what is held back beside it", () => {
    const drawn = drawnFlow(two, weighed, [base, syrup]);
    const into = drawn.bands.find((band) => band.flow?.part === "syrup");
    expect(into?.to).toEqual([drawn.bars[1]?.x, drawn.bars[1]?.top]);
    expect(drawn.sinks.map((sink) => [sink.id, sink.grams, sink.says])).toEqual([
      ["whole", 780, ""],
      ["held", 30, "a glaze"],
    ]);
  });

  it("says it all in words", () => {
    show();
    expect(screen.getByRole("group").getAttribute("aria-label")).toContain("434 g of syrup: to rice");
    expect(document.body.textContent).toContain("495 in, 434 g made");
  });

  it("an arrow carries what is made to the next place", () => {
    const { edits } = show();
    fireEvent.keyDown(flow(), { key: "ArrowDown" });
    expect(edits[0]?.parts[1]?.rest).toEqual({ "": { to: "whole", where: "under", joins: "" } });
    fireEvent.keyDown(flow(), { key: "ArrowUp" });
    expect(edits[1]?.parts[1]?.rest).toEqual({ "": { to: "kept", where: null, joins: "" } });
  });

  it("pressed, it is opened: its place, its step, some of it elsewhere", () => {
    const { edits } = show();
    fireEvent.click(flow());
    type("Goes", "whole over");
    type("Joins at", "fold");
    pick(/^Take some of it/, /^into the /);
    expect(edits[0]?.parts[1]?.rest[""]).toEqual({ to: "whole", where: "over", joins: "" });
    expect(edits[1]?.parts[1]?.rest[""]).toEqual({ to: "base", where: null, joins: "fold" });
    expect(edits[2]?.parts[0]?.takes).toEqual([{ of: "syrup", share: 0.25, amount: null, joins: "" }]);
  });

  it("what was taken goes back when it is carried off the parts", () => {
    const taking = withNewTake(two, "base", "syrup", { share: 0.5, amount: null });
    const half = structuredClone(syrup);
    (half.outputs[0] as OutputResult).goes = [
      { to: "base", name: "rice", grams: 217, where: "", joins: "", take: 0, short_g: 0 },
    ];
    const { edits } = show(taking, [base, half]);
    fireEvent.keyDown(screen.getByRole("button", { name: /217 g of syrup/ }), { key: "ArrowUp" });
    expect(edits[0]?.parts[0]?.takes).toEqual([]);
  });
});

describe("water", () => {
  it("said the other way, as much is in the pot", () => {
    const rice = { ...two, grain: { ...two.grain, water: "all" as const } };
    const liquid = weighed.map((item) => (item.part === 0 && item.line === 1 ? { ...item, group: "liquid" } : item));
    const result = facts(fact("grain.total_water_g", 180), fact("grain.cook_water_g", 120));
    const poured = withWater(rice, liquid, result, "poured");
    expect(poured.grain.water).toBe("poured");
    expect(poured.parts[0]?.lines.map((line) => line.amount.value)).toEqual([300, 120]);
    const back = withWater(poured, liquid, result, "all");
    expect(back.parts[0]?.lines[1]?.amount.value).toBe(180);
  });
});

describe("places", () => {
  it("no part goes into what it is made of", () => {
    const glazed = { ...two, parts: [...two.parts, newPart("glaze", "glaze", "glaze", [newLine("milk")])] };
    const taking = withNewTake(glazed, "syrup", "glaze", { share: 0.5, amount: null });
    expect(feeds(taking, "glaze", "syrup")).toBe(true);
    expect(placesFor(taking, WAY, "syrup").map(([id]) => id)).not.toContain("glaze");
    expect(placesFor(taking, WAY, "glaze").map(([id]) => id)).toContain("syrup");
    expect(takeable(taking, "glaze").map((part) => part.role)).not.toContain("syrup");
  });
});

describe("the soak", () => {
  const grain: GrainResult = {
    minutes: [0, 60, 120, 240],
    uptake_pct: [0, 20, 26, 30],
    soak_min: 60,
    soak_c: 18,
    at_pct: 20,
    most_pct: 37,
    dry_g: 240,
    soaked_g: 300,
    cook_water_g: 280,
    cooked_g: 560,
    how: "simmered under a lid",
  };
  const show = () => {
    const made = benchOf();
    const result = facts(fact("grain.dry_g", 240), fact("grain.soaked_g", 300), fact("grain.cook_water_g", 280));
    render(<Soak editing={made.editing} grain={grain} facts={result} />, { wrapper: Around });
    return made;
  };

  it.each([
    ["ArrowRight", false, 65],
    ["ArrowLeft", true, 30],
  ])("is nudged by %s (shift %s)", (key, shiftKey, minutes) => {
    const { edits } = show();
    fireEvent.keyDown(screen.getByRole("slider"), { key, shiftKey });
    expect(edits[0]?.grain.soak_min).toBe(minutes);
  });

  it("reads what is taken up off the curve while it moves, and draws the weights to one scale", () => {
    show();
    fireEvent.keyDown(screen.getByRole("slider"), { key: "ArrowRight", shiftKey: true });
    expect(screen.getByRole("slider").getAttribute("aria-valuetext")).toBe("1 h 30, 23 % taken up");
    const bars = [...document.querySelectorAll("li rect")].map((rect) => Number(rect.getAttribute("width")));
    expect((bars[0] ?? 0) / (bars[3] ?? 1)).toBeCloseTo(240 / 560, 4);
  });

  it("is typed too", () => {
    const { edits } = show();
    type("Drained", "45");
    expect(edits[0]?.grain.drain_min).toBe(45);
  });
});

describe("units", () => {
  const own = { ...KITCHEN, own_cup_ml: 231 } as KitchenSettings;
  const egg = { g_per_piece: 50, packs: { box: 300 } } as never;

  it("are those that can be turned into grams here", () => {
    expect(unitsFor("g", KITCHEN)).not.toContain("cup_own");
    expect(unitsFor("g", own)).toContain("cup_own");
    expect(unitsFor("g", own)).not.toContain("piece");
    expect(unitsFor("g", own, egg)).toEqual(expect.arrayContaining(["piece", "pack"]));
    expect(unitsFor("piece", own)).toContain("piece");
  });

  it("say what they hold", () => {
    expect(unitName(createFormatters(METRIC), "cup_own", own)).toBe("cup 231, ours");
    expect(unitName(createFormatters(METRIC), "cup_rice_cooker", own)).toBe("cup 180, rice cooker");
    expect(unitName(createFormatters(METRIC), "pack", own, egg)).toBe("box of 300 g");
  });
});

describe("the station", () => {
  const grain: GrainResult = {
    minutes: [0, 60],
    uptake_pct: [0, 20],
    soak_min: 60,
    soak_c: 18,
    at_pct: 20,
    most_pct: 37,
    dry_g: 240,
    soaked_g: 300,
    cook_water_g: null,
    cooked_g: 560,
    how: "steamed",
  };
  const corners = [100, 135, 170].map((x, i) => ({ hydration_pct: x, sugar_pct: 60 + 25 * (i % 2) }));
  const way = { ...WAY, zone: corners, zone_words: [] } as typeof WAY;

  function show(more: Partial<WorkResult> = {}, editing: Partial<Editing> = {}) {
    const made = benchOf(
      two,
      worked(
        fact("mix.hydration_pct", 126, "%"),
        fact("mix.sugar_pct", 78, "%"),
        fact("mix.fat_pct", 6, "%"),
        fact("mix.filling_share_pct", 33, "%"),
        fact("mix.softness", 0.2),
        fact("mix.tenderness", -0.5),
        fact("mix.gel_temperature_c", 75, "°C"),
        fact("keep.hard_after_h", 48, "h"),
        fact("keep.room_h", 50, "h"),
      ),
    );
    serve(() => ({ body: [] }));
    const drawn = { ...drawing, outcome: "on the soft side", bite: "chewy" };
    const of = { ...made.editing, ...editing, dots: [], worked: { ...made.editing.worked, ...more } } as Editing;
    of.worked.drawings = { ...of.worked.drawings, mix: drawn };
    render(<Mix editing={of} way={way} kitchen={KITCHEN} />, { wrapper: Around });
    return made.editing;
  }

  it.each([
    ["water, per cent", "140", { by: "ratio", hydration_pct: 140 }],
    ["sugar, per cent", "90", { by: "ratio", sugar_pct: 90 }],
    ["fat, per cent", "8", { by: "ratio", fat_pct: 8 }],
    ["filling in the whole, per cent", "40", { by: "filling_share", share_pct: 40 }],
  ])("one ratio is typed and the others hold: %s", (label, value, to) => {
    const editing = show();
    type(label, value);
    expect(editing.adjust).toHaveBeenCalledWith(to);
  });

  it("one press makes it without what somebody does not eat", () => {
    const editing = show();
    pick("With no …", /egg/);
    expect(editing.adjust).toHaveBeenCalledWith({ by: "diet", diet: "no-egg" });
  });

  it("says how it will come out, and for how long it keeps", () => {
    show();
    const words = document.body.textContent;
    expect(words).toContain("on the soft side");
    expect(words).toContain("chewy");
    expect(words).toContain("soft for about 48 h");
    expect(words).toContain("keeps 50 h");
  });

  it("draws the map, where it goes, and for grain the soak", () => {
    show({ grain });
    expect(screen.getByRole("group", { name: /^Map/ })).toBeTruthy();
    fireEvent.click(screen.getByRole("radio", { name: "where it goes" }));
    expect(screen.getByRole("group", { name: /^Where each part goes/ })).toBeTruthy();
    fireEvent.click(screen.getByRole("radio", { name: "soak" }));
    expect(screen.getByRole("slider", { name: /^Soak/ })).toBeTruthy();
    expect(screen.queryByText("pour on")).toBeNull();
    cleanup();
    show();
    expect(screen.queryByRole("radio", { name: "soak" })).toBeNull();
  });

  it("repeats what an exchange had to say", () => {
    show({}, { says: ["Browns sooner.", "To hold water: 40 g less water."] });
    expect(screen.getByText("Browns sooner. To hold water: 40 g less water.")).toBeTruthy();
  });

  it("shows what is unlikely about a line, under it", () => {
    show({ lines: [{ ...(weighed[0] as LineResult), question: "Another cup?" }, ...weighed.slice(1)] });
    expect(screen.getByText("Another cup?")).toBeTruthy();
  });
});
