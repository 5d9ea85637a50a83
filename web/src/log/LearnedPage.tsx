/** What this kitchen has learned: each row of the table as the craft has it and as it is here, side by side; and what would
 * teach most. */

import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { scaleLinear } from "d3-scale";
import { useEffect } from "react";
import { Link } from "react-router";
import { api, ask, type LearnedPage as Page } from "../api/client";
import { kitchenQuery } from "../api/queries";
import { Drawing } from "../ui/Drawing";
import { legible } from "../ui/dimension";
import { Frame, Waiting } from "../ui/Frame";
import { LinkButton, TextLink } from "../ui/LinkButton";
import { Sorry } from "../ui/Sorry";
import { capital, dayOf, plural } from "../ui/words";

type LearnedRow = Page["rows"][number];
const LEARNED = ["learned"];

const ABOUT: Record<LearnedRow["about"], string> = {
  stove: "Stove and pots",
  steam: "Steam",
  oven: "Oven",
  batter: "Batter and dough",
  grain: "Grain",
  rest: "Rest and cold",
  hands: "Hands",
  finish: "Frying and toasting",
};

export default function LearnedPage() {
  const client = useQueryClient();
  const found = useQuery({ queryKey: LEARNED, queryFn: () => ask(api.GET("/api/learned")) });
  const kitchen = useQuery(kitchenQuery);
  const changed = (page: Page) => {
    client.setQueryData(LEARNED, page);
    for (const key of ["kitchen", "sheets", "sheet", "occasions"]) void client.invalidateQueries({ queryKey: [key] });
  };
  const hold = useMutation({
    mutationFn: ({ name, held }: { name: string; held: boolean }) =>
      ask(api.PUT("/api/learned/{name}", { params: { path: { name } }, body: { held } })),
    onSuccess: changed,
  });
  const leave = useMutation({
    mutationFn: ({ batch, out }: { batch: number; out: boolean }) =>
      ask(api.PUT("/api/log/{batch_id}/left-out", { params: { path: { batch_id: batch } }, body: { left_out: out } })),
    onSuccess: changed,
  });
  useEffect(() => {
    document.title = "What this kitchen has learned · Kemble";
  }, []);
  if (!found.data || !kitchen.data) return <Waiting error={found.error ?? kitchen.error} />;
  const page = found.data;
  const zone = kitchen.data.kitchen.timezone;
  const groups = Object.keys(ABOUT) as LearnedRow["about"][];
  return (
    <Frame title={<h1 className="text-2xl sm:text-[28px]">What this kitchen has learned</h1>}>
      <p className="mt-4 text-lg">
        From {plural(page.batches, "making")}. Above in each row what cooks have, below what you have; the bar is where
        it lies nine times in ten.
      </p>
      <Sorry error={hold.error ?? leave.error} />
      {page.moved.length > 0 && (
        <p role="status" className="mt-3 border-l-4 border-amber pl-4">
          <b className="text-look">That moved.</b>{" "}
          {page.moved
            .map((one) => `${capital(one.words)} ${shown(one.was)} to ${shown(one.now)} ${one.unit}`)
            .join("; ")}
          .
        </p>
      )}
      <div className="mt-5 grid gap-x-12 gap-y-8 pb-10 lg:grid-cols-[minmax(0,1.6fr)_minmax(0,1fr)]">
        <section aria-label="The table">
          {page.rows.length === 0 && (
            <p className="text-lg text-ink2">
              Nothing yet. Time a step, weigh a dough, read a heart, and put the making in the log: from the first on,
              what is told is told for this kitchen.
            </p>
          )}
          {groups
            .filter((about) => page.rows.some((row) => row.about === about))
            .map((about) => (
              <section key={about} aria-label={ABOUT[about]} className="mb-6">
                <h2 className="text-xl">{ABOUT[about]}</h2>
                <ul>
                  {page.rows
                    .filter((row) => row.about === about)
                    .map((row) => (
                      <RowOf
                        key={row.id}
                        row={row}
                        zone={zone}
                        onHold={(held) => hold.mutate({ name: row.id, held })}
                        onLeave={(batch) => leave.mutate({ batch, out: true })}
                      />
                    ))}
                </ul>
              </section>
            ))}
          {page.cups.length > 0 && (
            <section aria-label="Your cups" className="mb-6">
              <h2 className="text-xl">Your cups</h2>
              <ul>
                {page.cups.map((cup) => (
                  <li key={cup.words} className="hairline py-3">
                    <div className="flex flex-wrap items-baseline justify-between gap-x-6">
                      <b>{capital(cup.words)}</b>
                      <span>
                        <b className="text-xl">{shown(cup.own.value)}</b> g
                        <span className="text-ink2"> · cooks have {shown(cup.craft.value)}</span>
                      </span>
                    </div>
                    <Ranges row={{ ...cup, is_log: true, unit: "g" }} />
                  </li>
                ))}
              </ul>
              <p className="text-ink2">
                Weighed by you. <TextLink to="/kitchen/cups">Weigh another</TextLink>
              </p>
            </section>
          )}
        </section>
        <div className="grid content-start gap-8">
          {page.teaches.length > 0 && (
            <section aria-label="What would teach most">
              <h2 className="text-xl">What would teach most</h2>
              <ol className="list-none p-0">
                {page.teaches.map((one) => (
                  <li key={one.says} className="hairline py-2">
                    <Brings minutes={one.brings_min} most={page.teaches[0]?.brings_min ?? 1} />
                    <b>{one.says}</b>
                    <span className="block text-ink2">
                      {one.brings_min.toFixed(1)} min less in the windows of your sheets; {one.because}.
                      {one.measurement && (
                        <>
                          {" "}
                          <TextLink to={one.measurement === "kettle" ? "/kitchen/hob" : "/kitchen/guesses"}>
                            Do it
                          </TextLink>
                        </>
                      )}
                    </span>
                  </li>
                ))}
              </ol>
            </section>
          )}
          {page.pace.length > 0 && (
            <section aria-label="How quick your hands are">
              <h2 className="text-xl">How quick your hands are</h2>
              <ul>
                {page.pace.map((one) => (
                  <li key={one.step} className="hairline flex justify-between gap-4 py-1">
                    <span>{capital(one.step.replaceAll("-", " "))}</span>
                    <b>{one.times.toFixed(2)} times the usual</b>
                  </li>
                ))}
              </ul>
            </section>
          )}
          {page.odd.length > 0 && (
            <section aria-label="Makings that fit with no other">
              <h2 className="text-xl">Makings that fit with no other</h2>
              <p className="text-ink2">They count less than half.</p>
              <ul>
                {page.odd.map((one) => (
                  <li key={one.batch} className="hairline flex flex-wrap justify-between gap-x-4 py-1">
                    <Link to={`/log/${one.batch}`} className="text-ink">
                      {one.title}, {dayOf(one.made, zone)}
                    </Link>
                    <LinkButton onClick={() => leave.mutate({ batch: one.batch, out: true })}>leave it out</LinkButton>
                  </li>
                ))}
              </ul>
            </section>
          )}
          {page.left_out.length > 0 && (
            <section aria-label="Left out, and why">
              <h2 className="text-xl">Left out, and why</h2>
              <ul>
                {page.left_out.slice(0, 12).map((one) => (
                  <li key={one.batch} className="hairline py-1">
                    <Link to={`/log/${one.batch}`} className="text-ink">
                      {one.title}, {dayOf(one.made, zone)}
                    </Link>
                    <span className="block text-ink2">
                      {one.why.join("; ")}.{" "}
                      {one.why.includes("you left it out") && (
                        <LinkButton onClick={() => leave.mutate({ batch: one.batch, out: false })}>
                          learn from it again
                        </LinkButton>
                      )}
                    </span>
                  </li>
                ))}
              </ul>
            </section>
          )}
        </div>
      </div>
    </Frame>
  );
}

