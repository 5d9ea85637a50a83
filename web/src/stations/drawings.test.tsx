// @vitest-environment jsdom
/** Drawings are true to scale: what is drawn is measured here against what it stands for. */

import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { BallDrawing, BoilDrawing, CutDrawing, KitchenSettings, Plan, SteamDrawing, WayCard } from "../api/client";
import { CueDrawing } from "../make/CueDrawing";
import { Lanes } from "../plan/Lanes";
import { Around, fact, facts } from "../testing";
import { Cooling } from "./cut/Cooling";
import { Tray } from "./cut/Tray";
import { HeatCurve } from "./heat/HeatCurve";
import { Pot } from "./heat/Pot";
import { Steamer } from "./heat/Steamer";
import { TimeRuler } from "./heat/TimeRuler";
import { BowlBar } from "./mix/BowlBar";
import { MixMap } from "./mix/MixMap";
import { BallSection } from "./shape/BallShape";
import { TinSection } from "./shape/TinShape";

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
    least_skin_mm: 3.2,
    filling_name: "date",
  } as BallDrawing;
  const found = facts(
    fact("shape.diameter_mm", 35, "mm"),
    fact("shape.skin_mm", 5.25, "mm"),
    fact("shape.base_g", 18, "g"),
    fact("shape.filling_g", 9, "g"),
    fact("shape.disc_mm", 64, "mm"),
    fact("shape.rope_mm", 25, "mm"),
    fact("shape.rope_cut_mm", 30, "mm"),
  );

  it("keeps the share of filling to ball", () => {
    render(<BallSection drawing={drawing} facts={found} />);
    const [outer, core] = all("circle").map((circle) => num(circle, "r"));
    expect((core ?? 0) / (outer ?? 1)).toBeCloseTo(24.5 / 35, 6);
  });

  it("draws rope and disc to one scale", () => {
    render(<BallSection drawing={drawing} facts={found} />);
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
      filling_name: "white bean paste",
    } as BallDrawing;
    render(<BallSection drawing={outside} facts={found} />);
    const [shell, core] = all("circle").map((circle) => circle.getAttribute("fill"));
    expect([shell, core]).toEqual(["url(#m-filling)", "url(#m-cooked)"]);
    expect(text()).toContain("9.0 g white bean paste");
    expect(text()).toContain("coat 5.3 mm");
    expect(screen.getByRole("img", { name: "A ball 35 mm across, coat 5.3 mm" })).toBeTruthy();
  });

  it("a packet lies flat in its square of foil, to one scale", () => {
    const sizes = facts(
      fact("shape.base_g", 80, "g"),
      fact("shape.side_mm", 60, "mm"),
      fact("shape.thick_mm", 18, "mm"),
      fact("shape.foil_mm", 180, "mm"),
    );
    render(<BallSection drawing={{ ...drawing, core_mm: 0, form: "packet" } as BallDrawing} facts={sizes} />);
    expect(all("circle")).toHaveLength(0);
    const widths = all("rect").map((rect) => num(rect, "width"));
    expect(widths.some((wide) => widths.some((narrow) => Math.abs(narrow / wide - 60 / 180) < 1e-9))).toBe(true);
    expect(text()).toContain("18 mm thick");
  });

  it("a parcel is a cone of leaf with its filling low in it", () => {
    render(<BallSection drawing={{ ...drawing, form: "parcel" } as BallDrawing} facts={found} />);
    expect(all("path[fill='url(#m-leaf)']")).toHaveLength(1);
    expect(num(all("circle")[0], "cy")).toBeGreaterThan(190);
    expect(text()).not.toContain("tears under");
  });

  it("is a plain ball without filling", () => {
    render(<BallSection drawing={{ ...drawing, core_mm: 0 }} facts={found} />);
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
  const cell = (x: number, y: number, kind: "corner" | "edge" | "inner") => ({ x, y, w: 50, h: 50, kind });
  const found = facts(fact("cut.pieces", 4), fact("cut.piece_g", 40, "g"));

  it("ends its knife lines at a round edge", () => {
    const drawing = {
      shape: "round",
      length_mm: 200,
      width_mm: 200,
      knife_x: [50, 100],
      knife_y: [],
      cells: [],
    } as unknown as CutDrawing;
    render(<Tray drawing={drawing} facts={found} />);
    const [off, middle] = all("line").map((line) => Math.abs(num(line, "y2") - num(line, "y1")));
    expect((off ?? 0) / (middle ?? 1)).toBeCloseTo(Math.sqrt(3) / 2, 6); // the chord half a radius out
  });

  it("tells corners from edges and says each distance in cm", () => {
    const cells = [cell(0, 0, "corner"), cell(50, 0, "edge"), cell(100, 0, "inner")];
    render(
      <Tray
        drawing={{ shape: "oblong", length_mm: 150, width_mm: 50, knife_x: [50, 100], knife_y: [], cells }}
        facts={found}
      />,
    );
    const fills = all("rect")
      .slice(1)
      .map((rect) => rect.getAttribute("fill"));
    expect(new Set(fills).size).toBe(3);
    for (const words of ["5.0", "10.0", "15.0 cm", "40 g"]) expect(text()).toContain(words);
  });
});

