// @vitest-environment jsdom
/**
 * The queue by itself: with a stand-in for the server that answers what it was asked, whatever the network does to
 * requests and answers, in whatever order, from however many tabs.
 */

import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Adjustment, Sheet } from "../api/client";
import { sheet as cake, fact, worked } from "../testing";
import { newLine } from "./edits";
import { same } from "./merge";
import {
  begun,
  type Drawn,
  type Happening,
  isFresh,
  keptOf,
  next,
  type PersistedQueue,
  problems,
  type Queue,
  type Saved,
  saving,
  type Want,
  wants,
} from "./queue";

const PROBLEM = { path: "x", says: "no", accepts: "" };

const withMark = (sheet: Sheet, mark: string): Sheet => ({
  ...sheet,
  parts: sheet.parts.map((part, i) => (i ? part : { ...part, lines: [...part.lines, newLine(mark)] })),
});
const withoutMark = (sheet: Sheet, mark: string): Sheet => ({
  ...sheet,
  parts: sheet.parts.map((part) => ({ ...part, lines: part.lines.filter((line) => line.ingredient !== mark) })),
});
const marks = (sheet: Sheet) => sheet.parts[0]?.lines.slice(2).map((line) => line.ingredient) ?? [];
const times = (sheet: Sheet, factor: number): Sheet => ({
  ...sheet,
  parts: sheet.parts.map((part) => ({
    ...part,
    lines: part.lines.map((line) => ({ ...line, amount: { ...line.amount, value: line.amount.value * factor } })),
  })),
});
/** An answer that can be told from one for any other sheet. */
const workedOf = (sheet: Sheet) =>
  worked(fact("of", sheet.parts[0]?.lines.map((line) => `${line.ingredient} ${line.amount.value}`).join() ?? ""));
const WISH = { by: "part", role: "base" } as Adjustment;

/** What the real one does: revisions, conflicts, and the same save sent twice answered as the first time. */
class Server {
  revision = 1;
  wishes = 0;
  sheet = cake();
  answered = new Map<string, number>();

  save(uid: string, over: number, sheet: Sheet): { status: number; revision: number } {
    const before = this.answered.get(uid);
    if (before !== undefined) return { status: 200, revision: before };
    if (over !== this.revision) return { status: 409, revision: 0 };
    this.revision += 1;
    this.sheet = sheet;
    this.answered.set(uid, this.revision);
    return { status: 200, revision: this.revision };
  }

  /** An adjustment doubles every amount and leaves a mark, so that each that was made is there to be counted. */
  adjust(sheet: Sheet): Sheet {
    this.wishes += 1;
    return withMark(times(sheet, 2), `wish-${this.wishes}`);
  }

  work(sheet: Sheet): Drawn {
    return { sheet, worked: workedOf(sheet), moved: [], says: [] };
  }
}

interface Travelling {
  want: Want;
  answer: (() => Happening) | null;
}

/** A page: its queue, and the requests and answers that are on their way. */
class Tab {
  queue: Queue;
  kept: string;
  way: Travelling[] = [];
  constructor(
    readonly name: string,
    readonly server: Server,
    readonly clock: { now: number },
    readonly others: () => Tab[],
  ) {
    this.queue = begun({ revision: server.revision, sheet: server.sheet }, workedOf(server.sheet), null);
    this.kept = "null";
  }

  tell(what: Happening) {
    const before = this.queue.saved.revision;
    this.queue = next(this.queue, what);
    this.kept = JSON.stringify(keptOf(this.queue));
    if (what.is === "saved" && this.queue.saved.revision > before)
      for (const tab of this.others()) if (tab !== this) tab.tell({ is: "heard", revision: this.queue.saved.revision });
  }

  ask() {
    for (const want of wants(this.queue, this.clock.now)) {
      const uid = `${this.name}-${this.clock.now}-${Math.random()}`;
      this.tell({ is: "asked", want, uid });
      const sent = want.lane === "save" ? ({ lane: "save", sending: this.queue.sending } as Want) : want;
      this.way.push({ want: sent, answer: null });
    }
  }

  fail(travelling: Travelling, status: number) {
    this.way = this.way.filter((eachTravelling) => eachTravelling !== travelling);
    const { want } = travelling;
    this.tell({ is: "failed", want, status, problems: [PROBLEM], worked: null, at: this.clock.now });
  }

