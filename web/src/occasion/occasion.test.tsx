// @vitest-environment jsdom
/** The day's drawing, why a step lies where it does, clashes with ways out, and fields of the kitchen's own clock. */

import { QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { MemoryRouter, Route, Routes } from "react-router";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Clash, DayPlan, KitchenSettings, Occasion, OccasionOpen, Plan, StepResult } from "../api/client";
import { queryClient } from "../api/queries";
import { KITCHEN, type SeenRequest, serve, stepResult } from "../testing";
import { createFormatters } from "../ui/formatters";
import { WallField } from "../ui/WallField";
import { timeFrom } from "../ui/words";
import { METRIC } from "../words/measures";
import { beginWords } from "./beginWords";
import { changeOf } from "./ClashPanel";
import { DayLanes } from "./DayLanes";
import OccasionPage from "./OccasionPage";
import { reasonOf, type Scheduled } from "./slip";
import { quietSpans, timeScale } from "./timescale";
import { occasionOf } from "./useNewOccasion";

afterEach(() => {
  cleanup();
  queryClient.clear();
  vi.unstubAllGlobals();
});

const HOUR = 3_600_000;
const day = (hour: number) => Date.UTC(2026, 11, 4, 0) + hour * HOUR;
const iso = (hour: number) => new Date(day(hour)).toISOString();

function step(id: string, from: number, to: number, more: Partial<StepResult> = {}, dish = 0, who = ""): Scheduled {
  return {
    dish,
    who,
    starts: iso(from),
    ends: iso(to),
    step: stepResult(id, { title: id, words: "", minutes: (to - from) * 60, work: "safe", ...more }),
  };
}

const PLAN: Plan = {
  serve: iso(39.5),
  begin: iso(18),
  proven: true,
  gap_pct: 0,
  quiet_kept: true,
  gaps_kept: true,
  late_min: 0,
  earliest_serve: null,
  scheduled: [
    step("rinse", 18, 18.25),
    step("soak", 18.25, 32.5, { hands: "free", after: [{ step: "rinse", at_least: 0, at_most: 15 }] }),
    step("steam", 33, 34, {
      hands: "minded",
      uses: ["steamer"],
      after: [{ step: "soak", at_least: 0, at_most: 120 }],
    }),
    step("pound", 34, 34.5, { after: [{ step: "steam", at_least: 0, at_most: 5 }] }),
    step("plate", 39, 39.5, { after: [{ step: "pound", at_least: 60, at_most: null }] }),
  ],
};
const HOUSE = { ...KITCHEN, timezone: "UTC", quiet: { begins: "22:00", ends: "07:00" } } as KitchenSettings;

describe("a scale true to time, but for idle nights", () => {
  const quiet = quietSpans(day(18), day(40), HOUSE.quiet, (at) => new Date(at).toISOString().slice(0, 16));
  it("finds the quiet hours on the kitchen's clock", () => {
    expect(quiet).toEqual([{ from: day(22), to: day(31) }]);
  });
  it("folds the night, and keeps an hour an hour elsewhere", () => {
    const scale = timeScale(day(18), day(40), 0, 1000, quiet, []);
    expect(scale.x(day(31)) - scale.x(day(22))).toBeCloseTo(46);
    const hour = scale.x(day(20)) - scale.x(day(19));
    expect(hour).toBeCloseTo((1000 - 46) / 13);
    expect(scale.x(day(36)) - scale.x(day(35))).toBeCloseTo(hour);
    for (const at of [18.5, 23, 30, 33, 39]) expect(scale.at(scale.x(day(at)))).toBeCloseTo(day(at), -3);
  });
  it("leaves open what somebody works in", () => {
    const busy = [{ from: day(24), to: day(25) }];
    const scale = timeScale(day(18), day(40), 0, 1000, quiet, busy);
    expect(scale.folds.map((fold) => [fold.from, fold.to])).toEqual([[day(25), day(31)]]);
  });
});

describe("why a step lies where it does", () => {
  it("says what it waits for and how far it can slip", () => {
    const reason = reasonOf(PLAN, PLAN.scheduled[2] as Scheduled);
    expect(reason.after).toMatchObject([{ gap: 30, atMost: 120 }]);
    expect(reason).toMatchObject({ slip: 0, before: { step: { id: "pound" } } });
    // Five minutes after the steam at most, whatever the table would allow; plate wants an hour and has four and a half.
    expect(reasonOf(PLAN, PLAN.scheduled[3] as Scheduled)).toMatchObject({
      slip: 5,
      before: { step: { id: "steam" } },
    });
    expect(reasonOf(PLAN, PLAN.scheduled[4] as Scheduled)).toMatchObject({ slip: 0, before: null });
  });
});

