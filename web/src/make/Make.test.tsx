// @vitest-environment jsdom
/** The Make screen: what it shows when, and what each press and key tells the run. */

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { MemoryRouter, Route, Routes } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { NewEvent, RunOpen, StepResult, StepState } from "../api/client";
import { TellingsProvider } from "../runs/EventSenders";
import { type Event, eventOf } from "../runs/fold";
import { type Answer, fact, facts, pass, type SeenRequest, serve, stepResult } from "../testing";
import Make from "./Make";

const NOW = Date.UTC(2026, 10, 25, 9, 0);
const at = (minute: number) => new Date(NOW + minute * 60_000).toISOString();

beforeEach(() => {
  localStorage.clear();
  vi.useFakeTimers();
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

const step = stepResult;
const STEAM = step("steam", {
  hands: "minded",
  cautions: ["steam"],
  window: { first_check: 25, done: 30, latest: 40 },
  cue: { question: "Is it clear?", how: "Stick it.", yes: "Clear, it is done", no: "Not yet", looks: "stick" },
});
const standing = (id: string, more: Partial<StepState> = {}): StepState => ({
  id,
  status: "ready",
  planned_starts: at(0),
  planned_ends: at(30),
  expected_starts: at(0),
  expected_ends: at(30),
  started: null,
  ended: null,
  due: null,
  first_check: null,
  latest: null,
  late_min: 0,
  weights: [],
  probed: [],
  refit: null,
  paused: null,
  count: 0,
  who: "",
  ...more,
});
/** A step that has been on for so many minutes. */
const running = (item: StepResult, since: number) =>
  standing(item.id, {
    status: "running",
    started: at(-since),
    due: at(item.minutes - since),
    first_check: item.window ? at(item.window.first_check - since) : null,
    latest: item.window ? at(item.window.latest - since) : null,
  });

let uids = 0;
const event = (kind: RunOpen["events"][number]["kind"], step: string | null, when: string, more: object = {}) =>
  ({
    uid: `event-${++uids}`,
    at: when,
    kind,
    step,
    ...more,
  }) as Event;

/** A run whose steps stand like that: the events that led to it. */
function run(steps: StepResult[], states: StepState[], focus: string | null, more: Partial<RunOpen> = {}): RunOpen {
  const planned = (id: string) => states.find((state) => state.id === id);
  return {
    id: 3,
    began: at(0),
    clock_began: at(0),
    wall: at(0),
    unit: "C",
    events: states.flatMap((state) => [
      ...(state.started ? [event("started", state.id, state.started)] : []),
      ...(state.ended ? [event("done", state.id, state.ended)] : []),
    ]),
    sheet: 1,
    title: "A cake",
    way: "set-cake",
    pace: 1,
    now: at(0),
    plan: {
      serve: at(60),
      begin: at(0),
      proven: true,
      gap_pct: 0,
      quiet_kept: true,
      gaps_kept: true,
      late_min: 0,
      earliest_serve: null,
      scheduled: steps.map((eachStep) => ({
        step: eachStep,
        dish: 0,
        who: "",
        starts: planned(eachStep.id)?.planned_starts ?? at(0),
        ends: planned(eachStep.id)?.planned_ends ?? at(30),
      })),
    },
    state: {
      status: "running",
      now: at(0),
      steps: states,
      focus,
      next: null,
      notes: [],
      serve: at(60),
      expected_serve: at(60),
      late_min: 0,
      says: [],
      choices: [],
    },
    flow: [3],
    occasion: null,
    scale: "none",
    probe: "simulated",
    lines: [],
    core: null,
    facts: {},
    cautions: [{ id: "steam", title: "Steam", says: "Tilt the lid away." }],
    batch: null,
    ...more,
  };
}

/** The event stream as the page opens it; a test speaks through it. */
class Stream extends EventTarget {
  static newest: Stream;
  closed = false;
  constructor(readonly url: string) {
    super();
    Stream.newest = this;
  }
  close() {
    this.closed = true;
  }
  say(live: object) {
    this.dispatchEvent(new MessageEvent("reading", { data: JSON.stringify(live) }));
  }
}
/** What the simulated thermometer was told. */
let stuck: () => unknown[] = () => [];

async function show(made: RunOpen, how: (request: SeenRequest) => Answer | null = () => null, mate?: RunOpen) {
  let kept = made;
  const { requests } = serve((request) => {
    const told = how(request);
    if (told) return told;
    if (request.path === "/api/kitchen")
      return { body: { kitchen: { timezone: "UTC", temperature_unit: "C" }, set_up: true } };
    if (request.path === "/api/ways")
      return {
        body: [
          {
            id: "set-cake",
            faults: [{ id: "specks", seen: "white specks", cause: "", now: "more steam", next_time: "" }],
          },
        ],
      };
    if (request.path === "/api/probe/stick") return { status: 204 };
    if (request.path === "/api/session") return { body: { role: "owner" } };
    if (request.path.endsWith("/offers")) return { body: [] };
    if (mate && request.path === `/api/runs/${mate.id}`) return { body: mate };
    if (request.path.endsWith("/news")) return { body: { wall: at(0), events: { 3: kept.events.length } } };
    if (request.path.endsWith("/faults")) return { status: 404 };
    if (request.path.endsWith("/hands")) return { body: { steps: {} } };
    if (request.path.endsWith("/pictures") || request.path === "/api/runs") return { body: [] };
    if (request.path.endsWith("/events")) {
      const told = request.body as NewEvent;
      const event = eventOf(told, Date.parse(kept.now));
      kept = { ...kept, events: [...kept.events, event] };
      return { body: event };
    }
    return { body: kept };
  });
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  render(
    <MemoryRouter initialEntries={["/make/3"]}>
      <QueryClientProvider client={client}>
        <TellingsProvider>
          <Routes>
            <Route path="/make/:runId" element={<Make />} />
            <Route path="*" element={<p>elsewhere</p>} />
          </Routes>
        </TellingsProvider>
      </QueryClientProvider>
    </MemoryRouter>,
  );
  await pass(100);
  stuck = () => requests.filter((request) => request.path === "/api/probe/stick").map((request) => request.body);
  return () =>
    requests.filter((request) => request.path.endsWith("/events")).map((request) => request.body as NewEvent);
}

const press = async (name: RegExp | string) => {
  fireEvent.click(screen.getByRole("button", { name }));
  await pass(50);
};
const key = async (name: string, target: Element = document.body) => {
  fireEvent.keyDown(target, { key: name });
  await pass(50);
};
const heading = () => screen.getByRole("heading", { level: 1 }).textContent;

describe("a step that has not begun", () => {
  it("says how long it takes, when it is planned, and starts by one press", async () => {
    const told = await show(run([step("mix")], [standing("mix", { planned_starts: at(12) })], "mix"));
    expect(heading()).toBe("Title of mix");
    expect(screen.getByText("planned for 09:12, in 12 min")).toBeTruthy();
    expect(screen.queryByRole("timer")).toBeNull();
    await press("Start");
    expect(told()).toMatchObject([{ kind: "started", step: "mix" }]);
  });

  it("says when it should have begun", async () => {
    await show(run([step("mix")], [standing("mix", { planned_starts: at(-7) })], "mix"));
    expect(screen.getByText("planned for 08:53: 7 min late")).toBeTruthy();
  });
});

describe("an order trap", () => {
  const pour = step("pour", { asks: "Is the tin lined?" });

  it("is asked before its step begins, and not while it runs", async () => {
    await show(run([pour], [standing("pour")], "pour"));
    expect(screen.getByText("Is the tin lined?")).toBeTruthy();
    cleanup();
    await show(run([pour], [running(pour, 2)], "pour"));
    expect(screen.queryByText("Is the tin lined?")).toBeNull();
  });
});

describe("a running step", () => {
  it("shows its clock, its window and its caution, and waits for the first check", async () => {
    const told = await show(run([STEAM], [running(STEAM, 12)], "steam"));
    expect(heading()).toBe("Title of steam");
    expect(screen.getByRole("timer", { name: /12:0\d.*likely done at 30/ })).toBeTruthy();
    expect(screen.getByText("Tilt the lid away.", { exact: false })).toBeTruthy();
    expect(screen.getByText(/At the first check, 25 min/)).toBeTruthy();
    await press("5 minutes more");
    expect(told()).toMatchObject([{ kind: "not_yet", step: "steam" }]);
  });

  it("asks its question once it may be checked", async () => {
    const told = await show(run([STEAM], [running(STEAM, 26)], "steam"));
    expect(heading()).toBe("Is it clear?");
    expect(screen.getByRole("img", { name: /A clear stick is done/ })).toBeTruthy();
    await press("Not yet, 5 more");
    await press("Clear, it is done");
    expect(told().map((item) => item.kind)).toEqual(["not_yet", "done"]);
  });

  it("says by how much it is over", async () => {
    await show(run([STEAM], [running(STEAM, 42)], "steam"));
    expect(screen.getByRole("timer", { name: /12:0\d over/ })).toBeTruthy();
  });

  it("moves its window with every five minutes more", async () => {
    const events = [event("started", "steam", at(-12)), event("not_yet", "steam", at(-1))];
    await show(run([STEAM], [running(STEAM, 12)], "steam", { events }));
    expect(screen.getByRole("timer", { name: /likely done at 35/ })).toBeTruthy();
  });
});

describe("keys and pedal", () => {
  it.each([
    [" ", "done"],
    ["PageDown", "done"],
    ["n", "not_yet"],
    ["u", "undone"],
    ["PageUp", "undone"],
  ])("%j tells %s", async (name, kind) => {
    const told = await show(run([STEAM], [running(STEAM, 26)], "steam"));
    await key(name);
    expect(told().map((item) => item.kind)).toEqual([kind]);
  });

  it("do nothing while something is typed, but the pedal does", async () => {
    const weighed = step("mix", { target: { key: "mix.batch_g", label: "batch", grams: 930, beyond_g: 0 } });
    const told = await show(run([weighed], [running(weighed, 2)], "mix"));
    const field = screen.getByLabelText(/It shows/);
    await key("n", field);
    await key(" ", field);
    expect(told()).toEqual([]);
    await key("PageDown", field);
    expect(told().map((item) => item.kind)).toEqual(["done"]);
  });

  it("w goes to the scale", async () => {
    const weighed = step("mix", { target: { key: "mix.batch_g", label: "batch", grams: 930, beyond_g: 0 } });
    await show(run([weighed], [running(weighed, 2)], "mix"));
    await key("w");
    expect(document.activeElement).toBe(screen.getByLabelText(/It shows/));
  });
});

it("lists what is to hand, in grams and in the nearest household measure", async () => {
  const to_hand = [
    {
      name: "Sweet rice flour",
      grams: 300,
      household: "2 cups + 2 tbsp",
      splits: [],
      act: "",
      held_back: "",
      group: "",
      made: false,
      ingredient: "",
    },
    {
      name: "Water",
      grams: 192,
      household: "¾ cup",
      splits: ["67 g boiling", "125 g cool"],
      act: "",
      held_back: "",
      group: "",
      made: false,
      ingredient: "",
    },
  ];
  const dough = step("dough", { to_hand });
  await show(run([dough], [standing("dough")], "dough"));
  const [flour, water] = screen.getAllByRole("row");
  expect(flour?.textContent).toBe("Sweet rice flour300 g2 cups + 2 tbsp");
  expect(water?.textContent).toBe("Water67 g boiling, 125 g cool192 g¾ cup");
});

describe("weights, notes and faults", () => {
  it("a weight is told in grams; nonsense is not", async () => {
    const weighed = step("mix", { target: { key: "mix.batch_g", label: "batch", grams: 930.4, beyond_g: 0 } });
    const told = await show(run([weighed], [running(weighed, 2)], "mix"));
    expect(screen.getByText("930 g")).toBeTruthy();
    const field = screen.getByLabelText(/It shows/);
    fireEvent.change(field, { target: { value: "plenty" } });
    expect(screen.getByText(/A weight above 0/)).toBeTruthy();
    expect((screen.getByRole("button", { name: "Note it" }) as HTMLButtonElement).disabled).toBe(true);
    fireEvent.change(field, { target: { value: "931,5" } });
    await press("Note it");
    expect(told()).toMatchObject([{ kind: "weighed", step: "mix", grams: 931.5 }]);
  });

  it("a fault seen brings what to do now", async () => {
    const told = await show(run([STEAM], [running(STEAM, 26)], "steam"));
    await press("Something is wrong");
    await press("white specks");
    expect(told()).toMatchObject([{ kind: "fault", text: "white specks" }]);
    expect(screen.getByText(/white specks: more steam/)).toBeTruthy();
  });
});

describe("undo", () => {
  it("takes back whatever came last, and says what that was; redo lets it stand again", async () => {
    const weighed = step("mix", { target: { key: "mix.batch_g", label: "batch", grams: 930, beyond_g: 0 } });
    const told = await show(run([weighed], [running(weighed, 2)], "mix"));
    fireEvent.change(screen.getByLabelText(/It shows/), { target: { value: "931" } });
    await press("Note it");
    expect(screen.getByText("noted: 931 g")).toBeTruthy();
    await press("Undo: weighed 931 g (Title of mix)");
    expect(screen.queryByText("noted: 931 g")).toBeNull();
    await press("Undo: started (Title of mix)");
    expect(screen.getByRole("button", { name: "Start" })).toBeTruthy();
    await key("r");
    await press("Redo: weighed 931 g (Title of mix)");
    expect(screen.getByText("noted: 931 g")).toBeTruthy();
    const [weight, ...rest] = told();
    expect(rest.map((item) => [item.kind, item.of === weight?.uid])).toEqual([
      ["undone", true],
      ["undone", false],
      ["redone", false],
      ["redone", true],
    ]);
  });
});

it("says under which number the kitchen stumbled, and that it is tried again", async () => {
  const told = await show(run([STEAM], [running(STEAM, 26)], "steam"), (request) =>
    request.path.endsWith("/events")
      ? {
          status: 500,
          body: { problems: [{ path: "the kitchen", says: "stumbled over this (number 4f2a1b)", accepts: "" }] },
        }
      : null,
  );
  await press("Clear, it is done");
  expect(screen.getByText("1 kept here, to be sent")).toBeTruthy();
  expect(screen.getByText("The kitchen stumbled over this (number 4f2a1b). It is tried again by itself.")).toBeTruthy();
  await pass(1_100);
  expect(told()).toHaveLength(2);
  expect(heading()).toBe("It is on the table.");
});

describe("the dock", () => {
  it("keeps the other clocks, and one press brings a step to the front", async () => {
    const rest = step("rest", { hands: "free", minutes: 60 });
    await show(run([STEAM, rest], [running(STEAM, 5), running(rest, 4)], "steam"));
    await press(/^Title of rest/);
    expect(heading()).toBe("Title of rest");
    expect(screen.getByRole("button", { name: "That will do" })).toBeTruthy();
  });

  it("counts down to the next top-up of the steamer", async () => {
    const result = facts(fact("heat.top_up_at_min", 38), fact("heat.top_up_ml", 404));
    await show(run([STEAM], [running(STEAM, 34)], "steam", { facts: result }));
    expect(screen.getByText(/^(4:00|3:59)$/)).toBeTruthy();
    expect(screen.getByText("404 ml, boiling")).toBeTruthy();
  });

  it("says how late the table is", async () => {
    const made = run([STEAM], [running(STEAM, 5)], "steam");
    made.plan.serve = at(13);
    await show(made);
    expect(screen.getByText("12 min late")).toBeTruthy();
    expect(screen.getByText("09:25")).toBeTruthy();
  });
});

it("when all is done, space goes on to the tasting", async () => {
  await show(run([STEAM], [standing("steam", { status: "done", started: at(-30), ended: at(0) })], null));
  expect(heading()).toBe("It is on the table.");
  await key(" ");
  expect(screen.getByText("elsewhere")).toBeTruthy();
});

describe("a thermometer in the heart", () => {
  const core = {
    curve: { minutes: [0, 30, 60], core_c: [20, 80, 95], surface_c: [90, 99, 99] },
    first: 25,
    done: 30,
    latest: 40,
  };
  const hot = { state: "ok", celsius: 71.2, name: "thin tip", says: "" };
  const open = async (...more: RunOpen["events"]) => {
    vi.stubGlobal("EventSource", Stream);
    const events = [event("started", "steam", at(-12)), ...more];
    const told = await show(run([STEAM], [running(STEAM, 12)], "steam", { core, events }));
    await press("Thermometer in the heart");
    await pass(50);
    return told;
  };

  it("is not offered where no heart was told, nor before it is in the heat", async () => {
    await show(run([STEAM], [running(STEAM, 12)], "steam"));
    expect(screen.queryByRole("button", { name: "Thermometer in the heart" })).toBeNull();
    cleanup();
    await show(run([STEAM], [standing("steam")], "steam", { core }));
    expect(screen.queryByRole("button", { name: "Thermometer in the heart" })).toBeNull();
  });

  it("shows what it reads and notes it", async () => {
    const told = await open();
    expect(stuck()).toEqual([{ do: "into", run: 3, step: "steam" }]);
    const note = () => screen.getByRole<HTMLButtonElement>("button", { name: "Note it" });
    expect(note().disabled).toBe(true);
    Stream.newest.say(hot);
    await pass(20);
    expect(screen.getByText("71.2 °C")).toBeTruthy();
    await press("Note it");
    expect(told()).toMatchObject([{ kind: "probed", step: "steam", celsius: 71.2 }]);
    await press("Take it out");
    expect(Stream.newest.closed).toBe(true);
    expect(stuck().at(-1)).toEqual({ do: "out" });
  });

  it("says what is wrong with it", async () => {
    await open();
    Stream.newest.say({ ...hot, state: "gone", says: "The thermometer is not there. Is it plugged in?" });
    await pass(20);
    expect(screen.getByText(/Is it plugged in/)).toBeTruthy();
  });

  it("takes a reading by another one, and says what it does not take", async () => {
    const told = await open();
    const field = screen.getByRole("textbox", { name: "It reads" });
    fireEvent.change(field, { target: { value: "hot" } });
    expect(screen.getByText(/A temperature from -60 to 400 °C/)).toBeTruthy();
    fireEvent.change(field, { target: { value: "68,5" } });
    await press("Note this one");
    expect(told()).toMatchObject([{ kind: "probed", step: "steam", celsius: 68.5 }]);
  });

  it("tells the rest anew, on the dial and as a curve", async () => {
    // 38 °C was told for minute 9 and read at 12; prior ln(40/25)/3.29, reading 1 min in 9: a factor of e^0.179.
    const says = "At 12 minutes the heart is 38 °C: done at 36, not 30.";
    await open(event("probed", "steam", at(0), { celsius: 38 }));
    expect(screen.getByText(says)).toBeTruthy();
    expect(screen.getByRole("timer", { name: /likely done at 36/ })).toBeTruthy();
    expect(screen.getByRole("img", { name: "Told done at 30 minutes, now at 36" })).toBeTruthy();
  });
});

describe("what cannot be", () => {
  const bounds = {
    least_g: 300,
    most_g: 900,
    weight: "880 g went in",
    most_c: 103,
    heat: "water boils at 100 °C here",
  };

  it("a weight is asked about, and stands once it is said to be so", async () => {
    const weighed = step("mix", { target: { key: "mix.batch_g", label: "batch", grams: 860, beyond_g: 0 }, bounds });
    const told = await show(run([weighed], [running(weighed, 2)], "mix"));
    fireEvent.change(screen.getByLabelText(/It shows/), { target: { value: "1400" } });
    await press("Note it");
    expect(screen.getByRole("alert").textContent).toContain("That is more than it can be: 880 g went in.");
    expect(told()).toEqual([]);
    await press("Read it again");
    expect(screen.queryByRole("alert")).toBeNull();
    await press("Note it");
    await press("It is so");
    expect(told()).toMatchObject([{ kind: "weighed", grams: 1400, sure: true }]);
  });

  it("three hundred degrees in steam are asked about", async () => {
    const core = {
      curve: { minutes: [0, 30], core_c: [20, 90], surface_c: [90, 99] },
      first: 25,
      done: 30,
      latest: 40,
    };
    const hot = { ...STEAM, bounds };
    const told = await show(run([hot], [running(hot, 12)], "steam", { core, probe: "none" }));
    await press("Thermometer in the heart");
    expect(screen.getByText(/No thermometer is attached/)).toBeTruthy();
    fireEvent.change(screen.getByRole("textbox", { name: "It reads" }), { target: { value: "149" } });
    await press("Note this one");
    expect(screen.getByRole("alert").textContent).toContain("It cannot be so hot: water boils at 100 °C here.");
    expect(told()).toEqual([]);
  });
});

describe("hands that are wet", () => {
  const MIX = step("mix");
  const REST = step("rest", { hands: "free" });

  it("p pauses its clock and goes on", async () => {
    const told = await show(run([MIX], [running(MIX, 4)], "mix"));
    await key("p");
    expect(screen.getByRole("timer", { name: /^paused/ })).toBeTruthy();
    await key("p");
    expect(told().map((item) => item.kind)).toEqual(["paused", "resumed"]);
  });

  it("c counts, and from then on the pedal does until all are there", async () => {
    const wrap = step("wrap", { count: { of: 3, what: "pieces" } });
    const told = await show(run([wrap], [running(wrap, 1)], "wrap"));
    await key("c");
    await key("PageDown");
    expect(screen.getByRole("button", { name: /^2 of 3 pieces/ })).toBeTruthy();
    await key("PageDown");
    await key("PageDown");
    expect(told().map((item) => item.kind)).toEqual(["counted", "counted", "counted", "done"]);
  });

  it("arrows look on and back, and h goes to what waits for hands", async () => {
    await show(run([MIX, REST], [running(MIX, 2), running(REST, 1)], "mix"));
    await key("ArrowRight");
    expect(heading()).toBe("Title of rest");
    await key("ArrowLeft");
    expect(heading()).toBe("Title of mix");
    await key("ArrowRight");
    await key("h");
    expect(heading()).toBe("Title of mix");
  });

  it("? shows the keys", async () => {
    await show(run([MIX], [running(MIX, 2)], "mix"));
    await key("?");
    expect(screen.getByRole("dialog", { name: "Help with this page" }).textContent).toContain(
      "go to what waits for hands",
    );
  });

  it("escape leaves a field, and the keys are the step's again", async () => {
    const weighed = step("mix", { target: { key: "mix.batch_g", label: "batch", grams: 930, beyond_g: 0 } });
    const told = await show(run([weighed], [running(weighed, 2)], "mix"));
    const field = screen.getByLabelText(/It shows/);
    field.focus();
    await key("Escape", field);
    expect(document.activeElement).toBe(document.body);
    await key(" ");
    expect(told().map((item) => item.kind)).toEqual(["done"]);
  });
});

describe("what was added", () => {
  it("is told with its part and its grams", async () => {
    const lines = [
      { ingredient: "sweet-rice-flour", name: "Sweet rice flour", part: "base", part_name: "dough" },
      { ingredient: "walnut", name: "Walnuts", part: "filling", part_name: "filling" },
    ];
    const told = await show(run([STEAM], [running(STEAM, 2)], "steam", { lines }));
    await key("a");
    await press(/^Walnuts/);
    await press("It is in");
    expect(told()).toMatchObject([
      { kind: "added", step: "steam", added: { ingredient: "walnut", part: "filling", grams: 15 } },
    ]);
  });
});

describe("otherwise this time", () => {
  it("a step is left out, timed, or followed by one more", async () => {
    const told = await show(run([STEAM], [running(STEAM, 2)], "steam"));
    await press("Otherwise this time");
    fireEvent.change(screen.getByLabelText("“Title of steam” takes"), { target: { value: "44" } });
    await press("change it");
    await press("Otherwise this time");
    fireEvent.change(screen.getByLabelText("A step after it"), { target: { value: "Wipe the rim" } });
    await press("add it");
    await press("Otherwise this time");
    await press("leave “Title of steam” out this time");
    expect(told()).toMatchObject([
      { kind: "amended", entry: { step: "steam", minutes: 44 } },
      { kind: "amended", entry: { title: "Wipe the rim", after: "steam", minutes: 5 } },
      { kind: "skipped", step: "steam" },
    ]);
    expect(told()[1]?.entry).toMatchObject({ own: expect.stringMatching(/^own-[a-z]+$/) });
  });

  it("what the sheet says by now is offered, and taken over with a press", async () => {
    const entry = {
      ...{ minutes: 44, by: "my aunt", per: null, ours_min: null, use: null, skip: false, after: "", words: "" },
      ...{ step: "steam", stages: [] },
    };
    const offers = [
      { step: "steam", title: "Steam", minutes: 44, entry },
      { step: "sieve", title: "Sieve", minutes: null, entry: null },
    ];
    const told = await show(run([STEAM], [running(STEAM, 2)], "steam"), ({ path }) =>
      path.endsWith("/offers") ? { body: offers } : null,
    );
    const asked = screen.getByText("The method of “A cake” has changed since this was begun:");
    const [steam, sieve] = within(asked.parentElement as HTMLElement).getAllByRole("button", { name: "do it so" });
    fireEvent.click(steam as HTMLElement);
    await pass(50);
    fireEvent.click(sieve as HTMLElement);
    await pass(50);
    expect(told()).toMatchObject([{ kind: "amended", entry: { step: "steam", minutes: 44 } }, { kind: "skipped" }]);
    expect(screen.queryByText(/has changed since/)).toBeNull();
  });

  it("says that the page is older than what was written", async () => {
    const making = run([STEAM], [running(STEAM, 2)], "steam");
    const later = { kind: "sung", uid: "an-event-of-2030", at: making.now, step: "steam" };
    await show({ ...making, events: [...making.events, later] as typeof making.events });
    expect(screen.getByRole("alert").textContent).toContain("This page is older than Kemble.");
    expect(heading()).toBe("Title of steam");
  });
});

describe("the rest, planned anew", () => {
  const rest = (more: object = {}) => ({
    scheduled: [],
    says: ["On the table at 16:10, 40 min later than planned."],
    choices: ["A second pair of hands from now on: in time."],
    late_min: 40,
    ...more,
  });

  it("says what moved and what would help, until it is seen", async () => {
    const events = [event("started", "steam", at(-12)), event("replanned", null, at(-1), { rest: rest() })];
    await show(run([STEAM], [running(STEAM, 12)], "steam", { events }));
    expect(screen.getByText("On the table at 16:10, 40 min later than planned.")).toBeTruthy();
    expect(screen.getByText(/A second pair of hands/)).toBeTruthy();
    await press("Seen");
    expect(screen.queryByText(/40 min later/)).toBeNull();
  });

  it("has its steps where they lie now, as they are worked now", async () => {
    const cut = step("cut", { after: [{ step: "steam", at_least: 0, at_most: null }] });
    const moved = { step: { ...cut, title: "Cut it smaller" }, dish: 0, who: "", starts: at(50), ends: at(80) };
    const events = [
      event("started", "steam", at(-30)),
      event("replanned", null, at(-2), { rest: rest({ scheduled: [moved] }) }),
      event("done", "steam", at(-1)),
    ];
    await show(run([STEAM, cut], [standing("steam"), standing("cut")], "cut", { events }));
    expect(heading()).toBe("Cut it smaller");
    expect(screen.getByText("planned for 09:50, in 50 min")).toBeTruthy();
  });
});

describe("several sheets in one flow", () => {
  const whose = (made: RunOpen, who: string): RunOpen => ({
    ...made,
    plan: { ...made.plan, scheduled: made.plan.scheduled.map((item) => ({ ...item, who })) },
  });
  const STIR = step("stir", { title: "Stir the syrup" });
  const WRAP = step("wrap", { title: "Wrap the rounds" });
  const cake = () => whose(run([STIR], [running(STIR, 3)], "stir", { flow: [3, 4] }), "cook 1");
  const rounds = () => ({
    ...whose(run([WRAP], [running(WRAP, 1)], "wrap", { flow: [3, 4], title: "Rounds" }), "cook 2"),
    id: 4,
  });

  it("shows the clocks of all, each with the sheet it is of", async () => {
    await show(cake(), () => null, rounds());
    expect(heading()).toBe("Stir the syrup");
    const dock = screen.getByRole("region", { name: "Clocks" });
    expect(dock.textContent).toContain("Wrap the rounds");
    expect(dock.textContent).toContain("Rounds");
    await press(/^Wrap the rounds.*Rounds/);
    expect(heading()).toBe("Wrap the rounds");
  });

  it("says the day of what lies on another, and draws no empty lanes", async () => {
    const fold = step("fold", { minutes: 10 });
    const states = [standing("fold", { planned_starts: at(3 * 1440), planned_ends: at(3 * 1440 + 10) })];
    const later = { ...whose(run([fold], states, "fold", { flow: [3, 4] }), "cook 1") };
    const other = {
      ...whose(
        run(
          [step("wrap")],
          [standing("wrap", { planned_starts: at(3 * 1440), planned_ends: at(3 * 1440 + 30) })],
          "wrap",
          { flow: [3, 4] },
        ),
        "cook 2",
      ),
      id: 4,
    };
    await show(later, () => null, other);
    expect(document.querySelector("[data-lane]")).toBeNull();
    expect(screen.getByRole("region", { name: "cook 2" }).textContent).toMatch(/next, \w{3} \d+ \w+ \d\d:\d\d/);
  });

  it("draws each cook's lane true to time", async () => {
    const [knead, fold] = [step("knead", { minutes: 20 }), step("fold", { minutes: 10, hands: "minded" })];
    const states = [
      running(STIR, 20), // 30 min from twenty minutes ago: all that is shown of what is past, and ten to come
      standing("knead", { planned_starts: at(35), planned_ends: at(55) }),
      standing("fold", { planned_starts: at(-5), planned_ends: at(5) }), // late: it cannot begin before now
    ];
    await show(whose(run([STIR, knead, fold], states, "stir", { flow: [3, 4] }), "cook 1"), () => null, rounds());
    const lane = document.querySelector('[data-lane="cook 1"]');
    const bars = [...(lane?.querySelectorAll<HTMLElement>("[data-bar]") ?? [])].map((bar) => ({
      of: bar.dataset.bar,
      left: Number.parseFloat(bar.style.left).toFixed(1),
      wide: Number.parseFloat(bar.style.width).toFixed(1),
    }));
    // Ninety minutes are a hundred per cent, of which ten are past.
    expect(bars).toEqual([
      { of: "3 stir", left: "0.0", wide: "22.2" },
      { of: "3 fold", left: "11.1", wide: "11.1" },
      { of: "3 knead", left: "50.0", wide: "22.2" },
    ]);
    expect(lane?.textContent).toContain("Stir the syrup");
  });

  it("stands beside one cook, and hands a pan over to the other", async () => {
    const told = await show(cake(), () => null, rounds());
    await press("cook 2");
    expect(heading()).toBe("Wrap the rounds");
    await press("cook 1");
    await press("Hand it over");
    fireEvent.click(within(screen.getByRole("dialog")).getByRole("button", { name: "cook 2" }));
    await pass(50);
    expect(told()).toMatchObject([{ kind: "handed", step: "stir", text: "cook 2" }]);
  });

  it("takes back whatever came last, in whichever of them it was", async () => {
    const told = await show(cake(), () => null, rounds());
    await key("u");
    expect(told()).toHaveLength(1);
    expect(told()[0]?.kind).toBe("undone");
    const theirs = screen.queryByRole("button", { name: /^Undo/ });
    expect(theirs?.textContent ?? "").toContain("started");
  });
});
