// @vitest-environment jsdom
/** A household as its owner works it, what each comes to, and the pages that are theirs. */

import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { isOf, ROLES } from "../api/roles";
import { type Answer, Around, KITCHEN, pass, pick, serve } from "../testing";
import { ActionMenu } from "../ui/ActionMenu";
import HelperToday from "./HelperToday";
import { Members } from "./Members";
import TasterToday from "./TasterToday";

beforeEach(() => vi.useFakeTimers());
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

const DAY = "2026-11-27T09:00:00Z";
const MEMBERS = [
  { id: 1, name: "owner", role: "owner", since: DAY, me: true, browsers: [] },
  {
    id: 2,
    name: "sorrel",
    role: "helper",
    since: DAY,
    me: false,
    browsers: [{ id: 5, name: "Firefox on Android", made: DAY, seen: DAY, here: false }],
  },
];

function world(told: Record<string, unknown>) {
  const answers: Record<string, unknown> = {
    "/api/kitchen": { kitchen: KITCHEN, set_up: true },
    "/api/session": { signed_in: true, name: "owner", role: "owner", has_password: true, second_factor: false },
    ...told,
  };
  return serve(({ path }): Answer => ({ body: answers[path] ?? [] }));
}

describe("for the owner", () => {
  async function show() {
    const household = { members: MEMBERS, invitations: [{ id: 7, name: "Teasel", role: "taster", until: DAY }] };
    const result = world({
      "/api/household": household,
      "/api/household/2": household,
      "/api/household/invitations": {
        invitation: { id: 8, name: "Wren", role: "cook", until: DAY },
        address: "http://127.0.0.1:8000/#invited=abc",
        svg: "<svg/>",
        here_only: true,
      },
    });
    render(<Members />, { wrapper: Around });
    await pass(30);
    return result.requests;
  }
  const row = (name: string) => screen.getByText(name).closest("li") as HTMLElement;

  it("each is what they are, and is made something else by one press", async () => {
    const requests = await show();
    expect(within(row("owner")).queryByRole("radio")).toBeNull(); // there is one owner, and stays one
    expect(within(row("sorrel")).getByRole("radio", { name: "helper" }).getAttribute("data-state")).toBe("on");
    fireEvent.click(within(row("sorrel")).getByRole("radio", { name: "cook" }));
    await pass(30);
    expect(requests.at(-1)).toMatchObject({ method: "PUT", path: "/api/household/2", body: { role: "cook" } });
  });

  it("nobody is sent away by one press alone", async () => {
    const requests = await show();
    fireEvent.click(within(row("sorrel")).getByRole("button", { name: "Send away" }));
    await pass(30);
    expect(requests.some((request) => request.method === "DELETE")).toBe(false);
    fireEvent.click(within(row("sorrel")).getByRole("button", { name: /^Send sorrel away/ }));
    await pass(30);
    expect(requests.some((request) => request.method === "DELETE" && request.path === "/api/household/2")).toBe(true);
  });

  it("an invitation is shown once with its square, and says when no phone will find it", async () => {
    const requests = await show();
    fireEvent.change(screen.getByLabelText("For whom"), { target: { value: " Wren " } });
    const roles = screen.getByRole("radiogroup", { name: "As what" });
    fireEvent.click(within(roles).getByRole("radio", { name: "cook" }));
    fireEvent.click(screen.getByRole("button", { name: "Write the invitation" }));
    await pass(30);
    expect(requests.find((request) => request.method === "POST")?.body).toEqual({ name: "Wren", role: "cook" });
    const made = screen.getByRole("region", { name: "The invitation" });
    expect(made.textContent).toContain("#invited=abc");
    expect(made.textContent).toContain("a name that only this machine knows");
  });
});

describe("what each comes to", () => {
  it("a taster: what waits for a word, and what they have said", async () => {
    world({
      "/api/to-taste": [
        { batch: 3, title: "Quince cake", made: DAY, tasted: true, again: false },
        { batch: 2, title: "Tea cake", made: DAY, tasted: false, again: true },
      ],
      "/api/splits": [{ id: 4, title: "Rested or not", made: DAY, says: "1 of 6 have answered" }],
    });
    render(<TasterToday />, { wrapper: Around });
    await pass(30);
    const links = screen.getAllByRole("link").map((element) => [element.getAttribute("href"), element.textContent]);
    expect(links).toContainEqual(["/log/3/taste", expect.stringContaining("you have said")]);
    expect(links).toContainEqual(["/log/2/taste", expect.stringContaining("once more")]);
    expect(links).toContainEqual(["/log/blind/4", expect.stringContaining("1 of 6 have answered")]);
  });

  it("a helper: each pair of hands has its page, and nothing is asked that is not theirs", async () => {
    const step = { title: "Sieve", dish: "Cake", hands: "held", starts: DAY, ends: DAY };
    const { requests } = world({
      "/api/occasions": [
        {
          id: 9,
          title: "Tea",
          serve: DAY,
          begin: DAY,
          people: 4,
          dishes: [],
          sheets: [],
          clashes: false,
          in_time_pct: null,
          steps: [
            { ...step, who: "Wren" },
            { ...step, who: "cook 1" },
            { ...step, who: "" },
          ],
        },
      ],
    });
    render(<HelperToday />, { wrapper: Around });
    await pass(30);
    const pages = screen.getAllByRole("link").map((element) => element.getAttribute("href"));
    expect(pages).toEqual(expect.arrayContaining(["/occasions/9/for/Wren", "/occasions/9/for/cook%201"]));
    expect(screen.getByText("Nothing is cooking.")).toBeTruthy();
    expect(requests.map((request) => request.path)).not.toContain("/api/dropped");
  });
});

describe("pages", () => {
  it.each([
    ["helper", ["/", "/household", "/make/3", "/occasions/2/for/Wren", "/sheets/4/hands"]],
    ["taster", ["/", "/household", "/log/3/taste", "/log/blind/2"]],
  ] as const)("of a %s are those and no others", (role, theirs) => {
    for (const path of theirs) expect(isOf(role, path)).toBe(true);
    for (const path of ["/kitchen", "/sheets/4/mix", "/make/3/outcome", "/log", "/log/3", "/occasions/2", "/larder"])
      expect(isOf(role, path)).toBe(false);
    for (const [path] of ROLES[role].places) expect(isOf(role, path)).toBe(true);
  });

  it("are all of them, for whoever cooks", () => {
    expect(isOf("cook", "/kitchen/archive") && isOf("owner", "/log/3")).toBe(true);
  });
});

it("a menu does nothing before something in it is pressed", async () => {
  const picked: string[] = [];
  const choices = [
    { id: "a", words: "apple", under: "Fruit" },
    { id: "b", words: "barley", under: "Grain" },
  ];
  render(
    <ActionMenu label="Add" choices={choices} onPick={(id) => picked.push(id)}>
      add
    </ActionMenu>,
  );
  const button = screen.getByRole("button", { name: "Add" });
  fireEvent.keyDown(button, { key: "ArrowDown" });
  await pass(30);
  expect(screen.getAllByRole("menuitem").map((element) => element.textContent)).toEqual(["apple", "barley"]);
  fireEvent.keyDown(screen.getByRole("menu"), { key: "ArrowDown" });
  fireEvent.keyDown(screen.getByRole("menu"), { key: "Escape" });
  await pass(30);
  expect(picked).toEqual([]);
  pick("Add", "barley");
  expect(picked).toEqual(["b"]);
});