describe("the lanes of a day", () => {
  const several: Plan = {
    ...PLAN,
    scheduled: [
      step("a", 33, 34, {}, 0, "cook 1"),
      step("b", 33, 35, { hands: "minded", uses: ["burner"] }, 1, "Wren"),
      step("c", 35, 36, { hands: "free", uses: ["freezer"] }, 1),
    ],
  };
  it("tells held, minded and free apart by shape, and has a lane for everybody", () => {
    render(<DayLanes plan={several} kitchen={HOUSE} dishes={["cake", "balls"]} onPick={() => {}} />);
    const rects = (key: string) => document.querySelectorAll(`[data-step="${key}"] rect`);
    expect(rects("0:a")).toHaveLength(1);
    expect(rects("1:b")).toHaveLength(3); // open, with a bar before it; and on its burner
    expect(Number(rects("1:c")[0]?.getAttribute("height"))).toBeLessThan(
      Number(rects("0:a")[0]?.getAttribute("height")),
    );
    for (const name of ["cook 1", "Wren", "burners", "freezer"]) expect(screen.getByText(name)).toBeTruthy();
    expect(screen.getByRole("button", { name: "1 a, 09:00 to 10:00, held, cook 1" })).toBeTruthy();
  });
  it("a step is carried by the arrow keys, five minutes at a time", () => {
    const carried: [string, string][] = [];
    render(
      <DayLanes
        plan={several}
        kitchen={HOUSE}
        dishes={["cake", "balls"]}
        onPick={() => {}}
        onCarry={(item, at) => carried.push([item.step.id, at.toISOString()])}
      />,
    );
    fireEvent.keyDown(screen.getByRole("button", { name: /^1 a/ }), { key: "ArrowRight" });
    fireEvent.keyDown(screen.getByRole("button", { name: /^1 a/ }), { key: "ArrowLeft" });
    expect(carried).toEqual([
      ["a", iso(33 + 5 / 60)],
      ["a", iso(33 - 5 / 60)],
    ]);
  });
});

describe("a way out", () => {
  const occasion: Occasion = {
    ...occasionOf("tea", "2026-12-05T23:30", [1, 2], 24),
    pins: [{ dish: 1, step: "steam", at: "2026-12-05T12:00" }],
  };
  const way = (more: object) =>
    ({ kind: "later", says: "", costs: "", minutes: 0, step: "", ...more }) as Clash["remedies"][number];
  it.each([
    [{ kind: "later", minutes: 75 }, { servings: [{ at: "2026-12-06T00:45", name: "", people: 24 }] }],
    [{ kind: "quiet" }, { quiet: false }],
    [{ kind: "unpin", dish: 1, step: "steam" }, { pins: [] }],
    [{ kind: "without", dish: 0 }, { pins: [{ dish: 0, step: "steam", at: "2026-12-05T12:00" }] }],
    [{ kind: "before", dish: 1 }, {}],
    [
      { kind: "school", dish: 0, choice: "rest", school: "cool" },
      { dishes: [{ schools: { rest: "cool" } }, { schools: {} }] },
    ],
    [{ kind: "soak", dish: 1, soak: "overnight" }, { dishes: [{ soak: "" }, { soak: "overnight" }] }],
    [{ kind: "smaller", dish: 1, factor: 0.5 }, { dishes: [{ factor: 1 }, { factor: 0.5 }] }],
    [{ kind: "helper", begins: "2026-12-05T14:00:00Z", ends: "2026-12-05T15:00:00Z" }, {}],
  ])("%j changes just that", (said, change) => {
    expect(changeOf(way(said), occasion, "UTC")).toMatchObject(change);
  });
  it("names the dish and the helper", () => {
    expect(changeOf(way({ kind: "before", dish: 1 }), occasion, "UTC").dishes?.map((dish) => dish.days_before)).toEqual(
      [0, 1],
    );
    expect(
      changeOf(way({ kind: "helper", begins: "2026-12-05T14:00:00Z", ends: "2026-12-05T15:00:00Z" }), occasion, "UTC")
        .helpers,
    ).toEqual([{ name: "Helper 1", begins: "2026-12-05T14:00", ends: "2026-12-05T15:00", safe_only: false }]);
  });
});

