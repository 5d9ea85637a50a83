// @vitest-environment jsdom
/** A kitchen's file opened: what is in it beside what is here, and as much of it as is chosen put in. */

import { cleanup, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { Around, type Asked, serve } from "../testing";
import ArchivePage, { besideWords } from "./ArchivePage";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const LOOK = {
  name: "The other house",
  made: "2026-11-20T09:00:00+00:00",
  groups: [
    { id: "settings", label: "the kitchen itself", there: 1, here: 0 },
    { id: "sheets", label: "sheets", there: 12, here: 3 },
    { id: "log", label: "makings", there: 8, here: 8 },
    { id: "occasions", label: "occasions", there: 0, here: 0 },
  ],
};

async function opened(refuses = false) {
  const asked: Asked[] = [];
  serve((one) => {
    asked.push(one);
    if (refuses) return { status: 422, body: { problems: [{ path: "file", says: "is not a whole zip file" }] } };
    return { body: one.path.endsWith("/look") ? LOOK : { added: 21 } };
  });
  render(<ArchivePage />, { wrapper: Around });
  fireEvent.change(screen.getByLabelText("Open a file"), { target: { files: [new File(["PK"], "kitchen.zip")] } });
  return asked;
}

it("what is new is chosen, the kitchen itself only by a press", async () => {
  const asked = await opened();
  await screen.findByRole("heading", { name: "The other house" });
  const ticked = screen.getAllByRole<HTMLInputElement>("checkbox").map((box) => box.checked);
  expect(ticked).toEqual([false, true, false, false]);
  expect(screen.getAllByRole<HTMLInputElement>("checkbox").map((box) => box.disabled)).toEqual([
    false,
    false,
    true,
    true,
  ]);
  fireEvent.click(screen.getByRole("checkbox", { name: /the kitchen itself/ }));
  fireEvent.click(screen.getByRole("button", { name: "Put that beside what is here" }));
  await waitFor(() => expect(screen.getByText(/21 things came in/)).toBeTruthy());
  expect(asked.map((one) => one.path)).toContain("/api/archive");
});

it("in place of all that is here takes a second press", async () => {
  const asked = await opened();
  fireEvent.click(await screen.findByRole("button", { name: "In its place" }));
  expect(asked.filter((one) => one.path === "/api/archive")).toHaveLength(0);
  fireEvent.click(screen.getByRole("button", { name: "Yes, in place of all that is here" }));
  await waitFor(() => expect(asked.filter((one) => one.path === "/api/archive")).toHaveLength(1));
});

it("a file that is none says so, and nothing is offered", async () => {
  await opened(true);
  expect((await screen.findByRole("alert")).textContent).toContain("is not a whole zip file");
  expect(screen.queryByRole("button", { name: "In its place" })).toBeNull();
});

it("says how many of them are here", () => {
  const words = (there: number, here: number) => besideWords({ id: "sheets", label: "", there, here });
  expect([words(0, 0), words(4, 0), words(4, 1), words(4, 4)]).toEqual([
    "none",
    "4",
    "4, 1 of them here already",
    "4, all here already",
  ]);
});
