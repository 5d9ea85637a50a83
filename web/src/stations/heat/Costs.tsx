/** What it would cost if something were otherwise: minutes on a common scale. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { Fact, FactKey, Facts } from "../../api/client";
import { FactFigure } from "../../ui/FactFigure";
import { capital } from "../../ui/words";
import { fixed } from "../../words/numbers";

/** Minutes more or less than now, if something were otherwise. */
const COSTS: FactKey[] = [
  "heat.deeper_min",
  "heat.thicker_min",
  "heat.tin_min",
  "heat.cover_min",
  "heat.colder_min",
  "heat.cooler_min",
  "heat.double_min",
  "heat.fuller_min",
  "heat.level_min",
  "heat.unsoaked_min",
  "heat.lid_min",
  "heat.door_min",
];

export function Costs({ facts, covered }: { facts: Facts; covered: boolean }) {
  const result = COSTS.flatMap((key) => {
    const fact = facts[key];
    return fact ? [{ key, fact, minutes: Number(fact.value) }] : [];
  });
  if (!result.length) return null;
  const most = Math.max(...result.map((item) => Math.abs(item.minutes)), 1);
  return (
    <>
      <h3 className="mt-4 font-bold">
        <Trans>What it would cost</Trans>
      </h3>
      <ul>
        {result.map(({ key, fact, minutes }) => (
          <li key={key} className="hairline grid grid-cols-[1fr_9rem_5.5rem] items-baseline gap-3 py-1">
            <span>{costs(key, fact, covered)}</span>
            <span className="flex h-2 self-center" aria-hidden="true">
              <span
                className={minutes < 0 ? "bg-green" : "bg-look"}
                style={{ width: `${(100 * Math.abs(minutes)) / most}%` }}
              />
            </span>
            <FactFigure facts={facts} name={key} className="text-right font-bold">
              <Trans>{signed(fact)} min</Trans>
            </FactFigure>
          </li>
        ))}
      </ul>
    </>
  );
}

/** What would be otherwise, in words. */
const costs = (key: FactKey, fact: Fact, covered: boolean) => {
  if (key === "heat.cover_min") return covered ? t`Left open` : t`Covered with foil`;
  return capital(key === "heat.tin_min" ? fact.because.says : fact.label);
};

const signed = (fact: Fact) => {
  const value = Number(fact.value);
  return `${value < 0 ? "−" : "+"} ${fixed(Math.abs(value), fact.decimals)}`;
};
