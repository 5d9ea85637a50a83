// @vitest-environment jsdom
/** What else there is of a sheet, behind one press. */

import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { Around, pass, serve, stubResizes } from "../testing";
import { MoreSlip } from "./MorePopover";

beforeEach(() => vi.useFakeTimers());
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

it("leads to its revisions, to her way, to paper, and to every format that there is", async () => {
  stubResizes();
  serve(({ path }) => ({
    body: path.endsWith("/templates")
      ? [{ id: "strip", title: "Strip round the blue tin", width_mm: 585, height_mm: 85 }]
      : [
          { id: "kemble", label: "our own, to open again" },
          { id: "text", label: "plain text" },
        ],
  }));
  render(<MoreSlip id={7} />, { wrapper: Around });
  fireEvent.click(screen.getByRole("button", { name: "More" }));
  await pass(50);
  const links = screen.getAllByRole("link").map((element) => element.getAttribute("href"));
  expect(links).toEqual([
    "/sheets/7/revisions",
    "/sheets/7/beside",
    "/api/sheets/7/paper/card.pdf",
    "/api/sheets/7/paper/templates.pdf",
    "/api/sheets/7/templates/strip.svg",
    "/api/sheets/7/as/kemble",
    "/api/sheets/7/as/text",
  ]);
});
