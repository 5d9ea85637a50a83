/** One row of what is learned: the range of the craft and that of the kitchen, and the makings that moved it. */

import { plural, t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { scaleLinear } from "d3-scale";
import { Link } from "react-router";
import type { LearnedPage as Page } from "../api/client";
import { Drawing } from "../ui/Drawing";
import { legible } from "../ui/dimension";
import { LinkButton } from "../ui/LinkButton";
import { capital, dayOf } from "../ui/words";
import { fixed } from "../words/numbers";

export type LearnedRow = Page["rows"][number];

export const shown = (value: number) =>
  Math.abs(value) >= 100 ? value.toFixed(0) : Math.abs(value) >= 10 ? fixed(value, 1) : fixed(value, 2);

export function Brings({ minutes, most }: { minutes: number; most: number }) {
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

export function RowOf({ row, zone, onHold, onLeave }: RowProps) {
  return (
    <li className="hairline py-3">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <b>{capital(row.words)}</b>
        <span>
          <b className="text-xl">{shown(row.own.value)}</b> {row.unit}
          <span className="text-ink2">
            <Trans> · cooks have {shown(row.craft.value)}</Trans>
          </span>
        </span>
      </div>
      <Ranges row={row} />
      <details>
        <summary className="min-h-8 cursor-pointer text-ink2">
          <Trans>
            {row.held
              ? t`held where the craft has it`
              : t`${plural(row.pulls.length, { one: "# making", other: "# makings" })} moved it${row.measured ? t`, from what was measured` : ""}`}
            ; it moves {row.moves}
          </Trans>
        </summary>
        <ul>
          {row.pulls.map((pull) => (
            <li key={pull.batch} className="flex flex-wrap items-baseline gap-x-4">
              <Pull by={pull.by} />
              <Link to={`/log/${pull.batch}`} className="text-ink">
                {pull.title}, {dayOf(pull.made, zone)}
              </Link>
              <LinkButton onClick={() => onLeave(pull.batch)}>
                <Trans>leave it out</Trans>
              </LinkButton>
            </li>
          ))}
        </ul>
        <LinkButton onClick={() => onHold(!row.held)}>
          {row.held ? t`let it learn again` : t`set it back, and hold it there`}
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
export function Ranges({ row }: { row: Pick<LearnedRow, "craft" | "own" | "is_log" | "unit"> }) {
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
      aria-label={t`Cooks have ${shown(row.craft.low)} to ${shown(row.craft.high)}, you have ${shown(row.own.low)} to ${shown(row.own.high)} ${row.unit}`}
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
