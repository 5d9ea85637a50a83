/** Make: one step, large enough to read from two metres, its cue and its clock; the other clocks in a dock. */

import { useQuery } from "@tanstack/react-query";
import { Popover } from "radix-ui";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { type RunOpen, type StepState, type StepWorked, sentence } from "../api/client";
import { kitchenQuery, waysQuery } from "../api/queries";
import { AwayLine } from "../ui/AwayLine";
import { BringBack } from "../ui/BringBack";
import { Waiting } from "../ui/Frame";
import { Slip } from "../ui/Slip";
import { TriedAgain } from "../ui/TriedAgain";
import { clock, degrees, degreesUnit, minutes, timeOfDay } from "../ui/words";
import { useChime, useStayAwake } from "./attention";
import { CueDrawing } from "./CueDrawing";
import { Dial } from "./Dial";
import type { Event } from "./fold";
import { Probe } from "./Probe";
import { type Happening, useRun, useTick } from "./useRun";

export default function Make() {
  const id = Number(useParams().runId);
  const live = useRun(id);
  const kitchen = useQuery(kitchenQuery);
  useTick((live.run?.pace ?? 1) > 1 ? 100 : 250);
  useStayAwake();
  if (!live.run || !kitchen.data) return <Waiting error={live.error ?? kitchen.error} />;
  return <OpenRun {...live} run={live.run} zone={kitchen.data.kitchen.timezone} />;
}

type Live = Omit<ReturnType<typeof useRun>, "run" | "error"> & { run: RunOpen; zone: string };

function OpenRun({ run, now, tell, undo, redo, outbox, zone }: Live) {
  const { state, plan } = run;
  const [chosen, setChosen] = useState<string | null>(null);
  const at = now();
  const words = new Map(plan.scheduled.map((one) => [one.step.id, one.step]));
  const states = new Map(state.steps.map((one) => [one.id, one]));
  const focus = chosen && states.get(chosen)?.status !== "done" ? chosen : state.focus;
  const step = focus ? words.get(focus) : undefined;
  const standing = focus ? states.get(focus) : undefined;
  const running = state.steps.filter((one) => one.status === "running");
  const due = running.filter((one) => at >= Date.parse(one.first_check ?? one.due ?? ""));
  useChime(due.map((one) => one.id));
  useEffect(() => {
    document.title = step ? `${step.title} · Kemble` : `${run.title} · Kemble`;
  }, [step, run.title]);

  const act = (what: Happening) => {
    setChosen(null);
    tell(what);
  };
  const position = step ? plan.scheduled.findIndex((one) => one.step.id === step.id) + 1 : plan.scheduled.length;
  const late = Math.round(state.late_min);
  const lateWords = late > 1 ? `${minutes(late)} min late` : late < -1 ? `${minutes(-late)} min early` : "on time";
  return (
    <div className="flex min-h-dvh flex-col">
      <header className="mx-auto flex w-full max-w-[1280px] flex-wrap items-baseline gap-x-5 gap-y-1 px-4 pt-4 sm:px-10">
        <Link to="/" className="font-title text-lg text-bean no-underline">
          Kemble
        </Link>
        <p className="flex-1 basis-72 text-ink2">
          {run.title} · step {position} of {plan.scheduled.length} · table at{" "}
          <b className="text-ink">{timeOfDay(state.expected_serve, zone)}</b>,{" "}
          <span className={late > 1 ? "font-bold text-bean" : ""}>{lateWords}</span>
          {run.pace > 1 && (
            <b className="text-look">
              {" "}
              · rehearsal, {run.pace} times as fast: {timeOfDay(new Date(at), zone)}
            </b>
          )}
        </p>
        {outbox.waiting.length > 0 && outbox.failed && (
          <p role="status" className="text-look">
            {outbox.waiting.length} kept here, to be sent
          </p>
        )}
        <p className="hidden gap-4 text-ink2 lg:flex">
          <Key name="space">done</Key>
          {step?.cue && <Key name="n">not yet</Key>}
          {step?.target && <Key name="w">weigh</Key>}
          {undo && <Key name="u">undo</Key>}
          {redo && <Key name="r">redo</Key>}
        </p>
      </header>
      <div className="mx-auto w-full max-w-[1280px] px-4 sm:px-10">
        <AwayLine />
        <TriedAgain failed={outbox.failed} />
        <NotTaken run={run} outbox={outbox} />
      </div>
      <main className="mx-auto w-full max-w-[1280px] flex-1 px-4 py-6 sm:px-10">
        {step && standing ? (
          <CurrentStep
            key={step.id}
            run={run}
            step={step}
            standing={standing}
            at={at}
            tell={act}
            undo={undo}
            redo={redo}
            zone={zone}
          />
        ) : (
          <AllDone run={run} undo={undo} />
        )}
      </main>
      <Dock run={run} focus={focus} at={at} zone={zone} onChoose={setChosen} />
    </div>
  );
}

