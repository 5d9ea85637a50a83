/** What is on the table: sheets, for whom, how many each, made when; and what of them is there already. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Occasion, OccasionOpen } from "../api/client";
import { limit } from "../api/limits";
import { sheetsQuery } from "../api/queries";
import { ActionMenu } from "../ui/ActionMenu";
import { LinkButton } from "../ui/LinkButton";
import { NumberField } from "../ui/NumberField";
import { newDish } from "./newDish";

interface Props {
  occasion: Occasion;
  open: OccasionOpen;
  edit: (change: Partial<Occasion>) => void;
}

const BEFORE = ["on the day", t`the day before`, t`two days before`, t`three days before`] as const;

export function Dishes({ occasion, open, edit }: Props) {
  const sheets = useQuery(sheetsQuery(1, ""));
  const { dishes, servings } = occasion;
  type Dish = Occasion["dishes"][number];
  const set = (at: number, change: Partial<Dish>) =>
    edit({ dishes: dishes.map((dish, i) => (i === at ? { ...dish, ...change } : dish)) });
  return (
    <section aria-label={t`On the table`}>
      <ol>
        {dishes.map((dish, i) => {
          const told = open.dishes[i]?.sheet === dish.sheet ? open.dishes[i] : undefined;
          const people = servings[dish.serving]?.people;
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: a sheet may stand here twice
            <li key={i} className="hairline py-1.5">
              <div className="flex flex-wrap items-baseline justify-between gap-x-4">
                <Link to={`/sheets/${dish.sheet}/mix`} className="text-lg text-ink">
                  {dishes.length > 1 && <b className="mr-2">{i + 1}</b>}
                  {told?.title ?? "…"}
                </Link>
                <span className="text-ink2">{told?.pieces != null && t`${told.pieces.toFixed(0)} pieces`}</span>
              </div>
              <Otherwise dish={dish} onChange={(change) => set(i, change)} />
              {told?.problem && (
                <p className="text-bean">
                  <Trans>cannot be worked: {told.problem}</Trans>
                </p>
              )}
              <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1">
                {people != null && (
                  <NumberField
                    label={t`each has`}
                    value={dish.each ?? null}
                    unit="pieces"
                    decimals={2}
                    width="3.4rem"
                    within={limit("OccasionDish.each")}
                    onChange={(each) => set(i, { each })}
                    onClear={() => set(i, { each: null })}
                  />
                )}
                {servings.length > 1 && (
                  <select
                    aria-label={t`${told?.title ?? ""}: which serving`}
                    className="write min-h-9"
                    value={dish.serving}
                    onChange={(event) => set(i, { serving: Number(event.target.value) })}
                  >
                    {servings.map((serving, s) => (
                      // biome-ignore lint/suspicious/noArrayIndexKey: a serving has no name of its own
                      <option key={s} value={s}>
                        <Trans>
                          serving {s + 1}, {serving.at.slice(11)}
                        </Trans>
                      </option>
                    ))}
                  </select>
                )}
                <select
                  aria-label={t`${told?.title ?? ""}: made`}
                  className="write min-h-9"
                  value={dish.days_before}
                  onChange={(event) => set(i, { days_before: Number(event.target.value) })}
                >
                  {BEFORE.map((words, days) => (
                    <option key={words} value={days}>
                      <Trans>made {words}</Trans>
                    </option>
                  ))}
                </select>
                <LinkButton
                  aria-label={t`not this one: ${told?.title ?? ""}`}
                  onClick={() =>
                    edit({
                      dishes: dishes.filter((_, other) => other !== i),
                      pins: occasion.pins
                        .filter((pin) => pin.dish !== i)
                        .map((pin) => ({ ...pin, dish: pin.dish > i ? pin.dish - 1 : pin.dish })),
                    })
                  }
                >
                  <Trans>not this one</Trans>
                </LinkButton>
              </div>
              {(told?.parts ?? []).map(({ role, name }) => (
                <label key={role} className="mr-5 inline-flex items-center gap-2 text-sm">
                  <Trans>
                    <input
                      type="checkbox"
                      checked={dish.there.includes(role as Dish["there"][number])}
                      onChange={(event) =>
                        set(i, {
                          there: event.target.checked
                            ? [...dish.there, role as Dish["there"][number]]
                            : dish.there.filter((item) => item !== role),
                        })
                      }
                    />
                    {name} is there already
                  </Trans>
                </label>
              ))}
            </li>
          );
        })}
      </ol>
      {dishes.length < 60 && (
        <ActionMenu
          label={t`Put a sheet on the table`}
          choices={(sheets.data?.sheets ?? []).map((sheet) => ({ id: String(sheet.id), words: sheet.title }))}
          onPick={(id) => edit({ dishes: [...dishes, newDish(Number(id))] })}
        >
          <Trans>put a sheet on the table</Trans>
        </ActionMenu>
      )}
    </section>
  );
}

const SOAKED = { none: t`not soaked`, hour: t`soaked an hour`, overnight: t`soaked overnight in the fridge` };

/** What is made otherwise here than on its sheet, to be taken back. */
function Otherwise({
  dish,
  onChange,
}: {
  dish: Occasion["dishes"][number];
  onChange: (change: Partial<Occasion["dishes"][number]>) => void;
}) {
  const schools = Object.entries(dish.schools);
  if (schools.length === 0 && dish.factor === 1 && !dish.soak) return null;
  return (
    <p className="text-look">
      <Trans>
        Otherwise than its sheet:{" "}
        {[
          ...schools.map(([choice, school]) => `${choice} ${school}`),
          dish.soak ? SOAKED[dish.soak] : "",
          dish.factor === 1 ? "" : t`${dish.factor} times as much`,
        ]
          .filter(Boolean)
          .join(", ")}
        . <LinkButton onClick={() => onChange({ schools: {}, soak: "", factor: 1 })}>as its sheet</LinkButton>
      </Trans>
    </p>
  );
}
