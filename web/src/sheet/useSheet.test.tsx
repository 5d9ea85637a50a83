// @vitest-environment jsdom
/** The heart of the page: edits are worked one at a time, saved a moment later, and never lost. */

import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Sheet } from "../api/client";
import { Around, type Asked, fact, opened, pass, serve, sheet, waterOf, worked } from "../testing";
import { keepDraft, keptDraft } from "./draft";
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

const bodySheet = (asked: Asked) => (asked.body as { sheet: Sheet }).sheet;

/** Works by dividing the water by three; saves by counting revisions. */
function kitchen(overrides: (asked: Asked) => ReturnType<Parameters<typeof serve>[0]> | null = () => null) {
  let revision = 1;
  return serve((asked) => {
    const other = overrides(asked);
    if (other) return other;
    if (asked.path === "/api/work") {
      const now = bodySheet(asked);
      const hydration = (waterOf(now) ?? 0) / 3;
      return {
        body: {
          sheet: now,
          worked: worked(fact("mix.hydration_pct", hydration, "%")),
          moved: [{ key: "mix.hydration_pct", label: "", unit: "%", old: "125", new: hydration.toFixed(0) }],
        },
      };
    }
    if (asked.path === "/api/adjust")
      return { body: { sheet: sheet(480), worked: worked(fact("mix.hydration_pct", 160)), moved: [] } };
    if (asked.method === "PUT") {
      revision += 1;
      return { body: { ...opened(bodySheet(asked)), revision } };
    }
    if (asked.method === "POST") return { body: { ...opened(bodySheet(asked)), id: 8 } };
    return { body: opened(sheet(999), 9) };
  });
}

const mount = (start = opened(sheet())) => renderHook(() => useSheet(start), { wrapper: Around }).result;
const hydration = (bench: ReturnType<typeof mount>) => bench.current.worked.facts["mix.hydration_pct"]?.value;

describe("an edit", () => {
  it("is shown at once, worked, and saved a moment later", async () => {
    const { asked } = kitchen();
    const bench = mount();
    act(() => bench.current.edit(sheet(420)));
    expect(waterOf(bench.current.sheet)).toBe(420);
    expect(bench.current.saving).toBe("unsaved");
    await pass(50);
    expect(hydration(bench)).toBe(140);
    expect(bench.current.moved[0]?.old).toBe("125");
    expect(asked.filter((one) => one.method === "PUT")).toHaveLength(0);
    await pass(800);
    expect(asked.filter((one) => one.method === "PUT")).toHaveLength(1);
    expect(bench.current.saving).toBe("saved");
    expect(keptDraft(7)).toBeNull();
  });

  it("waits for the one under way, and a newer one takes its place", async () => {
    let hold = true;
    const server = kitchen((asked) => (asked.path === "/api/work" && hold ? "hang" : null));
    const bench = mount();
    act(() => bench.current.edit(sheet(390)));
    await pass(10);
    hold = false;
    for (const water of [400, 410, 420, 450]) act(() => bench.current.edit(sheet(water)));
    server.settle();
    await pass(50);
    const workings = server.asked.filter((one) => one.path === "/api/work").map((one) => waterOf(bodySheet(one)));
    expect(workings).toEqual([390, 450]);
    expect(hydration(bench)).toBe(150);
  });

  it("is told against the sheet before the edits began, until they have settled", async () => {
    const { asked } = kitchen();
    const bench = mount();
    act(() => bench.current.edit(sheet(390)));
    await pass(50);
    act(() => bench.current.edit(sheet(420)));
    await pass(50);
    const toldAgainst = () =>
      asked.filter((one) => one.path === "/api/work").map((one) => waterOf((one.body as { before: Sheet }).before));
    expect(toldAgainst()).toEqual([375, 375]);
    await pass(10_000);
    expect(bench.current.moved).toEqual([]);
    act(() => bench.current.edit(sheet(450)));
    await pass(50);
    expect(toldAgainst()).toEqual([375, 375, 420]);
  });

  it("can be undone, step by step", async () => {
    kitchen();
    const bench = mount();
    expect(bench.current.undo).toBeNull();
    act(() => bench.current.edit(sheet(400)));
    act(() => bench.current.edit(sheet(420)));
    act(() => bench.current.undo?.());
    expect(waterOf(bench.current.sheet)).toBe(400);
    act(() => bench.current.undo?.());
    expect(waterOf(bench.current.sheet)).toBe(375);
    expect(bench.current.undo).toBeNull();
  });

  it("that the server refuses keeps what was typed and says why", async () => {
    const problem = { path: "vessel.tin", says: "does not fit", accepts: "a larger tin" };
    kitchen((asked) =>
      asked.path === "/api/work" ? { status: 422, body: { problems: [problem], worked: null } } : null,
    );
    const bench = mount();
    act(() => bench.current.edit(sheet(900)));
    await pass(50);
    expect(bench.current.problems).toEqual([problem]);
    expect(waterOf(bench.current.sheet)).toBe(900);
    expect(hydration(bench)).toBe(125);
  });

  it("by an adjustment takes the sheet that comes back, and saves it", async () => {
    const { asked } = kitchen();
    const bench = mount();
    act(() => bench.current.adjust({ by: "base", grams: 400 }));
    await pass(50);
    expect(waterOf(bench.current.sheet)).toBe(480);
    await pass(800);
    expect(waterOf(bodySheet(asked.find((one) => one.method === "PUT") as Asked))).toBe(480);
  });
});

