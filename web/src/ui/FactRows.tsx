/** Facts between hairlines: what each is on the left, its value on the right, to be pressed for its because. */

import { t } from "@lingui/core/macro";
import type { ReactNode } from "react";
import type { FactKey, Facts } from "../api/client";
import { FactFigure } from "./FactFigure";
import { useFormatters } from "./formatters";
import { capital } from "./words";

interface Props {
  facts: Facts;
  keys: readonly FactKey[];
  className?: string;
}

/** Those of `keys` that there are. */
export function FactRows({ facts, keys, className }: Props) {
  const { quantity } = useFormatters();
  return (
    <ul className={className}>
      {keys.map((key) => {
        const fact = facts[key];
        return (
          fact && (
            <FigureRow key={key} label={capital(fact.label)} facts={facts} name={key}>
              {key.startsWith("keep.") && typeof fact.value === "number" ? t`about ` : ""}
              {quantity(fact)}
            </FigureRow>
          )
        );
      })}
    </ul>
  );
}

interface FigureRowProps {
  label: ReactNode;
  facts: Facts;
  name: FactKey;
  children: ReactNode;
}

/** One of them, in words of its own. */
export function FigureRow({ label, facts, name, children }: FigureRowProps) {
  return (
    <li className="hairline flex items-baseline justify-between gap-3 py-1">
      <span>{label}</span>
      <FactFigure facts={facts} name={name} className="text-right font-bold">
        {children}
      </FactFigure>
    </li>
  );
}
