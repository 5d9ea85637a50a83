// @vitest-environment jsdom
/** Drawings are true to scale: what is drawn is measured here against what it stands for. */

import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type {
  BallDrawing,
  HeatOf,
  KitchenSettings,
  Pieces,
  Plan,
  Sheet,
  Tin,
  TinDrawing,
  TrayDrawing,
  WayCard,
} from "../api/client";
import { CueDrawing } from "../make/CueDrawing";
import { DayLanes } from "../occasion/DayLanes";
import { Around, fact, facts, worked } from "../testing";
import { Cooling } from "./cut/Cooling";
import { inches } from "./cut/inches";
import { lengths, Strip } from "./cut/StripsPage";
import { Tray } from "./cut/Tray";
import { BothSides, SideBySide } from "./heat/BothSides";
import { Checks } from "./heat/Checks";
import { GrainPot } from "./heat/GrainPot";
import { along, HeatCurve } from "./heat/HeatCurve";
import { Oven } from "./heat/Oven";
import { Parcels } from "./heat/Parcels";
import { Pot } from "./heat/Pot";
import { levelAt, Steamer } from "./heat/Steamer";
import { StirredPan } from "./heat/StirredPan";
import { BowlBar } from "./mix/BowlBar";
import { MixMap } from "./mix/MixMap";
import { LeafFold } from "./shape/LeafFold";
import { Packet } from "./shape/Packet";
import { PieceSection } from "./shape/PieceSection";
import { enough, holding, type Measure, weighed } from "./shape/piece";
import { TinSection } from "./shape/TinSection";

afterEach(cleanup);
const all = (selector: string) => [...document.querySelectorAll<SVGElement>(selector)];
const num = (element: Element | undefined, name: string) => Number(element?.getAttribute(name));
const text = () => document.body.textContent ?? "";

describe("a ball in cross-section", () => {
  const drawing = {
    kind: "ball",
    form: "ball",
    outer_mm: 35,
    core_mm: 24.5,
    heart_mm: 0,
    heart_g: 0,
    least_skin_mm: 3.2,
    near_skin_mm: 3.6,
    dough_g_per_ml: 1.2,
    filling_g_per_ml: 1.25,
    filling_name: "date",
  } as BallDrawing;
  const result = facts(
    fact("shape.diameter_mm", 35, "mm"),
    fact("shape.skin_mm", 5.25, "mm"),
    fact("shape.base_g", 18, "g"),
    fact("shape.filling_g", 9, "g"),
    fact("shape.disc_mm", 64, "mm"),
    fact("shape.rope_mm", 25, "mm"),
    fact("shape.rope_cut_mm", 30, "mm"),
  );

  it("keeps the share of filling to ball", () => {
    render(<PieceSection drawing={drawing} facts={result} />);
    const [outer, core] = all("circle").map((circle) => num(circle, "r"));
    expect((core ?? 0) / (outer ?? 1)).toBeCloseTo(24.5 / 35, 6);
  });

  it("draws rope and disc to one scale", () => {
    render(<PieceSection drawing={drawing} facts={result} />);
    const piece = all("rect")[0];
    expect(num(piece, "width") / num(piece, "height")).toBeCloseTo(30 / 25, 6);
    const widths = all("line").map((line) => num(line, "x2") - num(line, "x1"));
    const perMm = num(piece, "width") / 30;
    expect(widths.some((width) => Math.abs(width - 64 * perMm) < 0.01)).toBe(true);
  });

  it("with the paste outside, the rice is the core and the paste the coat", () => {
    const outside = {
      ...drawing,
      outside: true,
      dough_name: "rice",
      piece_name: "ball",
      piece_names: "balls",
      filling_name: "white bean paste",
    } as BallDrawing;
    render(<PieceSection drawing={outside} facts={result} />);
    const [shell, core] = all("circle").map((circle) => circle.getAttribute("fill"));
    expect([shell, core]).toEqual(["url(#m-filling)", "url(#m-cooked)"]);
    expect(text()).toContain("9.0 g white bean paste");
    expect(text()).toContain("coat 5.3 mm");
    expect(screen.getByRole("group", { name: "A ball 35 mm across, coat 5.3 mm" })).toBeTruthy();
  });

  it("a packet lies flat in its square of foil, to one scale", () => {
    const sizes = facts(
      fact("shape.base_g", 80, "g"),
      fact("shape.side_mm", 60, "mm"),
      fact("shape.thick_mm", 18, "mm"),
      fact("shape.foil_mm", 180, "mm"),
    );
    const flat = { ...drawing, core_mm: 0, form: "packet" } as BallDrawing;
    render(<PieceSection drawing={flat} facts={sizes} folded={<Packet facts={sizes} wrap="leaf-foil" />} />);
    expect(all("circle")).toHaveLength(0);
    const widths = all("rect").map((rect) => num(rect, "width"));
    expect(widths.some((wide) => widths.some((narrow) => Math.abs(narrow / wide - 60 / 180) < 1e-9))).toBe(true);
    expect(text()).toContain("18 mm thick");
  });

  it("a parcel's leaf, its cone and the parcel are to one scale", () => {
    const wrap = { leaf_length_mm: 400, leaf_width_mm: 60 } as Sheet["wrap"];
    const edge = facts(fact("shape.edge_mm", 91.2, "mm"));
    render(
      <svg role="img" aria-label="fold">
        <LeafFold facts={edge} wrap={wrap} leaves={2} />
      </svg>,
    );
    const cone =
      all("path")
        .find((path) => path.getAttribute("stroke-dasharray"))
        ?.getAttribute("d") ?? "";
    expect(Number(/l([\d.]+) 0/.exec(cone)?.[1])).toBeCloseTo((91.2 * 240) / 400);
    expect(text()).toContain("2 leaves, lapped");
  });

  it("a parcel is a cone of leaf with its filling low in it", () => {
    render(<PieceSection drawing={{ ...drawing, form: "parcel" } as BallDrawing} facts={result} />);
    expect(all("path[fill='url(#m-leaf)']")).toHaveLength(1);
    expect(num(all("circle")[0], "cy")).toBeGreaterThan(190);
    expect(text()).not.toContain("tears under");
  });

  it("is a plain ball without filling", () => {
    render(<PieceSection drawing={{ ...drawing, core_mm: 0 }} facts={result} />);
    expect(all("circle")).toHaveLength(1);
    expect(text()).not.toContain("skin");
  });
});

