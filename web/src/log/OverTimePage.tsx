/** One fact of every making of a way, in the order of time: where it lay, where it was told to lie, and whether it drifts. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { scaleLinear, scaleTime } from "d3-scale";
import { useEffect, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { api, ask, type FactOverTime } from "../api/client";
import { kitchenQuery, waysQuery } from "../api/queries";
import { Drawing } from "../ui/Drawing";
import { Label } from "../ui/dimension";
import { Frame, Waiting } from "../ui/Frame";
import { useFormatters } from "../ui/formatters";
import { Picks } from "../ui/ToggleChoice";
import { dayOf } from "../ui/words";
import { said } from "../words/said";

export default function OverTimePage() {
  const { kitchenUnit } = useFormatters();
  const [asked, setAsked] = useSearchParams();
  const [way, of] = [asked.get("way"), asked.get("of")];
  const query = useQuery({
    queryKey: ["over-time", way, of],
    queryFn: () => ask(api.GET("/api/log/over-time", { params: { query: { way, of } } })),
    placeholderData: (before) => before,
  });
  const ways = useQuery(waysQuery);
  const kitchen = useQuery(kitchenQuery);
  useEffect(() => {
    document.title = t`Over time · Kemble`;
  }, []);
  if (!query.data || !ways.data || !kitchen.data) return <Waiting error={query.error ?? ways.error ?? kitchen.error} />;
  const told = query.data;
  const fact = told.offered.find((item) => item.id === told.of);
  const zone = kitchen.data.kitchen.timezone;
  return (
    <Frame
      title={
        <h1 className="text-2xl">
          <Trans>Over time</Trans>
        </h1>
      }
    >
      {!told.way || !fact ? (
        <p className="mt-8 max-w-prose text-lg">
          <Trans>Nothing here yet. Every making that goes into the log is a dot here.</Trans>
        </p>
      ) : (
        <div className="mt-4">
          <Picks
            label={t`Way`}
            value={told.way}
            options={ways.data
              .filter((item) => told.ways.includes(item.id))
              .map((item) => [item.id, item.name] as const)}
            onPick={(id) => setAsked({ way: id })}
          />
          <Facts told={told} onAsk={(id) => setAsked({ way: told.way ?? "", of: id })} />
          <h2 className="mt-5 text-xl">
            {fact.label}
            {fact.unit && <span className="text-ink2">, {said(kitchenUnit(fact.unit))}</span>}
          </h2>
          <p role="status" className="text-lg">
            {told.drift?.says ??
              (told.points.length === 0
                ? t`Nobody has said it of these makings.`
                : t`Five makings over ten days or more can tell whether it drifts.`)}
          </p>
          {told.points.length > 0 && <Dots points={told.points} unit={fact.unit} zone={zone} />}
        </div>
      )}
    </Frame>
  );
}

/** What is asked for often is a press away; the others are many, and asked for by name. */
function Facts({ told, onAsk }: { told: FactOverTime; onAsk: (id: string) => void }) {
  const near = told.offered.filter((item) => item.near);
  const far = told.offered.filter((item) => !item.near);
  const [sought, setSought] = useState((far.find((item) => item.id === told.of) ?? far[0])?.id ?? "");
  return (
    <>
      <Picks
        label={t`Fact`}
        className="mt-3"
        value={told.of ?? ""}
        options={near.map((item) => [item.id, item.label] as const)}
        onPick={onAsk}
      />
      <form
        className="mt-3 flex flex-wrap items-center gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          onAsk(sought);
        }}
      >
        <label>
          <Trans>
            or any fact{" "}
            <select
              className="write min-h-10 max-w-[22rem]"
              value={sought}
              onChange={(event) => setSought(event.target.value)}
            >
              {far.map((item) => (
                <option key={item.id} value={item.id}>
                  {item.label}
                </option>
              ))}
            </select>
          </Trans>
        </label>
        <button type="submit" className="pick min-h-10 px-5">
          <Trans>Show it</Trans>
        </button>
      </form>
    </>
  );
}

