/** The vessels beside the steps: each is a band as wide as what it holds is heavy, from the step that fills it on. */

import { plural, t } from "@lingui/core/macro";
import { useFormatters } from "../ui/formatters";
import { fill } from "../ui/materials";
import type { Block, GoesIn, Pour, ScoreOfSteps } from "./score";

interface Props {
  score: ScoreOfSteps;
  /** Where each row begins, in pixels from the first, and where the last one ends. */
  tops: readonly number[];
  width: number;
}

const NAMES = 128;
const LABEL = 52; // at the right of a vessel, for its weight // pixels at the left, for the names of what goes in
const GAP = 7; // between a row's rule and what is drawn of it
const LEAST = 3;
const MOST_NAMES = 4;

export function Score({ score, tops, width }: Props) {
  const { weightWords } = useFormatters();
  if (tops.length < 2) return null;
  const step = (width - NAMES - LABEL) / Math.max(1, score.columns);
  const most = Math.min(66, step * 0.6);
  const layout: Layout = {
    middle: (column) => NAMES + 8 + most / 2 + step * column,
    wide: (grams) => Math.max(LEAST, (most * grams) / score.most),
    top: (row) => (tops[row] ?? 0) + GAP,
    end: (row) => (row >= tops.length - 1 ? (tops.at(-1) ?? 0) - GAP : (tops[row] ?? 0) + GAP),
    weightWords,
  };
  return (
    <svg
      width={width}
      height={tops.at(-1)}
      className="block"
      role="img"
      aria-label={t`What each vessel holds: ${plural(score.columns, { one: "# vessel at a time", other: "# vessels at a time" })}`}
    >
      {score.pours.map((pour, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: drawn anew each time
        <Poured key={i} pour={pour} layout={layout} />
      ))}
      {score.goesIn.map((entry) => (
        <Added key={entry.row} entry={entry} layout={layout} blocks={score.blocks} />
      ))}
      {score.blocks.map((block) => (
        <Vessel key={block.key} block={block} layout={layout} />
      ))}
      {score.blocks.map((block) => (
        <VesselWords key={block.key} block={block} layout={layout} />
      ))}
    </svg>
  );
}

interface Layout {
  middle: (column: number) => number;
  wide: (grams: number) => number;
  top: (row: number) => number;
  end: (row: number) => number;
  weightWords: (grams: number) => string;
}

function Vessel({ block, layout }: { block: Block; layout: Layout }) {
  const x = layout.middle(block.column);
  const wide = layout.wide(block.grams);
  const top = layout.top(block.from);
  return (
    <rect
      x={x - wide / 2}
      y={top}
      width={wide}
      height={heightOf(block, layout)}
      fill={fill(block.material)}
      stroke="var(--color-ink)"
      strokeWidth="1.1"
    />
  );
}

const heightOf = (block: Block, layout: Layout) => Math.max(4, layout.end(block.to) - layout.top(block.from));

/** What it is and holds, at its right: over all that is drawn, since it may reach across the next vessel. */
function VesselWords({ block, layout }: { block: Block; layout: Layout }) {
  const low = block.pouredFrom.some((column) => column > block.column) ? 26 : 0; // under what is poured in from the right
  const x = layout.middle(block.column) + layout.wide(block.grams) / 2 + 5;
  const top = layout.top(block.from) + low;
  const change = Math.round(Math.abs(block.change));
  return (
    <g>
      <text className="halo" x={x} y={top + 13} fontSize="13" fontWeight="600">
        {layout.weightWords(block.grams)}
      </text>
      {block.isFirst && (
        <text className="halo" x={x} y={top + 28} fontSize="13" fill="var(--color-ink2)">
          {block.vessel}
        </text>
      )}
      {change >= 1 && heightOf(block, layout) > 46 && (
        <text className="halo" x={x} y={top + (block.isFirst ? 43 : 28)} fontSize="13" fill="var(--color-ink2)">
          {block.change < 0 ? t`− ${layout.weightWords(change)}` : t`+ ${layout.weightWords(change)}`}
        </text>
      )}
    </g>
  );
}

/** What is emptied into another vessel: from the foot of the one into the head of the other. */
function Poured({ pour, layout }: { pour: Pour; layout: Layout }) {
  const y = layout.top(pour.row);
  const from = layout.middle(pour.from);
  const to = layout.middle(pour.to);
  const wide = layout.wide(pour.grams);
  const thick = Math.min(16, Math.max(3, wide / 3));
  const turn = from < to ? 1 : -1;
  return (
    <path
      d={`M${from - wide / 2} ${y - 1} C${from - wide / 2} ${y + thick + 8} ${from + turn * 16} ${y + thick + 6} ${to} ${y + thick + 6} V${y + 6} C${from + turn * 24} ${y + 4} ${from + wide / 2} ${y + 6} ${from + wide / 2} ${y - 1} Z`}
      fill={fill(pour.material)}
      stroke="var(--color-ink)"
      strokeWidth="0.9"
    />
  );
}

function Added({ entry, layout, blocks }: { entry: GoesIn; layout: Layout; blocks: readonly Block[] }) {
  const block = blocks.find((other) => other.from === entry.row && other.column === entry.column);
  const to = layout.middle(entry.column) - layout.wide(block?.grams ?? 0) / 2;
  const shown = entry.items.slice(0, entry.items.length > MOST_NAMES ? MOST_NAMES - 1 : MOST_NAMES);
  const more = entry.items.length - shown.length;
  let y = layout.top(entry.row) + 4;
  return (
    <g>
      {shown.map((item) => {
        const thick = Math.min(14, Math.max(1, layout.wide(item.grams) / 4));
        const at = y;
        y += Math.max(15, thick + 3);
        return (
          <g key={item.name}>
            <text x={NAMES - 14} y={at + thick / 2 + 4} textAnchor="end" fontSize="13">
              {short(item.name)}
            </text>
            <rect
              x={NAMES - 9}
              y={at}
              width={Math.max(2, to - NAMES + 9)}
              height={thick}
              fill={thick > 2 ? fill(item.material) : "var(--color-ink)"}
              stroke="var(--color-ink)"
              strokeWidth={thick > 2 ? 0.8 : 0}
            />
          </g>
        );
      })}
      {more > 0 && (
        <text x={NAMES - 14} y={y + 5} textAnchor="end" fontSize="13" style={{ fill: "var(--color-ink2)" }}>
          {t`and ${more} more`}
        </text>
      )}
    </g>
  );
}

const short = (name: string) => (name.length > 17 ? `${name.slice(0, 16).trimEnd()}…` : name);
