/** A row between hairlines: what it is on the left, its value or the field for it on the right. */

import type { ReactNode } from "react";
import type { Limits } from "../api/limits";
import { NumberField } from "./NumberField";

export function Row({ label, children }: { label: ReactNode; children: ReactNode }) {
  return (
    <div className="hairline flex items-baseline justify-between gap-4 py-0.5">
      <span>{label}</span>
      <span className="text-right">{children}</span>
    </div>
  );
}

interface NumberRowProps {
  label: string;
  /** What the field is called where the row's label alone would not tell. */
  name?: string;
  value: number | null;
  unit?: string;
  within: Limits;
  step?: number;
  onChange: (value: number) => void;
}

/** A whole number to type. */
export function NumberRow({ label, name = label, value, unit, within, step, onChange }: NumberRowProps) {
  return (
    <Row label={label}>
      <NumberField
        label={name}
        hideLabel
        decimals={0}
        {...{ value, unit, within, step }}
        onChange={(n) => onChange(Math.round(n))}
      />
    </Row>
  );
}

interface PickRowProps<T extends string> {
  label: string;
  value: T;
  options: readonly (readonly [T, string])[];
  onChange: (value: T) => void;
}

/** One of a few words. */
export function PickRow<T extends string>({ label, value, options, onChange }: PickRowProps<T>) {
  return (
    <Row label={label}>
      <select
        aria-label={label}
        className="write min-h-9 max-w-80"
        value={value}
        onChange={(event) => onChange(event.target.value as T)}
      >
        {options.map(([id, words]) => (
          <option key={id} value={id}>
            {words}
          </option>
        ))}
      </select>
    </Row>
  );
}

/** Yes or no. */
export function TickRow({ label, on, onChange }: { label: string; on: boolean; onChange: (on: boolean) => void }) {
  return (
    <Row label={label}>
      <input
        aria-label={label}
        type="checkbox"
        className="size-5 accent-bean"
        checked={on}
        onChange={(event) => onChange(event.target.checked)}
      />
    </Row>
  );
}