const shown = (value: number) =>
  Math.abs(value) >= 100 ? value.toFixed(0) : Math.abs(value) >= 10 ? value.toFixed(1) : value.toFixed(2);

function Brings({ minutes, most }: { minutes: number; most: number }) {
  return (
    <svg width="90" height="14" aria-hidden="true" className="float-right mt-1 ml-3">
      <rect width={Math.max(4, (90 * minutes) / most)} height="14" fill="var(--color-green)" />
    </svg>
  );
}

interface RowProps {
  row: LearnedRow;
  zone: string;
  onHold: (held: boolean) => void;
  onLeave: (batch: number) => void;
}

function RowOf({ row, zone, onHold, onLeave }: RowProps) {
  return (
    <li className="hairline py-3">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <b>{capital(row.words)}</b>
        <span>
          <b className="text-xl">{shown(row.own.value)}</b> {row.unit}
          <span className="text-ink2"> · cooks have {shown(row.craft.value)}</span>
        </span>
      </div>
      <Ranges row={row} />
      <details>
        <summary className="min-h-8 cursor-pointer text-ink2">
          {row.held
            ? "held where the craft has it"
            : `${plural(row.pulls.length, "making")} moved it${row.measured ? ", from what was measured" : ""}`}
          ; it moves {row.moves}
        </summary>
        <ul>
          {row.pulls.map((pull) => (
            <li key={pull.batch} className="flex flex-wrap items-baseline gap-x-4">
              <Pull by={pull.by} />
              <Link to={`/log/${pull.batch}`} className="text-ink">
                {pull.title}, {dayOf(pull.made, zone)}
              </Link>
              <LinkButton onClick={() => onLeave(pull.batch)}>leave it out</LinkButton>
            </li>
          ))}
        </ul>
        <LinkButton onClick={() => onHold(!row.held)}>
          {row.held ? "let it learn again" : "set it back, and hold it there"}
        </LinkButton>
      </details>
    </li>
  );
}