/** What the kitchen could not take, and why; and what waits for a run that was dropped. */
function NotTaken({ run, outbox }: { run: RunOpen; outbox: Live["outbox"] }) {
  const words = new Map(run.plan.scheduled.map((one) => [one.step.id, one.step.title]));
  const gone = outbox.failed?.status === 410 ? outbox.failed.problems[0] : undefined;
  return (
    <>
      {gone && (
        <p role="alert" className="mt-2 border-l-4 border-bean pl-4">
          {gone.says}. What you did since is kept here.{" "}
          <BringBack kind="run" id={run.id} onBack={outbox.again}>
            Bring the run back
          </BringBack>
        </p>
      )}
      {outbox.refused.map(({ one, refused }) => (
        <p key={one.uid} role="alert" className="mt-2 border-l-4 border-bean pl-4">
          <b className="text-bean">Not taken:</b> {said(one, words.get(one.step ?? ""))}.{" "}
          {refused?.[0] && sentence(refused[0])}{" "}
          <button type="button" className="text-bean underline underline-offset-4" onClick={() => outbox.seen(one.uid)}>
            I have seen it
          </button>
        </p>
      ))}
    </>
  );
}

const KIND_WORDS: Record<Event["kind"], string> = {
  started: "started",
  done: "done",
  not_yet: "5 minutes more",
  weighed: "weighed",
  probed: "read",
  noted: "noted",
  fault: "seen",
  undone: "undone",
  redone: "redone",
  finished: "finished",
};

/** An event in words, short enough for a button. */
function said(event: Pick<Event, "kind" | "grams" | "celsius" | "text">, step?: string) {
  const what =
    event.grams != null
      ? `${event.grams} g`
      : event.celsius != null
        ? `${degrees(event.celsius)} ${degreesUnit()}`
        : event.text && (event.text.length > 24 ? `“${event.text.slice(0, 22)}…”` : `“${event.text}”`);
  return [KIND_WORDS[event.kind], what, step && `(${step})`].filter(Boolean).join(" ");
}

function Key({ name, children }: { name: string; children: ReactNode }) {
  return (
    <span>
      <kbd className="rounded border border-ink px-1.5 text-sm text-ink">{name}</kbd> {children}
    </span>
  );
}

interface CurrentProps {
  run: RunOpen;
  step: StepWorked;
  standing: StepState;
  at: number;
  tell: (what: Happening) => void;
  undo: Live["undo"];
  redo: Live["redo"];
  zone: string;
}

