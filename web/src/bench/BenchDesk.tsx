/** An open bench: the next target and the live scale, large; every piece so far; and big buttons for floured hands. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useState } from "react";
import { type BenchState, type RunOpen, sentence } from "../api/client";
import { limit } from "../api/limits";
import { WeightField } from "../ui/AmountField";
import { Waiting } from "../ui/Frame";
import { useFormatters } from "../ui/formatters";
import { TriedAgain } from "../ui/RetryNotice";
import { SetAside } from "../ui/SetAside";
import { fixed } from "../words/numbers";
import { Gauge } from "./Gauge";
import { PieceStrip } from "./PieceStrip";
import { SimulatedScale } from "./SimulatedScale";
import { Typed } from "./TypedWeight";
import { useBench } from "./useBench";
import { type Tray, useScale } from "./useScale";

interface Props {
  id: number;
  /** What scale stands at it; undefined while that is not known. */
  device: RunOpen["scale"] | undefined;
  onAnother: () => void;
  /** Told of every piece as it is taken down: the making that it belongs to goes by it. */
  onPiece?: (grams: number) => void;
}

export function BenchDesk({ id, device, onAnother, onPiece }: Props) {
  const { shownWeight, weightWords } = useFormatters();
  const { bench, error, mark, outbox } = useBench(id);
  const [byItself, setByItself] = useState(true);
  const [told, setTold] = useState("");
  const state = bench?.state;
  const waits = Boolean(bench?.setup.drill) && state?.guess_g == null;
  const goes = Boolean(state && !state.closed && state.left_pieces > 0 && state.next_g != null);

  const onRest = ({ fresh }: Tray) => {
    if (!byItself || !goes || waits || !state || fresh <= 0) return;
    if (state.low_g != null && state.high_g != null && fresh >= state.low_g && fresh <= state.high_g) accept(fresh);
  };
  const there = device === "attached" || device === "simulated";
  const scale = useScale(there, onRest);
  const accept = (grams: number) => {
    setTold("");
    mark("piece", +grams.toFixed(1));
    onPiece?.(+grams.toFixed(1));
    scale.take();
  };
  if (!bench || !state) return <Waiting error={error} />;
  const { setup } = bench;

  const take = () => {
    if (scale.live.state === "ok" && scale.tray.fresh > 0) accept(scale.tray.fresh);
    else if (scale.live.state !== "ok" && scale.live.says) setTold(scale.live.says);
    else if (scale.live.state === "ok" && !scale.live.steady) setTold(t`It still moves: wait until it lies still.`);
    else setTold(t`Nothing new on the scale since the last one.`);
  };
  const onScale = +(scale.live.grams - scale.tray.base).toFixed(1);
  const off = scale.tray.fresh > 0 && state.next_g != null ? scale.tray.fresh - state.next_g : null;
  const lies =
    off == null ? "" : t`${weightWords(Math.abs(off), 1)} too ${off > 0 ? t`much` : t`little`}: mend it, or take it.`;
  return (
    <div className="mt-2 grid gap-x-10 gap-y-4 lg:grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)]">
      <section aria-label={t`The bench`}>
        <div className="flex flex-wrap items-end gap-x-10">
          <p>
            <span className="block text-ink2">
              {goes ? t`next of the ${setup.what}, ${state.weighed.length + 1} of ${setup.pieces}` : setup.what}
            </span>
            <span className="text-[64px] leading-none font-bold" data-testid="next-target">
              {state.next_g == null ? "–" : weightWords(state.next_g, 1)}
            </span>
          </p>
          {there && (
            <p>
              <span className="block text-ink2">
                {scale.live.state === "ok" ? (scale.live.steady ? t`on the scale` : t`on the scale, moving`) : t`scale`}
              </span>
              <span
                className={`text-[64px] leading-none ${scale.live.steady ? "" : "text-ink2"}`}
                data-testid="on-the-scale"
                data-state={scale.live.state}
              >
                {scale.live.state === "ok" ? weightWords(onScale, 1) : "–"}
              </span>
            </p>
          )}
        </div>
        <Gauge state={state} grams={scale.live.state === "ok" ? onScale : null} />
        <p role="status" className="min-h-7 text-xl">
          {lies || state.says}
        </p>
        {(told || (scale.live.says && scale.live.state !== "ok")) && (
          <p role="alert" className="text-bean">
            {told || scale.live.says}
          </p>
        )}
        <PieceStrip state={state} tolerance={setup.tolerance_pct} />
      </section>
      <section aria-label={t`Take it down`} className="lg:row-span-2">
        {goes && waits && <Guess onGuess={(grams) => mark("guess", grams)} />}
        {goes && !waits && (
          <>
            {setup.drill && (
              <p className="mb-2 text-lg">
                <Trans>You said {weightWords(state.guess_g ?? 0)}. Put it on.</Trans>
              </p>
            )}
            {there && (
              <button type="button" className="pick !min-h-16 w-full text-2xl" data-on="true" onClick={take}>
                <Trans>Take it</Trans>
              </button>
            )}
            {device === "none" && (
              <p className="text-ink2">
                <Trans>No scale is attached: type what yours shows. How one is attached stands in docs/scale.md.</Trans>
              </p>
            )}
            <Typed first={!there} onWeight={accept} />
            {there && (
              <label className="mt-1 flex min-h-10 items-center gap-2">
                <Trans>
                  <input
                    type="checkbox"
                    className="size-5 accent-bean"
                    checked={byItself}
                    onChange={(event) => setByItself(event.target.checked)}
                  />
                  takes by itself what lies still within {setup.tolerance_pct} %
                </Trans>
              </label>
            )}
          </>
        )}
        <div className="mt-2 flex flex-wrap gap-2">
          {(state.weighed.length > 0 || state.closed || state.guess_g != null) && (
            <button type="button" className="pick" onClick={() => mark("undone")}>
              <Trans>Take back</Trans>
            </button>
          )}
          {goes && there && (
            <button type="button" className="pick" onClick={() => void scale.zero().catch(() => setTold(GONE))}>
              <Trans>Zero the scale</Trans>
            </button>
          )}
          {goes && (
            <button type="button" className="pick" onClick={() => mark("closed")}>
              <Trans>Stop here</Trans>
            </button>
          )}
          <button type="button" className="pick" onClick={onAnother}>
            <Trans>Another</Trans>
          </button>
        </div>
        {outbox.aside.map(({ one, aside }) => (
          <SetAside
            key={one.uid}
            what={one.grams == null ? one.kind : shownWeight(one.grams)}
            problem={aside?.[0]}
            onAgain={() => outbox.sendAgain(one.uid)}
            onDiscard={() => outbox.seen(one.uid)}
          />
        ))}
        {outbox.refused.map(({ one, refused }) => (
          <p key={one.uid} role="alert" className="mt-2 text-bean">
            <Trans>
              Not taken{one.grams == null ? "" : `, ${shownWeight(one.grams)}`}:{" "}
              {refused?.[0] && sentence(refused[0], false)}{" "}
              <button type="button" className="underline underline-offset-4" onClick={() => outbox.seen(one.uid)}>
                I have seen it
              </button>
            </Trans>
          </p>
        ))}
        <TriedAgain failed={outbox.failed} />
        {outbox.failed && outbox.waiting.length > 0 && (
          <p className="mt-2 text-look">
            <Trans>{outbox.waiting.length} kept here, not sent yet.</Trans>
          </p>
        )}
        <Figures state={state} drill={setup.drill} />
        {goes && <Left state={state} onWhole={(grams) => mark("whole", grams)} />}
      </section>
      {device === "simulated" && goes && (
        <SimulatedScale
          aim={state.next_g ?? state.first_g}
          state={scale.live.state}
          waiting={scale.tray.fresh > 0 || !scale.live.steady}
        />
      )}
    </div>
  );
}

