/** When the day cannot be done: what clashes, in words, and the nearest days that work, one press each. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { Clash, Occasion, PlanFix } from "../api/client";
import { daysOn, wallClock } from "../ui/words";

interface Props {
  clash: Clash;
  occasion: Occasion;
  zone: string;
  edit: (change: Partial<Occasion>) => void;
}

export function ClashPanel({ clash, occasion, zone, edit }: Props) {
  return (
    <section role="alert" aria-label={t`What clashes`} className="border-bean border-l-4 pl-4">
      <p className="text-lg">
        {clash.bonds.length > 0 && (
          <b>
            <Trans>This day cannot be done. </Trans>
          </b>
        )}
        {clash.says}
      </p>
      {clash.bonds.length > 0 && (
        <details className="mt-1">
          <summary className="min-h-9 cursor-pointer text-bean">
            <Trans>The {clash.bonds.length} things that cannot all hold</Trans>
          </summary>
          <ul className="list-disc pl-6">
            {clash.bonds.map((bond) => (
              <li key={`${bond.kind} ${bond.dish} ${bond.step} ${bond.says}`}>{bond.says}</li>
            ))}
          </ul>
        </details>
      )}
      {clash.remedies.length > 0 && (
        <ul className="mt-2 flex flex-wrap gap-3">
          {clash.remedies.map((remedy) => (
            <li key={`${remedy.kind} ${remedy.dish} ${remedy.step}`}>
              <button type="button" className="pick" onClick={() => edit(changeOf(remedy, occasion, zone))}>
                {remedy.says}
              </button>
              <span className="block text-sm text-ink2">{remedy.costs}</span>
            </li>
          ))}
        </ul>
      )}
      {clash.remedies.length === 0 && (
        <p>
          <Trans>Nothing small helps: another day, a smaller table, or one more pair of hands.</Trans>
        </p>
      )}
    </section>
  );
}

/** What a remedy changes of the occasion. */
export function changeOf(remedy: PlanFix, occasion: Occasion, zone: string): Partial<Occasion> {
  const { dishes, pins } = occasion;
  switch (remedy.kind) {
    case "later":
      return { servings: occasion.servings.map((serving) => ({ ...serving, at: later(serving.at, remedy.minutes) })) };
    case "helper":
      return {
        helpers: [
          ...occasion.helpers,
          {
            name: `Helper ${occasion.helpers.length + 1}`,
            begins: wallClock(new Date(remedy.begins ?? 0), zone),
            ends: wallClock(new Date(remedy.ends ?? 0), zone),
            safe_only: false,
          },
        ],
      };
    case "before":
      return {
        dishes: dishes.map((dish, i) => (i === remedy.dish ? { ...dish, days_before: dish.days_before + 1 } : dish)),
      };
    case "quiet":
      return { quiet: false };
    case "unpin":
      return { pins: pins.filter((pin) => pin.dish !== remedy.dish || pin.step !== remedy.step) };
    case "school":
      return {
        dishes: dishes.map((dish, i) =>
          i === remedy.dish ? { ...dish, schools: { ...dish.schools, [remedy.choice]: remedy.school } } : dish,
        ),
      };
    case "soak":
      return { dishes: dishes.map((dish, i) => (i === remedy.dish ? { ...dish, soak: remedy.soak ?? "" } : dish)) };
    case "smaller":
      return { dishes: dishes.map((dish, i) => (i === remedy.dish ? { ...dish, factor: remedy.factor } : dish)) };
    case "without":
      return {
        dishes: dishes.filter((_, i) => i !== remedy.dish),
        pins: pins
          .filter((pin) => pin.dish !== remedy.dish)
          .map((pin) => ({ ...pin, dish: pin.dish > (remedy.dish ?? 0) ? pin.dish - 1 : pin.dish })),
      };
  }
}

/** A wall time so many minutes on. */
function later(wall: string, by: number) {
  const total = Number(wall.slice(11, 13)) * 60 + Number(wall.slice(14, 16)) + by;
  const day = daysOn(wall.slice(0, 10), Math.floor(total / 1440));
  const minute = ((total % 1440) + 1440) % 1440;
  return `${day}T${String(Math.floor(minute / 60)).padStart(2, "0")}:${String(minute % 60).padStart(2, "0")}`;
}