function CurrentStep({ run, step, standing, at, tell, undo, redo, zone }: CurrentProps) {
  const running = standing.status === "running";
  const began = standing.started ? Date.parse(standing.started) : 0;
  const elapsed = running ? (at - began) / 1000 : 0;
  const due = standing.due ? Date.parse(standing.due) : 0;
  const looking = running && step.cue != null && at >= Date.parse(standing.first_check ?? standing.due ?? "");
  const late = running && at > Date.parse(standing.latest ?? standing.due ?? "");
  const cautions = run.cautions.filter((one) => step.cautions.includes(one.id));
  const scale = useRef<HTMLInputElement>(null);

  const forward = () => tell({ kind: running ? "done" : "started", step: step.id });
  const notYet =
    running && (step.window != null || step.hands === "free") ? () => tell({ kind: "not_yet", step: step.id }) : null;
  useStepKeys({
    forward,
    notYet,
    weigh: () => scale.current?.focus(),
    undo: undo?.take ?? null,
    redo: redo?.take ?? null,
  });

  const title = looking && step.cue ? step.cue.question : step.title;
  const extended = (due - began) / 60000;
  const shift = running ? extended - step.minutes : 0;
  // What a thermometer said moves the whole window; without one it moves by the minutes that were added.
  const since = (at: string | null | undefined) => (Date.parse(at ?? "") - began) / 60000;
  const span =
    standing.refit && running
      ? { first_check: since(standing.first_check), done: extended, latest: since(standing.latest) }
      : step.window
        ? {
            first_check: step.window.first_check + shift,
            done: step.window.done + shift,
            latest: step.window.latest + shift,
          }
        : null;
  return (
    <div
      data-now={`${step.id} ${standing.status}`}
      className="grid gap-x-12 gap-y-5 lg:grid-cols-[minmax(0,1.55fr)_minmax(0,1fr)] lg:grid-rows-[auto_1fr]"
    >
      <section>
        <h1 className="text-[clamp(34px,5.4vw,66px)]" aria-live="polite">
          {title}
        </h1>
        <p className="mt-4 max-w-[34em] text-xl text-ink2 sm:text-2xl">
          {looking && step.cue ? step.cue.how : step.words}
        </p>
        {step.asks && !running && <p className="mt-4 max-w-[34em] text-2xl font-bold text-look">{step.asks}</p>}
        {cautions.map((caution) => (
          <p key={caution.id} className="mt-3 max-w-[44em] border-l-4 border-amber pl-4">
            <b className="text-look">{caution.title}.</b> {caution.says}
          </p>
        ))}
      </section>
      <section className="flex flex-col gap-5 lg:row-span-2">
        {running ? (
          <Dial
            elapsedS={elapsed}
            totalMin={extended}
            window={span}
            words={looking ? "check now" : step.hands === "free" ? "by itself" : step.hands}
            likely={
              late
                ? `${clock((at - due) / 1000)} over`
                : span
                  ? `likely done at ${span.done.toFixed(0)}`
                  : `until ${timeOfDay(new Date(due), zone)}`
            }
            late={late}
          />
        ) : (
          <div className="py-8 text-center">
            <p className="text-[64px] leading-none font-bold">
              {minutes(step.minutes)}
              <span className="ml-2 text-2xl font-normal text-ink2">{step.minutes < 90 ? "min" : ""}</span>
            </p>
            <p className="mt-3 text-xl text-ink2">
              {ahead(Date.parse(standing.planned_starts) - at, standing.planned_starts, zone)}
            </p>
          </div>
        )}
        <div className="grid grid-cols-2 gap-3">
          <button
            type="button"
            className={`pick min-h-20 rounded-2xl text-xl ${notYet ? "" : "col-span-2"}`}
            data-on="true"
            onClick={forward}
          >
            {running ? (step.cue && looking ? step.cue.yes : step.hands === "free" ? "That will do" : "Done") : "Start"}
          </button>
          {notYet && (
            <button type="button" className="pick min-h-20 rounded-2xl text-xl" onClick={notYet}>
              {step.cue && looking ? `${step.cue.no}, 5 more` : "5 minutes more"}
            </button>
          )}
        </div>
        {running && step.window && (
          <Probe run={run} standing={standing} onRead={(celsius) => tell({ kind: "probed", step: step.id, celsius })} />
        )}
      </section>
      <section>
        {step.cue && (
          <figure className="m-0">
            {!looking && (
              <figcaption className="mb-1 text-lg">
                {span ? `At the first check, ${span.first_check.toFixed(0)} min: ` : "To see if it is done: "}
                <b>{step.cue.question}</b>
              </figcaption>
            )}
            <CueDrawing looks={step.cue.looks} />
          </figure>
        )}
        <ToHand step={step} />
        {step.target && (
          <Weigh
            step={step}
            standing={standing}
            field={scale}
            onWeigh={(grams) => tell({ kind: "weighed", step: step.id, grams })}
          />
        )}
        <Aside run={run} step={step} tell={tell} undo={undo} redo={redo} />
      </section>
    </div>
  );
}

