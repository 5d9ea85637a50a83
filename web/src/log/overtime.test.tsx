// @vitest-environment jsdom
/** One fact over time: what is drawn is true to the numbers, and any fact can be asked for. */

import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Around, pass, serve } from "../testing";
import OverTimePage from "./OverTimePage";

beforeEach(() => vi.useFakeTimers());
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

const point = (batch: number, value: number, more: object = {}) => ({
  batch,
  title: `Cake ${batch}`,
  made: `2026-11-${String(batch).padStart(2, "0")}T09:00:00Z`,
  value,
  told: 30,
  low: 25,
  high: 40,
  ...more,
});
const TOLD = {
  ways: ["set-cake"],
  way: "set-cake",
  offered: [
    { id: "happened:steam:min", label: "Steam", unit: "min", near: true },
    { id: "liking", label: "Liked, 1 to 9", unit: "", near: true },
    { id: "told:shape.depth_mm", label: "Depth, as told", unit: "mm", near: false },
  ],
  of: "happened:steam:min",
  points: [point(1, 30), point(11, 45), point(21, 38)],
  drift: null as { says: string } | null,
};

async function show(more: Partial<typeof TOLD> = {}) {
  const { requests } = serve((request) => {
    if (request.path === "/api/ways") return { body: [{ id: "set-cake", name: "Set cake" }] };
    if (request.path === "/api/kitchen") return { body: { kitchen: { timezone: "UTC" }, set_up: true } };
    return { body: { ...TOLD, ...more } };
  });
  render(<OverTimePage />, { wrapper: Around });
  await pass(100);
  return requests;
}

describe("over time", () => {
  it("is true to time and to the numbers, red where it lay outside of what was told", async () => {
    await show();
    const dots = [...document.querySelectorAll("circle")].map((dot) => ({
      x: Number(dot.getAttribute("cx")),
      y: Number(dot.getAttribute("cy")),
      fill: dot.getAttribute("fill"),
    }));
    expect(dots).toHaveLength(3);
    const [first, second, third] = dots as [(typeof dots)[0], (typeof dots)[0], (typeof dots)[0]];
    expect(second.x - first.x).toBeCloseTo(third.x - second.x, 6); // ten days and ten days
    expect((first.y - second.y) / (first.y - third.y)).toBeCloseTo(15 / 8, 6); // 30 to 45 over 30 to 38
    expect(dots.map((dot) => dot.fill?.includes("bean"))).toEqual([false, true, false]);
    expect(screen.getByRole("status").textContent).toContain("Five makings");
    expect(screen.getByRole("link", { name: /^Cake 11/ }).getAttribute("href")).toBe("/log/11");
  });

  it("says what the makings say, and asks for another fact only when that is meant", async () => {
    const requests = await show({ drift: { says: "In 9 makings no drift can be told from chance." } });
    expect(screen.getByRole("status").textContent).toBe("In 9 makings no drift can be told from chance.");
    const seen = () =>
      requests.filter((request) => request.path === "/api/log/over-time").map((request) => request.query.get("of"));
    fireEvent.click(screen.getByRole("radio", { name: "Liked, 1 to 9" }));
    await pass(50);
    expect(seen().at(-1)).toBe("liking");
    fireEvent.click(screen.getByRole("button", { name: "Show it" }));
    await pass(50);
    expect(seen().at(-1)).toBe("told:shape.depth_mm");
  });

  it("with nothing in the log it says what will be here", async () => {
    await show({ ways: [], way: null as unknown as string, offered: [], of: null as unknown as string, points: [] });
    expect(screen.getByText(/Every making that goes into the log is a dot here/)).toBeTruthy();
  });
});