describe("a tin from the side", () => {
  const tin = {
    name: "blue",
    shape: "round",
    diameter_mm: 180,
    length_mm: 0,
    width_mm: 0,
    height_mm: 60,
    material: "metal",
  } as const;

  it("fills it to its depth at the tin's own scale", () => {
    render(<TinSection tin={tin} depth={31} count={1} />);
    const batter = all("rect")[0];
    expect(num(batter, "height") / num(batter, "width")).toBeCloseTo(31 / 180, 6);
    expect(text()).toContain("29 mm free");
  });

  it("shows a tin too small as running over", () => {
    render(<TinSection tin={tin} depth={null} count={1} />);
    expect(all("rect")).toHaveLength(0);
    expect(screen.getByRole("group", { name: /too small for its batter/ })).toBeTruthy();
  });

  it("is filled by the arrow keys, a millimetre at a time and never over the brim", () => {
    const filled = vi.fn();
    render(<TinSection tin={tin} depth={57} count={1} onFill={filled} />);
    for (const key of ["ArrowUp", "ArrowUp", "ArrowDown"]) fireEvent.keyDown(screen.getByRole("slider"), { key });
    expect(filled.mock.calls.flat()).toEqual([58, 58, 57]);
  });
});

describe("a tray from above", () => {
  const box = (x: number, y: number, kind: "corner" | "edge" | "inner" | "offcut", small = false) => ({
    outline: [
      [x, y],
      [x + 50, y],
      [x + 50, y + 50],
      [x, y + 50],
    ],
    grams: 40,
    kind,
    small,
  });
  const tray: TrayDrawing = {
    name: "the tray",
    count: 1,
    shape: "oblong",
    length_mm: 200,
    width_mm: 50,
    cells: [box(0, 0, "corner"), box(50, 0, "edge"), box(100, 0, "inner"), box(150, 0, "offcut")],
    lines: [[50, 0, 50, 50]],
    rings: [],
    rulers: [{ along: "from left to right", length_mm: 200, ticks: [50, 100, 150] }],
  };

  it("tells corners, edges, middles and offcuts apart, says each distance and weight", () => {
    render(<Tray tray={tray} smallMm={15} />);
    expect(new Set(all("polygon").map((svg) => svg.getAttribute("fill"))).size).toBe(4);
    for (const words of ["5.0", "10.0", "15.0", "20.0 cm", "40 g"]) expect(text()).toContain(words);
    expect(screen.getByRole("img", { name: "3 pieces of 40 g" })).toBeTruthy();
  });

  it("draws knife lines and pieces to one scale", () => {
    render(<Tray tray={tray} smallMm={15} />);
    const [corner] = all("polygon");
    const xs = (corner?.getAttribute("points") ?? "").split(" ").map((pair) => Number(pair.split(",")[0]));
    const line = all("line").find((svg) => svg.getAttribute("stroke-width") === "1.3");
    expect(num(line, "x1")).toBeCloseTo(Math.max(...xs), 6);
    expect(num(line, "y2") - num(line, "y1")).toBeCloseTo(Math.max(...xs) - Math.min(...xs), 6);
  });

  it("draws a ring at its share of the way out", () => {
    const round = { ...tray, shape: "round" as const, width_mm: 200, rings: [0.5] };
    render(<Tray tray={round} smallMm={15} />);
    const [wall, ring] = all("circle").map((svg) => num(svg, "r"));
    expect((ring ?? 0) / (wall ?? 1)).toBeCloseTo(0.5, 6);
  });

  it("a piece to be cut small is cut until no side is longer than the limit", () => {
    render(<Tray tray={{ ...tray, cells: [box(0, 0, "inner", true)] }} smallMm={15} />);
    // 50 mm in sides of at most 15: four, so three cuts each way.
    const dashes = all("path").find((svg) => svg.getAttribute("stroke-dasharray"));
    expect(dashes?.getAttribute("d")?.match(/M/g)).toHaveLength(6);
  });
});

