// @vitest-environment jsdom
/** Numbers, days and sentences by the page's own language; each test reads the modules anew, as a page does. */

import { i18n } from "@lingui/core";
import { cleanup, render } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";

beforeEach(() => vi.resetModules());
afterEach(() => {
  cleanup();
  document.documentElement.lang = "";
  i18n.loadAndActivate({ locale: "en", messages: {} });
  vi.resetModules();
});

async function pageIn(locale: string) {
  document.documentElement.lang = locale;
  const language = await import("./language");
  await language.speak(locale);
  return {
    ...language,
    ...(await import("./numbers")),
    ...(await import("../ui/words")),
    ...(await import("../ui/formatters")).createFormatters((await import("./measures")).METRIC),
  };
}

it.each([
  ["en-GB", "2.50", "2.5", "Sat 28 Nov"],
  ["en-US", "2.50", "2.5", "Sat, Nov 28"],
  ["en-DE", "2,50", "2,5", "Sat, 28 Nov"],
])("%s writes %s, %s and %s", async (locale, two, most, day) => {
  const page = await pageIn(locale);
  expect(page.fixed(2.5, 2)).toBe(two);
  expect(page.trimmed(2.5, 2)).toBe(most);
  expect(page.dayWords("2026-11-28")).toBe(day);
  expect(page.locale()).toBe(locale);
});

it("keeps the kitchen's wall clock whatever the language", async () => {
  const page = await pageIn("en-US");
  expect(page.wallClock(new Date("2026-11-28T15:30:00Z"), "UTC")).toBe("2026-11-28T15:30");
});

it("puts accents on a sentence, and leaves values and marks alone", async () => {
  await pageIn("en-XA");
  const { i18n: here } = await import("@lingui/core");
  expect(here._({ id: "x", message: "Use {name} at <0>once</0>", values: { name: "Tea cake" } })).toBe(
    "Üsé Tea cake åt <0>öñçé</0>",
  );
  expect(here._({ id: "y", message: "{n, plural, one {# piece} other {# pieces}}", values: { n: 2 } })).toBe(
    "2 pîéçés",
  );
});

it("shows what somebody wrote as it was written, marks of a sentence and all", async () => {
  await pageIn("en-GB");
  const { Trans } = await import("./Trans");
  const wrong = vi.spyOn(console, "error").mockImplementation(() => {});
  const { container } = render(<Trans id="z" message="Made: {title}" values={{ title: "<0>Tea</0> & <b>cake</b>" }} />);
  expect(container.textContent).toBe("Made: <0>Tea</0> & <b>cake</b>");
  expect(wrong).not.toHaveBeenCalled();
});

it("asks for the page anew where the kitchen speaks another language, and only once", async () => {
  const page = await pageIn("en-GB");
  const reload = vi.fn();
  vi.stubGlobal("location", { ...window.location, reload });
  page.pageIn("en-GB");
  page.pageIn(undefined);
  expect(reload).not.toHaveBeenCalled();
  page.pageIn("en-US");
  page.pageIn("en-US");
  expect(reload).toHaveBeenCalledTimes(1);
  vi.unstubAllGlobals();
});