const curve = { minutes: [0, 10, 20, 30, 40], heart_c: [40, 60, 80, 90, 95], surface_c: [90, 97, 98, 99, 99] };
const times = facts(
  fact("heat.first_check_min", 25, "min"),
  fact("heat.done_min", 30, "min"),
  fact("heat.latest_min", 38, "min"),
  fact("mix.gel_temperature_c", 75, "°C"),
  fact("heat.water_ml", 1300, "ml"),
);
const steam = {
  kind: "steam",
  curve,
  pot_mm: 260,
  rack_mm: 38,
  full_mm: 28,
  low_mm: 12,
  start_mm: 28,
  covered: false,
  tiers: 2,
  tin: { name: "", shape: "round", diameter_mm: 180, length_mm: 0, width_mm: 0, height_mm: 60, material: "metal" },
  depth_mm: 31,
  top_ups: [],
  water: [],
} as unknown as SteamDrawing;

describe("heat", () => {
  it("draws first check, done and latest where they stand on the axis", () => {
    render(<HeatCurve drawing={steam} facts={times} />);
    const [first, done, latest] = all('line[stroke="var(--color-green)"]').map((line) => num(line, "x1"));
    expect(((done ?? 0) - (first ?? 0)) / ((latest ?? 0) - (first ?? 0))).toBeCloseTo(5 / 13, 6);
  });

  it("draws float and heart apart for balls", () => {
    const boil = { ...steam, kind: "boil" } as unknown as BoilDrawing;
    render(
      <HeatCurve
        drawing={boil}
        facts={{ ...times, ...facts(fact("heat.float_min", 4), fact("heat.core_hot_min", 30)) }}
      />,
    );
    expect(text()).toContain("floats at 4");
    expect(text()).toContain("heart hot at 30");
  });

  it("draws the steamer to scale, its water and its low mark", () => {
    render(<Steamer drawing={steam} facts={times} />);
    const [, water, batter] = all("rect");
    expect(num(water, "height") / num(water, "width")).toBeCloseTo(28 / 260, 6);
    expect(num(batter, "height") / num(batter, "width")).toBeCloseTo(31 / 180, 6);
    expect(text()).toContain("1.3 litres to start");
    expect(text()).toContain("no top-up needed");
  });

  it("says when to top up and with how much", () => {
    render(
      <Steamer
        drawing={steam}
        facts={{ ...times, ...facts(fact("heat.top_up_at_min", 38), fact("heat.top_up_ml", 404)) }}
      />,
    );
    expect(text()).toContain("top up at 38 min: 400 ml, boiling");
  });

  it("puts no more balls in a row than the pot is wide", () => {
    const boil = {
      kind: "boil",
      curve,
      pot_mm: 240,
      water_mm: 66,
      outer_mm: 35,
      core_mm: 24,
      load: 24,
      loads: 1,
    } as BoilDrawing;
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
      <Cooling drawing={{ curve, handle_c: 60, cut_c: 34 }} facts={facts(fact("rest.cut_after_min", 30, "min"))} />,
    );
    expect(screen.getByRole("img", { name: "Cuts clean after 30" })).toBeTruthy();
  });

  it("draws for balls only the stretch in which they are eaten", () => {
    const found = facts(fact("rest.handle_from_min", 5), fact("rest.handle_until_min", 10));
    render(<Cooling drawing={{ curve, handle_c: 65, cut_c: null }} facts={found} large />);
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
    render(
      <BowlBar drawing={{ bar, lines: [], parts: [], grain: null, in_zone: true, outcome: "", bite: "" }} facts={{}} />,
    );
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
  const one = (id: string, from: number, to: number, hands: string, uses: string[] = []) => ({
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
      caution: "",
    },
    starts: at(from),
    ends: at(to),
  });
  const plan = {
    begin: at(0),
    serve: at(100),
    scheduled: [
      one("a", 0, 40, "held"),
      one("b", 20, 60, "minded", ["burner"]),
      one("c", 60, 100, "free", ["freezer"]),
    ],
  } as unknown as Plan;
  const kitchen = { timezone: "UTC", quiet: { begins: "22:00", ends: "12:30" } } as KitchenSettings;

  it("puts what overlaps in rows of its own and keeps lengths to time", () => {
    render(<Lanes plan={plan} kitchen={kitchen} onShift={() => {}} />);
    const [a] = all('[data-step="a"]');
    const [b] = all('[data-step="b"]');
    expect(num(a, "y")).not.toBe(num(b, "y"));
    expect(num(a, "width")).toBeCloseTo(num(b, "width"), 6);
    expect(all('[data-step="c"]')).toHaveLength(1);
  });

  it("shades the quiet hours that fall into it", () => {
    render(<Lanes plan={plan} kitchen={kitchen} onShift={() => {}} />);
    const shade = all('rect[opacity="0.1"]');
    const whole = num(all('[data-step="a"]')[0], "width") * 2.5;
    expect(shade).toHaveLength(1);
    expect(num(shade[0], "width") / whole).toBeCloseTo(0.3, 2);
  });
});

describe("a heat told as a range", () => {
  it("draws the window where its minutes lie", () => {
    const drawing = { kind: "timed", says: "boiled under a lid", first_check: 80, done: 110, latest: 150 } as const;
    render(<TimeRuler drawing={drawing} facts={facts(fact("heat.done_min", 110, "min"))} />, { wrapper: Around });
    const [wait, look] = all("rect").map((rect) => [num(rect, "x"), num(rect, "width")] as const);
    expect((wait?.[1] ?? 0) / (look?.[1] ?? 1)).toBeCloseTo(80 / (150 - 80), 6);
    expect((look?.[0] ?? 0) - (wait?.[0] ?? 0)).toBeCloseTo(wait?.[1] ?? 0, 6);
    expect(
      screen.getByRole("img", {
        name: "boiled under a lid: first check 80 min, likely done 1 h 50, latest 2 h 30",
      }),
    ).toBeTruthy();
    expect(text()).toContain("Boiled under a lid");
    expect(text()).toContain(": look from 80 min on.");
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