describe("a strip to lay beside the tray", () => {
  it("is as long in millimetres as the edge, with a tick at every cut", () => {
    const [strip] = lengths("from left to right", 150, [50, 100]);
    if (strip) render(<Strip strip={strip} />);
    const svg = screen.getByTestId("strip");
    expect(svg.getAttribute("width")).toBe("152mm");
    expect(svg.getAttribute("viewBox")).toBe("-1 0 152 26"); // a unit of the drawing is a millimetre of paper
    expect(all("path").map((svg) => svg.getAttribute("d"))).toEqual(["M50 0.5v10", "M100 0.5v10"]);
    expect(text()).toContain("1 15/16″");
  });

  it("longer than paper, it comes in lengths, a cut on the joint on both", () => {
    const foundLengths = lengths("round the rim", 400, [10, 180, 395]);
    expect(foundLengths.map(({ from, to, ticks }) => [from, to, ticks])).toEqual([
      [0, 180, [10, 180]],
      [180, 360, [180]],
      [360, 400, [395]],
    ]);
  });

  it.each([
    [25.4, "1"],
    [31.8, "1 1/4"],
    [12.7, "1/2"],
    [0, "0"],
    [100, "3 15/16"],
  ])("%f mm are %s inches", (mm, words) => expect(inches(mm)).toBe(words));
});

