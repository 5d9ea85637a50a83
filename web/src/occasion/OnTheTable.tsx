/** The table at a glance: when people eat, what stands on it with its drawing, who helps; its fields one press away. */

import { plural, t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useState } from "react";
import type { Occasion, OccasionOpen } from "../api/client";
import { useFormatters } from "../ui/formatters";
import { LinkButton } from "../ui/LinkButton";
import { WayDrawing } from "../ui/WayDrawing";
import { dayWords } from "../ui/words";
import { Dishes } from "./Dishes";
import { Servings } from "./Servings";

interface Props {
  occasion: Occasion;
  open: OccasionOpen;
  edit: (change: Partial<Occasion>) => void;
  isRefused: boolean;
}

export function OnTheTable({ occasion, open, edit, isRefused }: Props) {
  const { timeWords } = useFormatters();
  const { dishes, servings, helpers } = occasion;
  const [changing, setChanging] = useState(dishes.length === 0);
  const isOpen = changing || isRefused; // a field that will not do is seen
  return (
    <div className="mt-2 print:hidden">
      <div className="flex flex-wrap items-start gap-x-8 gap-y-2">
        <div>
          {servings.map((serving, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a serving has no name of its own
            <p key={i}>
              {dayWords(serving.at.slice(0, 10))} <b className="text-2xl">{timeWords(serving.at.slice(11))}</b>
              {serving.people != null && t` for ${serving.people}`}
            </p>
          ))}
          {helpers.map((helper) => (
            <p key={`${helper.name} ${helper.begins}`} className="text-ink2">
              <Trans>
                {helper.name} helps {timeWords(helper.begins.slice(11))} to {timeWords(helper.ends.slice(11))}
                {helper.safe_only && t`, only what is safe`}
              </Trans>
            </p>
          ))}
          <LinkButton aria-expanded={isOpen} onClick={() => setChanging(!isOpen)}>
            {isOpen ? t`That is the table` : t`Change the table`}
          </LinkButton>
        </div>
        {!isOpen && (
          <ol aria-label={t`On the table`} className="flex grow flex-wrap gap-x-7 gap-y-2">
            {dishes.map((dish, i) => {
              const told = open.dishes[i]?.sheet === dish.sheet ? open.dishes[i] : undefined;
              const words = [
                told?.pieces != null && plural(Math.round(told.pieces), { one: "# piece", other: "# pieces" }),
                dish.days_before > 0 && t`made ${plural(dish.days_before, { one: "# day", other: "# days" })} before`,
                dish.there.length > 0 && t`${dish.there.join(", ")} there already`,
                servings.length > 1 && t`at ${timeWords((servings[dish.serving]?.at ?? "").slice(11))}`,
              ].filter(Boolean);
              return (
                // biome-ignore lint/suspicious/noArrayIndexKey: a sheet may stand here twice
                <li key={i} className="flex w-full items-center gap-3 sm:block sm:w-44">
                  {told && (
                    <div aria-hidden="true" className="w-24 shrink-0">
                      <WayDrawing way={told.way} />
                    </div>
                  )}
                  <div>
                    <p className="leading-tight">
                      {dishes.length > 1 && <b className="mr-1.5">{i + 1}</b>}
                      {told?.title ?? "…"}
                    </p>
                    <p className="text-sm text-ink2">{words.join(", ")}</p>
                    {told?.problem && (
                      <p className="text-bean text-sm">
                        <Trans>cannot be worked: {told.problem}</Trans>
                      </p>
                    )}
                  </div>
                </li>
              );
            })}
          </ol>
        )}
      </div>
      {isOpen && (
        <div className="mt-2 grid gap-x-12 gap-y-6 lg:grid-cols-2">
          <Servings occasion={occasion} edit={edit} />
          <Dishes occasion={occasion} open={open} edit={edit} />
        </div>
      )}
    </div>
  );
}
