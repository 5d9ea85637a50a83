/** A line to write on at the door, under its name. */

import type { ComponentProps } from "react";

interface Props extends Omit<ComponentProps<"input">, "onChange"> {
  label: string;
  onChange: (typed: string) => void;
}

export const Field = ({ label, onChange, ...input }: Props) => (
  <label>
    <span className="block text-ink2">{label}</span>
    <input className="write w-full" required onChange={(event) => onChange(event.target.value)} {...input} />
  </label>
);
