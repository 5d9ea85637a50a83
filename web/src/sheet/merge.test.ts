// @vitest-environment jsdom
/** Two pages that edit one method: put together entry by entry. */

import { expect, it } from "vitest";
import type { Sheet } from "../api/client";
import { withChange, withNewOwn } from "../method/entries";
import { sheet } from "../testing";
import { replay } from "./merge";

const start = withChange(withChange(sheet(), "mix", { minutes: 9 }), "sieve", { words: "Press." });
const names = (merged: Sheet) =>
  merged.method.map((entry) => ("step" in entry ? entry.step : "own" in entry ? entry.own : ""));

it("what each of them did to another step stands", () => {
  const [mine] = withNewOwn(withChange(start, "mix", { by: "my aunt" }), "Wipe", "pour");
  const theirs = withChange(withChange(start, "sieve", { words: "" }), "rest", { minutes: 90 });
  const { value, clashes } = replay(start, mine, theirs);
  expect(clashes).toEqual([]);
  expect(names(value)).toEqual(["mix", "own-wipe", "rest"]);
  expect(value.method[0]).toMatchObject({ minutes: 9, by: "my aunt" });
});

it("what both did to one step otherwise is a clash, and mine is taken", () => {
  const { value, clashes } = replay(
    start,
    withChange(start, "mix", { minutes: 12 }),
    withChange(start, "mix", { minutes: 5, by: "the book" }),
  );
  expect(clashes).toEqual([{ path: ["method", "mix", "minutes"], mine: 12, theirs: 5 }]);
  expect(value.method[0]).toMatchObject({ minutes: 12, by: "the book" });
});
