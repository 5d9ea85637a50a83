/** The year's table: the feasts that lie ahead and the kitchen's own days, each with when there is something to begin. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import type { KitchenSettings } from "../api/client";
import { limit } from "../api/limits";
import { feastsQuery, kitchenQuery } from "../api/queries";
import { useKitchenSave } from "../sheet/useKitchenSave";
import { ErrorNotice } from "../ui/ErrorNotice";
import { Frame, Waiting } from "../ui/Frame";
import { LinkButton } from "../ui/LinkButton";
import { NumberField } from "../ui/NumberField";
import { dayWords, wallClock } from "../ui/words";
import { beginWords } from "./beginWords";
import { useNewOccasion } from "./useNewOccasion";

export default function YearPage() {
  const kitchen = useQuery(kitchenQuery);
  const feasts = useQuery(feastsQuery);
  const plan = useNewOccasion();
  useEffect(() => {
    document.title = t`The year · Kemble`;
  }, []);
  if (!kitchen.data || !feasts.data) return <Waiting error={kitchen.error ?? feasts.error} />;
  const today = wallClock(new Date(), kitchen.data.kitchen.timezone).slice(0, 10);
  return (
    <Frame
      title={
        <h1 className="text-2xl">
          <Trans>The year’s table</Trans>
        </h1>
      }
    >
      <ErrorNotice error={plan.error} />
      <div className="mt-6 grid gap-x-14 gap-y-8 pb-10 lg:grid-cols-[3fr_2fr]">
        <ol>
          {feasts.data.map((feast) => (
            <li key={`${feast.id} ${feast.day}`} className="hairline grid grid-cols-[7rem_1fr_auto] gap-x-4 py-2">
              <b>
                {dayWords(feast.day)}
                <span className="block font-normal text-ink2">{feast.day.slice(0, 4)}</span>
              </b>
              <span>
                <span className="text-lg">{feast.name}</span>
                {feast.until && (
                  <span className="text-ink2">
                    <Trans> to {dayWords(feast.until)}</Trans>
                  </span>
                )}
                <span className="block text-ink2">{feast.eaten}</span>
                <span className="block">{beginWords(feast, today)}</span>
              </span>
              <LinkButton
                aria-label={t`plan it: ${feast.name}`}
                onClick={() => plan.make(feast.name, `${feast.day}T15:30`)}
              >
                <Trans>plan it</Trans>
              </LinkButton>
            </li>
          ))}
        </ol>
        <OwnDays kitchen={kitchen.data.kitchen} />
      </div>
    </Frame>
  );
}

type Own = NonNullable<KitchenSettings["own_days"]>[number];

/** Days and seasons that the cook enters: a herb, a fruit, a birthday. */
function OwnDays({ kitchen }: { kitchen: KitchenSettings }) {
  const client = useQueryClient();
  const { save, error } = useKitchenSave();
  const [name, setName] = useState("");
  const [day, setDay] = useState("");
  const [until, setUntil] = useState("");
  const [before, setBefore] = useState(0);
  const own = kitchen.own_days;
  const put = (own_days: Own[]) =>
    save(kitchen, { ...kitchen, own_days }, () => client.invalidateQueries({ queryKey: ["feasts"] }));
  const ready = name.trim() !== "" && MONTH_DAY.test(day) && (until === "" || MONTH_DAY.test(until));
  return (
    <section aria-label={t`Days of this kitchen`}>
      <h2 className="text-xl">
        <Trans>Days and seasons of this kitchen</Trans>
      </h2>
      <ul>
        {own.map((item) => (
          <li key={`${item.name} ${item.day}`} className="hairline flex items-baseline justify-between gap-4 py-1">
            <span>
              {item.name}{" "}
              <span className="text-ink2">
                {item.day}
                {item.until ? t` to ${item.until}` : ""}
              </span>
            </span>
            <LinkButton
              aria-label={t`take out ${item.name}`}
              onClick={() => put(own.filter((other) => other !== item))}
            >
              <Trans>take out</Trans>
            </LinkButton>
          </li>
        ))}
      </ul>
      <form
        className="mt-2 grid gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (!ready) return;
          put([...own, { name: name.trim(), day, until, begin_days: before, note: "" }]);
          setName("");
          setDay("");
          setUntil("");
        }}
      >
        <input
          aria-label={t`What it is`}
          className="write"
          placeholder={t`wild herb, quinces, a birthday`}
          maxLength={60}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <span className="flex flex-wrap items-baseline gap-3">
          <Trans>
            <input
              aria-label={t`From (month and day)`}
              className="write w-24"
              placeholder="05-14"
              value={day}
              onChange={(event) => setDay(event.target.value)}
            />
            to
            <input
              aria-label={t`Until (month and day), for a season`}
              className="write w-24"
              placeholder="06-20"
              value={until}
              onChange={(event) => setUntil(event.target.value)}
            />
            <NumberField
              label={t`begin`}
              value={before}
              unit={t`days before`}
              decimals={0}
              width="3rem"
              within={limit("OwnDay.begin_days")}
              onChange={(days) => setBefore(Math.round(days))}
            />
          </Trans>
        </span>
        {day !== "" && !MONTH_DAY.test(day) && (
          <span role="alert" className="text-bean">
            <Trans>Accepted: month and day, such as 05-14.</Trans>
          </span>
        )}
        <button type="submit" className="pick justify-self-start" disabled={!ready}>
          <Trans>Keep it</Trans>
        </button>
      </form>
      <ErrorNotice error={error} />
    </section>
  );
}

const MONTH_DAY = /^(0[1-9]|1[0-2])-([0-2]\d|3[01])$/;
