/** One of a few words, side by side: which view is shown, how something is said. */

import { ToggleGroup } from "radix-ui";

interface Props<T extends string> {
  label: string;
  value: T;
  options: readonly (readonly [T, string])[];
  onPick: (value: T) => void;
  className?: string;
}

export function Picks<T extends string>({ label, value, options, onPick, className }: Props<T>) {
  return (
    <ToggleGroup.Root
      type="single"
      value={value}
      onValueChange={(next) => next && onPick(next as T)}
      aria-label={label}
      className={`flex flex-wrap gap-1.5 ${className ?? ""}`}
    >
      {options.map(([id, words]) => (
        <ToggleGroup.Item key={id} value={id} className="pick !min-h-8 !px-3 text-[15px]">
          {words}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