describe("times in the kitchen's own clock", () => {
  it("reads what a cook types", () => {
    expect(["15:30", "1530", "3.30 pm", "3pm", "12 am", "24:00", "9:75", "tea", "13 pm"].map(timeFrom)).toEqual([
      "15:30",
      "15:30",
      "15:30",
      "15:00",
      "00:00",
      null,
      null,
      null,
      null,
    ]);
  });
  it("is told by twelve hours where that is chosen", () => {
    const { timeOfDay } = createFormatters({ ...METRIC, clock_hours: 12 });
    expect(timeOfDay(iso(39.5), "UTC")).toBe("3:30 pm");
    expect(timeOfDay(iso(24), "UTC")).toBe("12:00 am");
  });
  it("a field steps days, takes a time, and says what it accepts", () => {
    const said: string[] = [];
    render(<WallField label="On the table" value="2026-12-31T15:30" onChange={(at) => said.push(at)} />);
    fireEvent.click(screen.getByRole("button", { name: "On the table: the day after" }));
    const time = screen.getByLabelText("On the table: time");
    fireEvent.change(time, { target: { value: "4 pm" } });
    fireEvent.blur(time);
    fireEvent.change(time, { target: { value: "late" } });
    fireEvent.blur(time);
    expect(said).toEqual(["2027-01-01T15:30", "2026-12-31T16:00"]);
    expect(screen.getByRole("alert").textContent).toContain("a time such as 15:30");
  });
  it("says when there is something to begin", () => {
    const feast = { begin: "2026-12-16", begins_with: "leaves soak on the evening before" };
    expect(beginWords(feast, "2026-12-04")).toBe("leaves soak on the evening before: in 12 days");
    expect(beginWords({ begin: "2026-12-04", begins_with: "" }, "2026-12-04")).toBe("begin now");
  });
});

