/** The words of the map: beside what they speak of where there is room, elsewhere where there is not, or not at all. */

import * as fc from "fast-check";
import { expect, it } from "vitest";
import { placed } from "./zoneWords";

const FRAME = { left: 0, right: 400, top: 0, bottom: 300 };
const WIDE = 7 * "soft".length;

const boxOf = (item: { x: number; y: number; anchor: string; says: string }) => {
  const wide = 7 * item.says.length;
  const left = item.anchor === "start" ? item.x : item.anchor === "end" ? item.x - wide : item.x - wide / 2;
  return { left, right: left + wide, top: item.y - 12, bottom: item.y + 3 };
};

it("alone, a word stands where it belongs", () => {
  expect(placed([{ says: "soft", x: 100, y: 100 }], [], FRAME)).toEqual([
    { says: "soft", x: 100, y: 100, anchor: "start" },
  ]);
  expect(placed([{ says: "soft", x: 390, y: 100 }], [], FRAME)[0]?.anchor).toBe("end");
});

it("a mark on its place moves it, a wall of marks leaves it out", () => {
  const [moved] = placed([{ says: "soft", x: 100, y: 100 }], [{ x: 100 + WIDE / 2, y: 96, r: 9 }], FRAME);
  expect(moved && [moved.y, moved.anchor]).not.toEqual([100, "start"]);
  expect(placed([{ says: "soft", x: 100, y: 100 }], [{ x: 100, y: 100, r: 120 }], FRAME)).toEqual([]);
});

it("however marks and words lie, none is on another and all are within", () => {
  const at = fc.record({
    x: fc.double({ min: 0, max: 400, noNaN: true }),
    y: fc.double({ min: 0, max: 300, noNaN: true }),
  });
  const word = fc
    .tuple(at, fc.constantFrom("soft", "firm, slices thin", "very sweet"))
    .map(([p, says]) => ({ ...p, says }));
  const mark = at.map((p) => ({ ...p, r: 9 }));
  fc.assert(
    fc.property(fc.array(word, { maxLength: 6 }), fc.array(mark, { maxLength: 20 }), (words, marks) => {
      const boxes = placed(words, marks, FRAME).map(boxOf);
      const taken = [
        ...boxes,
        ...marks.map(({ x, y, r }) => ({ left: x - r, right: x + r, top: y - r, bottom: y + r })),
      ];
      boxes.forEach((a, i) => {
        expect(a.left >= 0 && a.right <= 400 && a.top >= 0 && a.bottom <= 300).toBe(true);
        for (const b of taken.filter((_, j) => j !== i))
          expect(a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom).toBe(false);
      });
    }),
  );
});
