// @vitest-environment jsdom
/** The page of the method: what a press, a key and a word change, and what is said at a step. */

import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import type { OwnStep, Sheet, StepResult, WorkResult } from "../api/client";
import { queryClient } from "../api/queries";
import { newPart } from "../sheet/edits";
import type { Editing } from "../sheet/useSheet";
import { Around, fact, serve, sheet, stepResult, worked } from "../testing";
import { withNewOwn } from "./entries";
import MethodStation from "./MethodStation";

afterEach(() => {
  cleanup();
  queryClient.clear();
  vi.unstubAllGlobals();
});

const COMMON = [{ id: "turn-out", title: "Turn it out", words: "", minutes: 3, in_vessel: true, comes_after: [] }];
const STEPS = [
  stepResult("mix", { title: "Mix", minutes: 7 }),
  stepResult("steam", {
    entry: "heat",
    title: "Steam",
    hands: "free",
    minutes: 42,
    window: { first_check: 35, done: 42, latest: 52 },
  }),
  stepResult("serve", { title: "Serve", minutes: 5, serves: true }),
];

function show(steps: StepResult[] = STEPS, method: Sheet["method"] = [], more: Partial<WorkResult> = {}) {
  serve(({ path }) => ({
    body: path === "/api/common-steps" ? COMMON : path === "/api/sheets" ? { sheets: [], more: false } : [],
  }));
  const edits: Sheet[] = [];
  const editing = {
    id: 1,
    sheet: { ...sheet(), method },
    worked: { ...worked(), steps, ...more },
    problems: [],
    edit: (next: Sheet) => edits.push(next),
  } as unknown as Editing;
  render(<MethodStation editing={editing} />, { wrapper: Around });
  return edits;
}

const open = (title: string) => fireEvent.click(screen.getByRole("button", { name: title }));
const row = (title: string) => screen.getByRole("button", { name: title }).closest("li") as HTMLElement;

it("a step is timed, with Kemble's own minutes kept beside", () => {
  const edits = show();
  open("Steam");
  fireEvent.change(screen.getByLabelText("Minutes for “Steam”"), { target: { value: "55" } });
  expect(edits[0]?.method).toMatchObject([{ step: "heat", minutes: 55, ours_min: 42, use: null }]);
});

it("says whose time is used, and lets the other be used", () => {
  const steps = [
    stepResult("mix", {
      title: "Mix",
      minutes: 15,
      given: { minutes: 15, by: "my aunt", is_used: true },
      predicted: { minutes: 20, between: null, window: null },
    }),
  ];
  const edits = show(steps, [
    {
      step: "mix",
      minutes: 15,
      by: "my aunt",
      ours_min: 20,
      per: null,
      use: null,
      skip: false,
      after: "",
      words: "",
      stages: [],
    },
  ]);
  expect(row("Mix").textContent).toContain("my aunt · Kemble 20");
  open("Mix");
  fireEvent.click(screen.getByRole("radio", { name: "use Kemble’s, 20 min" }));
  expect(edits[0]?.method).toMatchObject([{ step: "mix", use: "ours", minutes: 15 }]);
});

it("a time of hands may be for each piece", () => {
  const steps = [stepResult("wrap", { title: "Wrap", minutes: 12, hands: "held" })];
  const own = { minutes: 0.5, by: "", ours_min: 12, per: null, use: null, skip: false, after: "", words: "" } as const;
  const entry = { step: "wrap", stages: [], ...own };
  const edits = show(steps, [entry], { facts: { "shape.pieces": fact("shape.pieces", 24) } as WorkResult["facts"] });
  open("Wrap");
  fireEvent.change(screen.getByLabelText("What “Wrap” takes so long for"), { target: { value: "piece" } });
  expect(edits[0]?.method).toMatchObject([{ step: "wrap", minutes: 0.5, per: "piece" }]);
});

it("is worded, parted into stages, left out and moved by press", () => {
  const edits = show();
  open("Mix");
  fireEvent.change(screen.getByLabelText("Your own words for “Mix”"), { target: { value: "Whisk." } });
  fireEvent.click(screen.getByRole("button", { name: "part it into stages, each with its own clock" }));
  fireEvent.click(screen.getByRole("button", { name: "leave it out" }));
  fireEvent.click(screen.getByRole("button", { name: "later" }));
  expect(edits.map((edit) => edit.method[0])).toMatchObject([
    { step: "mix", words: "Whisk." },
    { step: "mix", stages: [{ minutes: 3.5 }, { minutes: null }] },
    { step: "mix", skip: true },
    { step: "mix", after: "steam" },
  ]);
});

it("is moved by keys too", () => {
  const edits = show();
  fireEvent.keyDown(screen.getByRole("button", { name: "Steam" }), { key: "ArrowUp", altKey: true });
  expect(edits[0]?.method).toMatchObject([{ step: "mix", after: "steam" }]);
  expect(screen.getByRole("button", { name: "Move “Steam”" })).toBeTruthy();
});

it("a step of one's own is added before serving, by name or from the list", async () => {
  const edits = show();
  fireEvent.change(screen.getByLabelText("A step of your own"), { target: { value: "Wipe the rim" } });
  fireEvent.click(screen.getByRole("button", { name: "add it" }));
  expect(edits[0]?.method).toMatchObject([{ own: "own-wipe-the-rim", title: "Wipe the rim", after: "steam" }]);
  await vi.waitFor(() =>
    expect(screen.getByRole("button", { name: "or one that many cooks do" })).toHaveProperty("disabled", false),
  );
  fireEvent.keyDown(screen.getByRole("button", { name: "or one that many cooks do" }), { key: "Enter" });
  fireEvent.click(screen.getByRole("menuitem", { name: "Turn it out" }));
  expect(edits[1]?.method).toMatchObject([{ own: "own-turn-it-out", common: "turn-out", after: "steam" }]);
});