describe("the page of an occasion", () => {
  const clash: Clash = {
    says: "“stir” and “wrap” want hands at once, and there is one cook.",
    bonds: [{ kind: "hands", dish: 0, step: "stir", says: "“stir” is held for 10 min" }],
    remedies: [
      {
        kind: "later",
        says: "20 min later",
        costs: "everybody eats later",
        minutes: 20,
        begins: null,
        ends: null,
        dish: null,
        step: "",
        choice: "",
        school: "",
        soak: "",
        factor: 1,
      },
    ],
  };
  const opened = (day: DayPlan, occasion: Occasion, revision = 1): OccasionOpen => ({
    id: 5,
    revision,
    occasion,
    dishes: [{ sheet: 1, title: "Black tea cake", way: "set-cake", pieces: 24, parts: [], problem: "" }],
    day,
    planning: null,
  });
  const looks = (requests: SeenRequest[]) =>
    requests.filter((request) => request.method === "GET" && request.path === "/api/occasions/5").length;
  const NONE: DayPlan = { plan: null, clash: null, sure: null, moved: [], late_min: 0 };
  function show(day: DayPlan, planning: OccasionOpen["planning"] = null) {
    let now = { ...opened(day, occasionOf("Tea", "2026-12-05T15:30", [1], 24)), planning };
    const requests: SeenRequest[] = [];
    serve((eachAsked) => {
      requests.push(eachAsked);
      if (eachAsked.method === "PUT") {
        const { occasion } = eachAsked.body as { occasion: Occasion };
        now = { ...opened({ ...NONE, plan: PLAN }, occasion, now.revision + 1), planning: null };
        return { body: now };
      }
      if (eachAsked.path.endsWith("/planning")) now = { ...now, planning: null };
      if (eachAsked.path === "/api/kitchen") return { body: { kitchen: HOUSE, set_up: true, revision: 1 } };
      if (eachAsked.path === "/api/shopping")
        return { body: { lines: [], allergens: [], notes: [], cost: null, unpriced: 0, currency: "", text: "" } };
      if (eachAsked.path === "/api/sheets") return { body: { sheets: [], page: 1, pages: 1, total: 0 } };
      return { body: now };
    });
    render(
      <QueryClientProvider client={queryClient}>
        <MemoryRouter initialEntries={["/occasions/5"]}>
          <Routes>
            <Route path="/occasions/:occasionId" element={<OccasionPage />} />
          </Routes>
        </MemoryRouter>
      </QueryClientProvider>,
    );
    return requests;
  }

  it("says what clashes, and one press makes it work", async () => {
    const requests = show({ ...NONE, clash });
    expect((await screen.findByRole("alert")).textContent).toContain("there is one cook");
    fireEvent.click(screen.getByRole("button", { name: "20 min later" }));
    await waitFor(() => expect(screen.getByRole("group", { name: /^The day from/ })).toBeTruthy());
    const put = requests.find((request) => request.method === "PUT")?.body as { occasion: Occasion; revision: number };
    expect(put.occasion.servings[0]?.at).toBe("2026-12-05T15:50");
    expect(put.revision).toBe(1);
    expect(screen.queryByText(/cannot be done/)).toBeNull();
  });

  it("what was typed and not saved is sent again after a reload, over what it was typed over", async () => {
    const typed = { ...occasionOf("Tea in the garden", "2026-12-05T16:00", [1], 24) };
    localStorage.setItem("kemble-occasion-5", JSON.stringify({ occasion: typed, uid: "typed-before", revision: 1 }));
    const requests = show({ ...NONE, plan: PLAN });
    await waitFor(() => expect(requests.filter((request) => request.method === "PUT")).toHaveLength(1));
    expect(requests.find((request) => request.method === "PUT")?.body).toMatchObject({
      uid: "typed-before",
      revision: 1,
      occasion: { title: "Tea in the garden" },
    });
    await waitFor(() => expect(localStorage.getItem("kemble-occasion-5")).toBeNull());
    expect((await screen.findByLabelText<HTMLInputElement>("What it is")).value).toBe("Tea in the garden");
  });

  it("while it is planned says how far it is, and one press takes what is found", async () => {
    const planning = {
      says: "Looking for the best day",
      since: new Date(Date.now() - 4_000).toISOString(),
      gap_pct: 2.5,
      stopped: false,
    };
    const requests = show({ ...NONE, plan: PLAN }, planning);
    const panel = await screen.findByRole("region", { name: "Planning" });
    expect(panel.textContent).toContain("Looking for the best day. What lies below is the day as it was before.");
    expect(panel.textContent).toMatch(/at most 2\.5 % from the best there can be\. [45] s/);
    await waitFor(() => expect(looks(requests)).toBeGreaterThan(2), { timeout: 4_000 }); // it is looked at again
    fireEvent.click(screen.getByRole("button", { name: "Take the one that is found" }));
    await waitFor(() => expect(screen.queryByRole("region", { name: "Planning" })).toBeNull());
    expect(requests.filter((request) => request.method === "DELETE").map((request) => request.path)).toEqual([
      "/api/occasions/5/planning",
    ]);
  });

  it("stopped with nothing found, it can be planned again", async () => {
    const stopped = { says: "Looking for the best day", since: iso(0), gap_pct: null, stopped: true };
    const requests = show({ ...NONE }, stopped);
    expect((await screen.findByRole("region", { name: "Planning" })).textContent).toContain("Stopped before a day");
    const before = looks(requests);
    fireEvent.click(screen.getByRole("button", { name: "Plan it" }));
    await waitFor(() => expect(screen.queryByRole("region", { name: "Planning" })).toBeNull());
    expect(requests.some((request) => request.method === "POST" && request.path === "/api/occasions/5/planning")).toBe(
      true,
    );
    expect(looks(requests)).toBe(before); // nobody looks at what has stopped
  });

  it("a press on a step says why it lies there, and pins it", async () => {
    const requests = show({ ...NONE, plan: PLAN });
    fireEvent.keyDown(await screen.findByRole("button", { name: /^pound/ }), { key: "Enter" });
    expect(screen.getByRole("region", { name: "The step" }).textContent).toContain("after steam");
    fireEvent.click(screen.getByRole("button", { name: "Pin it here" }));
    await waitFor(() => expect(requests.some((request) => request.method === "PUT")).toBe(true));
    const put = requests.find((request) => request.method === "PUT")?.body as { occasion: Occasion };
    expect(put.occasion.pins).toEqual([{ dish: 0, step: "pound", at: "2026-12-05T10:00" }]);
  });
});