describe("a piece under the hand", () => {
  const drawing = {
    kind: "ball", form: "ball", outside: false, outer_mm: 40, core_mm: 30, heart_mm: 20, heart_g: 4,
    dough_g_per_ml: 1.2, filling_g_per_ml: 1.25, dough_total_g: 500, filling_total_g: 300,
    least_skin_mm: 3, near_skin_mm: 3.4, dough_name: "dough", piece_name: "round", piece_names: "rounds", filling_name: "paste",
    filling_word: "filling", heart_name: "chestnut", remedies: [],
  } as unknown as BallDrawing; // biome-ignore format: a table

  it("weighs what its spheres hold", () => {
    // Spheres of 40, 30 and 20 mm: 33.510, 14.137 and 4.189 ml.
    const { dough_g, filling_g } = weighed(drawing, { outer: 40, core: 30 });
    expect(dough_g).toBeCloseTo((33.5103 - 14.1372) * 1.2, 3);
    expect(filling_g).toBeCloseTo((14.1372 - 4.18879) * 1.25 + 4, 3);
    const count = enough(drawing, { dough_g, filling_g });
    expect(count.dough).toBeCloseTo(500 / 23.2477, 3);
    expect(count.filling).toBeCloseTo(300 / (filling_g - 4), 6);
  });

  it("with the coat outside, the dough is what lies within", () => {
    const { dough_g, filling_g } = weighed(
      { ...drawing, outside: true, heart_mm: 0, heart_g: 0 },
      { outer: 40, core: 30 },
    );
    expect(dough_g).toBeCloseTo(14.1372 * 1.2, 3);
    expect(filling_g).toBeCloseTo((33.5103 - 14.1372) * 1.25, 3);
  });

  it("is moved by the arrow keys, half a millimetre at a time, and never through its skin", () => {
    const dropped = vi.fn();
    render(<PieceSection drawing={drawing} facts={{}} onDrop={dropped} />);
    const [outside, within] = screen.getAllByRole("slider");
    fireEvent.keyDown(outside as HTMLElement, { key: "ArrowRight" });
    expect(dropped).toHaveBeenLastCalledWith({ outer: 40.5, core: 30 });
    fireEvent.keyDown(within as HTMLElement, { key: "ArrowLeft" });
    expect(dropped).toHaveBeenLastCalledWith({ outer: 40.5, core: 29.5 });
  });

  it("says before a skin tears", () => {
    render(<PieceSection drawing={{ ...drawing, core_mm: 33.5 }} facts={{}} />);
    expect(text()).toContain("nearly tears: at least 3.0 mm");
    cleanup();
    render(<PieceSection drawing={{ ...drawing, core_mm: 35 }} facts={{}} />);
    expect(text()).toContain("tears: at least 3.0 mm");
  });

  it.each<[string, Pieces, Measure, Measure[], Pieces]>([
    ["one beside the other", { dough_g: 20 }, "skin_mm", [], { dough_g: 20, skin_mm: 5 }],
    ["the older one lets go", { dough_g: 20, filling_g: 9 }, "skin_mm", ["filling_g"], { filling_g: 9, skin_mm: 5 }],
    ["weight for diameter", { diameter_mm: 40 }, "piece_g", [], { piece_g: 5, skin_pct: 44 }],
    ["the count stays", { count: 20, dough_g: 20 }, "dough_g", [], { count: 20, dough_g: 5 }],
  ])("two measures say all: %s", (_, pieces, name, recent, expected) => {
    const next = holding(pieces, name, 5, false, recent, 44);
    expect(Object.fromEntries(Object.entries(next).filter(([, value]) => value != null))).toEqual(expected);
  });
});

const curve = { minutes: [0, 10, 20, 30, 40], core_c: [40, 60, 80, 90, 95], surface_c: [90, 97, 98, 99, 99] };
const times = facts(
  fact("heat.first_check_min", 25, "min"),
  fact("heat.done_min", 30, "min"),
  fact("heat.latest_min", 38, "min"),
  fact("mix.gel_temperature_c", 75, "°C"),
  fact("heat.water_ml", 1300, "ml"),
);
const steam = {
  kind: "steam",
  steamer: {
    pot_mm: 260,
    rack_mm: 38,
    gap_mm: 10,
    low_mm: 12,
    start_mm: 28,
    tiers: 2,
    minutes: [0, 20, 20.001, 40],
    water_mm: [28, 12, 20, 4],
    levels: [],
  },
  covered: false,
  tin: { name: "", shape: "round", diameter_mm: 180, length_mm: 0, width_mm: 0, height_mm: 60, material: "metal" },
  depth_mm: 31,
} as unknown as HeatOf<"steam">;
const inTin = { kind: "tin", tin: steam.tin, depthMm: 31, covered: false } as const;

