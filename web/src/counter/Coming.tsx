/** What is planned next: each occasion with when it begins; a new one; and the feasts that lie ahead. */

import { plural, t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, ask, type OccasionCard } from "../api/client";
import { feastsQuery, settle, toEatQuery } from "../api/queries";
import { beginWords } from "../occasion/beginWords";
import { useNewOccasion } from "../occasion/useNewOccasion";
import { ErrorNotice } from "../ui/ErrorNotice";
import { useFormatters } from "../ui/formatters";
import { LinkButton, TextLink } from "../ui/LinkButton";
import { dayOf, daysOn, dayWords, wallClock } from "../ui/words";

export function Coming({ occasion, zone }: { occasion: OccasionCard; zone: string }) {
  const { timeOfDay } = useFormatters();
  const client = useQueryClient();
  const drop = useMutation({
    mutationFn: () =>
      ask(api.DELETE("/api/occasions/{occasion_id}", { params: { path: { occasion_id: occasion.id } } })),
    onSuccess: () => {
      for (const key of ["occasions", "dropped"]) client.invalidateQueries({ queryKey: [key] });
    },
  });
  return (
    <li className="hairline py-3">
      <div className="flex items-baseline justify-between gap-4">
        <Link
          to={`/occasions/${occasion.id}`}
          className="text-lg text-ink no-underline hover:underline underline-offset-4"
        >
          {occasion.title}
        </Link>
        <span className="shrink-0">
          {occasion.clashes ? (
            <b className="text-bean">
              <Trans>cannot be done so</Trans>
            </b>
          ) : (
            occasion.begin && (
              <Trans>
                begin {dayOf(occasion.begin, zone)} <b>{timeOfDay(occasion.begin, zone)}</b>
              </Trans>
            )
          )}
        </span>
      </div>
      <p className="text-ink2">
        <Trans>
          {occasion.dishes.join(", ") || t`no sheet yet`}
          {occasion.people ? `; ${plural(occasion.people, { one: "# person", other: "# people" })}` : ""}:{" "}
          {dayOf(occasion.serve, zone)}, on the table at {timeOfDay(occasion.serve, zone)}
        </Trans>
      </p>
      <SmallLane occasion={occasion} zone={zone} />
      <p className="mt-1">
        <LinkButton aria-label={t`Drop ${occasion.title}`} onClick={() => drop.mutate()}>
          <Trans>Drop</Trans>
        </LinkButton>
      </p>
    </li>
  );
}

const DAY = 86_400_000;

/** Its last day as one small lane, true to time: held solid, minded open; nothing else is told here. */
function SmallLane({ occasion, zone }: { occasion: OccasionCard; zone: string }) {
  const { timeOfDay } = useFormatters();
  const end = Date.parse(occasion.serve);
  const shown = occasion.steps.filter((step) => step.hands !== "free" && Date.parse(step.ends) > end - DAY);
  const begin = Math.min(...shown.map((item) => Date.parse(item.starts)));
  if (shown.length === 0 || begin >= end) return null;
  const x = (at: string) => 2 + (596 * (Date.parse(at) - begin)) / (end - begin);
  return (
    <svg
      viewBox="0 0 600 34"
      className="mt-1 block w-full"
      role="img"
      aria-label={t`Hands wanted from ${timeOfDay(new Date(begin), zone)} to ${timeOfDay(occasion.serve, zone)}`}
    >
      <line x1="2" x2="598" y1="30" y2="30" stroke="var(--color-ink)" />
      {shown.map((item) => (
        <rect
          key={`${item.dish} ${item.title} ${item.starts}`}
          x={x(item.starts)}
          y={item.hands === "held" ? 17 : 4}
          width={Math.max(2, x(item.ends) - x(item.starts))}
          height={item.hands === "held" ? 13 : 9}
          fill={item.hands === "held" ? "var(--color-bean)" : "var(--color-sheet)"}
          stroke="var(--color-ink)"
          strokeWidth="0.7"
        />
      ))}
    </svg>
  );
}

const SOON = 2 * DAY;

