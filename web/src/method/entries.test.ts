// @vitest-environment jsdom
/** Changes to a method: what the sheet then says, and that nothing is left where nothing is otherwise. */

import { describe, expect, it } from "vitest";
import type { StepResult } from "../api/client";
import { newLine, newPart } from "../sheet/edits";
import { sheet, stepResult } from "../testing";
import { changeOf, ownOf, withChange, withMoved, withNewOwn, withOwn, withStages, withText } from "./entries";

const steps: StepResult[] = ["line", "mix", "pour", "serve"].map((id) => stepResult(id));

describe("what a step has otherwise", () => {
  it("is one entry, which goes when nothing is otherwise any more", () => {
    const timed = withChange(sheet(), "mix", { minutes: 9, by: "my aunt", ours_min: 7 });
    expect(changeOf(timed, "mix")).toMatchObject({ minutes: 9, by: "my aunt", skip: false });
    const worded = withChange(timed, "mix", { words: "Whisk." });
    expect(worded.method).toHaveLength(1);
    const plain = withChange(worded, "mix", { minutes: null });
    expect(changeOf(plain, "mix")).toMatchObject({ by: "", ours_min: null, words: "Whisk." });
    expect(withChange(plain, "mix", { words: "" }).method).toEqual([]);
    expect(withChange(sheet(), "mix", { skip: false })).toEqual(sheet());
  });
});

describe("a step of the cook's own", () => {
  it("has an id of its title, another each time, never ending in a number", () => {
    let made = sheet();
    const ids: string[] = [];
    for (const title of ["Wipe the rim", "Wipe the rim", "Wipe the rim", "Wait 2", "湯", "Ébullition à 80"]) {
      const [next, own] = withNewOwn(made, title, "pour");
      made = next;
      ids.push(own);
    }
    expect(ids).toEqual([
      "own-wipe-the-rim",
      "own-wipe-the-rim-a",
      "own-wipe-the-rim-b",
      "own-wait",
      "own-step",
      "own-ebullition-a",
    ]);
    for (const id of ids) expect(id).toMatch(/^own-[a-z0-9-]*[a-z]$/);
  });

  it("keeps the card's title where it is a common one, and can be taken out", () => {
    const [made, own] = withNewOwn(sheet(), "Turn it out", "cool", "turn-out");
    expect(ownOf(made, own)).toMatchObject({ common: "turn-out", title: "", after: "cool" });
    expect(withOwn(made, own, () => null).method).toEqual([]);
  });
});

describe("moving", () => {
  it("a card's step comes after the one that is then above it", () => {
    expect(changeOf(withMoved(sheet(), steps, 0, 1), "line")?.after).toBe("mix");
    expect(changeOf(withMoved(sheet(), steps, 2, 1), "pour")?.after).toBe("line");
  });

  it("to the head: the one that was first comes after it", () => {
    const moved = withMoved(sheet(), steps, 2, 0);
    expect(changeOf(moved, "line")?.after).toBe("pour");
    expect(changeOf(moved, "pour")).toBeUndefined();
  });

  it("the cook's own simply stands elsewhere", () => {
    const [made, own] = withNewOwn(sheet(), "Wipe", "pour");
    const shown = [...steps.slice(0, 3), stepResult(own), stepResult("serve")];
    expect(ownOf(withMoved(made, shown, 3, 1), own)).toMatchObject({ after: "line", before: "" });
    expect(ownOf(withMoved(made, shown, 3, 0), own)).toMatchObject({ after: "", before: "line" });
    expect(withMoved(made, shown, 3, 3)).toBe(made);
  });
});

it("what joined at a stage that is there no more goes in from the start", () => {
  const stage = { minutes: 5, power_pct: null, note: "" };
  const step = stepResult("syrup-reduce", { part: "syrup" });
  const lines = [
    { ...newLine("salt"), joins: "reduce-3" },
    { ...newLine("white-sugar"), joins: "reduce-2" },
  ];
  const parted = withStages({ ...sheet(), parts: [newPart("syrup", "", "", lines)] }, step, [stage, stage, stage]);
  expect(parted.parts[0]?.lines.map((line) => line.joins)).toEqual(["reduce-3", "reduce-2"]);
  const fewer = withStages(parted, step, [stage, stage]);
  expect(fewer.parts[0]?.lines.map((line) => line.joins)).toEqual(["", "reduce-2"]);
  expect(withStages(fewer, step, []).parts[0]?.lines.map((line) => line.joins)).toEqual(["", ""]);
});

it("a sentence is put in, changed and taken out", () => {
  const text = { text: "Mother hummed.", after: "steam" };
  const told = withText(sheet(), null, text);
  expect(told.method).toEqual([text]);
  expect(withText(told, text, null).method).toEqual([]);
});