describe("an oven", () => {
  const bake = {
    kind: "bake",
    tin: steam.tin,
    depth_mm: 30,
    oven_c: 175,
  } as HeatOf<"bake">;
  const baked = { minutes: [0, 20, 40, 60], core_c: [21, 60, 95, 99], surface_c: [21, 85, 104, 112] };

  it("draws the batter in its tin to one scale, and says what the top does", () => {
    render(<Oven drawing={bake} facts={facts(fact("heat.skin_min", 27), fact("heat.browns_min", 43))} />);
    const batter = all("rect")[1];
    expect(num(batter, "height") / num(batter, "width")).toBeCloseTo(30 / 180, 6);
    expect(text()).toContain("a skin at 27 min, golden at 43");
  });

  it("a top that stays pale is said to", () => {
    render(<Oven drawing={bake} facts={facts(fact("heat.skin_min", 27))} />);
    expect(text()).toContain("stays pale");
  });

  it("its curve has room for a top hotter than boiling", () => {
    render(<HeatCurve drawing={bake} curve={baked} facts={times} checks={[]} stages={[]} at={0} />);
    const ys = all("path[stroke-dasharray]").flatMap((svg) =>
      [...(svg.getAttribute("d") ?? "").matchAll(/[ML][\d.]+,([\d.]+)/g)].map((match) => Number(match[1])),
    );
    expect(Math.min(...ys)).toBeGreaterThan(70); // below the heads of the window
  });
});

describe("what is stirred", () => {
  const item = {
    kind: "stirred",
    method: "pan",
    power_w: 620,
    warm_kj: 120,
    dry_kj: 40,
    lost_g: 18,
    pan_mm: 240,
    bursts: 0,
  } as HeatOf<"stirred">;

  it("shows where the heat goes, each share as long as its kilojoules", () => {
    render(<StirredPan drawing={item} />);
    const [warms, dries] = all("rect").map((rect) => num(rect, "width"));
    expect((warms ?? 0) / (dries ?? 1)).toBeCloseTo(3, 6);
    expect(text()).toContain("18 g of water off");
  });

  it("in a microwave oven shows the bursts and the white core", () => {
    render(<StirredPan drawing={{ ...item, method: "microwave", bursts: 5 }} />);
    expect(text()).toContain("5 bursts of a minute");
    expect(text()).toContain("white core");
  });
});

describe("what is wrapped", () => {
  it("packets lie on the rack, thickness and side to one scale, none wider than the pot", () => {
    const within = { kind: "packets", thickMm: 18, sideMm: 62 } as const;
    render(<Steamer steamer={steam.steamer} within={within} at={0} facts={times} />);
    const leaves = all('rect[fill="url(#m-leaf)"]');
    expect(num(leaves[0], "height") / num(leaves[0], "width")).toBeCloseTo(18 / 62, 6);
    expect(leaves.length).toBe(3); // 260 mm takes four only edge to edge
  });

  it("parcels lie under a plate", () => {
    render(<Parcels thick={50} />);
    expect(text()).toContain("a plate keeps them under");
  });
});

describe("grain under a lid", () => {
  it("draws each stretch as long as it takes", () => {
    const phases = [
      { name: "to the boil", minutes: 4 },
      { name: "simmers", minutes: 12 },
      { name: "stands shut", minutes: 10 },
    ];
    const drawing = { kind: "grain", how: "lid", phases, bed_mm: 30, across_mm: 200, steamer: null } as const;
    render(<GrainPot drawing={drawing as never} />);
    const [, boil, simmer, stand] = all("rect").map((rect) => num(rect, "width"));
    expect((simmer ?? 0) / (boil ?? 1)).toBeCloseTo(3, 6);
    expect((stand ?? 0) / (boil ?? 1)).toBeCloseTo(2.5, 6);
    expect(screen.getByRole("img", { name: /simmers 12 minutes, stands shut 10 minutes/ })).toBeTruthy();
  });
});

