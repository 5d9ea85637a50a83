/** One batch: what was predicted beside what happened, how it tasted, what to change. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, ask, type BatchOpen, type BatchOutcome, type FactKey, type WayCard } from "../api/client";
import { batchQuery, kitchenQuery, settle, waysQuery } from "../api/queries";
import { Pictures } from "../runs/Pictures";
import { VerdictMark } from "../stations/mix/verdict";
import { Causes } from "../ui/Causes";
import { Drawing } from "../ui/Drawing";
import { Label } from "../ui/dimension";
import { ErrorNotice } from "../ui/ErrorNotice";
import { FactRows } from "../ui/FactRows";
import { Frame, Waiting } from "../ui/Frame";
import { useFormatters } from "../ui/formatters";
import { newId } from "../ui/newId";
import { capital, dayOf } from "../ui/words";
import { said } from "../words/said";
import { ComparedDrawing } from "./ComparedDrawing";
import { codeOf } from "./codeOf";
import { NextTime } from "./NextTime";
import { OutcomeForm } from "./OutcomeForm";
import { PiecesWeighed } from "./PiecesWeighed";
import { wordsFor } from "./Scales";

const KEY_FACTS: FactKey[] = [
  "mix.hydration_pct",
  "mix.sugar_pct",
  "shape.pieces",
  "shape.depth_mm",
  "heat.done_min",
  "heat.core_hot_min",
  "rest.cut_after_min",
];

export default function BatchPage() {
  const { timeOfDay } = useFormatters();
  const id = Number(useParams().batchId);
  const client = useQueryClient();
  const navigate = useNavigate();
  const batch = useQuery(batchQuery(id));
  const ways = useQuery(waysQuery);
  const kitchen = useQuery(kitchenQuery);
  const [changing, setChanging] = useState(false);
  const save = useMutation({
    mutationFn: ({ pieces = null, grams = null, ...said }: BatchOutcome) => {
      const body = { ...said, pieces, grams };
      return ask(api.PUT("/api/log/{batch_id}", { params: { path: { batch_id: id } }, body }));
    },
    onSuccess: async (answer) => {
      await settle(client, batchQuery(id).queryKey, answer);
      client.invalidateQueries({ queryKey: ["log"] });
      setChanging(false);
    },
  });
  const drop = useMutation({
    mutationFn: () => ask(api.DELETE("/api/log/{batch_id}", { params: { path: { batch_id: id } } })),
    onSuccess: () => {
      for (const key of ["log", "dropped", "sheet"]) client.invalidateQueries({ queryKey: [key] });
      navigate("/log");
    },
  });
  useEffect(() => {
    document.title = t`${batch.data?.title ?? t`Batch`} · Log · Kemble`;
  }, [batch.data?.title]);
  const way = ways.data?.find((item) => item.id === batch.data?.way);
  if (!batch.data || !way || !kitchen.data) return <Waiting error={batch.error ?? ways.error ?? kitchen.error} />;
  const eachItem = batch.data;
  const zone = kitchen.data.kitchen.timezone;
  return (
    <Frame
      title={
        <div className="flex flex-wrap items-baseline gap-x-4">
          <h1 className="text-2xl sm:text-[28px]">{eachItem.title}</h1>
          <span className="text-ink2">
            {dayOf(eachItem.made, zone)}, {timeOfDay(eachItem.made, zone)}
            {eachItem.rehearsed ? t`, rehearsed` : ""}
          </span>
        </div>
      }
    >
      <div className="mt-6 grid gap-x-12 gap-y-8 pb-10 lg:grid-cols-[minmax(0,1.3fr)_minmax(0,1fr)]">
        <section aria-label={t`Told and happened`}>
          <h2 className="text-xl">
            <Trans>Told, and happened</Trans>
          </h2>
          {eachItem.compared.length ? (
            <ComparedDrawing compared={eachItem.compared} />
          ) : (
            <p className="mt-2 text-ink2">
              <Trans>No step of it was timed or weighed.</Trans>
            </p>
          )}
          <PiecesWeighed all={eachItem.weighed} />
          <FactRows facts={eachItem.facts} keys={KEY_FACTS} className="mt-5 grid gap-x-10 sm:grid-cols-2" />
        </section>
        <section aria-label={t`How it came out`}>
          <h2 className="flex items-center gap-3 text-xl">
            <svg width="26" height="24" aria-hidden="true">
              <VerdictMark verdict={eachItem.verdict} x={13} y={12} size={9} />
            </svg>
            {capital(said(eachItem.verdict))}
          </h2>
          {changing ? (
            <OutcomeForm
              way={way}
              start={{
                tastes: eachItem.tastes,
                faults: eachItem.faults.map((fault) => fault.id),
                note: eachItem.note,
                pieces: eachItem.counted,
                grams: eachItem.grams,
                kept: eachItem.kept,
              }}
              busy={save.isPending}
              onSave={(outcome) => save.mutate(outcome)}
            />
          ) : (
            <>
              <Tastes way={way} tastes={eachItem.tastes} />
              <Pictures run={eachItem.run} step="eaten" />
              {eachItem.faults.map((fault) => (
                <div key={fault.id} className="mt-4 border-l-4 border-amber pl-4">
                  <b>{fault.seen}</b>
                  <Causes fault={fault} />
                  <p>
                    <Trans>Next time: {fault.next_time}.</Trans>
                  </p>
                </div>
              ))}
              <Ended one={eachItem} />
              <NextTime batch={eachItem.id} sheet={eachItem.sheet} way={way} />
              <Tastings one={eachItem} way={way} zone={zone} />
              {eachItem.sheet && eachItem.added.length > 0 && <AsMade one={eachItem} sheet={eachItem.sheet} />}
              {eachItem.note && <p className="mt-4 text-lg">“{eachItem.note}”</p>}
              {eachItem.notes.map((note) => (
                <p key={note.at + note.text} className="mt-1 text-ink2">
                  {timeOfDay(note.at, zone)} “{note.text}”
                </p>
              ))}
              <div className="mt-6 flex flex-wrap gap-3">
                {eachItem.sheet && (
                  <Link to={`/sheets/${eachItem.sheet}/mix`} className="pick" data-on="true">
                    <Trans>Open its sheet</Trans>
                  </Link>
                )}
                {eachItem.sheet && (
                  <Link to={`/log?way=${eachItem.way}&sheet=${eachItem.sheet}`} className="pick">
                    <Trans>All made from it</Trans>
                  </Link>
                )}
                <Link to={`/log/${eachItem.id}/taste`} className="pick">
                  <Trans>Somebody else tastes it</Trans>
                </Link>
                <Link to={`/log/${eachItem.id}/taste?blind`} className="pick">
                  <Trans>Tasted blind, as number {codeOf(eachItem.id)}</Trans>
                </Link>
                <button type="button" className="pick" onClick={() => setChanging(true)}>
                  <Trans>Change what is said here</Trans>
                </button>
                <button type="button" className="pick" disabled={drop.isPending} onClick={() => drop.mutate()}>
                  <Trans>Take it out of the log</Trans>
                </button>
              </div>
            </>
          )}
        </section>
      </div>
    </Frame>
  );
}

/** What other tongues said of it, and the day after. */
function Tastings({ one, way, zone }: { one: BatchOpen; way: WayCard; zone: string }) {
  if (one.tastings.length === 0) return null;
  return (
    <section aria-label={t`Tasted by`} className="mt-5">
      <h2 className="text-xl">
        <Trans>Tasted by</Trans>
      </h2>
      <ul>
        {one.tastings.map((each) => (
          <li key={each.id} className="hairline py-1.5">
            <b>{each.who || t`somebody`}</b>
            <span className="text-ink2">
              {each.blind ? t`, blind` : ""}, {dayOf(each.at, zone)}
            </span>
            {each.liking != null && (
              <span>
                <Trans>, likes it {each.liking} of 9</Trans>
              </span>
            )}
            :{" "}
            {way.tastes
              .filter((taste) => each.tastes[taste.id] != null)
              .map((taste) => wordsFor(each.tastes[taste.id] as number, taste))
              .join(", ") || t`no marks`}
            {each.note && <span> “{each.note}”</span>}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What it came to: counted and weighed, and what was put by. */
function Ended({ one }: { one: BatchOpen }) {
  const { weightWords } = useFormatters();
  const kept = one.kept.map((each) => `${each.pieces} ${PLACES[each.where] ?? each.where}`);
  const words = [
    one.counted != null &&
      t`${one.counted} pieces${one.pieces ? t`, ${Number(one.pieces.value).toFixed(0)} told` : ""}`,
    one.grams != null && t`${weightWords(one.grams)} in all`,
    kept.length > 0 && t`put by: ${kept.join(", ")}`,
  ].filter(Boolean);
  return words.length ? <p className="mt-4 text-lg">{capital(words.join("; "))}.</p> : null;
}

const PLACES: Record<string, string> = {
  counter: t`on the counter`,
  fridge: t`in the fridge`,
  freezer: t`in the freezer`,
};

/** What went in beside what the sheet says, and one press to have it on the sheet. */
function AsMade({ one, sheet }: { one: BatchOpen; sheet: number }) {
  const client = useQueryClient();
  const save = useMutation({
    mutationFn: (uid: string) =>
      ask(
        api.POST("/api/sheets/{sheet_id}/as-made", {
          params: { path: { sheet_id: sheet } },
          body: { run: one.run, uid },
        }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: ["sheet", sheet] }),
  });
  return (
    <div className="mt-4 border-l-4 border-amber pl-4">
      <p>
        <b className="text-look">
          <Trans>Added beside the sheet.</Trans>
        </b>{" "}
        {one.added.join(", ")}.
      </p>
      {save.data ? (
        <p role="status" className="text-green">
          <Trans>The sheet says so now: its revision {save.data.revision}.</Trans>
        </p>
      ) : (
        <button type="button" className="pick mt-2" disabled={save.isPending} onClick={() => save.mutate(newId())}>
          <Trans>Make that the next revision of its sheet</Trans>
        </button>
      )}
      <ErrorNotice error={save.error} />
    </div>
  );
}

function Tastes({ way, tastes }: { way: WayCard; tastes: Record<string, number> }) {
  const shown = way.tastes.filter((taste) => taste.asked || tastes[taste.id] != null);
  return (
    <ul className="mt-2">
      {shown.map((taste) => {
        const mark = tastes[taste.id];
        return (
          <li key={taste.id} className="hairline py-2">
            <Drawing
              viewBox="0 0 420 44"
              className="block w-full max-w-[460px]"
              role="img"
              aria-label={mark == null ? t`${said(taste.id)}: not said` : wordsFor(mark, taste)}
            >
              <line x1="30" x2="390" y1="14" y2="14" stroke="var(--color-ink)" />
              {[-2, -1, 0, 1, 2].map((at) => (
                <circle
                  key={at}
                  cx={210 + at * 90}
                  cy="14"
                  r={at === mark ? 9 : 4}
                  fill={at === mark ? (at === 0 ? "var(--color-green)" : "var(--color-bean)") : "var(--color-paper)"}
                  stroke="var(--color-ink)"
                />
              ))}
              <Label x={30} y={40} anchor="start" size={13.5} tone="ink2">
                {taste.too_little}
              </Label>
              <Label x={210} y={40} anchor="middle" size={13.5} tone="ink2">
                <Trans>just right</Trans>
              </Label>
              <Label x={390} y={40} anchor="end" size={13.5} tone="ink2">
                {taste.too_much}
              </Label>
            </Drawing>
          </li>
        );
      })}
    </ul>
  );
}
