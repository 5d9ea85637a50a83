// @vitest-environment jsdom
/** Pasting a list, the larder and the shopping list. */

import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { KitchenSettings, ParsedIngredientLine, ShoppingLine } from "../api/client";
import { Gallery } from "../counter/Gallery";
import PastePage from "../counter/PastePage";
import ShoppingPage from "../shopping/ShoppingPage";
import { Around, KITCHEN, pageOf, pass, type SeenRequest, serve } from "../testing";
import LarderPage from "./LarderPage";

beforeEach(() => {
  localStorage.clear();
  sessionStorage.clear();
  vi.useFakeTimers();
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

const ITEM = {
  aliases: [],
  allergens: [],
  look_alike: "",
  caution: "",
  perishable: false,
  tags: [],
  g_per_piece: null,
  source: "table",
  figures: "typical",
  own: false,
};
const LARDER = [
  { ...ITEM, id: "salt", name: "Salt", group: "salt", per_100_g: { salt: 100 }, density: { spooned: 1.2 }, packs: {} },
  {
    ...ITEM,
    id: "sweet-rice-flour",
    name: "Sweet rice flour",
    group: "flour",
    per_100_g: { water: 12, starch: 80, protein: 7, fat: 1 },
    density: { spooned: 0.56 },
    packs: { bag: 500 },
  },
];
const WAYS = [{ id: "set-cake", name: "Steamed set cake", form: "tin", base: "flour", choices: [] }];

const type = (label: string | RegExp, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const press = async (name: string | RegExp) => {
  fireEvent.click(screen.getByRole("button", { name }));
  await pass(30);
};

/** Answers by path; a PUT of the kitchen gives back what was put. */
function world(bodies: Record<string, unknown>, kitchen: KitchenSettings = KITCHEN) {
  return serve((request: SeenRequest) => {
    if (request.path === "/api/kitchen")
      return {
        body: {
          set_up: true,
          kitchen: request.method === "PUT" ? (request.body as { kitchen: object }).kitchen : kitchen,
        },
      };
    return { body: bodies[request.path] ?? [] };
  });
}

describe("a pasted list", () => {
  const line = (more: Partial<ParsedIngredientLine>): ParsedIngredientLine => ({
    text: "",
    kind: "line",
    role: "base",
    value: null,
    unit: null,
    ingredient: null,
    state: null,
    understood: "",
    guessed: [],
    left_over: "",
    asks: "",
    ...more,
  });
  const lines = [
    line({
      text: "300 g sweet rice flour",
      value: 300,
      unit: "g",
      ingredient: "sweet-rice-flour",
      understood: "300 g",
    }),
    line({ text: "salt", ingredient: "salt", asks: "How much salt? No amount is written." }),
    line({ text: "snark", kind: "unread", asks: "What is it?" }),
  ];

  const method = [
    {
      text: "Steam in an 18 cm round tin for 45 minutes.",
      says: [
        { words: "a round tin 180 mm across", path: "vessel.tin.shape", value: "round", asks: "" },
        { words: "", path: "vessel.tin.diameter_mm", value: 180, asks: "" },
        { words: "45 min in the heat, as taught", path: "taught.heat", value: { minutes: 45, by: "it" }, asks: "" },
      ],
    },
    { text: "Cut into 24 pieces.", says: [{ words: "24 pieces", path: "pieces", value: 24, asks: "" }] },
    { text: "Bake at 350 for an hour.", says: [{ words: "350", path: "", value: null, asks: "Which degrees?" }] },
  ];

  async function read(more: object = {}) {
    const { requests } = world({
      "/api/larder": LARDER,
      "/api/ways": WAYS,
      "/api/read-recipe": {
        source: "text",
        title: "",
        yields: "Serves 8",
        sheet: null,
        listed: { lines, way: "set-cake" },
        method,
        way: "set-cake",
        because: ["it is steamed"],
        asks: ["“Serves 8”: how many pieces is that?"],
        ...more,
      },
      "/api/sheets": { id: 9 },
    });
    render(<PastePage />, { wrapper: Around });
    await pass(30);
    type(/one ingredient a line/, "300 g sweet rice flour\nsalt\nsnark");
    await press("Read it");
    return requests;
  }
  const begin = () => screen.getByRole("button", { name: "Begin the sheet" }) as HTMLButtonElement;

  it("shows every line, with its question, and waits until each is settled", async () => {
    await read();
    expect(screen.getAllByRole("listitem")).toHaveLength(6);
    expect(screen.getByText("How much salt? No amount is written.")).toBeTruthy();
    expect(screen.getByText(/2 lines are still open/)).toBeTruthy();
    expect(begin().disabled).toBe(true);
    expect(screen.getByText("“Serves 8”: how many pieces is that?")).toBeTruthy();
    const told = screen.getByRole("region", { name: "The method" });
    expect(told.textContent).toContain("understood: a round tin 180 mm across; 45 min in the heat, as taught");
    expect(told.textContent).toContain("350: Which degrees?");
  });

  it("has the method on the sheet, less what is left out of it", async () => {
    const requests = await read();
    type("Amount of “salt”", "2");
    fireEvent.click(within(screen.getAllByRole("listitem")[2] as HTMLElement).getByLabelText("leave out"));
    fireEvent.click(within(screen.getAllByRole("listitem")[4] as HTMLElement).getByLabelText("leave out"));
    await press("Begin the sheet");
    const made = requests.find((request) => request.method === "POST" && request.path === "/api/sheets")?.body as {
      says: { path: string }[];
    };
    expect(made.says.map((say) => say.path)).toEqual(["vessel.tin.shape", "vessel.tin.diameter_mm", "taught.heat"]);
  });

  it("of ours it is kept whole, and one that does not hold says where", async () => {
    const requests = await read({
      source: "sheet",
      title: "Ours",
      sheet: { title: "Ours", way: "set-cake" },
      asks: [],
    });
    await press("Keep it here");
    const made = requests.find((request) => request.method === "POST" && request.path === "/api/sheets")?.body as {
      sheet: object;
    };
    expect(made.sheet).toMatchObject({ title: "Ours" });
    cleanup();
    await read({ source: "sheet", sheet: null, asks: ["parts.0: is missing"] });
    expect(screen.getByRole("alert").textContent).toContain("parts.0: is missing");
  });

  it("sends of a long page its recipe data alone", async () => {
    const block = '<script type="application/ld+json">{"@type":"Recipe"}</script>';
    const requests = await read();
    type(/one ingredient a line/, `<html>${"<p>much</p>".repeat(20_000)}${block}</html>`);
    await press("Read it");
    const last = requests.filter((request) => request.path === "/api/read-recipe").at(-1)?.body as { text: string };
    expect(last.text).toBe(`<html>${block}</html>`);
  });

  it("takes a file", async () => {
    const requests = await read();
    const file = new File(["200 g rice"], "cake.txt", { type: "text/plain" });
    fireEvent.change(screen.getByLabelText("Open a file"), { target: { files: [file] } });
    await pass(50);
    const bodies = requests
      .filter((request) => request.path === "/api/read-recipe")
      .map((request) => request.body as { text: string });
    expect(bodies.at(-1)?.text).toBe("200 g rice");
  });

  it("is put right on the spot, and becomes a sheet", async () => {
    const requests = await read();
    type("Amount of “salt”", "2");
    const snark = screen.getAllByRole("listitem")[2] as HTMLElement;
    fireEvent.click(within(snark).getByLabelText("leave out"));
    expect(begin().disabled).toBe(false);
    await press("Begin the sheet");
    const made = requests.find((request) => request.method === "POST" && request.path === "/api/sheets")?.body as {
      sheet: { way: string; parts: { role: string; lines: { ingredient: string; amount: object }[] }[] };
    };
    expect(made.sheet.way).toBe("set-cake");
    expect(made.sheet.parts).toMatchObject([
      {
        role: "base",
        lines: [
          { ingredient: "sweet-rice-flour", amount: { value: 300, unit: "g" } },
          { ingredient: "salt", amount: { value: 2, unit: "g" } },
        ],
      },
    ]);
  });

  it("outlives a reload", async () => {
    await read();
    cleanup();
    world({ "/api/larder": LARDER, "/api/ways": WAYS });
    render(<PastePage />, { wrapper: Around });
    await pass(30);
    expect((screen.getByLabelText(/one ingredient a line/) as HTMLTextAreaElement).value).toContain("snark");
  });
});

describe("the larder", () => {
  async function open(kitchen?: KitchenSettings) {
    const { requests } = world({ "/api/larder": LARDER }, kitchen);
    render(<LarderPage />, { wrapper: Around });
    await pass(30);
    const puts = () =>
      requests
        .filter((request) => request.method === "PUT")
        .map((request) => (request.body as { kitchen: KitchenSettings }).kitchen);
    return puts;
  }

  it("keeps this kitchen's own figures, and says when they do not add up", async () => {
    const puts = await open();
    await press(/^Sweet rice flour/);
    type("water in 100 g", "22");
    expect(screen.getByText("Together 110.0 g: it should be 100")).toBeTruthy();
    type("starch in 100 g", "70");
    await press("Keep for this kitchen");
    expect(puts()[0]?.ingredients[0]).toMatchObject({
      id: "sweet-rice-flour",
      source: "cook",
      per_100_g: { water: 22, starch: 70 },
    });
  });

  it("takes one of the cook's own", async () => {
    const puts = await open();
    await press("One of your own");
    type("Name of the ingredient", "Flour from the Mill");
    await press("Put it on the shelf");
    expect(puts()[0]?.ingredients[0]).toMatchObject({ id: "own-flour-from-the-mill", name: "Flour from the Mill" });
  });

  it("is found by name, group or allergen", async () => {
    await open();
    type("Find", "flou");
    expect(screen.getByText("1 of 2 ingredients")).toBeTruthy();
    expect(screen.queryByRole("button", { name: /^Salt/ })).toBeNull();
  });
});

describe("shopping", () => {
  const thing: ShoppingLine = {
    ingredient: "sweet-rice-flour",
    name: "Sweet rice flour",
    group: "flour",
    shelf: "Flour",
    need_g: 540,
    spare_g: 0,
    have_g: 150,
    buy_g: 390,
    packs: 1,
    pack: "bag",
    carry_g: 500,
    pack_g: 500,
    left_g: 110,
    pieces: null,
    household: "",
    cost: null,
    allergens: [],
    look_alike: "Not plain rice flour.",
    sheets: ["A cake", "Balls"],
  };
  const list = {
    lines: [thing],
    allergens: ["egg"],
    notes: [],
    cost: null,
    unpriced: 1,
    currency: "",
    text: "the list",
  };

  async function open() {
    const { requests } = world({
      "/api/sheets": pageOf([
        { id: 1, title: "A cake" },
        { id: 2, title: "Balls" },
      ]),
      "/api/occasions": [{ sheets: [2] }],
      "/api/shopping": list,
    });
    render(<ShoppingPage />, { wrapper: Around });
    await pass(60);
    return requests;
  }
  const wanted = (requests: SeenRequest[]) =>
    requests.filter((request) => request.path === "/api/shopping").at(-1)?.body;

  it("begins with what is planned, and sums what is chosen", async () => {
    const requests = await open();
    expect(wanted(requests)).toEqual({ wanted: [{ sheet: 2, times: 1 }] });
    fireEvent.click(screen.getByLabelText("A cake"));
    await pass(30);
    type("Balls, times", "3");
    await pass(30);
    expect(wanted(requests)).toEqual({
      wanted: [
        { sheet: 1, times: 1 },
        { sheet: 2, times: 3 },
      ],
    });
    expect(screen.getByText(/540 g for A cake, Balls · 110 g left over/)).toBeTruthy();
    expect(screen.getByText("Not plain rice flour.")).toBeTruthy();
  });

  it("notes what is there, and a price when prices are asked for", async () => {
    const requests = await open();
    expect(screen.queryByLabelText("Sweet rice flour, price of a pack")).toBeNull();
    type("Sweet rice flour in the larder", "200");
    await pass(30);
    fireEvent.click(screen.getByLabelText("prices"));
    type("Sweet rice flour, price of a pack", "2.4");
    await pass(30);
    const stock = requests
      .filter((request) => request.method === "PUT")
      .map((request) => (request.body as { kitchen: KitchenSettings }).kitchen.stock[0]);
    expect(stock[0]).toMatchObject({ ingredient: "sweet-rice-flour", grams: 200 });
    expect(stock[1]).toMatchObject({ ingredient: "sweet-rice-flour", grams: 200, price: 2.4 });
  });

  it("is copied as text", async () => {
    const writeText = vi.fn(async () => {});
    vi.stubGlobal("navigator", { clipboard: { writeText } });
    await open();
    await press("Copy as text");
    expect(writeText).toHaveBeenCalledWith("the list");
  });
});

describe("the gallery", () => {
  const ways = [
    {
      id: "set-cake",
      name: "Steamed set cake",
      says: "Syrup and flour, steamed.",
      kin: ["nian gao"],
      said: ["steamed cake"],
    },
    { id: "tray-rice", name: "Syrup tray rice", says: "Grain in a syrup.", kin: ["biko"], said: ["coconut rice"] },
  ];
  async function open() {
    const { requests } = world({ "/api/ways": ways, "/api/sheets": { id: 4 } });
    render(<Gallery />, { wrapper: Around });
    await pass(30);
    return requests;
  }
  const made = (requests: SeenRequest[]) => requests.find((request) => request.method === "POST")?.body;

  it("finds a way by the name its kin go by, and by everyday words", async () => {
    await open();
    type("Find a way", "biko");
    expect(screen.getAllByRole("button").map((element) => element.textContent)).toEqual([
      "Syrup tray riceGrain in a syrup.biko",
    ]);
    type("Find a way", "cake, steamed");
    expect(screen.getAllByRole("button").map((element) => element.textContent)).toEqual([
      "Steamed set cakeSyrup and flour, steamed.nian gao",
    ]);
    type("Find a way", "strudel");
    expect(screen.getByText("No way goes by that name here.")).toBeTruthy();
  });

  it.each([
    [false, { way: "set-cake", blank: false, sheet: null }],
    [true, { way: "set-cake", blank: true, sheet: null }],
  ])("begins a sheet (blank: %s)", async (blank, body) => {
    const requests = await open();
    if (blank) fireEvent.click(screen.getByLabelText("blank, with nothing in the bowl"));
    await press(/^Steamed set cake/);
    expect(made(requests)).toEqual({ ...body, uid: expect.any(String) });
  });

  it("draws every way that it names", async () => {
    await open();
    for (const drawing of document.querySelectorAll("svg")) expect(drawing.childElementCount).toBeGreaterThan(1);
  });
});
