/** A weight typed by hand, where there is no scale or beside one. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useRef, useState } from "react";
import { useFormatters } from "../ui/formatters";

/** A weight typed by hand: the keyboard does all that the scale does. `first`: it is the only way, and as large. */
export function Typed({ first, onWeight }: { first: boolean; onWeight: (grams: number) => void }) {
  const { gramsOf, weightUnit, weightWords } = useFormatters();
  const [text, setText] = useState("");
  const [wrong, setWrong] = useState("");
  const field = useRef<HTMLInputElement>(null);
  const enter = () => {
    const grams = gramsOf(Number(text.replace(",", ".")));
    if (!text.trim() || !Number.isFinite(grams) || grams <= 0 || grams > 50_000) {
      setWrong(t`A weight above 0 and at most ${weightUnit() === "g" ? "50 000 g" : weightWords(50_000)}.`);
      return;
    }
    setWrong("");
    setText("");
    onWeight(grams);
    field.current?.focus();
  };
  return (
    <form
      className="mt-3 flex flex-wrap items-baseline gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        enter();
      }}
    >
      <label className="flex items-baseline gap-2">
        {first ? t`It shows` : t`or type it`}
        <input
          ref={field}
          className={`write text-right ${first ? "h-16 w-28 text-2xl" : "w-24 text-lg"}`}
          inputMode="decimal"
          autoComplete="off"
          aria-label={t`Weight of the piece, ${weightUnit()}`}
          aria-invalid={wrong !== ""}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        {weightUnit()}
      </label>
      <button type="submit" className={`pick ${first ? "!min-h-16 px-6" : ""}`}>
        <Trans>Enter</Trans>
      </button>
      {wrong && (
        <p role="alert" className="basis-full text-bean">
          {wrong}
        </p>
      )}
    </form>
  );
}
