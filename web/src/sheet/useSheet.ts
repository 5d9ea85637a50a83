/**
 * One sheet at work: the queue (queue.ts) over the server, the browser's store, the clock and the other tabs.
 *
 * Nothing is decided here. What happens is told to the queue, what it wants is asked, and what it is, is drawn.
 */

import { t } from "@lingui/core/macro";
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { type Adjustment, api, ask, type Problem, Refused, type Sheet, type SheetOpen } from "../api/client";
import { whenBack } from "../api/connection";
import { cutText } from "../ui/cutText";
import { newId } from "../ui/newId";
import { forget, keep, keepPast, kept } from "./draft";
import {
  begun,
  type Drawn,
  type Happening,
  isFresh,
  keptOf,
  next,
  problems,
  type Queue,
  SAVE_MS,
  type Saving,
  saving,
  type Want,
  wakes,
  wants,
} from "./queue";

export type { Saving } from "./queue";

export interface Editing extends Pick<Drawn, "worked" | "moved" | "says"> {
  id: number;
  sheet: Sheet;
  /** The sheet that the figures belong to: another than `sheet` while that is being worked, or cannot be. */
  drawnFrom: Sheet;
  /** The figures are those of an earlier sheet, and will be until the kitchen is reached or the sheet put right. */
  stale: boolean;
  problems: Problem[];
  saving: Saving;
  /** Why it could not be saved or worked just now. */
  failed: Queue["failed"];
  conflict: Queue["conflict"];
  gone: Problem | null;
  dots: SheetOpen["dots"];
  edit: (next: Sheet) => void;
  adjust: (to: Partial<Adjustment> & Pick<Adjustment, "by">) => void;
  undo: (() => void) | null;
  redo: (() => void) | null;
  /** Somebody else, or the server itself, has changed it. */
  look: () => void;
  keepMine: () => void;
  keepBoth: () => Promise<number>;
  takeTheirs: () => void;
  bringBack: () => Promise<void>;
}

const KEEP_PAST_MS = 500; // a drag makes sixty steps a second

interface Told {
  sheet: number;
  revision: number;
}

const channel = () => (typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel("kemble-saved"));

/** Through a channel of its own: a save may be answered when the page that sent it has been left. */
function tellTabs(told: Told) {
  const tabs = channel();
  tabs?.postMessage(told);
  tabs?.close();
}

