/** What is planned next: each occasion with when it begins; a new one; and the feasts that lie ahead. */

import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, ask, type OccasionCard } from "../api/client";
import { feastsQuery } from "../api/queries";
import { useNewOccasion } from "../occasion/useNewOccasion";
import { beginWords } from "../occasion/YearPage";
import { LinkButton, TextLink } from "../ui/LinkButton";
import { Sorry } from "../ui/Sorry";
import { dayOf, daysOn, dayWords, plural, timeOfDay, wallClock } from "../ui/words";

export function Coming({ occasion, zone }: { occasion: OccasionCard; zone: string }) {
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
            <b className="text-bean">cannot be done so</b>
          ) : (
            occasion.begin && (
              <>
                begin {dayOf(occasion.begin, zone)} <b>{timeOfDay(occasion.begin, zone)}</b>
              </>
            )
          )}
        </span>
      </div>
      <p className="text-ink2">
        {occasion.dishes.join(", ") || "no sheet yet"}
        {occasion.people ? `; ${plural(occasion.people, "person", "people")}` : ""}: {dayOf(occasion.serve, zone)}, on
        the table at {timeOfDay(occasion.serve, zone)}
      </p>
      <p className="mt-1">
        <LinkButton aria-label={`Drop ${occasion.title}`} onClick={() => drop.mutate()}>
          Drop
        </LinkButton>
      </p>
    </li>
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
        Plan an occasion
      </button>
      <Sorry error={plan.error} />
    </p>
  );
}

/** The next feasts, and when there is something to begin. */
export function Year() {
  const feasts = useQuery(feastsQuery);
  if (!feasts.data?.length) return null;
  const today = new Date().toISOString().slice(0, 10);
  return (
    <div className="mt-6">
      <h3 className="font-bold">The year’s table</h3>
      <ul>
        {feasts.data.slice(0, 2).map((feast) => (
          <li key={`${feast.id} ${feast.day}`} className="hairline py-1">
            {feast.name}, {dayWords(feast.day)}; <span className="text-ink2">{beginWords(feast, today)}</span>
          </li>
        ))}
      </ul>
      <p className="mt-1">
        <TextLink to="/year">All that lies ahead</TextLink>
      </p>
    </div>
  );
}