const GONE = t`The scale is not there: it cannot be zeroed.`;

/** The drill: what do you think it weighs? */
function Guess({ onGuess }: { onGuess: (grams: number) => void }) {
  const [grams, setGrams] = useState<number | null>(null);
  return (
    <form
      className="flex flex-wrap items-baseline gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (grams) onGuess(grams);
      }}
    >
      <WeightField
        label={t`You think it weighs`}
        value={grams}
        within={limit("MarkContent.grams")}
        width="5rem"
        onChange={setGrams}
      />
      <button type="submit" className="pick !min-h-12 !px-8 text-lg" data-on={grams != null} disabled={grams == null}>
        <Trans>That is my guess</Trans>
      </button>
    </form>
  );
}

function Figures({ state, drill }: { state: BenchState; drill: boolean }) {
  const { weightWords } = useFormatters();
  const { eye } = state;
  const rows: [string, string][] = [
    ["left", t`${weightWords(state.left_g, 0)} for ${state.left_pieces}`],
    ["mean", state.mean_g == null ? "–" : weightWords(state.mean_g, 1)],
    ["spread", state.sd_g == null ? "–" : `${weightWords(state.sd_g, 1)}, ${fixed(state.cv_pct ?? 0, 1)} %`],
    [
      "drift",
      state.drift_g == null
        ? t`none to tell`
        : t`${state.drift_g > 0 ? "+" : "−"}${weightWords(Math.abs(state.drift_g), 2)} a piece`,
    ],
    ["outside", t`${state.outside} of ${state.weighed.length}`],
  ];
  if (drill && eye) {
    rows.push([t`your eye`, t`${eye.bias_pct > 0 ? "+" : "−"}${Math.abs(eye.bias_pct).toFixed(0)} % on the mean`]);
    if (eye.spread_pct != null) rows.push([t`its spread`, `${eye.spread_pct.toFixed(0)} %`]);
  }
  return (
    <dl className="mt-4 grid grid-cols-2 gap-x-8">
      {rows.map(([name, words]) => (
        <div key={name} className="hairline flex items-baseline justify-between gap-2 py-1">
          <dt className="text-ink2">{name}</dt>
          <dd className="font-bold">{words}</dd>
        </div>
      ))}
    </dl>
  );
}

/** The mass itself weighed anew, when it no longer agrees with what was told. */
function Left({ state, onWhole }: { state: BenchState; onWhole: (grams: number) => void }) {
  const [grams, setGrams] = useState<number | null>(null);
  return (
    <form
      className="mt-2 flex flex-wrap items-baseline gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (grams) onWhole(grams);
        setGrams(null);
      }}
    >
      <WeightField
        label={t`What is left really weighs`}
        value={grams}
        decimals={0}
        within={limit("MarkContent.grams")}
        width="4.5rem"
        onChange={setGrams}
      />
      <button type="submit" className="pick" disabled={grams == null}>
        <Trans>Use that, not {state.left_g.toFixed(0)}</Trans>
      </button>
    </form>
  );
}
