/** Facts between hairlines: what each is on the left, its value on the right, to be pressed for its because. */

import type { FactKey, Facts } from "../api/client";
import { FactFigure } from "./FactFigure";
import { capital, quantity } from "./words";

interface Props {
  facts: Facts;
  keys: readonly FactKey[];
  className?: string;
}

/** Those of `keys` that there are. */
export function FactRows({ facts, keys, className }: Props) {
  return (
    <ul className={className}>
      {keys.map((key) => {
        const fact = facts[key];
        return (
          fact && (
            <li key={key} className="hairline flex items-baseline justify-between gap-3 py-1">
              <span>{capital(fact.label)}</span>
              <FactFigure facts={facts} name={key} className="text-right font-bold">
                {key.startsWith("keep.") && typeof fact.value === "number" ? "about " : ""}
                {quantity(fact)}
              </FactFigure>
            </li>
          )
        );
      })}
    </ul>
  );
}
