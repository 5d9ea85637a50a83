// @vitest-environment jsdom
/** A kitchen's file opened: what is in it beside what is here, and as much of it as is chosen put in. */

import { cleanup, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import type { Problem } from "../api/client";
import { Around, type SeenRequest, serve } from "../testing";
import ArchivePage, { besideWords } from "./ArchivePage";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const READY = {
  id: "job-1",
  state: "ready",
  name: "The other house",
  made: "2026-11-20T09:00:00+00:00",
  rows: 640,
  read_pct: 100,
  groups: [
    { id: "settings", label: "the kitchen itself", there: 1, here: 0 },
    { id: "sheets", label: "sheets", there: 12, here: 3 },
    { id: "log", label: "batches", there: 8, here: 8 },
    { id: "occasions", label: "occasions", there: 0, here: 0 },
  ],
  added: 0,
  ended: 0,
  problems: [] as Problem[],
};
type State = Partial<typeof READY>;

/** A page on which a file is opened; the job is as `looks` says, one after the other, the last of them for good. */
async function opened(...looks: State[]) {
  let look = 0;
  const server = serve(({ path, method }) => {
    if (method === "DELETE") return { status: 204 };
    if (path.endsWith("/take")) return { body: { ...READY, state: "taken", added: 21, ended: 1 } };
    if (method === "POST") return { body: { ...READY, state: "reading", rows: 0, read_pct: 0, groups: [] } };
    return { body: { ...READY, ...looks[Math.min(look++, looks.length - 1)] } };
  });
  render(<ArchivePage />, { wrapper: Around });
  fireEvent.change(screen.getByLabelText("Open a file"), { target: { files: [new File(["PK"], "kitchen.zip")] } });
  return server.requests;
}

const sent = (requests: SeenRequest[], end: string) => requests.filter((request) => request.path.endsWith(end));

it("what is new is chosen, the kitchen itself only by a press", async () => {
  const requests = await opened({});
  await screen.findByRole("heading", { name: "The other house" });
  await waitFor(() => {
    const ticked = screen.getAllByRole<HTMLInputElement>("checkbox").map((box) => box.checked);
    expect(ticked).toEqual([false, true, false, false]);
  });
  expect(screen.getAllByRole<HTMLInputElement>("checkbox").map((box) => box.disabled)).toEqual([
    false,
    false,
    true,
    true,
  ]);
  fireEvent.click(screen.getByRole("checkbox", { name: /the kitchen itself/ }));
  fireEvent.click(screen.getByRole("button", { name: "Add that to this kitchen" }));
  await waitFor(() => expect(screen.getByText(/21 things came in/)).toBeTruthy());
  expect(screen.getByText(/1 batch was in progress in the other kitchen/)).toBeTruthy();
  expect(sent(requests, "/take")[0]?.body).toEqual({ how: "beside", groups: ["sheets", "settings"] });
});

it("shows how far the reading is, and calls it off", async () => {
  const requests = await opened({ state: "reading", rows: 12_000, read_pct: 40 });
  await screen.findByText(/12.000 rows so far/);
  expect(screen.getByRole<HTMLProgressElement>("progressbar").value).toBe(40);
  fireEvent.click(screen.getByRole("button", { name: "Stop" }));
  await waitFor(() => expect(screen.queryByRole("progressbar")).toBeNull());
  expect(requests.some((request) => request.method === "DELETE" && request.path === "/api/archive/staged/job-1")).toBe(
    true,
  );
});

it("in place of all that is here takes a second press", async () => {
  const requests = await opened({});
  fireEvent.click(await screen.findByRole("button", { name: "In its place" }));
  expect(sent(requests, "/take")).toHaveLength(0);
  fireEvent.click(screen.getByRole("button", { name: "Yes, in place of all that is here" }));
  await waitFor(() => expect(sent(requests, "/take")[0]?.body).toEqual({ how: "in place", groups: [] }));
});

it("a file that is none says so, and nothing is offered", async () => {
  const problem = { path: "file", says: "is not a whole zip file", accepts: "" };
  await opened({ state: "failed", problems: [problem] });
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
