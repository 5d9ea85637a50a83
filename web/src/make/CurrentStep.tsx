/** The step in hand: large enough to read from two metres. */

import { plural, t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { api, ask, type StepResult } from "../api/client";
import { HandsFigure } from "../hands/HandsFigure";
import { Pictures } from "../runs/Pictures";
import { type Formatters, useFormatters } from "../ui/formatters";
import { capital, clock, dayOf, duration, HANDS_WORDS, minutes, WORK_WORDS } from "../ui/words";
import { Adding } from "./Adding";
import { Aside } from "./Aside";
import { BenchHere } from "./BenchHere";
import { CueDrawing } from "./CueDrawing";
import { Dial } from "./Dial";
import { HandOver } from "./HandOver";
import { Otherwise } from "./Otherwise";
import { Probe } from "./Probe";
import type { CurrentProps } from "./props";
import { Beat } from "./RhythmAndCount";
import { useStepKeys } from "./useStepKeys";
import { Weigh } from "./Weigh";

interface Props extends CurrentProps {
  moves: Record<"next" | "back" | "hands", () => void>;
  cooks: string[];
  /** What can be begun at once when this is done, and how both are told with one press. */
  then: StepResult | null;
  onThen: () => void;
}

export function CurrentStep(props: Props) {
  const formatters = useFormatters();
  const { timeOfDay } = formatters;
  const { making, step, standing, at, tell, undo, redo, told, zone, moves, cooks, then, onThen } = props;
  const running = standing.status === "running";
  const began = standing.started ? Date.parse(standing.started) : 0;
  const elapsed = running ? (at - began) / 1000 : 0;
  const due = standing.due ? Date.parse(standing.due) : 0;
  const looking = running && step.cue != null && at >= Date.parse(standing.first_check ?? standing.due ?? "");
  const late = running && at > Date.parse(standing.latest ?? standing.due ?? "");
  const cautions = making.cautions.filter((caution) => step.cautions.includes(caution.id));
  const scale = useRef<HTMLInputElement>(null);

  const paused = standing.paused != null;
  const [adding, setAdding] = useState(false);
  const [probing, setProbing] = useState(false);
  const hands = useQuery({
    queryKey: ["hands", making.id],
    queryFn: () => ask(api.GET("/api/runs/{run_id}/hands", { params: { path: { run_id: making.id } } })),
    staleTime: Number.POSITIVE_INFINITY,
  });
  const frames = hands.data?.steps[step.id];
  const pause = running ? () => tell({ kind: paused ? "resumed" : "paused", step: step.id }) : null;
  const count = running && step.count ? (times: number) => tell({ kind: "counted", step: step.id, times }) : null;

  const yes = step.cue && looking ? step.cue.yes : step.hands === "free" ? t`That will do` : t`Done`;
  // Whatever goes by itself is left to its clock: only once that is up is there something to go on to.
  const straight = then && (step.hands !== "free" || at >= due) ? onThen : null;
  const forward = () => tell({ kind: running ? "done" : "started", step: step.id });
  const notYet =
    running && (step.window != null || step.hands === "free") ? () => tell({ kind: "not_yet", step: step.id }) : null;
  // Once it is counted, the pedal and the space bar go on counting until all are there.
  const counted = standing.count ?? 0;
  const counting = count !== null && counted > 0 && counted < (step.count?.of ?? 0);
  useStepKeys({
    forward: counting ? () => count(1) : forward,
    notYet,
    weigh: () => scale.current?.focus(),
    undo: undo?.take ?? null,
    redo: redo?.take ?? null,
    pause,
    on: straight,
    count: count && (() => count(1)),
    add: () => setAdding(true),
    probe: running && step.window ? () => setProbing(true) : null,
    ...moves,
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
        {step.own_words && !looking && (
          <p className="mt-4 max-w-[34em] whitespace-pre-line text-xl sm:text-2xl">“{step.own_words}”</p>
        )}
        <p
          className={`max-w-[34em] text-ink2 ${step.own_words && !looking ? "mt-2 text-lg" : "mt-4 text-xl sm:text-2xl"}`}
        >
          {looking && step.cue ? step.cue.how : step.words}
        </p>
        {(step.texts ?? []).map((text) => (
          <p key={text} className="mt-2 max-w-[34em] text-lg">
            “{text}”
          </p>
        ))}
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
            words={paused ? t`paused` : looking ? t`check now` : HANDS_WORDS[step.hands]}
            likely={
              late
                ? t`${clock((at - due) / 1000)} over`
                : span
                  ? t`likely done at ${span.done.toFixed(0)}`
                  : t`until ${timeOfDay(new Date(due), zone)}`
            }
            late={late}
          />
        ) : (
          <div className="py-8 text-center">
            <p className="text-[64px] leading-none font-bold">
              {minutes(step.minutes)}
              <span className="ml-2 text-2xl font-normal text-ink2">{step.minutes < 90 ? t`min` : ""}</span>
            </p>
            {step.given?.is_used && (
              <p className="mt-2 text-xl text-ink2">
                <Trans>
                  {step.given.by || t`your own time`}; Kemble {duration(step.predicted?.minutes ?? step.minutes)}
                </Trans>
              </p>
            )}
            {step.between && !step.given?.is_used && (
              <p className="mt-2 text-xl text-ink2">
                <Trans>
                  between {minutes(step.between.least)} and {duration(step.between.most)}
                </Trans>
              </p>
            )}
            <p className="mt-3 text-xl text-ink2">
              {ahead(formatters, Date.parse(standing.planned_starts) - at, standing.planned_starts, zone)}
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
            {running ? yes : t`Start`}
          </button>
          {notYet && (
            <button type="button" className="pick min-h-20 rounded-2xl text-xl" onClick={notYet}>
              {step.cue && looking ? t`${step.cue.no}, 5 more` : t`5 minutes more`}
            </button>
          )}
          {straight && (
            <button type="button" className="pick col-span-2 min-h-16 rounded-2xl text-lg" onClick={straight}>
              <Trans>
                {yes}, and start: <b>{then?.title}</b>
              </Trans>
            </button>
          )}
        </div>
        {count && <Beat step={step} standing={standing} at={at} counting={counting} onCount={count} />}
        {!count && step.rhythm && <Beat step={step} standing={standing} at={at} counting={false} onCount={() => {}} />}
        {running && step.window && (
          <Probe
            run={making}
            step={step}
            standing={standing}
            told={told}
            open={probing}
            onOpen={setProbing}
            onRead={(celsius, sure) => tell({ kind: "probed", step: step.id, celsius, sure })}
          />
        )}
      </section>
      <section>
        {step.cue && (
          <figure className="m-0">
            {!looking && (
              <figcaption className="mb-1 text-lg">
                {span ? t`At the first check, ${span.first_check.toFixed(0)} min: ` : t`To see if it is done: `}
                <b>{step.cue.question}</b>
              </figcaption>
            )}
            <CueDrawing looks={step.cue.looks} />
          </figure>
        )}
        {frames && <HandsFigure frames={frames} />}
        {(step.cue || frames) && <Pictures run={making.id} step={step.id} />}
        <ToHand step={step} />
        {!running && (
          <p className="mb-3 text-lg">
            {step.tools.length > 0 && (
              <>
                <b>
                  <Trans>Set out</Trans>
                </b>{" "}
                {step.tools.join(", ")}.{" "}
              </>
            )}
            <span className="text-ink2">{capital(WORK_WORDS[step.work])}.</span>
            {standing.who && cooks.length > 1 && (
              <b>
                <Trans> {capital(standing.who)} does it.</Trans>
              </b>
            )}
          </p>
        )}
        {step.target && (
          <Weigh
            step={step}
            standing={standing}
            field={scale}
            scale={making.scale}
            onWeigh={(grams, sure) => tell({ kind: "weighed", step: step.id, grams, sure })}
          />
        )}
        {running && (
          <BenchHere
            making={making}
            step={step}
            onWeigh={(grams) => tell({ kind: "weighed", step: step.id, grams, sure: true })}
          />
        )}
        <Aside making={making} step={step} tell={tell} undo={undo} redo={redo}>
          {pause && (
            <button type="button" className="pick min-h-16 px-6" onClick={pause}>
              {paused ? t`Go on` : t`Pause its clock`}
            </button>
          )}
          <Adding making={making} step={step.id} open={adding} onOpen={setAdding} tell={tell} />
          <Otherwise step={step} tell={tell} />
          {running && step.hands === "held" && (
            <HandOver
              cooks={cooks}
              who={standing.who ?? ""}
              onHand={(who) => tell({ kind: "handed", step: step.id, text: who })}
            />
          )}
        </Aside>
      </section>
    </div>
  );
}

/** What goes in at this step, large enough to weigh out by: what was made before, then the ingredients. */
function ToHand({ step }: { step: StepResult }) {
  const { weightWords } = useFormatters();
  const made = step.vessel?.tipped ?? [];
  const tins = step.tins ?? []; // a batch of before has none
  const brings = step.brings ?? [];
  if (step.to_hand.length + made.length + tins.length + brings.length === 0) return null;
  return (
    <table className="mb-2 w-full max-w-[44rem] border-collapse text-xl">
      <tbody>
        {made.map((content) => (
          <tr key={content.name} className="hairline text-ink2">
            <th scope="row" className="py-1.5 text-left font-normal">
              <Trans>the {content.name}, all of it</Trans>
            </th>
            <td className="whitespace-nowrap pl-3 text-right">{weightWords(content.grams)}</td>
            <td />
          </tr>
        ))}
        {[...step.to_hand, ...brings].map((item, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: one ingredient may go in twice, and the list never moves
          <tr key={`${item.name} ${i}`} className="hairline">
            <th scope="row" className="py-1.5 text-left font-normal">
              {item.name}
              {item.act && <span className="block text-base text-ink2">{item.act}</span>}
              {item.held_back && <span className="block text-base text-ink2">{item.held_back}</span>}
              {item.splits.length > 0 && <span className="block text-base text-ink2">{item.splits.join(", ")}</span>}
            </th>
            <td className="whitespace-nowrap pl-3 text-right text-2xl font-bold">
              {weightWords(item.grams, item.grams < 20 ? 1 : 0)}
            </td>
            <td className="pl-4 text-right text-base text-ink2">{item.household}</td>
          </tr>
        ))}
        {tins.map((tin) => (
          <tr key={tin.size} className="hairline">
            <th scope="row" className="py-1.5 text-left font-normal">
              <Trans>
                into each of {tin.count}, {tin.size}
              </Trans>
            </th>
            <td className="whitespace-nowrap pl-3 text-right text-2xl font-bold">{weightWords(tin.grams)}</td>
            <td />
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const A_DAY_MIN = 24 * 60;

function ahead(formatters: Formatters, ms: number, planned: string, zone: string) {
  const by = Math.round(ms / 60000);
  if (by > A_DAY_MIN)
    return t`planned for ${dayOf(planned, zone)}, ${formatters.timeOfDay(planned, zone)}: in ${plural(Math.round(by / A_DAY_MIN), { one: "# day", other: "# days" })}`;
  if (by > 1) return t`planned for ${formatters.timeOfDay(planned, zone)}, in ${minutes(by)}${by < 90 ? t` min` : ""}`;
  if (by < -1)
    return t`planned for ${formatters.timeOfDay(planned, zone)}: ${minutes(-by)}${-by < 90 ? t` min` : ""} late`;
  return t`planned for now`;
}