  /** The request comes to the server, which answers what it was asked. */
  arrive(travelling: Travelling) {
    const { want } = travelling;
    const at = this.clock.now;
    if (want.lane === "theirs") {
      const theirs: Saved = { revision: this.server.revision, sheet: this.server.sheet };
      travelling.answer = () => ({ is: "theirs", theirs });
    } else if (want.lane === "save") {
      const { uid, revision, sheet } = want.sending;
      const told = this.server.save(uid as string, revision, sheet);
      travelling.answer = () =>
        told.status === 200
          ? { is: "saved", revision: told.revision }
          : { is: "failed", want, status: 409, problems: [PROBLEM], worked: null, at };
    } else {
      const sheet = want.wish ? this.server.adjust(want.sheet) : want.sheet;
      const answer = this.server.work(sheet);
      travelling.answer = () => ({ is: "worked", want, answer, at });
    }
  }

  hear(travelling: Travelling) {
    if (!travelling.answer) return;
    this.way = this.way.filter((eachTravelling) => eachTravelling !== travelling);
    this.tell(travelling.answer());
  }

  reload() {
    this.way = [];
    const saved = { revision: this.server.revision, sheet: this.server.sheet };
    this.queue = begun(saved, workedOf(saved.sheet), JSON.parse(this.kept) as PersistedQueue | null);
  }
}

type Move =
  | { do: "edit" | "wish" | "undo" | "ask" | "reload"; tab: number }
  | { do: "arrive" | "hear" | "lose" | "stumble" | "sign out"; tab: number; which: number }
  | { do: "wait"; ms: number };

const TABS = 2;
const tabs = fc.nat(TABS - 1);
const moves = fc.array(
  fc.oneof(
    { weight: 4, arbitrary: fc.record({ do: fc.constantFrom("edit" as const, "wish" as const), tab: tabs }) },
    { weight: 1, arbitrary: fc.record({ do: fc.constantFrom("undo" as const, "reload" as const), tab: tabs }) },
    { weight: 5, arbitrary: fc.record({ do: fc.constant("ask" as const), tab: tabs }) },
    {
      weight: 8,
      arbitrary: fc.record({ do: fc.constantFrom("arrive" as const, "hear" as const), tab: tabs, which: fc.nat(2) }),
    },
    {
      weight: 2,
      arbitrary: fc.record({
        do: fc.constantFrom("lose" as const, "stumble" as const, "sign out" as const),
        tab: tabs,
        which: fc.nat(2),
      }),
    },
    { weight: 3, arbitrary: fc.record({ do: fc.constant("wait" as const), ms: fc.constantFrom(100, 800, 5_000) }) },
  ),
  { minLength: 10, maxLength: 80 },
);

/** Plays the moves, then lets the network be well again until nobody wants anything. Returns what must be there. */
function play(list: Move[]) {
  const server = new Server();
  const clock = { now: 1_000_000 };
  const all: Tab[] = [];
  for (let i = 0; i < TABS; i += 1) all.push(new Tab(`tab-${i}`, server, clock, () => all));
  const made: string[] = [];
  const undone = new Set<string>();
  for (const move of list) {
    if (move.do === "wait") {
      clock.now += move.ms;
      continue;
    }
    const tab = all[move.tab] as Tab;
    const at = clock.now;
    if (move.do === "edit") {
      const mark = `mark-${made.length}`;
      made.push(mark);
      tab.tell({ is: "changed", from: tab.queue.sheet, to: withMark(tab.queue.sheet, mark), at });
      expect(marks(tab.queue.sheet)).toContain(mark);
    } else if (move.do === "wish") {
      tab.tell({ is: "wished", to: WISH, at });
    } else if (move.do === "undo") {
      const change = tab.queue.past.at(-1)?.change;
      tab.tell({ is: "undo", at });
      if (change) for (const mark of marks(change.to)) if (!marks(change.from).includes(mark)) undone.add(mark);
    } else if (move.do === "reload") {
      tab.reload();
    } else if (move.do === "ask") {
      tab.ask();
    } else {
      const which = (move as { which: number }).which;
      const travelling = tab.way[which % Math.max(1, tab.way.length)];
      if (!travelling) continue;
      if (move.do === "arrive" && !travelling.answer) tab.arrive(travelling);
      if (move.do === "hear") tab.hear(travelling);
      if (move.do === "lose") tab.fail(travelling, 0); // before it came there, or its answer on the way back
      if (move.do === "stumble") tab.fail(travelling, 500);
      if (move.do === "sign out") tab.fail(travelling, 401);
    }
    for (const eachTab of all) check(eachTab);
  }
  for (let round = 0; round < 400; round += 1) {
    clock.now += 31_000;
    for (const tab of all) {
      if (tab.queue.conflict) tab.tell({ is: "keep mine" });
      tab.ask();
      for (const travelling of [...tab.way]) {
        if (!travelling.answer) tab.arrive(travelling);
        tab.hear(travelling);
      }
      check(tab);
    }
    const quiet = (tab: Tab) => !tab.way.length && !tab.queue.conflict && !wants(tab.queue, clock.now + 31_000).length;
    if (all.every(quiet)) break;
  }
  return { server, all, made, undone };
}

