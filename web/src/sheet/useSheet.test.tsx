// @vitest-environment jsdom
/** The hook over the queue: what is asked, when, and what is kept. The queue's own rules are tried in queue.test.ts. */

import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Adjustment, Sheet } from "../api/client";
import { type Answer, Around, fact, opened, pass, type SeenRequest, serve, sheet, waterOf, worked } from "../testing";
import { kept } from "./draft";
import { useSheet } from "./useSheet";

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  sessionStorage.clear();
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

const bodySheet = (request: SeenRequest) => (request.body as { sheet: Sheet }).sheet;
const scaled = (item: Sheet, factor: number): Sheet => ({
  ...item,
  parts: item.parts.map((part) => ({
    ...part,
    lines: part.lines.map((line) => ({ ...line, amount: { ...line.amount, value: line.amount.value * factor } })),
  })),
});
const flourOf = (item: Sheet) =>
  item.parts[0]?.lines.find((line) => line.ingredient === "sweet-rice-flour")?.amount.value;
const conflict = { status: 409, body: { problems: [{ path: "revision", says: "is not the newest", accepts: "" }] } };

/**
 * Answers what it was asked: works the sheet that comes, scales it as it is told to, counts revisions, refuses a save
 * out of turn, and answers the same save twice as the first time.
 */
function kitchen(overrides: (request: SeenRequest) => Answer | null = () => null) {
  const state = { revision: 1, sheet: sheet() };
  const saved = new Map<string, number>();
  const workedOf = (item: Sheet) => ({
    sheet: item,
    worked: worked(fact("mix.hydration_pct", ((waterOf(item) ?? 0) * 100) / (flourOf(item) ?? 1), "%")),
    moved: [{ key: "mix.hydration_pct", label: "", unit: "%", decimals: 0, old: 125, new: 140 }],
    says: [],
  });
  function answer(request: SeenRequest): Answer {
    if (request.path === "/api/work") {
      const item = bodySheet(request);
      const problem = { path: "sheet.parts", says: "the base has no flour", accepts: "sweet rice flour" };
      return flourOf(item) ? { body: workedOf(item) } : { status: 422, body: { problems: [problem], worked: null } };
    }
    if (request.path === "/api/adjust") {
      const { sheet: one, to } = request.body as { sheet: Sheet; to: Adjustment };
      return { body: workedOf(scaled(one, (to.grams ?? 0) / (flourOf(one) ?? 1))) };
    }
    if (request.method === "PUT") {
      const { uid, revision, sheet: one } = request.body as { uid: string; revision: number; sheet: Sheet };
      if (!flourOf(one)) return { status: 422, body: { problems: [{ path: "sheet.parts", says: "no", accepts: "" }] } };
      if (!saved.has(uid)) {
        if (revision !== state.revision) return conflict;
        state.sheet = one;
        state.revision += 1;
        saved.set(uid, state.revision);
      }
      return { body: { ...opened(one), revision: saved.get(uid) } };
    }
    if (request.method === "POST") return { body: { ...opened(bodySheet(request)), id: 8 } };
    return { body: opened(state.sheet, state.revision) };
  }
  const server = serve((request) => {
    const told = overrides(request);
    if (told && told !== "lost") return told;
    const given = answer(request);
    return told ?? given;
  });
  const of = (path: string) => server.requests.filter((request) => request.path === path);
  return {
    ...server,
    state,
    works: () => of("/api/work"),
    puts: () => server.requests.filter((o) => o.method === "PUT"),
  };
}

const mount = (start = opened(sheet())) => renderHook(() => useSheet(start), { wrapper: Around });
const editing = (start?: Parameters<typeof mount>[0]) => mount(start).result;
const hydration = (of: ReturnType<typeof editing>) => of.current.worked.facts["mix.hydration_pct"]?.value;

