/** Beside the step: what the scale should show, what can go wrong, a note. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { Popover } from "radix-ui";
import { type ReactNode, useState } from "react";
import { api, ask, type ExplainedFault } from "../api/client";
import { waysQuery } from "../api/queries";
import type { Making } from "../runs/useFlow";
import { Causes } from "../ui/Causes";
import { useFormatters } from "../ui/formatters";
import { Slip } from "../ui/PopoverPanel";
import { eventWords } from "./eventWords";
import type { CurrentProps } from "./props";

/** What can be seen to be wrong here, with causes ranked by this making; out of the cards where the kitchen is away. */
function useFaults(run: Making, step: string): { here: ExplainedFault[]; others: ExplainedFault[] } {
  const ways = useQuery(waysQuery);
  const query = useQuery({
    queryKey: ["faults", run.id, step, run.events.length],
    queryFn: () => ask(api.GET("/api/runs/{run_id}/faults", { params: { path: { run_id: run.id }, query: { step } } })),
    retry: false,
  });
  if (query.data) return query.data;
  const plain = ways.data?.find((way) => way.id === run.way)?.faults ?? [];
  return { here: plain.map((item) => ({ ...item, causes: [], sure: false })), others: [] };
}

/** A note, or something wrong: at hand, but never in the way. */
export function Aside({
  making: run,
  step,
  tell,
  undo,
  redo,
  children,
}: Pick<CurrentProps, "making" | "step" | "tell" | "undo" | "redo"> & { children: ReactNode }) {
  const formatters = useFormatters();
  const [note, setNote] = useState("");
  const [remedy, setRemedy] = useState<ExplainedFault | null>(null);
  const { here, others } = useFaults(run, step.id);
  const titles = new Map(run.plan.scheduled.map((item) => [item.step.id, item.step.title]));
  return (
    <div className="mt-7">
      <div className="flex flex-wrap gap-3">
        <Popover.Root>
          <Popover.Trigger className="pick min-h-16 px-6">
            <Trans>Note</Trans>
          </Popover.Trigger>
          <Slip label={t`A note`}>
            <label>
              <span className="text-ink2">
                <Trans>A note on “{step.title}”</Trans>
              </span>
              <textarea
                className="mt-1 block w-full border border-ink2 bg-paper p-2"
                rows={3}
                maxLength={1000}
                value={note}
                onChange={(event) => setNote(event.target.value)}
              />
            </label>
            <Popover.Close
              className="pick mt-2"
              disabled={!note.trim()}
              onClick={() => {
                tell({ kind: "noted", step: step.id, text: note.trim() });
                setNote("");
              }}
            >
              <Trans>Keep it</Trans>
            </Popover.Close>
          </Slip>
        </Popover.Root>
        <Popover.Root>
          <Popover.Trigger className="pick min-h-16 px-6">
            <Trans>Something is wrong</Trans>
          </Popover.Trigger>
          <Slip label={t`What do you see?`}>
            <p className="text-ink2">
              <Trans>What do you see?</Trans>
            </p>
            <ul>
              {[...here, ...others].map((fault, i) => (
                <li key={fault.id} className={`hairline ${i === here.length ? "mt-3 border-t border-ink" : ""}`}>
                  <Popover.Close
                    className="block min-h-16 w-full py-2.5 text-left text-lg hover:text-bean"
                    onClick={() => {
                      tell({ kind: "fault", step: step.id, text: fault.seen });
                      setRemedy(fault);
                    }}
                  >
                    {fault.seen}
                  </Popover.Close>
                </li>
              ))}
            </ul>
          </Slip>
        </Popover.Root>
        {children}
        {undo && (
          <button type="button" className="pick min-h-16 px-6" onClick={undo.take}>
            <Trans>Undo: {eventWords(formatters, undo.what, titles.get(undo.what.step ?? ""))}</Trans>
          </button>
        )}
        {redo && (
          <button type="button" className="pick min-h-16 px-6" onClick={redo.take}>
            <Trans>Redo: {eventWords(formatters, redo.what, titles.get(redo.what.step ?? ""))}</Trans>
          </button>
        )}
      </div>
      {remedy && (
        <div role="status" className="mt-3 border-l-4 border-amber pl-4 text-lg">
          <p>
            <b className="text-look">
              <Trans>Now.</Trans>
            </b>{" "}
            {remedy.seen}: {remedy.now}.
          </p>
          <Causes fault={remedy} />
        </div>
      )}
      {run.state.notes.length > 0 && (
        <ul className="mt-3 text-ink2">
          {run.state.notes.map((note) => (
            <li key={note.at + note.text}>“{note.text}”</li>
          ))}
        </ul>
      )}
    </div>
  );
}