/** Which way a making pulls, and how much. */
function Pull({ by }: { by: number }) {
  const long = Math.min(40, Math.abs(by) * 40);
  return (
    <svg width="90" height="16" aria-hidden="true" className="shrink-0">
      <line x1="45" x2="45" y1="1" y2="15" stroke="var(--color-ink2)" />
      <rect x={by < 0 ? 45 - long : 45} y="4" width={Math.max(1.5, long)} height="8" fill="var(--color-bean)" />
    </svg>
  );
}

const W = 640;
const H = 62;

/** The craft's range and the kitchen's own on one rule; the craft's takes the same width in every row. */
function Ranges({ row }: { row: Pick<LearnedRow, "craft" | "own" | "is_log" | "unit"> }) {
  const to = (value: number) => (row.is_log ? Math.log(Math.max(value, 1e-6)) : value);
  const [a, b] = [to(row.craft.low), to(row.craft.high)];
  const room = (b - a) * 0.45;
  const x = scaleLinear()
    .domain([Math.min(a - room, to(row.own.low)), Math.max(b + room, to(row.own.high))])
    .range([30, W - 30]);
  const at = (value: number) => x(to(value));
  const band = (range: LearnedRow["craft"], y: number, fill: string) => (
    <>
      <rect
        x={at(range.low)}
        y={y}
        width={Math.max(3, at(range.high) - at(range.low))}
        height="13"
        fill={fill}
        stroke="var(--color-ink)"
        strokeWidth="1.2"
      />
      <line
        x1={at(range.value)}
        x2={at(range.value)}
        y1={y - 3}
        y2={y + 16}
        stroke="var(--color-ink)"
        strokeWidth="2.4"
      />
    </>
  );
  return (
    <Drawing
      viewBox={`0 0 ${W} ${H}`}
      className="mt-1 block w-full"
      role="img"
      aria-label={`Cooks have ${shown(row.craft.low)} to ${shown(row.craft.high)}, you have ${shown(row.own.low)} to ${shown(row.own.high)} ${row.unit}`}
    >
      <line x1="30" x2={W - 30} y1="30" y2="30" stroke="var(--color-hair)" />
      {band(row.craft, 9, "var(--color-sheet)")}
      {band(row.own, 37, "color-mix(in srgb, var(--color-green) 55%, var(--color-sheet))")}
      {[row.craft.low, row.craft.high].map((end, i) => (
        <text
          key={end}
          x={at(end) + (i ? 7 : -7)}
          y="20"
          textAnchor={i ? "start" : "end"}
          style={{ fontSize: legible(14) }}
          fill="var(--color-ink2)"
        >
          {shown(end)}
        </text>
      ))}
    </Drawing>
  );
}