/** What holds at every moment. */
function check(tab: Tab) {
  const { queue } = tab;
  expect(tab.way.filter((travelling) => travelling.want.lane === "save").length).toBeLessThanOrEqual(1);
  expect(tab.way.filter((travelling) => travelling.want.lane === "work").length).toBeLessThanOrEqual(1);
  if (saving(queue) === "saved") expect(same(queue.sheet, queue.saved.sheet)).toBe(true);
  if (isFresh(queue)) expect(queue.drawn.sheet).toBe(queue.sheet);
  // What is shown is what would be taken up after a reload.
  expect(same(begun(queue.saved, worked(), keptOf(queue)).sheet, queue.sheet)).toBe(true);
}

describe("whatever the network does, from two tabs", () => {
  it("the server and every page end on the same sheet, and it holds every edit once", () => {
    fc.assert(
      fc.property(moves, (list) => {
        const { server, all, made, undone } = play(list as Move[]);
        for (const tab of all) {
          expect(saving(tab.queue)).toBe("saved");
          expect(same(tab.queue.sheet, server.sheet)).toBe(true);
          expect(isFresh(tab.queue)).toBe(true);
          expect(tab.queue.drawn.worked).toEqual(workedOf(tab.queue.sheet));
        }
        const result = marks(server.sheet);
        expect(new Set(result).size).toBe(result.length);
        for (const mark of made) if (!undone.has(mark)) expect(result).toContain(mark);
      }),
      { numRuns: 400 },
    );
  });

  it("in one tab an undone edit is gone, and no save is taken for somebody else's", () => {
    const arbitrary = moves.map((list) => (list as Move[]).map((move) => ("tab" in move ? { ...move, tab: 0 } : move)));
    fc.assert(
      fc.property(arbitrary, (list) => {
        const { server, made, undone } = play(list);
        const result = marks(server.sheet);
        for (const mark of made) expect(result.includes(mark)).toBe(!undone.has(mark));
      }),
      { numRuns: 300 },
    );
  });
});