/** What is next in time order over all occasions: the first few steps that take hands, within two days. */
export function NextUp({ occasions, zone }: { occasions: readonly OccasionCard[]; zone: string }) {
  const { timeOfDay } = useFormatters();
  const now = Date.now();
  const next = occasions
    .flatMap((occasion) => occasion.steps.map((step) => ({ ...step, id: occasion.id })))
    .filter((step) => step.hands !== "free" && Date.parse(step.starts) < now + SOON && Date.parse(step.ends) > now)
    .sort((a, b) => a.starts.localeCompare(b.starts))
    .slice(0, 4);
  if (next.length === 0) return null;
  return (
    <ol aria-label={t`Next to do`} className="mb-2">
      {next.map((step) => (
        <li key={`${step.id} ${step.dish} ${step.title}`} className="hairline flex items-baseline gap-4 py-1">
          <b className="w-28 shrink-0">
            {dayOf(step.starts, zone)} {timeOfDay(step.starts, zone)}
          </b>
          <span>
            {step.title} <span className="text-ink2">{step.dish}</span>
          </span>
        </li>
      ))}
    </ol>
  );
}

/** On the next Saturday, until something else is said. */
export function NewOccasion({ zone }: { zone: string }) {
  const plan = useNewOccasion();
  const today = wallClock(new Date(), zone).slice(0, 10);
  const weekday = new Date(`${today}T12:00:00Z`).getUTCDay();
  const saturday = daysOn(today, ((6 - weekday + 7) % 7) + (weekday >= 5 ? 7 : 0));
  return (
    <p className="mt-3">
      <button type="button" className="pick" disabled={plan.pending} onClick={() => plan.make("", `${saturday}T15:30`)}>
        <Trans>Plan an occasion</Trans>
      </button>
      <ErrorNotice error={plan.error} />
    </p>
  );
}

/** What was made lately and keeps still: eaten first what must be. */
const PLACES: Record<string, string> = { counter: t`on the counter`, fridge: t`in the fridge`, freezer: t`frozen` };

export function ToEat({ zone }: { zone: string }) {
  const { timeOfDay } = useFormatters();
  const query = useQuery(toEatQuery);
  const client = useQueryClient();
  const left = useMutation({
    mutationFn: ({ stock, pieces }: { stock: number; pieces: number }) =>
      ask(api.PUT("/api/stock/{stock_id}", { params: { path: { stock_id: stock } }, body: { pieces } })),
    onSuccess: (now) => settle(client, toEatQuery.queryKey, now),
  });
  if (!query.data?.length) return null;
  return (
    <section aria-labelledby="to-eat">
      <h2 id="to-eat" className="text-xl">
        <Trans>To be eaten</Trans>
      </h2>
      <ul>
        {query.data.map((item) => (
          <li
            key={`${item.batch} ${item.stock}`}
            className="hairline flex flex-wrap items-baseline gap-x-4 gap-y-1 py-1.5"
          >
            <Link
              to={`/log/${item.batch}`}
              className="min-w-0 flex-1 basis-48 text-ink no-underline underline-offset-4 hover:underline"
            >
              {item.stock != null && <b>{item.pieces} </b>}
              {item.title}
            </Link>
            <span className="text-ink2">
              {PLACES[item.where] ?? t`in the cold`}
              {item.until && (
                <Trans>
                  {" "}
                  until {dayOf(item.until, zone)} {timeOfDay(item.until, zone)}
                </Trans>
              )}
            </span>
            {item.taste_again && (
              <TextLink to={`/log/${item.batch}/taste`}>
                <Trans>taste it again today</Trans>
              </TextLink>
            )}
            {item.stock != null && (
              <span className="flex gap-3">
                <LinkButton onClick={() => left.mutate({ stock: item.stock as number, pieces: item.pieces - 1 })}>
                  <Trans>one eaten</Trans>
                </LinkButton>
                <TextLink to={`/stock/${item.stock}/label`}>
                  <Trans>label</Trans>
                </TextLink>
              </span>
            )}
          </li>
        ))}
      </ul>
      <p className="text-sm text-ink2">
        <Trans>An index, not a safety validation. What smells or looks wrong is thrown away.</Trans>
      </p>
    </section>
  );
}

/** The next feasts, and when there is something to begin. */
export function Year() {
  const feasts = useQuery(feastsQuery);
  if (!feasts.data?.length) return null;
  const today = new Date().toISOString().slice(0, 10);
  return (
    <div className="mt-6">
      <h3 className="font-bold">
        <Trans>The year’s table</Trans>
      </h3>
      <ul>
        {feasts.data.slice(0, 2).map((feast) => (
          <li key={`${feast.id} ${feast.day}`} className="hairline py-1">
            {feast.name}, {dayWords(feast.day)}; <span className="text-ink2">{beginWords(feast, today)}</span>
          </li>
        ))}
      </ul>
      <p className="mt-1">
        <TextLink to="/year">
          <Trans>All that lies ahead</Trans>
        </TextLink>
      </p>
    </div>
  );
}
