// @vitest-environment jsdom
/** The bench in the page: what is new on the tray, taking it down, typing it, guessing it, and a scale that goes away. */

import { act, cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { BenchOpen, BenchState, NewMark, RunOpen, ScaleLive } from "../api/client";
import { Around, pass, serve } from "../testing";
import { BenchDesk } from "./BenchDesk";
import { Gauge } from "./Gauge";
import { PieceStrip } from "./PieceStrip";
import { EMPTY, rested, SILENT, type Tray, taken } from "./useScale";

const state = (more: Partial<BenchState> = {}): BenchState => ({
  weighed: [],
  first_g: 25,
  next_g: 25,
  low_g: 23.75,
  high_g: 26.25,
  left_g: 100,
  left_pieces: 4,
  guess_g: null,
  mean_g: null,
  sd_g: null,
  cv_pct: null,
  drift_g: null,
  outside: 0,
  eye: null,
  closed: false,
  says: "Put the next one on.",
  ...more,
});

/** The page's side of an event stream, to be told things by a test. */
class Stream {
  static all: Stream[] = [];
  heard: Record<string, (event: { data: string }) => void> = {};
  closed = false;
  constructor(readonly url: string) {
    Stream.all.push(this);
  }
  addEventListener(name: string, heard: (event: { data: string }) => void) {
    this.heard[name] = heard;
  }
  close() {
    this.closed = true;
  }
}
const tell = (name: string, data: object = {}) =>
  act(async () => Stream.all.at(-1)?.heard[name]?.({ data: JSON.stringify(data) }));
const shows = (grams: number, more: Partial<ScaleLive> = {}) =>
  tell("reading", { ...SILENT, state: "ok", grams, steady: true, ...more });
const still = (grams: number, first = false) => tell("still", { grams, first });

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  Stream.all = [];
  vi.stubGlobal("EventSource", Stream);
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe("the tray", () => {
  const laid = (...grams: number[]) => grams.reduce<Tray>(rested, EMPTY);

  it("tells what is new on it", () => expect(laid(25)).toEqual({ base: 0, fresh: 25 }));
  it("when a little is pinched off again", () => expect(laid(31, 26)).toEqual({ base: 0, fresh: 26 }));
  it("one after another", () => expect(rested(taken(laid(25)), 51)).toEqual({ base: 25, fresh: 26 }));
  it("lifted off, it starts from nothing", () => expect(rested(taken(laid(25)), 0.2)).toEqual({ base: 0, fresh: 0 }));
  it("some lifted off, the rest is no piece", () => {
    expect(rested(taken(rested(taken(laid(25)), 51)), 25)).toEqual({ base: 25, fresh: 0 });
  });
  it("drift is nothing new", () => expect(rested(taken(laid(25)), 25.4)).toEqual({ base: 25, fresh: 0 }));
});

describe("the bench", () => {
  async function desk(
    more: Partial<BenchState> = {},
    setup: Partial<BenchOpen["setup"]> = {},
    device: RunOpen["scale"] = "attached",
  ) {
    const marks: NewMark[] = [];
    let reached = true;
    const bench = {
      id: 5,
      sheet: 2,
      began: "2026-11-26T09:00:00Z",
      setup: { what: "dough", total_g: 100, pieces: 4, tolerance_pct: 5, drill: false, ...setup },
      state: state(more),
    };
    const answers = serve(({ method, path, body }) => {
      if (!reached) return "unreachable";
      if (method === "POST" && path.endsWith("/marks")) marks.push(body as NewMark);
      return { body: path.startsWith("/api/benches") ? bench : [] };
    });
    render(<BenchDesk id={5} device={device} onAnother={() => {}} />, { wrapper: Around });
    await pass(50);
    return { marks, request: answers.requests, reach: (can: boolean) => (reached = can) };
  }
  const press = async (name: string) => {
    await act(async () => fireEvent.click(screen.getByRole("button", { name })));
    await pass(50);
  };
  const type = async (text: string) => {
    fireEvent.change(screen.getByLabelText("Weight of the piece, g"), { target: { value: text } });
    await press("Enter");
  };

  it("takes by itself what lies still within the tolerance", async () => {
    const { marks } = await desk();
    await shows(25.2);
    await still(25.2);
    await pass(50);
    expect(marks.map(({ kind, grams }) => [kind, grams])).toEqual([["piece", 25.2]]);
    expect(screen.getByTestId("on-the-scale").textContent).toBe("0.0 g"); // the next one counts from here
  });

  it("without a scale listens to none, and asks for what yours shows", async () => {
    const { marks } = await desk({}, {}, "none");
    expect(Stream.all).toEqual([]);
    expect(screen.queryByRole("button", { name: "Take it" })).toBeNull();
    expect(screen.queryByRole("region", { name: "Simulated scale" })).toBeNull();
    screen.getByText(/No scale is attached: type what yours shows/);
    await type("26");
    expect(marks.map(({ kind, grams }) => [kind, grams])).toEqual([["piece", 26]]);
  });

  it("what lies there when the scale is back is not taken twice", async () => {
    const { marks } = await desk();
    await still(25.2);
    await pass(50);
    await shows(0, { state: "gone", says: "The scale is not there." });
    await shows(25.2);
    await still(25.2, true);
    await pass(50);
    expect(marks).toHaveLength(1);
    await still(50.4); // the next one on top of it is
    await pass(50);
    expect(marks.map(({ grams }) => grams)).toEqual([25.2, 25.2]);
  });

  it("waits with one that is outside, and takes it when told", async () => {
    const { marks } = await desk();
    await shows(31);
    await still(31);
    await pass(50);
    expect(marks).toEqual([]);
    expect(screen.getByRole("img", { name: "6.0 g too much" })).toBeTruthy();
    await press("Take it");
    expect(marks[0]?.grams).toBe(31);
  });

  it("nothing new is said, and nothing taken", async () => {
    const { marks } = await desk();
    await shows(0);
    await press("Take it");
    expect(screen.getByRole("alert").textContent).toBe("Nothing new on the scale since the last one.");
    await shows(12, { steady: false });
    await press("Take it");
    expect(screen.getByRole("alert").textContent).toBe("It still moves: wait until it lies still.");
    expect(marks).toEqual([]);
  });

  it("is worked by keyboard alone, with a comma too", async () => {
    const { marks } = await desk();
    await type("24,5");
    expect(marks[0]).toMatchObject({ kind: "piece", grams: 24.5 });
  });

  it.each(["", "-3", "much", "60000"])("a weight of “%s” is not taken, and stays to be mended", async (text) => {
    const { marks } = await desk();
    await type(text);
    expect(screen.getByRole("alert").textContent).toContain("above 0 and at most 50 000 g");
    expect((screen.getByLabelText("Weight of the piece, g") as HTMLInputElement).value).toBe(text);
    expect(marks).toEqual([]);
  });

  it("says that the scale went away; what is typed is taken all the same", async () => {
    const { marks } = await desk();
    await shows(0, { state: "gone", says: "The scale is not there. Is it plugged in?" });
    expect(screen.getByRole("alert").textContent).toContain("plugged in");
    expect(screen.getByTestId("on-the-scale").textContent).toBe("–");
    await type("25");
    expect(marks).toHaveLength(1);
  });

  it("keeps what was weighed while the server is away, and sends it later", async () => {
    const { marks, reach } = await desk();
    reach(false);
    await type("25");
    expect(screen.getByText("1 kept here, not sent yet.")).toBeTruthy();
    expect(marks).toEqual([]);
    reach(true);
    await pass(3_100);
    expect(marks.map(({ grams }) => grams)).toEqual([25]);
  });

  it("in a drill asks for the guess first", async () => {
    const { marks } = await desk({}, { drill: true });
    await shows(25);
    await still(25);
    expect(marks).toEqual([]); // not by itself before the guess
    fireEvent.change(screen.getByLabelText("You think it weighs"), { target: { value: "28" } });
    await press("That is my guess");
    expect(marks[0]).toMatchObject({ kind: "guess", grams: 28 });
  });

  it("takes back, weighs the rest anew, and stops", async () => {
    const weighed = [{ grams: 25, target_g: 25, off_pct: 0, outside: false, guess_g: null }];
    const { marks } = await desk({ weighed, mean_g: 25 });
    await press("Take back");
    fireEvent.change(screen.getByLabelText("What is left really weighs"), { target: { value: "80" } });
    await press("Use that, not 100");
    await press("Stop here");
    expect(marks.map(({ kind, grams }) => [kind, grams])).toEqual([
      ["undone", null],
      ["whole", 80],
      ["closed", null],
    ]);
  });

  it("stops listening when it is left", async () => {
    await desk();
    cleanup();
    expect(Stream.all[0]?.closed).toBe(true);
  });
});

describe("its drawings", () => {
  it("the lump's bar ends where its weight is between none and the target", () => {
    render(<Gauge state={state()} grams={12.5} />);
    const rects = [...document.querySelectorAll("rect")];
    const width = Number(rects.at(-1)?.getAttribute("width"));
    const target = Number(document.querySelector("line")?.getAttribute("x1")) - 20;
    expect(width / target).toBeCloseTo(0.5, 6);
  });

  it("a piece outside is another shape, not only another colour", () => {
    const item = { target_g: 25, off_pct: 0, guess_g: null };
    const weighed = [
      { ...item, grams: 25, outside: false },
      { ...item, grams: 30, outside: true },
    ];
    render(<PieceStrip state={state({ weighed, outside: 1 })} tolerance={5} />);
    expect(document.querySelectorAll("circle")).toHaveLength(1);
    expect(document.querySelectorAll('path[stroke="var(--color-bean)"]')).toHaveLength(1);
    expect(screen.getByRole("img", { name: "2 pieces, 1 outside the tolerance" })).toBeTruthy();
  });
});