it("an open step says what to set out for it", () => {
  show([stepResult("mix", { title: "Mix", tools: ["bowl (2 l or more)", "whisk"] }), ...STEPS.slice(1)]);
  expect(screen.queryByText(/Set out/)).toBeNull();
  fireEvent.click(screen.getByRole("button", { name: "Mix" }));
  expect(screen.getByText("Set out: bowl (2 l or more), whisk")).toBeTruthy();
});

it("puts a common step where most cooks do it, where the method has that", async () => {
  const usual = [{ ...COMMON[0], comes_after: ["pour", "mix", "cool"] }];
  const edits = show();
  serve(() => ({ body: usual }));
  const button = screen.getByRole("button", { name: "or one that many cooks do" });
  await vi.waitFor(() => expect(button).toHaveProperty("disabled", false));
  fireEvent.keyDown(button, { key: "Enter" });
  fireEvent.click(screen.getAllByRole("menuitem")[0] as HTMLElement);
  expect(edits[0]?.method).toMatchObject([{ after: "mix" }]);
});

it("says where a step of one's own is done, and what it needs", () => {
  const vessel = { before_g: 0, tipped: [], added_g: 0, change_g: 0, beside_g: 0, after_g: 934, holds: "batter" };
  const steps = [
    stepResult("pour", { title: "Pour", vessel: { ...vessel, vessel: "tin" } }),
    stepResult("own-rim", { title: "Wipe the rim", vessel: { ...vessel, vessel: "tin" } }),
    stepResult("steam", { title: "Steam" }),
  ];
  const [{ method }] = withNewOwn(sheet(), "Wipe the rim", "pour");
  const own = { ...method[0], own: "own-rim" } as OwnStep;
  const edits = show(steps, [own]);
  open("Wipe the rim");
  fireEvent.click(screen.getByRole("radio", { name: "elsewhere" }));
  fireEvent.change(screen.getByLabelText("it needs"), { target: { value: "burner" } });
  fireEvent.change(screen.getByLabelText("done before"), { target: { value: "steam" } });
  expect(edits.map((edit) => edit.method[0])).toMatchObject([{ at: "" }, { on: "burner" }, { before: "steam" }]);
  expect(screen.getByRole("radio", { name: "in the tin" }).getAttribute("aria-checked")).toBe("true");
});

it("shows what is left out at its place, what is not followed, and what waits for other choices", () => {
  const method: WorkResult["method"] = {
    left_out: [{ id: "sieve", entry: "sieve", title: "Sieve", after: "mix" }],
    notes: [{ step: "steam", kind: "not-followed", says: "It cooks what is eaten." }],
    dormant: [{ entry: "bake", title: "Bake" }],
  };
  const skipped = {
    ...({ minutes: null, by: "", ours_min: null, per: null, use: null } as const),
    after: "",
    words: "",
    stages: [],
  };
  const edits = show(
    STEPS,
    [
      { step: "sieve", skip: true, ...skipped },
      { step: "bake", skip: true, ...skipped },
    ],
    { method },
  );
  expect(row("Steam").textContent).toContain("Not followed. It cooks what is eaten.");
  expect(row("Mix").nextElementSibling?.textContent).toContain("Sieve");
  fireEvent.click(screen.getByRole("button", { name: "put it back" }));
  expect(edits[0]?.method).toMatchObject([{ step: "bake" }]);
  fireEvent.click(screen.getByRole("button", { name: "Take them out" }));
  expect(edits[1]?.method).toMatchObject([{ step: "sieve" }]);
});

it("the soak's minutes are the sheet's own field", () => {
  const edits = show([stepResult("soak", { title: "Soak", fact: "grain.soak_min", minutes: 480 })]);
  open("Soak");
  const field = within(row("Soak")).getByLabelText("Minutes for “Soak”");
  fireEvent.change(field, { target: { value: "120" } });
  expect(edits[0]?.grain.soak_min).toBe(120);
  expect(edits[0]?.method).toEqual([]);
});

it("what costs hours is said at its step, and another choice is one press away", async () => {
  const soak = stepResult("filling-soak", { title: "Soak the beans", hands: "free", minutes: 480, part: "filling" });
  const long = {
    step: "filling-soak",
    title: "Soak the beans",
    minutes: 480,
    by: "soaked overnight",
    instead: [
      {
        label: "not soaked",
        later_min: 453,
        part: "filling",
        choice: "soak",
        school: "none",
        soak_min: null,
        soak_c: null,
      },
    ],
  };
  const filled = { ...sheet(), parts: [...sheet().parts, newPart("filling", "", "bean-paste", [])] };
  serve(({ path }) => ({ body: path === "/api/long-steps" ? [long] : path === "/api/sheets" ? { sheets: [] } : [] }));
  const edits: Sheet[] = [];
  const editing = {
    id: 1,
    sheet: filled,
    worked: { ...worked(), steps: [soak] },
    problems: [],
    edit: (next: Sheet) => edits.push(next),
  } as unknown as Editing;
  render(<MethodStation editing={editing} />, { wrapper: Around });
  fireEvent.click(await screen.findByRole("button", { name: "begin 7 h 33 later" }));
  expect(row("Soak the beans").textContent).toContain("Soaked overnight: 8 h. Not soaked: begin 7 h 33 later");
  expect(edits[0]?.parts[1]?.schools).toEqual({ soak: "none" });
});