describe("when to look", () => {
  it("says each minute and how many are done by then, and the cue", () => {
    const cue = { question: "Clear?", how: "A stick.", yes: "Clear", no: "Milky", looks: "stick" };
    const of = {
      ...worked(),
      checks: [
        { minute: 25, done_pct: 5 },
        { minute: 30, done_pct: 50 },
      ],
    };
    const step = { window: { first_check: 25, done: 30, latest: 38 }, cue } as never;
    render(<Checks worked={{ ...of, steps: [step] }} />);
    expect(text()).toContain("25 min5 in 100 done");
    expect(text()).toContain("Clear? A stick. Clear or milky?");
  });
});

describe("both sides", () => {
  const side = (id: string, done: number | null, shown: string[], more: object = {}) => ({
    id,
    label: id,
    buys: `what ${id} buys`,
    followed: false,
    first: done && done * 0.8,
    done,
    latest: done && done * 1.25,
    shown,
    says: [],
    problems: [],
    ...more,
  });
  const sides = (...of: object[]) =>
    ({ id: "cover", title: "Top of the tin", rows: ["heart when done"], units: ["°C"], sides: of }) as never;

  it("sets the schools beside each other, and shows where one has nothing", () => {
    render(
      <SideBySide
        busy={false}
        sides={sides(side("open", 24, ["92"], { followed: true }), side("covered", 32, [""], { says: ["Slow."] }))}
      />,
    );
    expect(screen.getByRole("columnheader", { name: /Open.*on this sheet.*What open buys/ })).toBeTruthy();
    expect(screen.getByRole("row", { name: "Heart when done 92 °C –" })).toBeTruthy();
    expect(text()).toContain("Slow.");
    const marks = all('line[stroke="var(--color-green)"]').map((line) => num(line, "x1"));
    // One ruler for both: 24 and 32 minutes stand as 3 to 4.
    expect(((marks[0] ?? 0) - 2) / ((marks[1] ?? 1) - 2)).toBeCloseTo(0.75, 6);
  });

  it("says why a side cannot be worked out", () => {
    const problems = [{ path: "vessel", says: "it would run over", accepts: "" }];
    render(
      <SideBySide busy={false} sides={sides(side("open", 24, [""]), side("covered", null, [""], { problems }))} />,
    );
    expect(text()).toContain("it would run over");
  });

  it("asks for nothing until it is opened", () => {
    const fetched = vi.spyOn(globalThis, "fetch");
    const way = { questions: [{ id: "cover", title: "Top of the tin", station: "heat" }] } as unknown as WayCard;
    render(<BothSides sheet={{} as never} way={way} />, { wrapper: Around });
    expect(fetched).not.toHaveBeenCalled();
    fetched.mockRestore();
  });
});

describe("between the points of a curve", () => {
  it("a straight line", () => {
    expect(along([0, 10, 30], [20, 60, 100], 20)).toBe(80);
    expect(along([0, 10], [20, 60], 99)).toBe(60);
    expect(along([5, 10], [20, 60], 0)).toBe(20);
  });

  it("the water jumps where it is topped up", () => {
    expect(levelAt(steam.steamer, 10)).toBeCloseTo(20, 6);
    expect(levelAt(steam.steamer, 19.999)).toBeCloseTo(12, 2);
    expect(levelAt(steam.steamer, 30)).toBeCloseTo(12, 2);
  });
});

