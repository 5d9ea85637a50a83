/** The line: a ruler with six stops, each with its key number. What an edit moved shows old beside new. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { type ReactNode, useRef } from "react";
import { Link } from "react-router";
import type { Fact, FactChange, FactKey, Facts, Plan, WorkResult } from "../api/client";
import { useRoom } from "../ui/Drawing";
import { type Formatters, useFormatters } from "../ui/formatters";
import { fixed } from "../words/numbers";
import { kindOf } from "./heat/kinds";

export const STATIONS = ["mix", "shape", "heat", "cut", "method", "plan"] as const;
export type StationId = (typeof STATIONS)[number];
type FactStation = Exclude<StationId, "plan" | "method">;
export const STATION_NAMES: Record<StationId, string> = {
  mix: t`Mix`,
  shape: t`Shape`,
  heat: t`Heat`,
  cut: t`Rest and cut`,
  method: t`Method`,
  plan: t`Plan`,
};

/** The key number of each stop, and the words after it; the first that the sheet has is shown. */
const KEYS: Record<
  FactStation,
  { key: FactKey; words: (facts: Facts, drawings: Drawings, formatters: Formatters) => string }[][]
> = {
  mix: [[{ key: "mix.hydration_pct", words: () => t`% hydration` }]],
  shape: [
    [
      {
        key: "shape.pieces",
        words: (f, drawn, { weightWords }) =>
          t`${pieceWords(drawn)} of ${weightWords(Number(f["shape.piece_g"]?.value ?? 0))}`,
      },
    ],
    [
      {
        key: "shape.depth_mm",
        words: (f, drawn, { lengthUnit }) =>
          drawn.shape?.kind === "tin" && drawn.shape.bag
            ? t`${lengthUnit()} thick, in its bag`
            : t`${lengthUnit()} deep, ${number(f, "shape.tins", 0) === "1" ? t`one tin` : t`${number(f, "shape.tins", 0)} tins`}`,
      },
    ],
  ],
  heat: [
    [
      { key: "heat.float_min", words: () => t`to float,` },
      { key: "heat.core_hot_min", words: () => t`hot within` },
    ],
    [{ key: "heat.done_min", words: (f, drawn) => `${under90(f, "heat.done_min")}${heatWord(drawn)}` }],
  ],
  cut: [
    [
      {
        key: "rest.cut_after_min",
        words: (f) => t`${under90(f, "rest.cut_after_min")}till it cuts`,
      },
    ],
    [
      {
        key: "rest.handle_until_min",
        words: (f, drawn) =>
          `${under90(f, "rest.handle_until_min")}${drawn.heat?.kind === "boil" ? t`to eat` : t`to work it`}`,
      },
    ],
    [{ key: "keep.room_h", words: () => t`h out at most` }],
  ],
};

type Drawings = WorkResult["drawings"];

const under90 = (facts: Facts, key: FactKey) => (Number(facts[key]?.value) < 90 ? t`min ` : "");
const pieceWords = ({ shape }: Drawings) => (shape?.kind === "ball" ? shape.piece_names : t`pieces`);
const heatWord = ({ heat }: Drawings) => (heat ? kindOf(heat).word(heat) : "");

const number = (facts: Facts, key: FactKey, decimals: number) => {
  const value = facts[key]?.value;
  return typeof value === "number" ? fixed(value, decimals) : "";
};

interface Props {
  id: number;
  at: StationId;
  worked: WorkResult;
  moved: FactChange[];
  plan: Plan | null;
  zone: string;
}

