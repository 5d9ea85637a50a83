/**
 * One sheet at work: every edit is worked by the server at once, saved a moment later, and never lost.
 *
 * Only one request for working is under way at a time; while it is, the newest edit waits and older ones are
 * dropped, so that a drag never queues. What moved is told against the sheet as it stood before the edits began.
 */

import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import {
  type Adjustment,
  api,
  ask,
  type Moved,
  type Problem,
  Refused,
  type Sheet,
  type SheetOpen,
  type Worked,
} from "../api/client";
import { dropDraft, keepDraft, keptDraft } from "./draft";

const SETTLE_MS = 9_000;
const SAVE_MS = 700;

export type Saving = "saved" | "unsaved" | "saving" | "unreachable" | "conflict";

export interface Bench {
  id: number;
  sheet: Sheet;
  worked: Worked;
  moved: Moved[];
  problems: Problem[];
  /** What the last adjustment had to say: what an exchange changes. */
  says: string[];
  saving: Saving;
  dots: SheetOpen["dots"];
  edit: (next: Sheet) => void;
  adjust: (to: Partial<Adjustment> & Pick<Adjustment, "by">) => void;
  undo: (() => void) | null;
  keepBoth: () => Promise<number>;
  takeTheirs: () => Promise<void>;
}

type Job = { sheet: Sheet; to?: Adjustment };

export function useSheet(opened: SheetOpen): Bench {
  const { id } = opened;
  const client = useQueryClient();
  const [sheet, setSheet] = useState(opened.sheet);
  const [worked, setWorked] = useState(opened.worked);
  const [moved, setMoved] = useState<Moved[]>([]);
  const [problems, setProblems] = useState<Problem[]>(opened.worked.problems);
  const [says, setSays] = useState<string[]>([]);
  const [saving, setSaving] = useState<Saving>("saved");
  const [past, setPast] = useState<Sheet[]>([]);

  const newest = useRef(opened.sheet);
  const anchor = useRef(opened.sheet);
  const revision = useRef(opened.revision);
  const waiting = useRef<Job | null>(null);
  const busy = useRef(false);
  const saveTimer = useRef(0);
  const settleTimer = useRef(0);
  const stuck = useRef(false);

  const save = useCallback(async () => {
    const saved = newest.current;
    setSaving("saving");
    try {
      const answer = await ask(
        api.PUT("/api/sheets/{sheet_id}", {
          params: { path: { sheet_id: id } },
          body: { revision: revision.current, sheet: saved },
        }),
      );
      revision.current = answer.revision;
      if (newest.current === saved) {
        dropDraft(id);
        setSaving("saved");
      } else {
        keepDraft(id, { revision: answer.revision, sheet: newest.current });
      }
      client.invalidateQueries({ queryKey: ["sheets"] });
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      if (error.status === 409) {
        stuck.current = true;
        setSaving("conflict");
      } else if (error.status === 0) {
        setSaving("unreachable");
        saveTimer.current = window.setTimeout(save, 3_000);
      } else {
        setSaving("unsaved");
        setProblems(error.problems);
      }
    }
  }, [id, client]);

  const saveSoon = useCallback(() => {
    keepDraft(id, { revision: revision.current, sheet: newest.current });
    if (stuck.current) return;
    setSaving("unsaved");
    clearTimeout(saveTimer.current);
    saveTimer.current = window.setTimeout(save, SAVE_MS);
  }, [id, save]);

  const workOff = useCallback(async () => {
    if (busy.current) return;
    busy.current = true;
    while (waiting.current) {
      const job = waiting.current;
      waiting.current = null;
      const began = performance.now();
      try {
        const before = anchor.current;
        const answer = job.to
          ? await ask(api.POST("/api/adjust", { body: { sheet: job.sheet, to: job.to, before } }))
          : await ask(api.POST("/api/work", { body: { sheet: job.sheet, before } }));
        if (job.to) {
          newest.current = answer.sheet;
          setSheet(answer.sheet);
          saveSoon();
        }
        setWorked(answer.worked);
        setMoved(answer.moved);
        setProblems([]);
        setSays(answer.says);
        requestAnimationFrame(() => performance.measure("kemble-ripple", { start: began, end: performance.now() }));
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        setProblems(error.problems);
        if (error.worked) setWorked(error.worked);
      }
    }
    busy.current = false;
    clearTimeout(settleTimer.current);
    settleTimer.current = window.setTimeout(() => {
      anchor.current = newest.current;
      setMoved([]);
    }, SETTLE_MS);
  }, [saveSoon]);

  const remember = useCallback(() => {
    const before = newest.current;
    setPast((steps) => (steps.at(-1) === before ? steps : [...steps.slice(-49), before]));
  }, []);

  const place = useCallback(
    (next: Sheet) => {
      newest.current = next;
      setSheet(next);
      saveSoon();
      waiting.current = { sheet: next };
      void workOff();
    },
    [saveSoon, workOff],
  );

  const edit = useCallback(
    (next: Sheet) => {
      remember();
      place(next);
    },
    [remember, place],
  );

  const adjust = useCallback(
    (to: Partial<Adjustment> & Pick<Adjustment, "by">) => {
      remember();
      waiting.current = { sheet: newest.current, to: { role: "base", ...to } as Adjustment };
      void workOff();
    },
    [remember, workOff],
  );

  // What was typed before a reload or a fall of the network is taken up again.
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when the sheet is opened
  useEffect(() => {
    const draft = keptDraft(id);
    if (draft && JSON.stringify(draft.sheet) !== JSON.stringify(opened.sheet)) {
      revision.current = draft.revision;
      place(draft.sheet);
    }
    return () => {
      clearTimeout(saveTimer.current);
      clearTimeout(settleTimer.current);
      if (keptDraft(id) && !stuck.current) void save();
    };
  }, [id]);

  const keepBoth = async () => {
    const mine = newest.current;
    const title = `${mine.title} (my copy)`.slice(0, 120);
    const copy = await ask(api.POST("/api/sheets", { body: { way: null, blank: false, sheet: { ...mine, title } } }));
    dropDraft(id);
    client.invalidateQueries({ queryKey: ["sheets"] });
    return copy.id;
  };

  const takeTheirs = async () => {
    dropDraft(id);
    const theirs = await ask(api.GET("/api/sheets/{sheet_id}", { params: { path: { sheet_id: id } } }));
    revision.current = theirs.revision;
    stuck.current = false;
    newest.current = theirs.sheet;
    anchor.current = theirs.sheet;
    setSheet(theirs.sheet);
    setWorked(theirs.worked);
    setProblems(theirs.worked.problems);
    setMoved([]);
    setSaving("saved");
  };

  const undo = () => {
    const last = past.at(-1);
    if (!last) return;
    setPast(past.slice(0, -1));
    place(last);
  };

  return {
    id,
    sheet,
    worked,
    moved,
    problems,
    says,
    saving,
    dots: opened.dots,
    edit,
    adjust,
    undo: past.length ? undo : null,
    keepBoth,
    takeTheirs,
  };
}