export function useSheet(opened: SheetOpen): Editing {
  const { id } = opened;
  const client = useQueryClient();
  const [queue, setQueue] = useState(() =>
    begun({ revision: opened.revision, sheet: opened.sheet }, opened.worked, kept(id)),
  );
  const newest = useRef(queue);
  const timer = useRef(0);
  const pastTimer = useRef(0);
  const putPast = useRef(() => {
    clearTimeout(pastTimer.current);
    pastTimer.current = 0;
    keepPast(id, keptOf(newest.current));
  });
  const pump = useRef(() => {});
  const pumping = useRef(false);

  const tell = useCallback(
    (what: Happening) => {
      const before = newest.current;
      newest.current = next(before, what);
      if (newest.current === before) return;
      if (differ(before, newest.current, "ops", "sending", "saved")) keep(id, keptOf(newest.current));
      if (differ(before, newest.current, "past", "future") && !pastTimer.current)
        pastTimer.current = window.setTimeout(putPast.current, KEEP_PAST_MS);
      setQueue(newest.current);
      pump.current();
    },
    [id],
  );

  const send = useCallback(
    async (want: Want) => {
      const began = performance.now();
      try {
        tell(await answered(id, want));
        if (want.lane === "work")
          requestAnimationFrame(() => performance.measure("kemble-ripple", { start: began, end: performance.now() }));
        if (want.lane === "save") {
          tellTabs({ sheet: id, revision: newest.current.saved.revision });
          client.invalidateQueries({ queryKey: ["sheets"] });
        }
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        const { status, worked } = error;
        tell({ is: "failed", want, status, problems: error.problems, worked, at: Date.now() });
      }
    },
    [id, tell, client],
  );

  /** Ask for what is wanted now, and look again when something may be. */
  pump.current = () => {
    if (pumping.current) return;
    pumping.current = true;
    const now = Date.now();
    if (newest.current.settles && now >= newest.current.settles) tell({ is: "settled" });
    for (const want of wants(newest.current, now)) {
      tell({ is: "asked", want, uid: newId() });
      const { sending } = newest.current;
      void send(want.lane === "save" && sending ? { lane: "save", sending } : want);
    }
    pumping.current = false;
    clearTimeout(timer.current);
    const wake = wakes(newest.current, now);
    if (wake !== null) timer.current = window.setTimeout(() => pump.current(), wake - now);
  };

  useEffect(() => {
    const tabs = channel();
    const hear = ({ data }: MessageEvent<Told>) => {
      if (data.sheet === id) tell({ is: "heard", revision: data.revision });
    };
    tabs?.addEventListener("message", hear);
    const look = () => document.visibilityState === "visible" && tell({ is: "look" });
    document.addEventListener("visibilitychange", look);
    const again = whenBack(() => tell({ is: "again" }));
    const leave = putPast.current;
    window.addEventListener("pagehide", leave);
    pump.current();
    return () => {
      leave();
      window.removeEventListener("pagehide", leave);
      tabs?.close();
      document.removeEventListener("visibilitychange", look);
      again();
      pump.current = () => {};
      clearTimeout(timer.current);
      // Left before the moment was up: what is not saved is asked for at once, and lies in the draft all the same.
      for (const want of wants(newest.current, Date.now() + SAVE_MS)) {
        if (want.lane !== "save") continue;
        newest.current = next(newest.current, { is: "asked", want, uid: newId() });
        keep(id, keptOf(newest.current));
        if (newest.current.sending) void send({ lane: "save", sending: newest.current.sending });
      }
    };
  }, [id, tell, send]);

  const { sheet, drawn, past, future } = queue;
  return useMemo(
    () => ({
      id,
      sheet,
      worked: drawn.worked,
      moved: drawn.moved,
      says: drawn.says,
      drawnFrom: drawn.sheet,
      stale: !isFresh(queue) && (queue.failed !== null || queue.refused.work?.sheet === sheet),
      problems: problems(queue),
      saving: saving(queue),
      failed: queue.failed,
      conflict: queue.conflict,
      gone: queue.gone,
      dots: opened.dots,
      // A change is what was made of the sheet that was seen, so it is told with that sheet.
      edit: (to) => tell({ is: "changed", from: sheet, to, at: Date.now() }),
      adjust: (to) => tell({ is: "wished", to: { part_id: "base", ...to } as Adjustment, at: Date.now() }),
      undo: past.at(-1)?.change ? () => tell({ is: "undo", at: Date.now() }) : null,
      redo: future.length ? () => tell({ is: "redo", at: Date.now() }) : null,
      look: () => tell({ is: "look" }),
      keepMine: () => tell({ is: "keep mine" }),
      takeTheirs: () => tell({ is: "take theirs" }),
      keepBoth: async () => {
        const title = cutText(t`${sheet.title} (my copy)`, 120);
        const body = { way: null, blank: false, sheet: { ...sheet, title }, uid: newId() };
        const copy = await ask(api.POST("/api/sheets", { body }));
        tell({ is: "take theirs" });
        forget(id);
        client.invalidateQueries({ queryKey: ["sheets"] });
        return copy.id;
      },
      bringBack: async () => {
        await ask(api.POST("/api/dropped/{kind}/{number}", { params: { path: { kind: "sheet", number: id } } }));
        for (const key of ["sheets", "dropped", "occasions"]) client.invalidateQueries({ queryKey: [key] });
        tell({ is: "again" });
      },
    }),
    [queue, id, sheet, drawn, past, future, opened.dots, tell, client],
  );
}

const differ = (before: Queue, after: Queue, ...keys: (keyof Queue)[]) =>
  keys.some((key) => before[key] !== after[key]);

/** Asks the server, and gives its answer as what happened. Throws Refused. */
async function answered(id: number, want: Want): Promise<Happening> {
  const path = { sheet_id: id };
  if (want.lane === "save") {
    const { uid, revision, sheet } = want.sending;
    const body = { uid, revision, sheet };
    return {
      is: "saved",
      revision: (await ask(api.PUT("/api/sheets/{sheet_id}", { params: { path }, body }))).revision,
    };
  }
  if (want.lane === "theirs") {
    const { revision, sheet } = await ask(api.GET("/api/sheets/{sheet_id}", { params: { path } }));
    return { is: "theirs", theirs: { revision, sheet } };
  }
  const { sheet, before, wish } = want;
  const answer = wish
    ? await ask(api.POST("/api/adjust", { body: { sheet, to: wish, before } }))
    : await ask(api.POST("/api/work", { body: { sheet, before } }));
  return { is: "worked", want, answer, at: Date.now() };
}