describe("by hand", () => {
  const at = 1_000_000;
  const later = at + 10_000;
  const open = () => begun({ revision: 1, sheet: cake() }, worked(), null);
  const water = (sheet: Sheet) => sheet.parts[0]?.lines[1]?.amount.value;
  const withWater = (sheet: Sheet, value: number): Sheet => ({
    ...sheet,
    parts: sheet.parts.map((part) => ({
      ...part,
      lines: part.lines.map((line, i) => (i === 1 ? { ...line, amount: { ...line.amount, value } } : line)),
    })),
  });
  const edit = (queue: Queue, value: number) =>
    next(queue, { is: "changed", from: queue.sheet, to: withWater(queue.sheet, value), at });
  const want = (queue: Queue, lane: Want["lane"], now = later) => wants(queue, now).find((want) => want.lane === lane);
  const ask = (queue: Queue, lane: Want["lane"], uid = "u") =>
    next(queue, { is: "asked", want: want(queue, lane) as Want, uid });
  const fails = (queue: Queue, what: Want, status: number) =>
    next(queue, { is: "failed", want: what, status, problems: [PROBLEM], worked: null, at: later });

  it("an edit made while an adjustment is under way comes on top of its outcome", () => {
    let queue = next(open(), { is: "wished", to: WISH, at });
    const wish = want(queue, "work") as Extract<Want, { lane: "work" }>;
    queue = next(queue, { is: "asked", want: wish, uid: "" });
    queue = edit(queue, 420);
    const doubled = times(wish.sheet, 2);
    queue = next(queue, {
      is: "worked",
      want: wish,
      answer: { sheet: doubled, worked: worked(), moved: [], says: [] },
      at,
    });
    expect(queue.sheet.parts[0]?.lines.map((line) => line.amount.value)).toEqual([600, 420]);
    expect(isFresh(queue)).toBe(false); // what was drawn is the outcome without the edit
    expect((want(queue, "work") as Extract<Want, { lane: "work" }>).sheet).toBe(queue.sheet);
  });

  it("a second adjustment starts from the outcome of the first", () => {
    let queue = next(open(), { is: "wished", to: WISH, at });
    const first = want(queue, "work") as Extract<Want, { lane: "work" }>;
    queue = next(queue, { is: "asked", want: first, uid: "" });
    queue = next(queue, { is: "wished", to: { ...WISH, factor: 3 } as Adjustment, at });
    expect(want(queue, "work")).toBeUndefined();
    const answer = { sheet: times(first.sheet, 2), worked: worked(), moved: [], says: [] };
    queue = next(queue, { is: "worked", want: first, answer, at });
    expect(water((want(queue, "work") as Extract<Want, { lane: "work" }>).sheet)).toBe(750);
  });

  it("an adjustment is undone though an edit made under way was undone before it was there", () => {
    let queue = next(open(), { is: "wished", to: WISH, at });
    const wish = want(queue, "work") as Extract<Want, { lane: "work" }>;
    queue = next(queue, { is: "asked", want: wish, uid: "" });
    queue = next(edit(queue, 420), { is: "undo", at });
    const answer = { sheet: times(wish.sheet, 2), worked: worked(), moved: [], says: [] };
    queue = next(queue, { is: "worked", want: wish, answer, at });
    expect(water(queue.sheet)).toBe(750);
    queue = next(queue, { is: "undo", at });
    expect([water(queue.sheet), saving(queue)]).toEqual([375, "saved"]);
  });

  it("of the ratios that a drag wishes for only the newest waits", () => {
    const ratio = (hydration_pct: number) => ({ by: "ratio", role: "base", hydration_pct }) as Adjustment;
    let queue = next(open(), { is: "wished", to: ratio(120), at });
    queue = next(queue, { is: "asked", want: want(queue, "work") as Want, uid: "" });
    for (const pct of [121, 122, 123]) queue = next(queue, { is: "wished", to: ratio(pct), at });
    expect(queue.ops.map((op) => "wish" in op && op.wish.hydration_pct)).toEqual([120, 123]);
  });

  it("a save that was not answered is sent again as it was, and the next one only after it", () => {
    let queue = ask(edit(open(), 400), "save", "first");
    const sent = { lane: "save", sending: queue.sending } as Want;
    queue = fails(edit(queue, 410), sent, 0);
    expect(saving(queue)).toBe("unreachable");
    expect(want(queue, "save", later + 500)).toBeUndefined();
    const again = want(queue, "save", later + 1_000) as Extract<Want, { lane: "save" }>;
    expect([again.sending.uid, water(again.sending.sheet)]).toEqual(["first", 400]);
    queue = next(queue, { is: "asked", want: again, uid: "other" });
    queue = next(queue, { is: "saved", revision: 2 });
    const second = want(queue, "save") as Extract<Want, { lane: "save" }>;
    expect([second.sending.revision, water(second.sending.sheet)]).toEqual([2, 410]);
  });

  it.each([0, 401, 403, 429, 500, 503, 507])("an answer of %i is tried again, with growing pauses", (status) => {
    let queue = ask(edit(open(), 400), "save");
    const pauses: number[] = [];
    for (let i = 0; i < 8; i += 1) {
      const sent = { lane: "save", sending: queue.sending } as Want;
      queue = fails(queue, sent, status);
      pauses.push(queue.lanes.save.until - later);
      queue = next(queue, { is: "asked", want: sent, uid: "" });
    }
    expect(pauses).toEqual([1_000, 2_000, 4_000, 8_000, 15_000, 30_000, 30_000, 30_000]);
    expect(queue.ops).toHaveLength(1);
  });

  it("what both changed differently is asked about, and either can be had", () => {
    const start = ask(edit(open(), 400), "save");
    const conflicted = fails(start, { lane: "save", sending: start.sending } as Want, 409);
    const theirs = { revision: 2, sheet: { ...withWater(cake(), 410), title: "Theirs" } };
    const met = next(ask(conflicted, "theirs"), { is: "theirs", theirs });
    expect(saving(met)).toBe("conflict");
    expect(met.conflict?.clashes).toEqual([
      { path: ["parts", "base", "lines", "water", "amount", "value"], mine: 400, theirs: 410 },
    ]);
    expect(water(met.sheet)).toBe(400);
    const mine = next(met, { is: "keep mine" });
    expect([water(mine.sheet), mine.sheet.title, mine.saved.revision]).toEqual([400, "Theirs", 2]);
    expect(water(next(mine, { is: "undo", at }).sheet)).toBe(410);
    const other = next(met, { is: "take theirs" });
    expect([water(other.sheet), saving(other)]).toEqual([410, "saved"]);
    expect(water(next(other, { is: "undo", at }).sheet)).toBe(400);
  });

  it("what only one of them changed is put together, and nobody is asked", () => {
    const start = ask(edit(open(), 400), "save");
    const late = fails(start, { lane: "save", sending: start.sending } as Want, 409);
    const theirs = { revision: 2, sheet: { ...cake(), title: "Theirs" } };
    const met = next(ask(late, "theirs"), { is: "theirs", theirs });
    expect([water(met.sheet), met.sheet.title, saving(met)]).toEqual([400, "Theirs", "unsaved"]);
  });

  it("a tab without edits of its own follows", () => {
    const heard = next(open(), { is: "heard", revision: 2 });
    const met = next(ask(heard, "theirs"), { is: "theirs", theirs: { revision: 2, sheet: withWater(cake(), 410) } });
    expect([water(met.sheet), saving(met)]).toEqual([410, "saved"]);
    expect(next(open(), { is: "heard", revision: 1 }).look).toBe(false);
  });

  it("a sheet that the server cannot take is said to be that, until it is put right", () => {
    const bare = withoutMark(cake(), "sweet-rice-flour");
    const problem = { path: "sheet.parts", says: "the base has no flour", accepts: "sweet rice flour" };
    let queue = next(open(), { is: "changed", from: cake(), to: bare, at });
    for (const lane of ["work", "save"] as const) {
      const asked = want(queue, lane) as Want;
      queue = next(queue, { is: "asked", want: asked, uid: "u" });
      const sent = lane === "save" ? ({ lane, sending: queue.sending } as Want) : asked;
      queue = next(queue, { is: "failed", want: sent, status: 422, problems: [problem], worked: null, at });
    }
    expect(saving(queue)).toBe("refused");
    expect(problems(queue)).toEqual([problem]);
    expect(wants(queue, later)).toEqual([]);
    queue = next(queue, { is: "undo", at });
    expect(problems(queue)).toEqual([]);
    expect(saving(queue)).toBe("saved"); // as the server has it: there is nothing to save
    expect(isFresh(queue)).toBe(true);
  });

  it("undo and redo outlive a reload, and so does what is on its way", () => {
    let queue = edit(edit(open(), 400), 420);
    queue = next(queue, { is: "undo", at });
    queue = ask(queue, "save", "first");
    const kept = JSON.parse(JSON.stringify(keptOf(queue))) as PersistedQueue;
    let again = begun({ revision: 1, sheet: cake() }, worked(), kept);
    expect(water(again.sheet)).toBe(400);
    expect(again.sending?.uid).toBe("first");
    again = next(again, { is: "redo", at });
    expect(water(again.sheet)).toBe(420);
    again = next(next(again, { is: "undo", at }), { is: "undo", at });
    expect(water(again.sheet)).toBe(375);
  });

  it("a sheet thrown away elsewhere keeps what was typed here, and saves it once it is back", () => {
    const start = ask(edit(open(), 400), "save");
    const gone = fails(start, { lane: "save", sending: start.sending } as Want, 410);
    expect([saving(gone), water(gone.sheet)]).toEqual(["gone", 400]);
    expect(want(gone, "save")).toBeUndefined();
    expect(want(next(gone, { is: "again" }), "save")).toBeDefined();
  });
});
