import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Box, clearSpot, laid } from "./clearSpot";

const box = (left: number, top: number, wide: number, high: number): Box => ({
  left,
  top,
  right: left + wide,
  bottom: top + high,
});
const ROOM = { wide: 1280, high: 800 };
const SLIP = { wide: 400, high: 300 };

describe("where a slip lies", () => {
  it("is under what was pressed, where nothing is in the way", () => {
    expect(clearSpot(box(100, 100, 80, 20), [], ROOM, SLIP)).toEqual({
      side: "bottom",
      align: "start",
      sideOffset: 8,
      high: 300,
    });
  });

  it("is beyond a drawing that what was pressed stands in", () => {
    // The drawing ends at 700: 700 - 180 = 520 from the right edge of what was pressed, and a gap.
    const spot = clearSpot(box(100, 100, 80, 20), [{ box: box(40, 60, 660, 700), weight: 5 }], ROOM, SLIP);
    expect(spot).toMatchObject({ side: "right", sideOffset: 528 });
  });

  it("is over the drawing that matters less, where one of two must be covered", () => {
    const kept = [
      { box: box(40, 60, 640, 730), weight: 5 },
      { box: box(700, 60, 560, 730), weight: 1 },
    ];
    const spot = clearSpot(box(300, 300, 80, 20), kept, ROOM, SLIP);
    expect(spot.side).toBe("right");
    expect(300 + 80 + spot.sideOffset).toBeGreaterThanOrEqual(680);
  });

  it("is above, at the foot of the window", () => {
    expect(clearSpot(box(100, 740, 80, 20), [], ROOM, SLIP).side).not.toBe("bottom");
  });

  it("lies in the window, and not on what was pressed", () => {
    const at = fc.record({ left: fc.integer({ min: 12, max: 1180 }), top: fc.integer({ min: 12, max: 760 }) });
    fc.assert(
      fc.property(at, ({ left, top }) => {
        const pressed = box(left, top, 80, 20);
        const slip = laid(pressed, clearSpot(pressed, [], ROOM, SLIP), ROOM, SLIP);
        expect(slip.left).toBeGreaterThanOrEqual(12);
        expect(slip.top).toBeGreaterThanOrEqual(12);
        expect(slip.right).toBeLessThanOrEqual(1268);
        expect(slip.bottom).toBeLessThanOrEqual(788);
        const apart =
          slip.left >= pressed.right ||
          slip.right <= pressed.left ||
          slip.top >= pressed.bottom ||
          slip.bottom <= pressed.top;
        expect(apart).toBe(true);
      }),
    );
  });
});
