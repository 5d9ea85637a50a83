// @vitest-environment jsdom
/** What a window hangs on, what is measured there. */

import { cleanup, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Sensitivity, Sheet } from "../../api/client";
import { Around, fact, facts, KITCHEN, type SeenRequest, serve, sheet } from "../../testing";
import { HangsOn } from "./HangsOn";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  localStorage.clear();
});

const hang = (more: Partial<Sensitivity>): Sensitivity => ({
  id: "oven_c",
  words: "what the oven is off its dial",
  moves: "bakes",
  minutes: 6.7,
  share_pct: 26,
  low: -12,
  value: 0,
  high: 12,
  unit: "°C off",
  narrows: "oven",
  narrow_words: "put a thermometer in the oven",
  takes_min: 20,
  becomes_min: 11.5,
  tastes: [],
  ...more,
});
const WINDOW = facts(
  fact("heat.first_check_min", 36, "min"),
  fact("heat.latest_min", 62, "min"),
  fact("heat.depth_mm", 20, "mm"),
);

/** Every body that the kitchen was asked to be saved as. */
function saved(): SeenRequest[] {
  const requests: SeenRequest[] = [];
  serve((eachAsked) => {
    requests.push(eachAsked);
    return { body: { kitchen: KITCHEN, set_up: true, revision: 3 } };
  });
  return requests;
}

function show(hangs: Sensitivity[], onSheet = vi.fn()) {
  const of = { ...sheet(), heat: { level: "medium", oven_c: 175, stages: [] } } as unknown as Sheet;
  render(<HangsOn hangs={hangs} facts={WINDOW} sheet={of} batterC={21} onSheet={onSheet} />, { wrapper: Around });
  return onSheet;
}

describe("what a window hangs on", () => {
  it("says how many minutes are whose, and what a measurement would make of them", () => {
    show([hang({}), hang({ id: "depth", words: "how deep it stands", minutes: 4.3, narrows: null })]);
    expect(screen.getByRole("heading").textContent).toContain("± 13 min");
    const rows = screen.getAllByRole("listitem").map((row) => row.textContent);
    expect(rows[0]).toContain("± 6.7");
    expect(rows[0]).toContain("(20 min): ± 13 becomes ± 11.5");
    expect(rows[1]).toContain("± 4.3");
    expect(rows[1]).not.toContain("becomes");
  });

  it("says nothing of a window that hangs on nothing", () => {
    show([]);
    expect(screen.queryByRole("heading")).toBeNull();
  });

  it("a thermometer's reading is kept as what this oven is off, to three degrees", async () => {
    const requests = saved();
    show([hang({})]);
    fireEvent.click(screen.getByRole("button", { name: "put a thermometer in the oven" }));
    const field = await screen.findByLabelText(/The thermometer shows/);
    fireEvent.change(field, { target: { value: "168" } });
    fireEvent.click(screen.getByRole("button", { name: "keep" }));
    await waitFor(() => expect(requests.some((request) => request.method === "PUT")).toBe(true));
    const put = requests.find((request) => request.method === "PUT");
    expect(JSON.stringify(put?.body)).toContain('"oven_c":{"value":-7,"low":-10,"high":-4}');
  });

  it("how warm it goes in is the sheet's, and known to a degree from then", async () => {
    const requests = saved();
    const onSheet = show([
      hang({ id: "start_c", narrows: "warmth", narrow_words: "put a thermometer in what goes in" }),
    ]);
    fireEvent.click(screen.getByRole("button", { name: "put a thermometer in what goes in" }));
    fireEvent.change(await screen.findByLabelText("It goes in at"), { target: { value: "30" } });
    fireEvent.click(screen.getByRole("button", { name: "keep" }));
    expect(onSheet.mock.calls[0]?.[0].start.batter_c).toBe(30);
    await waitFor(() => expect(requests.some((request) => request.method === "PUT")).toBe(true));
  });

  it("a kettle is timed where burners are", () => {
    show([hang({ id: "burner", narrows: "kettle", narrow_words: "time one kettle" })]);
    expect(screen.getByRole("link", { name: "time one kettle" }).getAttribute("href")).toBe("/kitchen/hob");
  });
});

describe("what is measured there and then", () => {
  it("how one likes it is said with one press", async () => {
    const requests = saved();
    const tastes = [
      { words: "with a bite", value: 11, low: 8.6, high: 13.9 },
      { words: "soft through", value: 20, low: 15.7, high: 25.2 },
    ];
    show([hang({ id: "clear_min", narrows: "taste", narrow_words: "say how you like it", takes_min: 0, tastes })]);
    fireEvent.click(screen.getByRole("button", { name: "say how you like it" }));
    fireEvent.click(await screen.findByRole("button", { name: "soft through" }));
    await waitFor(() => expect(requests.some((request) => request.method === "PUT")).toBe(true));
    const put = requests.find((request) => request.method === "PUT")?.body as { kitchen: { estimates: object } };
    expect(put.kitchen.estimates).toEqual({ clear_min: { value: 20, low: 15.7, high: 25.2 } });
  });

  it("a tin of water in the oven is worked out, told, and then kept", async () => {
    const known = { estimate: "oven_h", value: 26, low: 24.2, high: 27.9, says: "It gives 26 W." };
    const requests: SeenRequest[] = [];
    serve((eachAsked) => {
      requests.push(eachAsked);
      return {
        body: eachAsked.path.endsWith("/kitchen/oven") ? known : { kitchen: KITCHEN, set_up: true, revision: 3 },
      };
    });
    show([hang({ id: "oven_h", narrows: "oven-tin", narrow_words: "warm a tin of water in the oven" })]);
    fireEvent.click(screen.getByRole("button", { name: "warm a tin of water in the oven" }));
    fireEvent.change(await screen.findByLabelText("Water"), { target: { value: "800" } });
    fireEvent.click(screen.getByRole("button", { name: "what it tells" }));
    expect((await screen.findByRole("status")).textContent).toContain("It gives 26 W.");
    const told = requests.find((request) => request.path.endsWith("/kitchen/oven"));
    expect(told?.body).toMatchObject({ water_ml: 800, oven_c: 175, start_c: 20 });
    fireEvent.click(screen.getByRole("button", { name: "keep" }));
    await waitFor(() => expect(requests.some((request) => request.method === "PUT")).toBe(true));
    const put = requests.find((request) => request.method === "PUT")?.body as { kitchen: { estimates: object } };
    expect(put.kitchen.estimates).toEqual({ oven_h: { value: 26, low: 24.2, high: 27.9 } });
  });
});
