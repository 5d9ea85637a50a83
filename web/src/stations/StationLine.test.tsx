// @vitest-environment jsdom
/** The line: key numbers of each stop, old beside new after an edit. */

import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import type { FactChange, FactKey, Plan, WorkResult } from "../api/client";
import { Around, fact, worked } from "../testing";
import { StationLine } from "./StationLine";

afterEach(cleanup);

const of = (drawings: object, ...result: Parameters<typeof worked>): WorkResult => {
  const made = worked(...result);
  return { ...made, drawings: { ...made.drawings, ...drawings } as WorkResult["drawings"] };
};
const CAKE = of(
  { heat: { kind: "steam" } },
  fact("mix.hydration_pct", 130, "%"),
  fact("shape.depth_mm", 31, "mm"),
  fact("shape.tins", 2),
  fact("heat.done_min", 34, "min"),
  fact("rest.cut_after_min", 138, "min"),
);
const plan = (begin: string) => ({ begin: `2026-11-28T${begin}:00Z` }) as Plan;
const moved = (key: FactKey, old: string, now: string): FactChange => ({
  key,
  label: "",
  unit: "",
  decimals: 0,
  old: Number(old),
  new: Number(now),
});

function Shown({
  of = CAKE,
  changes = [],
  when = null,
}: {
  of?: WorkResult;
  changes?: FactChange[];
  when?: Plan | null;
}) {
  return <StationLine id={7} at="mix" worked={of} moved={changes} plan={when} zone="UTC" />;
}
const stop = (name: RegExp) => screen.getByRole("link", { name }).textContent;
const show = (props: Parameters<typeof Shown>[0] = {}) => render(<Shown {...props} />, { wrapper: Around });

describe("each stop", () => {
  it("has its one number, and words a cook would say", () => {
    show({ when: plan("09:15") });
    expect(stop(/^Mix/)).toBe("Mix130% hydration");
    expect(stop(/^Shape/)).toBe("Shape31mm deep, 2 tins");
    expect(stop(/^Heat/)).toBe("Heat34min steam");
    expect(stop(/^Rest/)).toBe("Rest and cut2 h 18till it cuts");
    expect(stop(/^Plan/)).toBe("Plan09:15begin");
  });

  it("shows both times for balls", () => {
    show({ of: worked(fact("heat.float_min", 4), fact("heat.core_hot_min", 10), fact("heat.done_min", 10)) });
    expect(stop(/^Heat/)).toBe("Heat4to float,10hot within");
  });

  it("calls a piece and a heat what the way calls them", () => {
    const parcels = of(
      {
        shape: { kind: "ball", piece_name: "parcel", piece_names: "parcels" },
        heat: { kind: "wrapped", form: "parcel" },
      },
      fact("shape.pieces", 11),
      fact("shape.piece_g", 82),
      fact("heat.done_min", 106, "min"),
      fact("rest.handle_until_min", 70, "min"),
    );
    show({ of: parcels });
    expect(stop(/^Shape/)).toBe("Shape11parcels of 82 g");
    expect(stop(/^Heat/)).toBe("Heat1 h 46in its leaf");
    expect(stop(/^Rest/)).toBe("Rest and cut70min to work it");
  });

  it("says so where nothing could be worked out", () => {
    show({ of: worked(fact("mix.hydration_pct", 130)) });
    expect(stop(/^Heat/)).toBe("Heat–not calculated");
    expect(stop(/^Plan/)).toBe("Plan–no serve time yet");
  });

  it("is marked where you are", () => {
    show();
    expect(screen.getByRole("link", { current: "page" }).textContent).toMatch(/^Mix/);
  });
});

describe("after an edit", () => {
  it("old stands struck through beside new, in the same words", () => {
    show({ changes: [moved("rest.cut_after_min", "131", "138"), moved("mix.hydration_pct", "124", "130")] });
    expect(stop(/^Rest/)).toBe("Rest and cutwas 2 h 112 h 18till it cuts");
    expect(stop(/^Mix/)).toBe("Mixwas 124130% hydration");
    expect(document.querySelectorAll("s")).toHaveLength(2);
  });

  it("the plan's beginning is told against the one before", () => {
    const { rerender } = show({ when: plan("09:20") });
    rerender(<Shown when={plan("09:13")} changes={[moved("heat.done_min", "32", "34")]} />);
    expect(stop(/^Plan/)).toBe("Planwas 09:2009:13begin");
    rerender(<Shown when={plan("09:13")} />);
    expect(stop(/^Plan/)).toBe("Plan09:13begin");
  });
});