describe("heat", () => {
  it("draws first check, done and latest where they stand on the axis", () => {
    render(<HeatCurve drawing={steam} curve={curve} facts={times} checks={[]} stages={[]} at={0} />);
    const [first, done, latest] = all('line[stroke="var(--color-green)"]').map((line) => num(line, "x1"));
    expect(((done ?? 0) - (first ?? 0)) / ((latest ?? 0) - (first ?? 0))).toBeCloseTo(5 / 13, 6);
  });

  it("draws float and heart apart for balls", () => {
    const boil = { ...steam, kind: "boil" } as unknown as HeatOf<"boil">;
    render(
      <HeatCurve
        drawing={boil}
        curve={curve}
        checks={[]}
        stages={[]}
        at={0}
        facts={{ ...times, ...facts(fact("heat.float_min", 4), fact("heat.core_hot_min", 30)) }}
      />,
    );
    expect(text()).toContain("floats at 4");
    expect(text()).toContain("heart hot at 30");
  });

  it("draws the steamer to scale, its water and its low mark", () => {
    render(<Steamer steamer={steam.steamer} within={inTin} at={0} facts={times} />);
    const [, water, batter] = all("rect");
    expect(num(water, "height") / num(water, "width")).toBeCloseTo(28 / 260, 6);
    expect(num(batter, "height") / num(batter, "width")).toBeCloseTo(31 / 180, 6);
    expect(text()).toContain("1.3 litres to start");
    expect(text()).toContain("no top-up needed");
  });

  it("says when to top up and with how much", () => {
    render(
      <Steamer
        steamer={steam.steamer}
        within={inTin}
        at={0}
        facts={{ ...times, ...facts(fact("heat.top_up_at_min", 38), fact("heat.top_up_ml", 404)) }}
      />,
    );
    expect(text()).toContain("top up at 38 min: 404 ml, boiling");
  });

  it("puts no more balls in a row than the pot is wide", () => {
    const boil = {
      kind: "boil",
      pot_mm: 240,
      water_mm: 66,
      outer_mm: 35,
      core_mm: 24,
      load: 24,
      loads: 1,
    } as HeatOf<"boil">;
    render(<Pot drawing={boil} facts={times} />);
    const balls = all("circle").filter((circle) => circle.getAttribute("fill") === "url(#m-starch)");
    expect(balls).toHaveLength(6);
    const scale = num(balls[0], "r") / 17.5;
    for (const ball of balls) expect(num(ball, "cx") + 17.5 * scale).toBeLessThanOrEqual(40 + 240 * scale + 0.01);
  });
});

describe("cooling", () => {
  it("marks when it cuts clean", () => {
    render(
      <Cooling cooling={{ curve, handle_c: 60, cut_c: 34 }} facts={facts(fact("rest.cut_after_min", 30, "min"))} />,
    );
    expect(screen.getByRole("img", { name: "Cuts clean after 30" })).toBeTruthy();
  });

  it("draws for balls only the stretch in which they are eaten", () => {
    const result = facts(fact("rest.handle_from_min", 5), fact("rest.handle_until_min", 10));
    render(<Cooling cooling={{ curve, handle_c: 65, cut_c: null }} facts={result} large />);
    expect(text()).toContain("eat: 5 to 10 min");
    expect(text()).not.toContain("40minutes");
  });
});

describe("the bowl as a bar", () => {
  it("gives each material its share of the width", () => {
    const bar = [
      { material: "water", grams: 300 },
      { material: "starch", grams: 100 },
    ];
    render(<BowlBar drawing={{ bar, in_zone: true, outcome: "", bite: "" }} facts={{}} />);
    const [water, starch] = all("rect").map((rect) => num(rect, "width"));
    expect((water ?? 0) / (starch ?? 1)).toBeCloseTo(3, 6);
  });
});

describe("the map", () => {
  const way = {
    zone: [
      { hydration_pct: 100, sugar_pct: 60 },
      { hydration_pct: 170, sugar_pct: 60 },
      { hydration_pct: 170, sugar_pct: 110 },
      { hydration_pct: 100, sugar_pct: 110 },
    ],
    zone_words: [],
  } as unknown as WayCard;
  const map = (moved?: (water: number, sugar: number) => void) =>
    render(<MixMap way={way} hydration={126} sugar={78} dots={[]} onMove={moved} />, { wrapper: Around });

  it.each([
    ["ArrowRight", false, [128, 78]],
    ["ArrowLeft", false, [124, 78]],
    ["ArrowUp", false, [126, 80]],
    ["ArrowDown", true, [126, 68]],
  ])("moves the bean by %s (shift %s)", (key, shiftKey, expected) => {
    const moved = vi.fn();
    map(moved);
    fireEvent.keyDown(screen.getByRole("slider"), { key, shiftKey });
    expect(moved).toHaveBeenCalledWith(...(expected as [number, number]));
  });

  it("counts on from where the bean was put, before the answer has come", () => {
    const moved = vi.fn();
    map(moved);
    for (let i = 0; i < 3; i++) fireEvent.keyDown(screen.getByRole("slider"), { key: "ArrowRight" });
    expect(moved).toHaveBeenLastCalledWith(132, 78);
    expect(screen.getByRole("slider").getAttribute("aria-valuetext")).toBe("132 % water, 78 % sugar");
  });

  it("is only looked at where nothing can be moved", () => {
    map();
    expect(screen.queryByRole("slider")).toBeNull();
  });
});

