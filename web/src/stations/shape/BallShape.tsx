/** A filled ball true to scale, the disc and the rope it comes from, and what runs out first. */

import type { BallDrawing, Facts } from "../../api/client";
import { withPart } from "../../sheet/edits";
import type { StationProps } from "../../sheet/SheetPage";
import { Dimension, Extension, Label } from "../../ui/dimension";
import { FactFigure } from "../../ui/FactFigure";
import { fill } from "../../ui/materials";
import { NumberField } from "../../ui/NumberField";

type Remedy = BallDrawing["remedies"][number];

export function BallShape({ bench, drawing }: StationProps & { drawing: BallDrawing | null }) {
  const { sheet, worked, edit } = bench;
  const { facts } = worked;
  const pieces = sheet.pieces;
  const dough = facts["shape.base_g"]?.value;
  const filling = facts["shape.filling_g"]?.value;

  const take = (remedy: Remedy) => {
    let next = { ...sheet, pieces: { ...pieces } };
    if (remedy.count != null) next.pieces.count = remedy.count;
    if (remedy.filling_g != null) next.pieces.filling_g = remedy.filling_g;
    if (remedy.count == null) next.pieces.count = null;
    for (const [role, factor] of [
      ["filling", remedy.filling_part_factor],
      ["base", remedy.dough_part_factor],
    ] as const) {
      if (factor != null)
        next = withPart(next, role, (part) => ({
          ...part,
          lines: part.lines.map((line) => ({
            ...line,
            amount: { ...line.amount, value: line.amount.value * factor },
          })),
        }));
    }
    edit(next);
  };

  return (
    <div className="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)]">
      <section aria-label="The piece in cross-section">
        {drawing && <BallSection drawing={drawing} facts={facts} />}
      </section>
      <section aria-label="What runs out first">
        {drawing && <RunsOut drawing={drawing} facts={facts} onTake={take} />}
        <h3 className="mt-7 text-xl">In each</h3>
        <div className="mt-1 flex flex-wrap items-baseline gap-x-6 gap-y-2">
          <NumberField
            label="Dough"
            value={typeof dough === "number" ? dough : (pieces.dough_g ?? null)}
            unit="g"
            min={1}
            max={500}
            width="4rem"
            onChange={(dough_g) => edit({ ...sheet, pieces: { ...pieces, dough_g } })}
          />
          {sheet.parts.some((part) => part.role === "filling") && (
            <NumberField
              label="Filling"
              value={typeof filling === "number" ? filling : (pieces.filling_g ?? null)}
              unit="g"
              min={0.5}
              max={300}
              width="4rem"
              onChange={(filling_g) => edit({ ...sheet, pieces: { ...pieces, filling_g } })}
            />
          )}
          <NumberField
            label="Pieces wanted"
            value={pieces.count ?? null}
            decimals={0}
            min={1}
            max={500}
            width="4rem"
            onClear={() => edit({ ...sheet, pieces: { ...pieces, count: null } })}
            onChange={(count) => edit({ ...sheet, pieces: { ...pieces, count: Math.round(count) } })}
          />
        </div>
        <p className="mt-2 text-sm text-ink2">
          {pieces.count
            ? "Clear “pieces wanted” to make as many as there is dough and filling for."
            : "As many as there is dough and filling for."}
        </p>
        {facts["rest.freeze_filling_min"] && (
          <p className="mt-5">
            Filling balls:{" "}
            <FactFigure facts={facts} name="rest.freeze_filling_min" className="font-bold">
              {Number(facts["rest.freeze_filling_min"].value).toFixed(0)} min
            </FactFigure>{" "}
            in the freezer, then{" "}
            <FactFigure facts={facts} name="rest.take_out" className="font-bold">
              {Number(facts["rest.take_out"]?.value).toFixed(0)} at a time
            </FactFigure>{" "}
            to the board: they soften in{" "}
            <FactFigure facts={facts} name="rest.soften_min" className="font-bold">
              {Number(facts["rest.soften_min"]?.value).toFixed(0)} min
            </FactFigure>
            .
          </p>
        )}
      </section>
    </div>
  );
}