describe("an edit", () => {
  it("is shown at once, worked, and saved a moment later", async () => {
    const { puts } = kitchen();
    const on = editing();
    act(() => on.current.edit(sheet(420)));
    expect(waterOf(on.current.sheet)).toBe(420);
    expect(on.current.saving).toBe("unsaved");
    await pass(50);
    expect(hydration(on)).toBe(140);
    expect(on.current.moved[0]?.old).toBe(125);
    expect(puts()).toHaveLength(0);
    await pass(800);
    expect(puts()).toHaveLength(1);
    expect(on.current.saving).toBe("saved");
    expect(Object.keys(localStorage).filter((key) => key !== "kemble-heard")).toEqual([]);
  });

  it("waits for the one under way, and of those that wait the newest is worked", async () => {
    let hold = true;
    const server = kitchen((request) => (request.path === "/api/work" && hold ? "hang" : null));
    const on = editing();
    act(() => on.current.edit(sheet(390)));
    await pass(10);
    hold = false;
    for (const water of [400, 410, 420, 450]) act(() => on.current.edit(sheet(water)));
    server.settle();
    await pass(50);
    expect(server.works().map((request) => waterOf(bodySheet(request)))).toEqual([390, 450]);
    expect(hydration(on)).toBe(150);
  });

  it("is told against the sheet before the edits began, until they have settled", async () => {
    const { works } = kitchen();
    const on = editing();
    act(() => on.current.edit(sheet(390)));
    await pass(50);
    act(() => on.current.edit(sheet(420)));
    await pass(50);
    const toldAgainst = () => works().map((request) => waterOf((request.body as { before: Sheet }).before));
    expect(toldAgainst()).toEqual([375, 375]);
    await pass(10_000);
    expect(on.current.moved).toEqual([]);
    act(() => on.current.edit(sheet(450)));
    await pass(50);
    expect(toldAgainst()).toEqual([375, 375, 420]);
  });

  it("can be undone and redone, step by step, after a reload too", async () => {
    kitchen();
    const first = mount();
    const on = first.result;
    expect(on.current.undo).toBeNull();
    act(() => on.current.edit(sheet(400)));
    act(() => on.current.edit(sheet(420)));
    act(() => on.current.undo?.());
    expect(waterOf(on.current.sheet)).toBe(400);
    await pass(1_000);
    first.unmount();
    const again = editing(opened(sheet(400), 2));
    act(() => again.current.redo?.());
    expect(waterOf(again.current.sheet)).toBe(420);
    act(() => again.current.undo?.());
    act(() => again.current.undo?.());
    expect(waterOf(again.current.sheet)).toBe(375);
    expect(again.current.undo).toBeNull();
  });

  it("while a save is under way is saved after it, on top of it", async () => {
    let hold = true;
    const server = kitchen((request) => (request.method === "PUT" && hold ? "hang" : null));
    const on = editing();
    act(() => on.current.edit(sheet(400)));
    await pass(800);
    act(() => on.current.edit(sheet(410)));
    await pass(2_000);
    expect(server.puts()).toHaveLength(1);
    hold = false;
    server.settle();
    await pass(1_000);
    expect(server.puts().map((request) => (request.body as { revision: number }).revision)).toEqual([1, 2]);
    expect([on.current.saving, waterOf(server.state.sheet)]).toEqual(["saved", 410]);
  });

  it("while an adjustment is under way stands on top of its outcome", async () => {
    let hold = true;
    const server = kitchen((request) => (request.path === "/api/adjust" && hold ? "hang" : null));
    const on = editing();
    act(() => on.current.adjust({ by: "base", grams: 600 }));
    await pass(20);
    act(() => on.current.edit(sheet(375, "Renamed")));
    hold = false;
    server.settle();
    await pass(1_000);
    expect([waterOf(on.current.sheet), on.current.sheet.title]).toEqual([750, "Renamed"]);
    expect(server.state.sheet).toEqual(on.current.sheet);
  });

  it("that takes the flour out is said to be that, and all is well when it is put back", async () => {
    const server = kitchen();
    const on = editing();
    const bare = { ...sheet(), parts: sheet().parts.map((part) => ({ ...part, lines: part.lines.slice(1) })) };
    act(() => on.current.edit(bare));
    await pass(1_000);
    expect(on.current.saving).toBe("refused");
    expect(on.current.problems.map((problem) => problem.says)).toContain("the base has no flour");
    expect(on.current.stale).toBe(true);
    expect(on.current.drawnFrom).not.toBe(on.current.sheet);
    act(() => on.current.undo?.());
    await pass(1_000);
    expect([on.current.saving, on.current.problems, on.current.stale]).toEqual(["saved", [], false]);
    expect(server.state.revision).toBe(1);
  });

  it("by an adjustment takes the sheet that comes back, and saves it", async () => {
    const { state } = kitchen();
    const on = editing();
    act(() => on.current.adjust({ by: "base", grams: 400 }));
    await pass(50);
    expect(waterOf(on.current.sheet)).toBe(500);
    await pass(800);
    expect(waterOf(state.sheet)).toBe(500);
  });
});