describe("the lanes of a plan", () => {
  const at = (minute: number) => new Date(Date.UTC(2026, 10, 28, 12, minute)).toISOString();
  const item = (id: string, from: number, to: number, hands: string, uses: string[] = []) => ({
    step: {
      id,
      title: id,
      words: "",
      minutes: to - from,
      hands,
      uses,
      after: [],
      cue: null,
      window: null,
      target: null,
      to_hand: [],
      work: "messy",
      tools: [],
      cautions: [],
    },
    starts: at(from),
    ends: at(to),
    dish: 0,
    who: "",
  });
  const plan = {
    begin: at(0),
    serve: at(100),
    scheduled: [
      item("a", 0, 40, "held"),
      item("b", 20, 60, "minded", ["burner"]),
      item("c", 60, 100, "free", ["freezer"]),
    ],
  } as unknown as Plan;
  const kitchen = { timezone: "UTC", quiet: { begins: "22:00", ends: "12:30" } } as KitchenSettings;

  it("puts what overlaps in rows of its own and keeps lengths to time", () => {
    render(<DayLanes plan={plan} kitchen={kitchen} dishes={["a cake"]} />);
    const [a] = all('[data-step="0:a"] rect');
    const [b] = all('[data-step="0:b"] rect');
    expect(num(a, "y")).not.toBe(num(b, "y"));
    expect(num(a, "width")).toBeCloseTo(num(b, "width"), 6);
    expect(all('[data-step="0:c"]')).toHaveLength(1);
  });

  it("shades the quiet hours that fall into it", () => {
    render(<DayLanes plan={plan} kitchen={kitchen} dishes={["a cake"]} />);
    const shade = all('rect[opacity="0.1"]');
    const whole = num(all('[data-step="0:a"] rect')[0], "width") * 2.5;
    expect(shade).toHaveLength(1);
    expect(num(shade[0], "width") / whole).toBeCloseTo(0.3, 2);
  });
});

describe("what done looks like", () => {
  it.each([
    ["grain", "Done: crushes clear. Not yet: a white heart"],
    ["spoon", "Done: the line stays. Not yet: it runs together"],
    ["pan", "Done: a bare floor. Not yet: runs back"],
    ["curd", "Done: clear oil, amber curds. Not yet: white still"],
  ] as const)("%s is drawn both ways and said", (looks, name) => {
    render(<CueDrawing looks={looks} />);
    expect(screen.getByRole("img", { name })).toBeTruthy();
    const [done, notYet] = all("svg > g");
    expect(done?.innerHTML).not.toBe(notYet?.innerHTML);
  });
});

describe("a tin with layers", () => {
  const layers = [
    { part_id: "crust", name: "sugar crust", group: "nut", where: "wall", mm: 2 },
    { part_id: "layer", name: "pears", group: "fruit", where: "under", mm: 5 },
    { part_id: "topping", name: "hazelnuts", group: "nut", where: "over", mm: 3 },
  ] as TinDrawing["layers"];

  it("draws each to scale, and says it", () => {
    const oblong = {
      name: "",
      shape: "oblong",
      diameter_mm: 0,
      length_mm: 220,
      width_mm: 220,
      height_mm: 60,
      material: "metal",
    } as Tin;
    render(<TinSection tin={oblong} depth={20} count={1} layers={layers} />);
    // 440 px for 220 mm: two to the millimetre. The fruit lies from 4 to 14 px over the floor at 300.
    const paths = [...document.querySelectorAll("path")].map((path) => path.getAttribute("d"));
    expect(paths).toContain("M134 286h432v10h-432Z");
    expect(paths).toContain("M131 240h438v6h-438Z");
    const says = screen.getByRole("group").getAttribute("aria-label");
    expect(says).toContain("5.0 mm of pears under it");
    expect(says).toContain("3.0 mm of hazelnuts over it");
  });
});
