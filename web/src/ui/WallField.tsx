/** A day and a time on the kitchen's own clock, to type or step: never a field of the browser's locale. */

import { t } from "@lingui/core/macro";
import { useEffect, useState } from "react";
import { useFormatters } from "./formatters";
import { daysOn, dayWords, isDay, timeFrom } from "./words";

interface Props {
  label: string;
  /** Such as 2026-12-05T15:30. */
  value: string;
  onChange: (value: string) => void;
}

export function WallField({ label, value, onChange }: Props) {
  const { timeWords } = useFormatters();
  const day = value.slice(0, 10);
  const time = value.slice(11, 16);
  return (
    <fieldset className="inline-flex flex-wrap items-baseline gap-x-2">
      <legend className="text-ink2">{label}</legend>
      <button
        type="button"
        className="min-h-9 min-w-8"
        aria-label={t`${label}: the day before`}
        onClick={() => onChange(`${daysOn(day, -1)}T${time}`)}
      >
        ‹
      </button>
      <Typed
        label={t`${label}: day`}
        value={day}
        shown={day}
        width="7.2rem"
        read={(typed) => (isDay(typed) ? typed : null)}
        accepts={t`a day such as 2026-12-05`}
        onChange={(next) => onChange(`${next}T${time}`)}
      />
      <b className="w-24 whitespace-nowrap">{isDay(day) ? dayWords(day) : ""}</b>
      <button
        type="button"
        className="min-h-9 min-w-8"
        aria-label={t`${label}: the day after`}
        onClick={() => onChange(`${daysOn(day, 1)}T${time}`)}
      >
        ›
      </button>
      <Typed
        label={t`${label}: time`}
        value={time}
        shown={timeWords(time)}
        width="5.4rem"
        read={timeFrom}
        accepts={t`a time such as 15:30`}
        onChange={(next) => onChange(`${day}T${next}`)}
      />
    </fieldset>
  );
}

/** A time of day, such as 22:00, as the kitchen tells it. */
export function TimeField({ label, value, onChange }: Props) {
  const { timeWords } = useFormatters();
  return (
    <Typed
      label={label}
      value={value}
      shown={timeWords(value)}
      width="5.4rem"
      read={timeFrom}
      accepts={t`a time such as 22:00`}
      onChange={onChange}
    />
  );
}

interface TypedProps {
  label: string;
  value: string;
  shown: string;
  width: string;
  read: (typed: string) => string | null;
  accepts: string;
  onChange: (value: string) => void;
}

/** What is typed stays as typed until it can be read; it is taken when the field is left or Enter pressed. */
function Typed({ label, value, shown, width, read, accepts, onChange }: TypedProps) {
  const [typed, setTyped] = useState(shown);
  const [problem, setProblem] = useState("");
  useEffect(() => {
    setTyped(shown);
    setProblem("");
  }, [shown]);
  const take = () => {
    const result = read(typed);
    if (result == null) return setProblem(t`Accepted: ${accepts}.`);
    setProblem("");
    if (result !== value) onChange(result);
    else setTyped(shown);
  };
  return (
    <span>
      <input
        aria-label={label}
        aria-invalid={problem !== ""}
        className="write text-lg"
        style={{ width }}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={take}
        onKeyDown={(event) => event.key === "Enter" && take()}
      />
      {problem && (
        <span role="alert" className="block text-sm text-bean">
          {problem}
        </span>
      )}
    </span>
  );
}