describe("without the network", () => {
  it("a draft is kept, and saved when it is back", async () => {
    let away = true;
    kitchen(() => (away ? "unreachable" : null));
    const bench = mount();
    act(() => bench.current.edit(sheet(420)));
    await pass(1_000);
    expect(bench.current.saving).toBe("unreachable");
    expect(waterOf(keptDraft(7)?.sheet as Sheet)).toBe(420);
    away = false;
    await pass(4_000);
    expect(bench.current.saving).toBe("saved");
    expect(keptDraft(7)).toBeNull();
  });

  it("a draft is taken up again after a reload", async () => {
    const { asked } = kitchen();
    keepDraft(7, { revision: 1, sheet: sheet(444) });
    const bench = mount();
    await pass(1_000);
    expect(waterOf(bench.current.sheet)).toBe(444);
    expect(waterOf(bodySheet(asked.find((one) => one.method === "PUT") as Asked))).toBe(444);
  });
});

describe("when another tab has saved in between", () => {
  const conflict = {
    status: 409,
    body: { problems: [{ path: "revision", says: "is not the newest", accepts: "" }], worked: null },
  };

  it("it is told, and both can be kept", async () => {
    const { asked } = kitchen((one) => (one.method === "PUT" ? conflict : null));
    const bench = mount();
    act(() => bench.current.edit(sheet(420)));
    await pass(1_000);
    expect(bench.current.saving).toBe("conflict");
    let copy = 0;
    await act(async () => {
      copy = await bench.current.keepBoth();
    });
    expect(copy).toBe(8);
    const made = asked.find((one) => one.method === "POST" && one.path === "/api/sheets") as Asked;
    expect(bodySheet(made).title).toBe("A cake (my copy)");
    expect(waterOf(bodySheet(made))).toBe(420);
    expect(keptDraft(7)).toBeNull();
  });

  it("it saves no more until that is settled", async () => {
    const { asked } = kitchen((one) => (one.method === "PUT" ? conflict : null));
    const bench = mount();
    act(() => bench.current.edit(sheet(420)));
    await pass(1_000);
    act(() => bench.current.edit(sheet(430)));
    await pass(2_000);
    expect(asked.filter((one) => one.method === "PUT")).toHaveLength(1);
    expect(waterOf(keptDraft(7)?.sheet as Sheet)).toBe(430);
  });

  it("the other can be taken", async () => {
    kitchen((one) => (one.method === "PUT" ? conflict : null));
    const bench = mount();
    act(() => bench.current.edit(sheet(420)));
    await pass(1_000);
    await act(() => bench.current.takeTheirs());
    expect(waterOf(bench.current.sheet)).toBe(999);
    expect(bench.current.saving).toBe("saved");
  });
});

describe("drafts", () => {
  it("of another tab that is still open are left alone", () => {
    localStorage.setItem("kemble-draft-7-other", JSON.stringify({ revision: 1, sheet: sheet(1), at: Date.now() }));
    expect(keptDraft(7)).toBeNull();
    expect(localStorage.getItem("kemble-draft-7-other")).not.toBeNull();
  });

  it("of a tab that is gone are taken up", () => {
    localStorage.setItem(
      "kemble-draft-7-gone",
      JSON.stringify({ revision: 3, sheet: sheet(401), at: Date.now() - 120_000 }),
    );
    expect(keptDraft(7)?.revision).toBe(3);
    expect(localStorage.getItem("kemble-draft-7-gone")).toBeNull();
  });

  it("of another sheet, or broken ones, are none", () => {
    localStorage.setItem("kemble-draft-70-x", JSON.stringify({ revision: 1, sheet: sheet(1), at: 0 }));
    localStorage.setItem("kemble-draft-7-x", "{");
    expect(keptDraft(7)).toBeNull();
  });
});
