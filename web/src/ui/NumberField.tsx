/** A number to type. What was typed stays as typed until it is a number the field accepts. */

import { t } from "@lingui/core/macro";
import { useEffect, useId, useRef, useState } from "react";
import { isWithin, type Limits, nearestWithin, rangeWords } from "../api/limits";
import { trimmed } from "../words/numbers";
import { readNumber } from "./readNumber";
import { capital } from "./words";

interface Props {
  label: string;
  value: number | null;
  onChange: (value: number) => void;
  unit?: string;
  decimals?: number;
  within: Limits;
  /** For a field that may be empty. */
  onClear?: () => void;
  hideLabel?: boolean;
  width?: string;
  step?: number;
  className?: string;
  /** Takes "+15" as so much more than there was. */
  byFeel?: boolean;
  /** For "2 cups" in a field that knows of units: whether it took the words. */
  onWords?: (value: number, words: string) => boolean;
}

/** Whether what was written after a number is only the field's own unit. */
const isUnit = (words: string, unit = "") => unit.toLowerCase().startsWith(words.toLowerCase());

const written = (value: number | null, decimals: number) => (value == null ? "" : trimmed(value, decimals));

export function NumberField(props: Props) {
  const { label, value, onChange, unit, decimals = 1, within, onClear, hideLabel, width = "5rem", step = 1 } = props;
  const [typed, setTyped] = useState(() => written(value, decimals));
  const [problem, setProblem] = useState("");
  const editing = useRef(false);
  const before = useRef(value);
  const id = useId();

  useEffect(() => {
    if (!editing.current && !problem) setTyped(written(value, decimals));
  }, [value, decimals, problem]);

  const take = (text: string) => {
    setTyped(text);
    if (text.trim() === "" && onClear) {
      setProblem("");
      onClear();
      return;
    }
    const more = props.byFeel && /^\s*\+/u.test(text);
    const read = readNumber(more ? text.replace("+", "") : text);
    const number = read ? (more ? (before.current ?? 0) : 0) + read.value : Number.NaN;
    const range = rangeWords(within, unit);
    const taken = read?.words && !more && props.onWords?.(read.value, read.words);
    if (taken) {
      setProblem("");
      return;
    }
    if (!read || (read.words && !isUnit(read.words, unit))) setProblem(t`A number ${range}.`);
    else if (!isWithin(number, within)) setProblem(`${capital(range)}.`);
    else {
      setProblem("");
      onChange(number);
    }
  };

  return (
    <span className={`inline-block ${props.className ?? ""}`}>
      <label htmlFor={id} className={hideLabel ? "sr-only" : label ? "mr-2" : ""}>
        {label}
      </label>
      <input
        id={id}
        className="write min-h-9 text-right text-lg"
        style={{ width }}
        inputMode="decimal"
        autoComplete="off"
        value={typed}
        aria-invalid={problem !== ""}
        aria-describedby={problem ? `${id}-problem` : undefined}
        onFocus={(event) => {
          editing.current = true;
          before.current = value;
          event.target.select();
        }}
        onBlur={() => {
          editing.current = false;
          if (!problem) setTyped(written(value, decimals));
        }}
        onChange={(event) => take(event.target.value)}
        onKeyDown={(event) => {
          const by = { ArrowUp: step, ArrowDown: -step }[event.key];
          if (by === undefined || value == null) return;
          event.preventDefault();
          take(String(+nearestWithin(value + by, within, 10 ** -decimals).toFixed(decimals)));
        }}
      />
      {unit && <span className="ml-1 text-ink2">{unit}</span>}
      {problem && (
        <span
          id={`${id}-problem`}
          role="alert"
          className="block w-0 min-w-[max(100%,9rem)] whitespace-normal text-left text-sm text-bean"
        >
          {label}: {problem}
        </span>
      )}
    </span>
  );
}
