/** What runs out first: each part as a bar of the pieces it is enough for, and three ways to come out even. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { BallDrawing, FactKey, Facts, Part } from "../../api/client";
import type { Editing } from "../../sheet/useSheet";
import { Drawing } from "../../ui/Drawing";
import { Label } from "../../ui/dimension";
import { FactFigure } from "../../ui/FactFigure";
import { useFormatters } from "../../ui/formatters";
import { fill } from "../../ui/materials";
import { fixed } from "../../words/numbers";
import { said } from "../../words/said";

type Remedy = BallDrawing["remedies"][number];

interface Props {
  editing: Editing;
  drawing: BallDrawing;
  facts: Facts;
  /** How many dough and filling are enough for under the hand, while it drags. */
  live: { dough: number; filling: number | null } | null;
  onTake: (remedy: Remedy) => void;
}

interface Bar {
  name: string;
  words: string;
  total: number;
  count: number;
  material: string;
}

export function RunsOut({ editing, drawing, facts, live, onTake }: Props) {
  const { weightWords } = useFormatters();
  const value = (key: FactKey) => Number(facts[key]?.value ?? 0);
  const dough = live?.dough ?? value("shape.base_enough_for");
  const filling = live ? live.filling : facts["shape.filling_enough_for"] ? value("shape.filling_enough_for") : null;
  const short = String(facts["shape.short_of"]?.value ?? "");
  const pieces = live ? Math.floor(Math.min(live.dough, live.filling ?? Infinity) + 1e-6) : value("shape.pieces");
  const left = value("shape.left_over_g");
  const { dough_name, filling_word, piece_names } = drawing;
  const bars: Bar[] = [
    { name: dough_name, words: dough_name, total: drawing.dough_total_g, count: dough, material: "starch" },
  ];
  if (filling != null)
    bars.push({
      name: filling_word,
      words: drawing.filling_name || filling_word,
      total: drawing.filling_total_g,
      count: filling,
      material: "filling",
    });
  for (const part of editing.sheet.parts) {
    if (part.role === "base") continue;
    const have = value(facts[`part.${part.id}.have_g`] ? `part.${part.id}.have_g` : `part.${part.id}.made_g`);
    const name = part.name || part.id;
    const count = enoughOf(facts, part, have);
    if (count != null)
      bars.push({ name, words: name, total: have, count, material: part.role === "heart" ? "leaf" : "sugar" });
  }
  const unit = 340 / Math.max(...bars.map((bar) => bar.count), 1);
  const other = short === dough_name ? filling_word : dough_name;
  const isShort =
    bars.some((bar) => bar.name === short) || editing.sheet.parts.some((part) => said(part.role) === short);
  const words = !isShort
    ? t`${pieces} ${piece_names}, and ${left >= 1 ? t`${weightWords(left, 0)} of ${dough_name}` : t`nothing`} left over${left >= 1 ? "" : t` to speak of`}`
    : t`the ${short}, after ${Math.floor(Math.min(...bars.map((bar) => bar.count)) + 1e-6)} ${piece_names}${left >= 1 ? t`: ${weightWords(left, 0)} of ${other} left over` : ""}`;
  return (
    <>
      <h3 className="text-xl">
        <Trans>What runs out first</Trans>
      </h3>
      <Drawing
        viewBox={`0 0 420 ${bars.length * 54 + 12}`}
        className="mt-1 block w-full max-w-[460px]"
        role="img"
        aria-label={words}
      >
        {bars.map((bar, i) => (
          <g key={bar.name} transform={`translate(0 ${i * 54})`}>
            <Label x={0} y={15} size={15}>
              {bar.words} {weightWords(bar.total, 0)}
            </Label>
            <rect
              x="1"
              y="22"
              width={bar.count * unit}
              height="24"
              fill={fill(bar.material)}
              stroke="var(--color-ink)"
              strokeWidth="1.3"
            />
            <Label x={bar.count * unit + 10} y={40} bold size={17} tone={short === bar.name && !live ? "bean" : "ink"}>
              {fixed(bar.count, 1)}
            </Label>
          </g>
        ))}
        <line
          x1={pieces * unit}
          x2={pieces * unit}
          y1="16"
          y2={bars.length * 54}
          stroke="var(--color-bean)"
          strokeDasharray="4 4"
          strokeWidth="1.5"
        />
      </Drawing>
      <p className={live ? "text-ink2" : !isShort ? "text-green" : "text-bean"}>
        {live ? (
          `${pieces} ${piece_names}`
        ) : (
          <FactFigure facts={facts} name="shape.short_of">
            {words}
          </FactFigure>
        )}
      </p>
      {drawing.remedies.length > 0 && (
        <div className="mt-2 flex flex-wrap gap-2">
          {drawing.remedies.map((remedy) => (
            <button key={remedy.says} type="button" className="pick" onClick={() => onTake(remedy)}>
              {remedy.says}
            </button>
          ))}
        </div>
      )}
    </>
  );
}

/** How many pieces a further part is enough for, where each takes its own of it. */
function enoughOf(facts: Facts, { id, role }: Part, have: number): number | null {
  const heart = Number((facts[`part.${id}.piece_g`] ?? facts["shape.heart_g"])?.value ?? 0);
  if (role === "heart") return heart > 0 ? have / heart : null;
  const fact = facts[`part.${id}.enough_for`];
  return fact ? Number(fact.value) : null;
}
