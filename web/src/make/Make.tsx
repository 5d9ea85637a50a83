/** Make: one step, large enough to read from two metres, its cue and its clock; the other clocks in a dock. */

import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { kitchenQuery } from "../api/queries";
import { AwayLine } from "../ui/AwayLine";
import { Waiting } from "../ui/Frame";
import { TriedAgain } from "../ui/TriedAgain";
import { minutes, timeOfDay } from "../ui/words";
import { useStayAwake } from "./attention";
import { CurrentStep } from "./CurrentStep";
import { Dock } from "./Dock";
import { Key } from "./Key";
import { NotTaken } from "./NotTaken";
import type { CurrentProps, Live } from "./props";
import { type Happening, useRun, useTick } from "./useRun";
import { useStepKeys } from "./useStepKeys";

export default function Make() {
  const id = Number(useParams().runId);
  const live = useRun(id);
  const kitchen = useQuery(kitchenQuery);
  useTick((live.run?.pace ?? 1) > 1 ? 100 : 250);
  useStayAwake();
  if (!live.run || !kitchen.data) return <Waiting error={live.error ?? kitchen.error} />;
  return <OpenRun {...live} run={live.run} zone={kitchen.data.kitchen.timezone} />;
}

function OpenRun({ run, now, tell, undo, redo, outbox, zone }: Live) {
  const { state, plan } = run;
  const [chosen, setChosen] = useState<string | null>(null);
  const at = now();
  const words = new Map(plan.scheduled.map((one) => [one.step.id, one.step]));
  const states = new Map(state.steps.map((one) => [one.id, one]));
  const focus = chosen && states.get(chosen)?.status !== "done" ? chosen : state.focus;
  const step = focus ? words.get(focus) : undefined;
  const standing = focus ? states.get(focus) : undefined;
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
