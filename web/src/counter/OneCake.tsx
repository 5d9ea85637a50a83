/** One cake through the line: bowl, tin, heat, knife and clock, each from the one before. Its figures are the core's own. */

import { t } from "@lingui/core/macro";
import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { FIRST_CAKE } from "../api/firstCake";
import { Drawing } from "../ui/Drawing";
import { Dimension, Label } from "../ui/dimension";
import { fill } from "../ui/materials";
import { minutes } from "../ui/words";

const { bar, tin, core, cuts, steps, facts } = FIRST_CAKE;
const PART = 200; // units for each stop
const [TOP, FOOT] = [34, 150];
const before = Math.max(...steps.map(([at, lasts]) => at + lasts));
const figure = (key: keyof typeof facts) => facts[key];

export function OneCake() {
  const says = t`A steamed cake: ${figure("mix.hydration_pct").toFixed(0)} per cent water, ${figure("shape.depth_mm").toFixed(0)} mm deep, ${figure("heat.done_min").toFixed(0)} minutes in the steam, cut after ${minutes(figure("rest.cut_after_min"))}, ${figure("cut.pieces")} pieces`;
  return (
    <Drawing viewBox="0 0 1000 236" className="block w-full min-w-[720px]" role="img" aria-label={says}>
      <Bowl />
      <g transform={`translate(${PART} 0)`}>
        <Tin />
      </g>
      <g transform={`translate(${2 * PART} 0)`}>
        <Curve />
      </g>
      <g transform={`translate(${3 * PART} 0)`}>
        <Knife />
      </g>
      <g transform={`translate(${4 * PART} 0)`}>
        <Day />
      </g>
      <line x1="0" x2="1000" y1="178" y2="178" stroke="var(--color-ink)" strokeWidth="1.6" />
      {(
        [
          ["Mix", t`${figure("mix.hydration_pct").toFixed(0)} % water`],
          ["Shape", t`${figure("shape.depth_mm").toFixed(0)} mm deep`],
          ["Heat", t`${figure("heat.done_min").toFixed(0)} min steam`],
          ["Rest and cut", t`${minutes(figure("rest.cut_after_min"))} till it cuts`],
          ["Plan", t`begin ${minutes(before)} before`],
        ] as const
      ).map(([stop, words], i) => (
        <g key={stop} transform={`translate(${i * PART} 0)`}>
          {i === 0 ? (
            <ellipse cx="10" cy="178" rx="11" ry="7.5" transform="rotate(-18 10 178)" fill="var(--color-bean)" />
          ) : (
            <circle cx="10" cy="178" r="5" fill="var(--color-paper)" stroke="var(--color-ink)" strokeWidth="1.4" />
          )}
          <Label x={0} y={206} size={15} tone="ink2">
            {stop}
          </Label>
          <Label x={0} y={228} size={18} bold>
            {words}
          </Label>
        </g>
      ))}
    </Drawing>
  );
}

function Bowl() {
  const total = bar.reduce((sum, [, grams]) => sum + grams, 0);
  let at = FOOT;
  return bar.map(([material, grams]) => {
    const high = (grams / total) * (FOOT - TOP);
    at -= high;
    return (
      <rect
        key={material}
        x="10"
        y={at}
        width="110"
        height={high}
        fill={fill(material)}
        stroke="var(--color-ink)"
        strokeWidth="1.2"
      />
    );
  });
}

function Tin() {
  const scale = 130 / tin[0];
  const [wide, high, deep] = [130, tin[1] * scale, figure("shape.depth_mm") * scale];
  return (
    <>
      <rect x="10" y={FOOT - deep} width={wide} height={deep} fill={fill("batter")} />
      <path
        d={`M10 ${FOOT - high}V${FOOT}H${10 + wide}V${FOOT - high}`}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth="3"
      />
      <Dimension x1={10 + wide + 16} y1={FOOT - deep} x2={10 + wide + 16} y2={FOOT} />
      <Dimension x1={10} y1={FOOT - high - 16} x2={10 + wide} y2={FOOT - high - 16} />
    </>
  );
}

function Curve() {
  const x = scaleLinear([0, figure("heat.latest_min") * 1.05], [10, 175]);
  const y = scaleLinear([20, 104], [FOOT, TOP]);
  const path = line<readonly number[]>()
    .x(([m = 0]) => x(m))
    .y(([, c = 0]) => y(c));
  const [first, latest] = [x(figure("heat.first_check_min")), x(figure("heat.latest_min"))];
  return (
    <>
      <rect x={first} y={TOP} width={latest - first} height={FOOT - TOP} fill="var(--color-green)" opacity="0.16" />
      <line
        x1={x(figure("heat.done_min"))}
        x2={x(figure("heat.done_min"))}
        y1={TOP}
        y2={FOOT}
        stroke="var(--color-green)"
        strokeWidth="2.4"
      />
      <path
        d={path(core.filter(([m]) => m <= figure("heat.latest_min"))) ?? ""}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth="2.6"
      />
      <path d={`M10 ${TOP}V${FOOT}H175`} fill="none" stroke="var(--color-ink)" />
    </>
  );
}

function Knife() {
  const scale = (FOOT - TOP) / tin[0];
  const r = (FOOT - TOP) / 2;
  return (
    <g transform={`translate(22 ${TOP})`}>
      <circle cx={r} cy={r} r={r} fill={fill("batter")} stroke="var(--color-ink)" strokeWidth="2" />
      <path
        d={cuts.map(([x1, y1, x2, y2]) => `M${x1 * scale} ${y1 * scale}L${x2 * scale} ${y2 * scale}`).join("")}
        stroke="var(--color-ink)"
        strokeWidth="1.2"
      />
    </g>
  );
}

/** Every step where it lies, a row each; the table at the end. */
function Day() {
  const x = scaleLinear([0, before], [10, 176]);
  const row = (FOOT - TOP) / steps.length;
  return (
    <>
      {steps.map(([at, lasts, how], i) => (
        <rect
          key={`${at} ${lasts}`}
          x={x(at)}
          y={TOP + i * row}
          width={Math.max(2, x(at + lasts) - x(at))}
          height={how === "free" ? row * 0.4 : row * 0.85}
          fill={how === "held" ? "var(--color-bean)" : how === "minded" ? "var(--color-sheet)" : fill("water")}
          stroke="var(--color-ink)"
          strokeWidth="0.8"
        />
      ))}
      <line x1="176" x2="176" y1={TOP} y2={FOOT} stroke="var(--color-bean)" strokeWidth="3" />
    </>
  );
}
