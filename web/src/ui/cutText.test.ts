import { expect, it } from "vitest";
import { cutText } from "./cutText";

const FAMILY = "👩‍👩‍👧"; // five code points: three people and two joiners
const FLAG = "🇫🇮"; // two code points that are one flag

it("leaves alone what is short enough", () => {
  expect(cutText("walnut", 6)).toBe("walnut");
  expect(cutText("", 3)).toBe("");
});

it("cuts between letters, and says so", () => {
  expect(cutText("walnut and date", 6)).toBe("walnut");
  expect(cutText("walnut and date", 7, "…")).toBe("walnut…");
});

it("never halves an emoji", () => {
  expect(cutText(`abc${FAMILY}`, 7)).toBe("abc");
  expect(cutText(`abc${FAMILY}def`, 8)).toBe(`abc${FAMILY}`);
  expect(cutText(`a${FLAG}${FLAG}`, 4)).toBe(`a${FLAG}`);
  for (let most = 0; most < 12; most += 1) {
    const cut = cutText(`🍡${FAMILY}é${FLAG}`, most);
    expect(cut).not.toMatch(/[\ud800-\udfff]/u);
    expect([...cut].length).toBeLessThanOrEqual(most);
  }
});

it("counts as the server does: sixty dumplings are sixty characters, not a hundred and twenty", () => {
  expect(cutText("🍡".repeat(60), 60)).toBe("🍡".repeat(60));
});