const number = (facts: Facts, key: string, decimals = 0) => Number(facts[key]?.value ?? 0).toFixed(decimals);

export function BallSection({ drawing, facts }: { drawing: BallDrawing; facts: Facts }) {
  const r = 148;
  const cx = 190;
  const cy = 190;
  const scale = r / (drawing.outer_mm / 2);
  const inner = (drawing.core_mm / 2) * scale;
  const thin = drawing.core_mm > 0 && (drawing.outer_mm - drawing.core_mm) / 2 < drawing.least_skin_mm;
  const lean = -Math.PI / 4;
  const on = (radius: number) => [cx + radius * Math.cos(lean), cy + radius * Math.sin(lean)] as const;
  const [ax, ay] = on(inner);
  const [bx, by] = on(r);
  // The rope and the disc share one scale: a millimetre is as long in both.
  const disc = Number(facts["shape.disc_mm"]?.value ?? 0);
  const rope = Number(facts["shape.rope_mm"]?.value ?? 0);
  const cut = Number(facts["shape.rope_cut_mm"]?.value ?? 0);
  const small = Math.min(1.9, 150 / Math.max(disc, 1), 230 / Math.max(4 * cut, 1));
  const says = `A ball ${number(facts, "shape.diameter_mm")} mm across${drawing.core_mm ? `, skin ${number(facts, "shape.skin_mm", 1)} mm` : ""}`;
  return (
    <svg viewBox="0 0 720 440" className="block w-full" role="img" aria-label={says}>
      <circle cx={cx} cy={cy} r={r} fill={fill("starch")} stroke="var(--color-ink)" strokeWidth="2" />
      {drawing.core_mm > 0 && (
        <>
          <circle cx={cx} cy={cy} r={inner} fill={fill("filling")} stroke="var(--color-ink)" strokeWidth="1.6" />
          <g style={{ fill: "#faf6ec" }}>
            <text
              x={cx}
              y={cy - 4}
              textAnchor="middle"
              fontSize="24"
              fontWeight="700"
              style={{ fill: "#faf6ec", paintOrder: "stroke", stroke: "#6a3d2b", strokeWidth: 5 }}
            >
              {number(facts, "shape.filling_g", 1)} g
            </text>
            <text
              x={cx}
              y={cy + 18}
              textAnchor="middle"
              fontSize="15"
              style={{ fill: "#faf6ec", paintOrder: "stroke", stroke: "#6a3d2b", strokeWidth: 5 }}
            >
              {drawing.filling_name}
            </text>
          </g>
          <path d={`M${bx + 34} ${by - 34}L${bx} ${by}`} stroke="var(--color-ink)" />
          <Dimension x1={ax} y1={ay} x2={bx} y2={by} />
          <path d={`M${bx + 34} ${by - 34}h12`} stroke="var(--color-ink)" />
          <Label x={bx + 54} y={by - 36} bold size={19} tone={thin ? "bean" : "ink"}>
            skin {number(facts, "shape.skin_mm", 1)} mm
          </Label>
          <Label x={bx + 54} y={by - 17} size={14.5} tone={thin ? "bean" : "ink2"}>
            tears under {drawing.least_skin_mm.toFixed(1)} mm
          </Label>
        </>
      )}
      <Label x={cx} y={cy + (drawing.core_mm ? (inner + r) / 2 + 6 : 6)} bold size={18} anchor="middle" halo>
        {number(facts, "shape.base_g", 1)} g dough
      </Label>
      <Extension x1={cx - r} y1={cy} x2={cx - r} y2={cy + r + 48} />
      <Extension x1={cx + r} y1={cy} x2={cx + r} y2={cy + r + 48} />
      <Dimension x1={cx - r} y1={cy + r + 40} x2={cx + r} y2={cy + r + 40} />
      <Label x={cx} y={cy + r + 30} bold size={19} anchor="middle">
        {number(facts, "shape.diameter_mm")} mm across
      </Label>
      {disc > 0 && (
        <g transform="translate(440 216)">
          <Label x={0} y={0} size={15} tone="ink2">
            flatten to a disc, belly in the middle
          </Label>
          <path
            d={`M0 44q${(disc * small) / 2} -30 ${disc * small} 0q${(-disc * small) / 2} 12 ${-disc * small} 0z`}
            fill={fill("starch")}
            stroke="var(--color-ink)"
            strokeWidth="1.6"
          />
          <Dimension x1={0} y1={66} x2={disc * small} y2={66} />
          <Label x={disc * small + 12} y={72} bold size={18}>
            {disc.toFixed(0)} mm
          </Label>
        </g>
      )}
      <g transform="translate(440 326)">
        <Label x={0} y={0} size={15} tone="ink2">
          roll to a rope of {rope.toFixed(0)} mm, cut every
        </Label>
        {[0, 1, 2, 3].map((i) => (
          <rect
            key={i}
            x={i * cut * small}
            y={14}
            width={cut * small}
            height={rope * small}
            fill={fill("starch")}
            stroke="var(--color-ink)"
            strokeWidth="1.4"
          />
        ))}
        <Dimension x1={0} y1={rope * small + 30} x2={cut * small} y2={rope * small + 30} />
        <Label x={cut * small + 12} y={rope * small + 36} bold size={18}>
          {cut.toFixed(0)} mm
        </Label>
      </g>
    </svg>
  );
}

