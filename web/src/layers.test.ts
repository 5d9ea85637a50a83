/**
 * Who may import whom. A room imports only rooms below it, and nobody imports a page: pages are put together from rooms, and
 * only the house opens them.
 */

import { describe, expect, it } from "vitest";

/** From the ground up. */
const ROOMS = [
  "words",
  "api",
  "ui",
  "lesson",
  "hands",
  "session",
  "sheet",
  "kitchen",
  "larder",
  "shopping",
  "runs",
  "bench",
  "stations",
  "method",
  "alarm",
  "make",
  "occasion",
  "plan",
  "log",
  "counter",
  "household",
];
const HOUSE = ["House.tsx", "main.tsx"];

const sources = import.meta.glob<string>("./**/*.{ts,tsx}", { eager: true, query: "?raw", import: "default" });
const files = Object.entries(sources)
  .map(([path, source]) => ({ path: path.slice(2), source }))
  .filter(({ path }) => !/\.(test|bench)\.tsx?$|^testing/.test(path));
const roomOf = (path: string) => (path.includes("/") ? (path.split("/")[0] as string) : "");

/** The path of what a file imports, as far as the folder goes, and whether it is fetched only when it is shown. */
function importsOf({ path, source }: { path: string; source: string }) {
  const matches = [...source.matchAll(/(from|import\()\s*"(\.[^"]+)"/g)];
  return matches.map(([, how, to]) => ({
    to: new URL(to as string, `file:///${path}`).pathname.slice(1),
    lazy: how === "import(",
  }));
}

const pages = new Set(files.flatMap((file) => importsOf(file).flatMap(({ to, lazy }) => (lazy ? [to] : []))));
const isPage = (path: string) => pages.has(path.replace(/\.tsx?$/, ""));

describe("layers", () => {
  it("finds the pages and the rooms", () => {
    expect(pages.size).toBeGreaterThan(25);
    expect([...new Set(files.map(({ path }) => roomOf(path)))].filter(Boolean).sort()).toEqual([...ROOMS].sort());
  });

  it("each room imports only what lies below it", () => {
    const upward = files
      .filter(({ path }) => roomOf(path) && !isPage(path))
      .flatMap((file) =>
        importsOf(file)
          .filter(({ to, lazy }) => !lazy && ROOMS.indexOf(roomOf(to)) > ROOMS.indexOf(roomOf(file.path)))
          .map(({ to }) => `${file.path} imports ${to}`),
      );
    expect(upward).toEqual([]);
  });

  it("nobody imports a page, but to show it", () => {
    const result = files.flatMap((file) =>
      importsOf(file)
        .filter(({ to, lazy }) => !lazy && isPage(`${to}.tsx`) && !HOUSE.includes(file.path))
        .map(({ to }) => `${file.path} imports ${to}`),
    );
    expect(result).toEqual([]);
  });
});
