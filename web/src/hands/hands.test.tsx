// @vitest-environment jsdom
/** Hands: one move after another, mirrored for the left hand, words and measures never. */

import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, it } from "vitest";
import { HandsFigure, OneMove } from "./HandsFigure";

const FRAME = {
  says: "Cut it here.",
  box: [0, 0, 100, 20],
  strokes: [
    {
      kind: "dough",
      points: [
        [0, 0],
        [100, 0],
        [100, 20],
        [0, 20],
      ],
      closed: true,
    },
    {
      kind: "cut",
      points: [
        [20, -2],
        [20, 22],
      ],
      closed: false,
    },
  ],
  pushes: [],
  spans: [{ start: [0, 26], end: [20, 26], mm: 20 }],
  estimate: false,
};

beforeEach(() => localStorage.clear());
afterEach(cleanup);

/** Where the cut is drawn, from the drawing's left edge, as a share of the dough's width. */
function cutAt(container: HTMLElement) {
  const [dough, cut] = [...container.querySelectorAll("path")].map((path) =>
    (path.getAttribute("d") ?? "").match(/-?[\d.]+/g)?.map(Number),
  );
  const xs = (dough ?? []).filter((_, i) => i % 2 === 0);
  const [left, right] = [Math.min(...xs), Math.max(...xs)];
  return (((cut ?? [])[0] ?? 0) - left) / (right - left);
}

it("is true to size: a cut at a fifth is drawn at a fifth, for the left hand at four fifths", () => {
  const right = render(<OneMove frame={FRAME} left={false} />);
  expect(cutAt(right.container)).toBeCloseTo(0.2, 2);
  expect(right.container.querySelector("text")?.textContent).toBe("20 mm");
  cleanup();
  const left = render(<OneMove frame={FRAME} left />);
  expect(cutAt(left.container)).toBeCloseTo(0.8, 2);
  expect(left.container.querySelector("text")?.textContent).toBe("20 mm");
});

it("goes from move to move, says which stretches by estimate, and remembers the hand", () => {
  const frames = [FRAME, { ...FRAME, says: "Draw it over.", estimate: true }];
  render(<HandsFigure frames={frames} />);
  expect(screen.getByText("1 of 2.")).toBeTruthy();
  expect(screen.queryByText(/estimate/)).toBeNull();
  fireEvent.click(screen.getByRole("button", { name: "Next move" }));
  expect(screen.getByText(/How far it stretches is an estimate/)).toBeTruthy();
  expect(screen.getByRole<HTMLButtonElement>("button", { name: "Next move" }).disabled).toBe(true);
  fireEvent.click(screen.getByRole("button", { name: "For the right hand" }));
  cleanup();
  render(<HandsFigure frames={frames} />);
  expect(screen.getByRole("button", { name: "For the left hand" })).toBeTruthy();
});
