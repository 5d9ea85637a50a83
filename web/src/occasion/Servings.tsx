/** When people eat and how many; who helps and when. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { Occasion } from "../api/client";
import { limit } from "../api/limits";
import { LinkButton } from "../ui/LinkButton";
import { NumberField } from "../ui/NumberField";
import { WallField } from "../ui/WallField";
import { daysOn } from "../ui/words";

interface Props {
  occasion: Occasion;
  edit: (change: Partial<Occasion>) => void;
}

export function Servings({ occasion, edit }: Props) {
  const { servings, helpers } = occasion;
  const several = servings.length > 1;
  const set = (at: number, change: Partial<Occasion["servings"][number]>) =>
    edit({ servings: servings.map((serving, i) => (i === at ? { ...serving, ...change } : serving)) });
  const setHelper = (at: number, change: Partial<Occasion["helpers"][number]>) =>
    edit({ helpers: helpers.map((helper, i) => (i === at ? { ...helper, ...change } : helper)) });
  const last = servings.at(-1)?.at ?? "";
  return (
    <section aria-label={t`When people eat`}>
      {servings.map((serving, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a serving has no name of its own
        <div key={i} className="hairline flex flex-wrap items-baseline gap-x-5 py-1">
          <WallField
            label={several ? t`Serving ${i + 1}` : t`On the table`}
            value={serving.at}
            onChange={(at) => set(i, { at })}
          />
          <NumberField
            label={t`for`}
            value={serving.people ?? null}
            unit="people"
            decimals={0}
            width="3.4rem"
            within={limit("Serving.people")}
            onChange={(people) => set(i, { people: Math.round(people) })}
            onClear={() => set(i, { people: null })}
          />
          {several && (
            <LinkButton
              aria-label={t`not this one: serving ${i + 1}`}
              onClick={() =>
                edit({
                  servings: servings.filter((_, other) => other !== i),
                  dishes: occasion.dishes.map((dish) => ({
                    ...dish,
                    serving: dish.serving > i ? dish.serving - 1 : Math.min(dish.serving, servings.length - 2),
                  })),
                })
              }
            >
              <Trans>not this one</Trans>
            </LinkButton>
          )}
        </div>
      ))}
      {helpers.map((helper, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: two helpers may be called alike
        <div key={i} className="hairline py-1">
          <div className="flex flex-wrap items-baseline gap-x-4">
            <input
              aria-label={t`Who helps`}
              className="write w-36"
              maxLength={40}
              defaultValue={helper.name}
              onBlur={(event) =>
                event.target.value.trim() &&
                event.target.value !== helper.name &&
                setHelper(i, { name: event.target.value.trim() })
              }
            />
            <label className="inline-flex items-center gap-2">
              <Trans>
                <input
                  type="checkbox"
                  checked={helper.safe_only}
                  onChange={(event) => setHelper(i, { safe_only: event.target.checked })}
                />
                only what is safe
              </Trans>
            </label>
            <LinkButton onClick={() => edit({ helpers: helpers.filter((_, other) => other !== i) })}>
              <Trans>not them</Trans>
            </LinkButton>
          </div>
          <div className="flex flex-wrap gap-x-6">
            <WallField label={t`comes`} value={helper.begins} onChange={(begins) => setHelper(i, { begins })} />
            <WallField label={t`goes`} value={helper.ends} onChange={(ends) => setHelper(i, { ends })} />
          </div>
        </div>
      ))}
      <p className="mt-2 flex flex-wrap gap-x-6">
        {servings.length < 8 && (
          <LinkButton
            onClick={() =>
              edit({ servings: [...servings, { at: last, name: "", people: servings.at(-1)?.people ?? null }] })
            }
          >
            <Trans>Another serving</Trans>
          </LinkButton>
        )}
        {helpers.length < 12 && (
          <LinkButton
            onClick={() =>
              edit({
                helpers: [
                  ...helpers,
                  {
                    name: `Helper ${helpers.length + 1}`,
                    begins: earlier(last, 3),
                    ends: last,
                    safe_only: false,
                  },
                ],
              })
            }
          >
            <Trans>Somebody helps</Trans>
          </LinkButton>
        )}
        <label className="inline-flex items-center gap-2">
          <Trans>
            <input
              type="checkbox"
              checked={occasion.quiet}
              onChange={(event) => edit({ quiet: event.target.checked })}
            />
            keep quiet hours
          </Trans>
        </label>
      </p>
    </section>
  );
}

/** A wall time so many hours before another. */
function earlier(wall: string, hours: number) {
  const at = Number(wall.slice(11, 13)) - hours;
  const day = at < 0 ? daysOn(wall.slice(0, 10), -1) : wall.slice(0, 10);
  return `${day}T${String((at + 24) % 24).padStart(2, "0")}:${wall.slice(14, 16)}`;
}
