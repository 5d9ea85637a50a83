// @vitest-environment jsdom
/** What was chosen is worn, kept on the device, and "as the device" takes it off again. */

import { afterEach, expect, it } from "vitest";
import { chooseTheme, wearTheme } from "./theme";

afterEach(() => {
  localStorage.clear();
  wearTheme();
});

it("what is chosen is worn at once and after a reload", () => {
  chooseTheme("dark");
  expect(document.documentElement.dataset.theme).toBe("dark");
  delete document.documentElement.dataset.theme;
  wearTheme();
  expect(document.documentElement.dataset.theme).toBe("dark");
  chooseTheme("auto");
  expect(document.documentElement.dataset.theme).toBeUndefined();
});

it("what is no theme is none", () => {
  localStorage.setItem("kemble-theme", "plaid");
  wearTheme();
  expect(document.documentElement.dataset.theme).toBeUndefined();
});