describe("without the network", () => {
  it("what was done is kept, and worked and saved when it is back", async () => {
    let away = true;
    const { state } = kitchen(() => (away ? "unreachable" : null));
    const on = editing();
    act(() => on.current.edit(sheet(420)));
    await pass(1_000);
    expect([on.current.saving, on.current.stale]).toEqual(["unreachable", true]);
    expect(hydration(on)).toBe(125);
    away = false;
    await pass(5_000);
    expect([on.current.saving, on.current.stale]).toEqual(["saved", false]);
    expect([hydration(on), waterOf(state.sheet)]).toEqual([140, 420]);
  });

  it("what was done is taken up again after a reload", async () => {
    let away = true;
    const { state } = kitchen(() => (away ? "unreachable" : null));
    const first = mount();
    act(() => first.result.current.edit(sheet(444)));
    await pass(1_000);
    first.unmount();
    away = false;
    const on = editing();
    expect(waterOf(on.current.sheet)).toBe(444);
    await pass(3_000);
    expect([on.current.saving, waterOf(state.sheet)]).toEqual(["saved", 444]);
  });

  it("a save whose answer was lost is no conflict", async () => {
    let lose = true;
    const server = kitchen((request) => {
      if (request.method !== "PUT" || !lose) return null;
      lose = false;
      return "lost";
    });
    const on = editing();
    act(() => on.current.edit(sheet(420)));
    await pass(4_000);
    expect(server.puts()).toHaveLength(2);
    expect([on.current.saving, server.state.revision]).toEqual(["saved", 2]);
  });

  it.each([401, 403, 500, 507])("an answer of %i is tried again", async (status) => {
    let stumbles = true;
    const server = kitchen((request) =>
      request.method === "PUT" && stumbles
        ? { status, body: { problems: [{ path: "x", says: "y", accepts: "" }] } }
        : null,
    );
    const on = editing();
    act(() => on.current.edit(sheet(420)));
    await pass(4_000); // after 0.7, 1.7 and 3.7 seconds
    expect([server.puts().length, on.current.saving, on.current.failed?.status]).toEqual([3, "unreachable", status]);
    stumbles = false;
    await pass(5_000);
    expect([on.current.saving, on.current.failed]).toEqual(["saved", null]);
  });
});

