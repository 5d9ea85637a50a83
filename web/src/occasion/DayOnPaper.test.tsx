// @vitest-environment jsdom
/** What a planned day shows on paper. */

import { render, screen, within } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Plan } from "../api/client";
import { Around, stepResult } from "../testing";
import { DayOnPaper } from "./DayOnPaper";

const hand = (name: string, grams: number, more = {}) => ({
  name,
  grams,
  household: "",
  splits: [],
  act: "",
  held_back: "",
  group: "",
  made: false,
  ingredient: "",
  ...more,
});

it("lists what can be weighed out ahead, a bowl for each moment, and nothing that is made first", () => {
  const dough = stepResult("dough", {
    title: "Make the dough",
    to_hand: [
      hand("Flour", 240),
      hand("Water", 62, { act: "boiling" }),
      hand("Water", 123, { act: "cool" }),
      hand("Herb paste", 30, { made: true }),
    ],
  });
  const serve = stepResult("serve", { title: "Serve" });
  const at = "2026-12-02T09:00:00Z";
  const scheduled = [dough, serve].map((step) => ({ step, dish: 0, who: "", starts: at, ends: at }));
  const plan = { scheduled, serve: at } as unknown as Plan;
  render(<DayOnPaper plan={plan} titles={["Balls"]} title="Balls" zone="UTC" />, { wrapper: Around });
  const list = screen.getByRole("heading", { name: "To weigh out" }).parentElement as HTMLElement;
  const bowls = within(list)
    .getAllByRole("listitem")
    .filter((item) => item.querySelector("ul"))
    .map((item) => item.textContent);
  expect(bowls).toEqual([
    "Make the doughFlour240 g",
    "Make the dough: boilingWater62 g",
    "Make the dough: coolWater123 g",
  ]);
});