export function StationLine({ id, at, worked, moved, plan, zone }: Props) {
  const formatters = useFormatters();
  const { figure, timeOfDay } = formatters;
  const begins = useRef<{ settled: string; now: string }>({ settled: "", now: "" });
  const begin = plan ? timeOfDay(plan.begin, zone) : "";
  if (moved.length === 0) begins.current.settled = begin;
  begins.current.now = begin;
  const beganBefore = begins.current.settled !== begin ? begins.current.settled : "";

  return (
    <nav aria-label={t`Stations`} className="mt-2 sm:mt-4">
      <ol className="relative grid grid-cols-6">
        {STATIONS.map((station, i) => (
          <li key={station}>
            <Link
              to={`/sheets/${id}/${station}`}
              aria-keyshortcuts={`${i + 1}`}
              aria-current={station === at ? "page" : undefined}
              className="group block pr-1 text-ink no-underline max-sm:text-[15px] sm:pr-4"
            >
              <span className={station === at ? "font-bold" : "text-ink2 group-hover:underline"}>
                {station === "cut" ? (
                  <>
                    <span className="max-sm:sr-only">
                      <Trans>Rest and </Trans>
                    </span>
                    <span className="max-sm:capitalize">
                      <Trans>cut</Trans>
                    </span>
                  </>
                ) : (
                  STATION_NAMES[station]
                )}
              </span>
              <span className="flex min-h-9 flex-wrap items-baseline gap-x-2 max-sm:sr-only">
                {station === "method" ? (
                  <Stop
                    now={worked.steps.length ? `${worked.steps.length}` : "–"}
                    old=""
                    words={worked.steps.length ? t`steps` : t`not calculated`}
                  />
                ) : station === "plan" ? (
                  <Stop now={begin || "–"} old={beganBefore} words={plan ? t`begin` : t`no serve time yet`} />
                ) : (
                  <KeyNumbers station={station} worked={worked} moved={moved} />
                )}
              </span>
            </Link>
          </li>
        ))}
      </ol>
      <Ruler at={STATIONS.indexOf(at)} />
      {at !== "plan" && at !== "method" && (
        <p aria-hidden="true" className="flex flex-wrap items-baseline gap-x-2 text-ink2 sm:hidden">
          {keysOf(at, worked)?.map(({ key, words }) => (
            <span key={key}>
              {figure(worked.facts[key] as Fact)} {words(worked.facts, worked.drawings, formatters)}
            </span>
          ))}
        </p>
      )}
    </nav>
  );
}

const keysOf = (station: FactStation, { facts }: WorkResult) =>
  KEYS[station].find((keys) => keys.every(({ key }) => facts[key]));

interface KeyProps {
  station: FactStation;
  worked: WorkResult;
  moved: FactChange[];
}

function KeyNumbers({ station, worked, moved }: KeyProps) {
  const formatters = useFormatters();
  const { figure } = formatters;
  const { facts, drawings } = worked;
  const set = keysOf(station, worked);
  if (!set) return <Stop now="–" old="" words={t`not calculated`} />;
  return set.map(({ key, words }, i): ReactNode => {
    const fact = facts[key] as Fact;
    const change = moved.find((item) => item.key === key);
    const old = change?.old == null ? "" : figure({ ...fact, value: change.old });
    return (
      <span key={key} className={`contents ${i < set.length - 1 ? "max-sm:hidden" : ""}`}>
        <Stop now={figure(fact)} old={old === figure(fact) ? "" : old} words={words(facts, drawings, formatters)} />
      </span>
    );
  });
}

function Stop({ now, old, words }: { now: string; old: string; words: string }) {
  return (
    <>
      {old && (
        <s className="text-ink2" data-old>
          <span className="sr-only">
            <Trans>was </Trans>
          </span>
          {old}
        </s>
      )}
      <b key={now} className={`text-[20px] leading-none sm:text-[26px] ${old ? "moved text-bean" : ""}`}>
        {now}
      </b>
      <span className="text-ink2 max-sm:sr-only">{words}</span>
    </>
  );
}

/** The ruler under the stops; the bean marks where you are. */
function Ruler({ at }: { at: number }) {
  const [box, W] = useRoom<HTMLDivElement>(1200, 280);
  const part = W / STATIONS.length;
  const ticks = Array.from({ length: 10 * Math.round(W / 120) + 1 }, (_, i) => i);
  return (
    <div ref={box}>
      <svg viewBox={`0 0 ${W} 26`} className="mt-1 block w-full" aria-hidden="true">
        <path
          d={ticks.map((i) => `M${i * 12} 9v${i % 10 === 0 ? 10 : i % 5 === 0 ? 7 : 5}`).join("")}
          stroke="var(--color-ink2)"
          strokeWidth="0.7"
        />
        <line x1="0" x2={W} y1="9" y2="9" stroke="var(--color-ink)" strokeWidth="1.6" />
        {STATIONS.map((station, i) =>
          i === at ? (
            <g key={station} transform={`translate(${i * part + 10} 9) rotate(-18)`}>
              <ellipse rx="11" ry="7.5" fill="var(--color-bean)" />
              <path
                d="M-5 -2q4-3 9-2"
                stroke="var(--color-paper)"
                strokeWidth="1.3"
                fill="none"
                strokeLinecap="round"
              />
            </g>
          ) : (
            <circle
              key={station}
              cx={i * part + 10}
              cy="9"
              r="5"
              fill="var(--color-paper)"
              stroke="var(--color-ink)"
              strokeWidth="1.4"
            />
          ),
        )}
      </svg>
    </div>
  );
}
