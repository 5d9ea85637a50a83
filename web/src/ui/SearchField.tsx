/** A field to seek in a list by. */

import { t } from "@lingui/core/macro";

interface Props {
  label?: string;
  value: string;
  onChange: (sought: string) => void;
}

export function Find({ label = t`Find`, value, onChange }: Props) {
  return (
    <label className="text-ink2">
      {label}
      <input
        className="write ml-2 w-40"
        type="search"
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    </label>
  );
}
