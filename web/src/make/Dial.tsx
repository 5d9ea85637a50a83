/** The clock of a step: time gone as an arc, the window of first check, done and latest round its rim. */

import { arc } from "d3-shape";
import { Drawing } from "../ui/Drawing";
import { Label } from "../ui/dimension";
import { clock } from "../ui/words";

const TURNS = [2, 5, 10, 15, 30, 60, 120, 240, 480, 1440, 2880];

interface Props {
  elapsedS: number;
  totalMin: number;
  window: { first_check: number; done: number; latest: number } | null;
  words: string;
  likely: string;
  late: boolean;
}

export function Dial({ elapsedS, totalMin, window: span, words, likely, late }: Props) {
  const turn = TURNS.find((turn) => turn >= Math.max(span?.latest ?? 0, totalMin) * 1.02) ?? 2880;
  const angle = (min: number) => Math.min(1, min / turn) * 2 * Math.PI;
  const ring = (from: number, to: number, inner: number, outer: number) =>
    arc()({ startAngle: from, endAngle: to, innerRadius: inner, outerRadius: outer }) ?? undefined;
  const ticks = Array.from({ length: 60 }, (_, i) => i * 6);
  return (
    <Drawing
      viewBox="-200 -200 400 400"
      className="mx-auto block w-full max-w-[230px] sm:max-w-[400px]"
      role="timer"
      aria-label={`${words}: ${clock(elapsedS)}. ${likely}`}
    >
      <circle r="178" fill="none" stroke="var(--color-ink)" strokeWidth="1.6" />
      {ticks.map((degrees) => (
        <line
          key={degrees}
          y1="-178"
          y2={degrees % 30 === 0 ? -164 : -171}
          transform={`rotate(${degrees})`}
          stroke="var(--color-ink2)"
          strokeWidth={degrees % 90 === 0 ? 1.8 : 0.9}
        />
      ))}
      {span ? (
        <>
          <path
            d={ring(angle(span.first_check), angle(span.latest), 182, 197)}
            fill="var(--color-green)"
            opacity="0.3"
          />
          <path d={ring(angle(span.done) - 0.035, angle(span.done) + 0.035, 182, 197)} fill="var(--color-green)" />
        </>
      ) : (
        <path d={ring(angle(totalMin) - 0.03, angle(totalMin) + 0.03, 182, 197)} fill="var(--color-green)" />
      )}
      <path d={ring(0, angle(elapsedS / 60), 146, 159)} fill="var(--color-bean)" />
      <text
        textAnchor="middle"
        y="4"
        fontSize={elapsedS >= 3600 ? 72 : 86}
        fontWeight="700"
        style={{ fill: late ? "var(--color-bean)" : undefined }}
      >
        {clock(elapsedS)}
      </text>
      <Label x={0} y={48} anchor="middle" size={19} tone="ink2">
        {words}
      </Label>
      <Label x={0} y={80} anchor="middle" size={20} bold tone={late ? "bean" : "green"}>
        {likely}
      </Label>
    </Drawing>
  );
}