const [W, H, LEFT, RIGHT, TOP, FOOT] = [1200, 340, 74, 30, 18, 40];

function Dots({ points, unit, zone }: { points: FactOverTime["points"]; unit: string; zone: string }) {
  const { axisMarks } = useFormatters();
  const values = points.flatMap((point) =>
    [point.value, point.told, point.low, point.high].filter((value) => value != null),
  );
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const room = Math.max((most - least) * 0.12, Math.abs(most) * 0.02, 0.01);
  const y = scaleLinear([least - room, most + room], [H - FOOT, TOP]);
  const days = points.map((point) => Date.parse(point.made));
  const [first, last] = [new Date(Math.min(...days)), new Date(Math.max(...days))];
  const x = scaleTime(
    [first, last.getTime() === first.getTime() ? new Date(first.getTime() + 1) : last],
    [LEFT + 30, W - RIGHT - 30],
  );
  const marks = axisMarks(y.domain(), 5, unit);
  const within = (item: FactOverTime["points"][number]) =>
    item.low != null && item.high != null && item.value >= item.low && item.value <= item.high;
  return (
    <figure className="m-0 mt-2 overflow-x-auto">
      <Drawing
        viewBox={`0 0 ${W} ${H}`}
        className="block w-full min-w-[640px]"
        role="group"
        aria-label={words(points, unit)}
      >
        {marks.map(({ value, text }) => (
          <g key={value}>
            <line x1={LEFT} x2={W - RIGHT} y1={y(value)} y2={y(value)} stroke="var(--color-hair)" />
            <Label x={LEFT - 10} y={y(value) + 5} anchor="end" size={15} tone="ink2">
              {text}
            </Label>
          </g>
        ))}
        {points.map((point) => {
          const at = x(new Date(point.made));
          return (
            <Link
              key={point.batch}
              to={`/log/${point.batch}`}
              aria-label={`${point.title}, ${dayOf(point.made, zone)}`}
            >
              {point.low != null && point.high != null && (
                <rect
                  x={at - 9}
                  width="18"
                  y={y(point.high)}
                  height={Math.max(1, y(point.low) - y(point.high))}
                  fill="var(--color-green)"
                  opacity="0.22"
                />
              )}
              {point.told != null && (
                <line
                  x1={at - 9}
                  x2={at + 9}
                  y1={y(point.told)}
                  y2={y(point.told)}
                  stroke="var(--color-ink)"
                  strokeWidth="1.6"
                />
              )}
              <circle
                cx={at}
                cy={y(point.value)}
                r="8"
                fill={
                  point.low == null ? "var(--color-ink)" : within(point) ? "var(--color-green)" : "var(--color-bean)"
                }
                stroke="var(--color-paper)"
                strokeWidth="2"
              />
            </Link>
          );
        })}
        <line x1={LEFT} x2={W - RIGHT} y1={H - FOOT} y2={H - FOOT} stroke="var(--color-ink)" />
        <Label x={x(first)} y={H - 14} anchor="start" size={15} tone="ink2">
          {dayOf(first.toISOString(), zone)}
        </Label>
        {last.getTime() !== first.getTime() && (
          <Label x={x(last)} y={H - 14} anchor="end" size={15} tone="ink2">
            {dayOf(last.toISOString(), zone)}
          </Label>
        )}
      </Drawing>
      {points.some((point) => point.told != null) && (
        <figcaption className="text-ink2">
          <Trans>
            A dash is what was told, shaded its range; a dot is what happened, red outside of that. Press one for its
            making.
          </Trans>
        </figcaption>
      )}
    </figure>
  );
}

const words = (points: FactOverTime["points"], unit: string) =>
  t`${points.length} makings, from ${points[0]?.value.toPrecision(3) ?? ""} to ${points.at(-1)?.value.toPrecision(3) ?? ""} ${unit}`;
