/** Pieces that were weighed one after another, against what was told: the first few were practice, and stand apart. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { scaleLinear } from "d3-scale";
import type { BatchOpen } from "../api/client";
import { Drawing } from "../ui/Drawing";
import { Label } from "../ui/dimension";
import { type Formatters, useFormatters } from "../ui/formatters";
import { capital } from "../ui/words";

type Weighed = BatchOpen["weighed"][number];

const W = 620;
const H = 150;
const LEFT = 46;
const RIGHT = 12;
const APART = 26; // between practice and what was meant

export function PiecesWeighed({ all }: { all: Weighed[] }) {
  const formatters = useFormatters();
  if (all.length === 0) return null;
  return (
    <section aria-label={t`Pieces weighed`} className="mt-6">
      <h2 className="text-xl">
        <Trans>Pieces, weighed</Trans>
      </h2>
      {all.map((item) => (
        <div key={item.step} className="mt-2">
          <Strip one={item} />
          <p>{wordsOf(formatters, item)}</p>
        </div>
      ))}
    </section>
  );
}

/** What they came to: those that were meant alone, where there are any. */
export function wordsOf(formatters: Formatters, { label, told_g, practice, meant, mean_g, spread_g }: Weighed): string {
  const spread = spread_g == null ? "" : t`, spread ${formatters.weightWords(spread_g, 1)}`;
  const told = t`${formatters.weightWords(told_g, 1)} told`;
  if (meant.length === 0)
    return t`${capital(label)}: ${practice.length} for practice, ${formatters.weightWords(mean_g, 1)} on the mean${spread}; ${told}.`;
  return t`${capital(label)}: ${meant.length} meant, ${formatters.weightWords(mean_g, 1)} on the mean${spread}; ${told}. The first ${
    practice.length
  } were practice, and do not count.`;
}

function Strip({ one }: { one: Weighed }) {
  const formatters = useFormatters();
  const { practice, meant, told_g, mean_g } = one;
  const grams = [...practice, ...meant];
  const [low, high] = [Math.min(told_g, ...grams), Math.max(told_g, ...grams)];
  const room = Math.max(0.6, (high - low) * 0.15);
  const y = scaleLinear()
    .domain([low - room, high + room])
    .range([H - 26, 10]);
  const step = (W - LEFT - RIGHT - APART) / Math.max(6, grams.length);
  const x = (i: number) => LEFT + (i + 0.5) * step + (i >= practice.length ? APART : 0);
  const wall = LEFT + practice.length * step + APART / 2;
  const from = meant.length ? wall + APART / 2 : LEFT;
  return (
    <Drawing
      viewBox={`0 0 ${W} ${H}`}
      className="block w-full max-w-[620px]"
      role="img"
      aria-label={wordsOf(formatters, one)}
    >
      {formatters.axisMarks(y.domain(), 4, "g").map(({ value, text }) => (
        <g key={value}>
          <line x1={LEFT} x2={W - RIGHT} y1={y(value)} y2={y(value)} stroke="var(--color-hair)" strokeWidth="0.8" />
          <Label x={LEFT - 6} y={y(value) + 5} size={13.5} anchor="end" tone="ink2">
            {text}
          </Label>
        </g>
      ))}
      <line x1={LEFT} x2={W - RIGHT} y1={y(told_g)} y2={y(told_g)} stroke="var(--color-green)" strokeWidth="1.8" />
      <line
        x1={from}
        x2={x(grams.length - 1) + step / 2}
        y1={y(mean_g)}
        y2={y(mean_g)}
        stroke="var(--color-bean)"
        strokeWidth="1.8"
        strokeDasharray="7 4"
      />
      {meant.length > 0 && (
        <line x1={wall} x2={wall} y1={8} y2={H - 24} stroke="var(--color-ink2)" strokeDasharray="2 4" />
      )}
      {grams.map((g, i) => (
        <circle
          // biome-ignore lint/suspicious/noArrayIndexKey: a piece is known by its number
          key={i}
          cx={x(i)}
          cy={y(g)}
          r="5"
          fill={i < practice.length ? "var(--color-paper)" : "var(--color-ink)"}
          stroke="var(--color-ink)"
          strokeWidth="1.6"
        />
      ))}
      <Label x={LEFT + (practice.length * step) / 2} y={H - 6} size={13.5} anchor="middle" tone="ink2">
        <Trans>practice</Trans>
      </Label>
      {meant.length > 0 && (
        <Label x={from + (meant.length * step) / 2} y={H - 6} size={13.5} anchor="middle" tone="ink2">
          <Trans>meant; green told, dashed their mean</Trans>
        </Label>
      )}
    </Drawing>
  );
}
