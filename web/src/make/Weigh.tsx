/** A weight: read off the scale by one press, or typed with wet hands; asked about where it cannot be. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useState } from "react";
import { api, ask, type RunOpen, type StepResult, type StepState } from "../api/client";
import { useScale } from "../bench/useScale";
import { useFormatters } from "../ui/formatters";
import { Doubt } from "./DoubtedReading";
import { doubtOf } from "./doubtedReading";

interface Props {
  step: StepResult;
  standing: StepState;
  field: React.RefObject<HTMLInputElement | null>;
  scale: RunOpen["scale"];
  onWeigh: (grams: number, sure: boolean) => void;
}

export function Weigh({ step, standing, field, scale, onWeigh }: Props) {
  const { gramsOf, shownWeight, weightUnit, weightWords } = useFormatters();
  const [typed, setTyped] = useState("");
  const [doubted, setDoubted] = useState<number | null>(null);
  const grams = gramsOf(Number(typed.replace(",", ".")));
  const good = typed.trim() !== "" && Number.isFinite(grams) && grams > 0 && grams <= 50000;
  const last = standing.weights.at(-1);
  const target = step.target?.grams ?? 0;
  const note = (value: number, sure = false) => {
    if (!sure && doubtOf(step.bounds, { grams: value })) {
      setDoubted(value);
      return;
    }
    onWeigh(value, sure);
    setDoubted(null);
    setTyped("");
    field.current?.blur(); // the keys are the step's again
  };
  return (
    <form
      className="mt-6 flex flex-wrap items-end gap-x-5 gap-y-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (good) note(grams);
      }}
    >
      <p className="text-xl">
        <Trans>
          The scale should show <b className="text-3xl">{weightWords(target, target < 100 ? 1 : 0)}</b>
          <span className="block text-base text-ink2">{step.target?.label}</span>
        </Trans>
      </p>
      {scale !== "none" && <OnTheScale target={target} playing={scale === "simulated"} onNote={note} />}
      <label className="text-lg">
        <span className="block text-base text-ink2">
          <Trans>It shows</Trans>
        </span>
        <input
          ref={field}
          className="write h-16 w-28 text-right text-2xl"
          inputMode="decimal"
          enterKeyHint="done"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          aria-invalid={typed !== "" && !good}
        />{" "}
        {weightUnit()}
      </label>
      <button type="submit" className="pick min-h-16 px-6" disabled={!good}>
        <Trans>Note it</Trans>
      </button>
      {typed !== "" && !good && (
        <span className="text-bean">
          <Trans>A weight above 0, at most {weightUnit() === "g" ? "50 000 g" : weightWords(50_000)}.</Trans>
        </span>
      )}
      {doubted !== null && (
        <Doubt
          says={doubtOf(step.bounds, { grams: doubted })}
          onSure={() => note(doubted, true)}
          onAgain={() => {
            setDoubted(null);
            field.current?.focus();
          }}
        />
      )}
      {last && (
        <span role="status" className="text-lg text-green">
          <Trans>noted: {shownWeight(Number(last.grams))}</Trans>
        </span>
      )}
    </form>
  );
}

/** What the scale shows now, and the press that takes it. One that only plays is loaded here. */
function OnTheScale(props: { target: number; playing: boolean; onNote: (grams: number) => void }) {
  const { weightWords } = useFormatters();
  const { target, playing, onNote } = props;
  const { live } = useScale(true, () => {});
  const shows = live.state === "ok";
  const load = (what: "pinch" | "lift") =>
    void ask(api.POST("/api/scale/load", { body: { do: what, grams: what === "pinch" ? target : null } })).catch(
      () => {},
    );
  return (
    <div className="flex flex-wrap items-end gap-3">
      <p aria-live="off" className="m-0">
        <span className="block text-base text-ink2">{playing ? t`simulated scale` : live.name || t`scale`}</span>
        <b className="text-4xl">{shows ? weightWords(live.grams, live.grams < 100 ? 1 : 0) : live.says || "…"}</b>
      </p>
      {playing && (
        <button type="button" className="pick min-h-16" onClick={() => load(live.grams > 1 ? "lift" : "pinch")}>
          {live.grams > 1 ? t`Lift it off` : t`Put it on`}
        </button>
      )}
      <button
        type="button"
        className="pick min-h-16 px-6"
        disabled={!shows || !live.steady || live.grams <= 1}
        onClick={() => onNote(Math.round(live.grams * 10) / 10)}
      >
        <Trans>Take what it shows</Trans>
      </button>
    </div>
  );
}
