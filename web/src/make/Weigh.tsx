/** A weight, typed with wet hands. */

import { useState } from "react";
import type { StepState, StepWorked } from "../api/client";

export function Weigh(props: {
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