describe("when another tab has saved in between", () => {
  const elsewhere = (server: ReturnType<typeof kitchen>, item: Sheet) => {
    server.state.sheet = item;
    server.state.revision += 1;
  };

  it("what each changed alone is put together", async () => {
    const server = kitchen();
    const on = editing();
    elsewhere(server, sheet(375, "Renamed there"));
    act(() => on.current.edit(sheet(420)));
    await pass(2_000);
    expect([waterOf(on.current.sheet), on.current.sheet.title, on.current.saving]).toEqual([
      420,
      "Renamed there",
      "saved",
    ]);
    expect(server.state.sheet).toEqual(on.current.sheet);
  });

  it("what both changed is asked about: both can be kept", async () => {
    const server = kitchen();
    const on = editing();
    elsewhere(server, sheet(410));
    act(() => on.current.edit(sheet(420)));
    await pass(2_000);
    expect(on.current.saving).toBe("conflict");
    expect(waterOf(server.state.sheet)).toBe(410);
    let copy = 0;
    await act(async () => {
      copy = await on.current.keepBoth();
    });
    expect(copy).toBe(8);
    const made = server.requests.find(
      (request) => request.method === "POST" && request.path === "/api/sheets",
    ) as SeenRequest;
    expect([bodySheet(made).title, waterOf(bodySheet(made))]).toEqual(["A cake (my copy)", 420]);
    expect([on.current.saving, waterOf(on.current.sheet)]).toEqual(["saved", 410]);
  });

  it("or mine, or the other", async () => {
    for (const [take, water] of [
      ["keepMine", 420],
      ["takeTheirs", 410],
    ] as const) {
      localStorage.clear();
      sessionStorage.clear();
      const server = kitchen();
      const on = editing();
      elsewhere(server, sheet(410));
      act(() => on.current.edit(sheet(420)));
      await pass(2_000);
      act(() => on.current[take]());
      await pass(2_000);
      expect([on.current.saving, waterOf(on.current.sheet), waterOf(server.state.sheet)]).toEqual([
        "saved",
        water,
        water,
      ]);
      cleanup();
    }
  });

  it("a tab without an edit of its own hears of it and follows", async () => {
    const channels = new Set<{ hear?: (message: { data: unknown }) => void }>();
    vi.stubGlobal(
      "BroadcastChannel",
      class {
        hear?: (message: { data: unknown }) => void;
        constructor() {
          channels.add(this);
        }
        addEventListener(_: string, hear: (message: { data: unknown }) => void) {
          this.hear = hear;
        }
        postMessage(data: unknown) {
          for (const other of channels) if (other !== this) other.hear?.({ data });
        }
        close() {
          channels.delete(this);
        }
      },
    );
    kitchen();
    const [first, second] = [editing(), editing()];
    act(() => first.current.edit(sheet(420)));
    await pass(1_000);
    expect([waterOf(second.current.sheet), hydration(second), second.current.saving]).toEqual([420, 140, "saved"]);
  });
});

describe("what is kept", () => {
  const lying = (id: string, at: number, water: number) => {
    const packed = {
      at,
      sheets: [sheet(), sheet(water)],
      kept: {
        saved: { revision: 3, sheet: 0 },
        ops: [{ id: 1, change: [0, 1] }],
        sending: null,
        past: [],
        future: [],
      },
    };
    localStorage.setItem(`kemble-draft-7-${id}`, JSON.stringify(packed));
  };

  it("by another tab that is still open is left alone", () => {
    lying("other", Date.now(), 401);
    expect(kept(7)).toBeNull();
    expect(localStorage.getItem("kemble-draft-7-other")).not.toBeNull();
  });

  it("by a tab that is gone is taken up", () => {
    lying("gone", Date.now() - 120_000, 401);
    const foundKept = kept(7);
    expect(foundKept?.saved.revision).toBe(3);
    expect(foundKept?.ops[0]).toMatchObject({ change: { to: sheet(401) } });
    expect(localStorage.getItem("kemble-draft-7-gone")).toBeNull();
  });

  it("by a page of before is brought up to date: times that were given stand in the method", () => {
    const { method, ...old } = sheet();
    const unnamed = old.parts.map(({ id: _, ...part }) => part);
    const before = { ...old, version: 2, parts: unnamed, taught: { heat: { minutes: 70, by: "my aunt" } } };
    const draft = {
      at: Date.now() - 120_000,
      sheets: [before, { ...before, title: "Typed and not saved" }],
      kept: { saved: { revision: 3, sheet: 0 }, ops: [{ id: 1, change: [0, 1] }], sending: null, past: [], future: [] },
    };
    localStorage.setItem("kemble-draft-7-old", JSON.stringify(draft));
    const op = kept(7)?.ops[0];
    expect(op).toMatchObject({ change: { to: { version: 3, title: "Typed and not saved" } } });
    expect(op && "change" in op && op.change.to.method).toMatchObject([
      { step: "heat", minutes: 70, by: "my aunt", use: "ours" },
    ]);
    expect(op && "change" in op && "taught" in op.change.to).toBe(false);
    expect(op && "change" in op && op.change.to.parts.map((part) => part.id)).toEqual(
      old.parts.map((part) => part.role),
    );
  });

  it("of another sheet, or broken, is nothing", () => {
    localStorage.setItem("kemble-draft-70-x", "{}");
    localStorage.setItem("kemble-draft-7-x", "{");
    localStorage.setItem("kemble-draft-7-y", JSON.stringify({ revision: 1, sheet: sheet(), at: 0 })); // of an old page
    expect(kept(7)).toBeNull();
  });
});