function RunsOut({ drawing, facts, onTake }: { drawing: BallDrawing; facts: Facts; onTake: (remedy: Remedy) => void }) {
  const dough = Number(facts["shape.base_enough_for"]?.value ?? 0);
  const filling = Number(facts["shape.filling_enough_for"]?.value ?? 0);
  const short = facts["shape.short_of"]?.value;
  const pieces = Number(facts["shape.pieces"]?.value ?? 0);
  const left = Number(facts["shape.left_over_g"]?.value ?? 0);
  const unit = 340 / Math.max(dough, filling, 1);
  const bars = [
    { name: "dough", total: drawing.dough_total_g, count: dough, material: "starch" },
    ...(filling ? [{ name: "filling", total: drawing.filling_total_g, count: filling, material: "filling" }] : []),
  ];
  const words =
    short === "nothing" || !filling
      ? `${pieces} balls, and nothing left over to speak of`
      : `the ${short}, after ${pieces} balls: ${left.toFixed(0)} g of ${short === "filling" ? "dough" : "filling"} left over`;
  return (
    <>
      <h3 className="text-xl">What runs out first</h3>
      <svg
        viewBox={`0 0 420 ${bars.length * 62 + 26}`}
        className="mt-1 block w-full max-w-[500px]"
        role="img"
        aria-label={words}
      >
        {bars.map((bar, i) => (
          <g key={bar.name} transform={`translate(0 ${i * 62})`}>
            <Label x={0} y={16} size={15}>
              {bar.name} {bar.total.toFixed(0)} g
            </Label>
            <rect
              x="1"
              y="24"
              width={bar.count * unit}
              height="26"
              fill={fill(bar.material)}
              stroke="var(--color-ink)"
              strokeWidth="1.3"
            />
            <Label x={bar.count * unit + 10} y={43} bold size={17} tone={short === bar.name ? "bean" : "ink"}>
              {bar.count.toFixed(1)}
            </Label>
          </g>
        ))}
        <line
          x1={pieces * unit}
          x2={pieces * unit}
          y1="18"
          y2={bars.length * 62}
          stroke="var(--color-bean)"
          strokeDasharray="4 4"
          strokeWidth="1.5"
        />
      </svg>
      <p className={short === "nothing" ? "text-green" : "text-bean"}>
        <FactFigure facts={facts} name="shape.short_of">
          {words}
        </FactFigure>
      </p>
      {drawing.remedies.length > 0 && (
        <div className="mt-3 flex flex-wrap gap-2">
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
