// @vitest-environment jsdom
/** How a tray is cut, said three ways; what another pattern or measure leaves of the sheet. */

import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import type { Cut, Sheet } from "../../api/client";
import type { Editing } from "../../sheet/useSheet";
import { Around, fact, sheet, worked } from "../../testing";
import { CutChoice } from "./CutChoice";

afterEach(cleanup);

const CUT: Cut = { pattern: "squares", pieces: 24, side_mm: null, long_mm: null, piece_g: null, even: false, small: 0 };

function show(cut: Partial<Cut> = {}, shape: "round" | "oblong" = "round") {
  const edits: Sheet[] = [];
  const of = worked(fact("cut.pieces", 26), fact("cut.piece_mm", 29.6), fact("cut.piece_g", 31.4));
  of.drawings.cut = {
    pattern: "squares",
    cannot: false,
    small_mm: 15,
    trays: [{ name: "", count: 1, shape, length_mm: 180, width_mm: 180, cells: [], lines: [], rings: [], rulers: [] }],
  };
  const editing = {
    sheet: { ...sheet(), cut: { ...CUT, ...cut } },
    worked: of,
    edit: (next: Sheet) => edits.push(next),
  } as unknown as Editing;
  render(<CutChoice editing={editing} />, { wrapper: Around });
  return () => edits.at(-1)?.cut;
}
const pick = (name: string) => fireEvent.click(screen.getByRole("radio", { name }));
const type = (label: string, value: string) => fireEvent.change(screen.getByLabelText(label), { target: { value } });

describe("how it is cut", () => {
  it("another pattern keeps how many", () => {
    const cut = show();
    pick("rings");
    expect(cut()).toEqual({ ...CUT, pattern: "rings" });
  });

  it("from a count to a size or a weight it begins at what the pieces are now, and says it one way only", () => {
    const cut = show();
    pick("of a size");
    expect(cut()).toEqual({ ...CUT, side_mm: 30 });
    pick("of a weight");
    expect(cut()).toEqual({ ...CUT, piece_g: 31 });
  });

  it("back to a count it asks for as many as there are", () => {
    const cut = show({ side_mm: 30, long_mm: 60 });
    pick("so many");
    expect(cut()).toEqual({ ...CUT, pieces: 26 });
  });

  it("oblongs have a longer side as well, squares have none", () => {
    const cut = show({ pattern: "oblongs", side_mm: 30 });
    type("long side", "75");
    expect(cut()).toMatchObject({ side_mm: 30, long_mm: 75 });
    cleanup();
    show({ side_mm: 30 });
    expect(screen.queryByLabelText("long side")).toBeNull();
  });

  it("pieces of one weight are offered in a round tray, and only where the pattern leaves something over", () => {
    const cut = show();
    fireEvent.click(screen.getByLabelText("every piece of one weight, nothing left over"));
    expect(cut()?.even).toBe(true);
    for (const [pattern, shape] of [
      ["wedges", "round"],
      ["squares", "oblong"],
    ] as const) {
      cleanup();
      show({ pattern }, shape);
      expect(screen.queryByLabelText(/every piece of one weight/)).toBeNull();
    }
  });

  it.each(["0", "-3", "401", "many"])("“%s” pieces are not taken, and stay to be mended", (typed) => {
    const cut = show();
    type("Pieces wanted", typed);
    expect(screen.getByRole("alert").textContent).toContain("rom 1 to 400");
    expect((screen.getByLabelText("Pieces wanted") as HTMLInputElement).value).toBe(typed);
    expect(cut()).toBeUndefined();
  });

  it("some are marked to be cut small", () => {
    const cut = show();
    type("Cut small, for children and old people", "6");
    expect(cut()?.small).toBe(6);
  });
});