/** The ingredients of this step, large enough to weigh out by. */
function ToHand({ step }: { step: StepWorked }) {
  if (step.to_hand.length === 0) return null;
  return (
    <table className="mb-2 w-full max-w-[44rem] border-collapse text-xl">
      <tbody>
        {step.to_hand.map((one) => (
          <tr key={one.name} className="hairline">
            <th scope="row" className="py-1.5 text-left font-normal">
              {one.name}
              {one.splits.length > 0 && <span className="block text-base text-ink2">{one.splits.join(", ")}</span>}
            </th>
            <td className="whitespace-nowrap pl-3 text-right text-2xl font-bold">
              {one.grams.toFixed(one.grams < 20 ? 1 : 0)} g
            </td>
            <td className="pl-4 text-right text-base text-ink2">{one.household}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function ahead(ms: number, planned: string, zone: string) {
  const by = Math.round(ms / 60000);
  if (by > 1) return `planned for ${timeOfDay(planned, zone)}, in ${minutes(by)}${by < 90 ? " min" : ""}`;
  if (by < -1) return `planned for ${timeOfDay(planned, zone)}: ${minutes(-by)}${-by < 90 ? " min" : ""} late`;
  return "planned for now";
}

/** Keyboard and page-turner pedal: forward is space or page down, back is page up. */
interface StepKeys {
  forward: () => void;
  notYet: (() => void) | null;
  weigh: (() => void) | null;
  undo: (() => void) | null;
  redo: (() => void) | null;
}

function useStepKeys(keys: StepKeys) {
  const newest = useRef(keys);
  newest.current = keys;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (event.ctrlKey || event.metaKey || event.altKey || event.repeat) return;
      const pedal = event.key === "PageDown" || event.key === "PageUp";
      if (/^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) && !pedal) return;
      if (/^(BUTTON|A)$/.test(target.tagName) && event.key === " ") return; // it presses what has the focus
      const { forward, notYet, weigh, undo, redo } = newest.current;
      const does: Record<string, (() => void) | null> = {
        " ": forward,
        PageDown: forward,
        n: notYet,
        w: weigh,
        u: undo,
        r: redo,
        PageUp: undo,
      };
      const action = does[event.key];
      if (!action) return;
      event.preventDefault();
      action();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}

function Weigh(props: {
  step: StepWorked;
  standing: StepState;
  field: React.RefObject<HTMLInputElement | null>;
  onWeigh: (grams: number) => void;
}) {
  const { step, standing, field, onWeigh } = props;
  const [typed, setTyped] = useState("");
  const grams = Number(typed.replace(",", "."));
  const good = typed.trim() !== "" && Number.isFinite(grams) && grams > 0 && grams <= 50000;
  const last = standing.weights.at(-1);
  return (
    <form
      className="mt-6 flex flex-wrap items-end gap-x-5 gap-y-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (good) {
          onWeigh(grams);
          setTyped("");
        }
      }}
    >
      <p className="text-xl">
        The scale should show{" "}
        <b className="text-3xl">{step.target?.grams.toFixed((step.target?.grams ?? 0) < 100 ? 1 : 0)} g</b>
        <span className="block text-base text-ink2">{step.target?.label}</span>
      </p>
      <label className="text-lg">
        <span className="block text-base text-ink2">It shows</span>
        <input
          ref={field}
          className="write w-28 text-right text-2xl"
          inputMode="decimal"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          aria-invalid={typed !== "" && !good}
        />{" "}
        g
      </label>
      <button type="submit" className="pick min-h-12" disabled={!good}>
        Note it
      </button>
      {typed !== "" && !good && <span className="text-bean">A weight above 0, at most 50 000 g.</span>}
      {last && (
        <span role="status" className="text-green">
          noted: {last.grams} g
        </span>
      )}
    </form>
  );
}

/** A note, or something wrong: at hand, but never in the way. */
function Aside({ run, step, tell, undo, redo }: Pick<CurrentProps, "run" | "step" | "tell" | "undo" | "redo">) {
  const ways = useQuery(waysQuery);
  const [note, setNote] = useState("");
  const [remedy, setRemedy] = useState("");
  const faults = ways.data?.find((way) => way.id === run.way)?.faults ?? [];
  const titles = new Map(run.plan.scheduled.map((one) => [one.step.id, one.step.title]));
  return (
    <div className="mt-7">
      <div className="flex flex-wrap gap-3">
        <Popover.Root>
          <Popover.Trigger className="pick">Note</Popover.Trigger>
          <Slip label="A note">
            <label>
              <span className="text-ink2">A note on “{step.title}”</span>
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
              Keep it
            </Popover.Close>
          </Slip>
        </Popover.Root>
        <Popover.Root>
          <Popover.Trigger className="pick">Something is wrong</Popover.Trigger>
          <Slip label="What do you see?">
            <p className="text-ink2">What do you see?</p>
            <ul>
              {faults.map((fault) => (
                <li key={fault.id} className="hairline">
                  <Popover.Close
                    className="block w-full py-2.5 text-left text-lg hover:text-bean"
                    onClick={() => {
                      tell({ kind: "fault", step: step.id, text: fault.seen });
                      setRemedy(`${fault.seen}: ${fault.now}`);
                    }}
                  >
                    {fault.seen}
                  </Popover.Close>
                </li>
              ))}
            </ul>
          </Slip>
        </Popover.Root>
        {undo && (
          <button type="button" className="pick" onClick={undo.take}>
            Undo: {said(undo.what, titles.get(undo.what.step ?? ""))}
          </button>
        )}
        {redo && (
          <button type="button" className="pick" onClick={redo.take}>
            Redo: {said(redo.what, titles.get(redo.what.step ?? ""))}
          </button>
        )}
      </div>
      {remedy && (
        <p role="status" className="mt-3 border-l-4 border-amber pl-4 text-lg">
          <b className="text-look">Now.</b> {remedy}.
        </p>
      )}
      {run.state.notes.length > 0 && (
        <ul className="mt-3 text-ink2">
          {run.state.notes.map((one) => (
            <li key={one.at + one.text}>“{one.text}”</li>
          ))}
        </ul>
      )}
    </div>
  );
}

function AllDone({ run, undo }: Pick<CurrentProps, "run" | "undo">) {
  const navigate = useNavigate();
  const to = run.batch ? `/log/${run.batch}` : `/make/${run.id}/outcome`;
  useStepKeys({ forward: () => navigate(to), notYet: null, weigh: null, undo: undo?.take ?? null, redo: null });
  return (
    <section className="py-10">
      <h1 className="text-[clamp(34px,5.4vw,66px)]">It is on the table.</h1>
      <p className="mt-4 text-2xl text-ink2">Taste it, then say how it came out: the next one is better for it.</p>
      <Link to={to} className="pick mt-8 min-h-16 px-8 text-xl" data-on="true">
        {run.batch ? "To the log" : "How did it come out?"}
      </Link>
      {undo && (
        <button type="button" className="pick mt-8 ml-4 min-h-16 px-8 text-xl" onClick={undo.take}>
          Undo the last
        </button>
      )}
    </section>
  );
}

interface DockProps {
  run: RunOpen;
  focus: string | null;
  at: number;
  zone: string;
  onChoose: (step: string) => void;
}

function Dock({ run, focus, at, zone, onChoose }: DockProps) {
  const { state, plan } = run;
  const words = new Map(plan.scheduled.map((one) => [one.step.id, one.step]));
  const clocks = state.steps.filter((one) => one.status === "running" && one.id !== focus);
  const next = state.steps.find((one) => one.id === state.next && one.id !== focus);
  const steaming = state.steps.find((one) => one.status === "running" && words.get(one.id)?.window);
  const topUp = run.facts["heat.top_up_at_min"]?.value;
  return (
    <footer className="border-t border-ink bg-sheet">
      <ul className="mx-auto grid max-w-[1280px] auto-cols-fr sm:grid-flow-col">
        {steaming?.started && typeof topUp === "number" && (
          <li className="border-hair px-6 py-4 sm:border-r">
            <p className="text-ink2">Top up the water</p>
            <p className="text-[34px] leading-tight font-bold">
              {clock((Date.parse(steaming.started) + topUp * 60000 - at) / 1000)}
            </p>
            <p>{Number(run.facts["heat.top_up_ml"]?.value ?? 0).toFixed(0)} ml, boiling</p>
          </li>
        )}
        {clocks.map((one) => {
          const left = (Date.parse(one.due as string) - at) / 1000;
          return (
            <li key={one.id} className="border-hair sm:border-r">
              <button
                type="button"
                className="w-full px-6 py-4 text-left hover:bg-paper"
                onClick={() => onChoose(one.id)}
              >
                <span className="block text-ink2">{words.get(one.id)?.title}</span>
                <span className={`block text-[34px] leading-tight font-bold ${left < 0 ? "text-bean" : ""}`}>
                  {clock(left)}
                </span>
                <span>{left < 0 ? "over" : `until ${timeOfDay(one.due as string, zone)}`}</span>
              </button>
            </li>
          );
        })}
        {next && (
          <li className="border-hair">
            <button
              type="button"
              className="w-full px-6 py-4 text-left hover:bg-paper"
              onClick={() => onChoose(next.id)}
            >
              <span className="block text-ink2">Next for your hands, {timeOfDay(next.expected_starts, zone)}</span>
              <span className="mt-1 block text-xl font-bold">{words.get(next.id)?.title}</span>
              {words.get(next.id)?.asks && (
                <span className="block font-bold text-look">{words.get(next.id)?.asks}</span>
              )}
            </button>
          </li>
        )}
        <li className="px-6 py-4 sm:text-right">
          <Link
            to={run.batch ? `/log/${run.batch}` : `/make/${run.id}/outcome`}
            className="text-bean underline underline-offset-4"
          >
            Finish and log
          </Link>
        </li>
      </ul>
    </footer>
  );
}
