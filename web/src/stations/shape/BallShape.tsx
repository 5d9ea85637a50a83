/** One piece true to scale, the disc and the rope it comes from or the packet it is folded to, and what runs out first. */

import type { BallDrawing, Facts } from "../../api/client";
import { withPart } from "../../sheet/edits";
import type { StationProps } from "../../sheet/SheetPage";
import { Dimension, Extension, Label } from "../../ui/dimension";
import { FactFigure } from "../../ui/FactFigure";
import { fill } from "../../ui/materials";
import { NumberField } from "../../ui/NumberField";

type Remedy = BallDrawing["remedies"][number];

export function BallShape({ bench, way, drawing }: StationProps & { drawing: BallDrawing | null }) {
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
        {drawing && <RunsOut bench={bench} drawing={drawing} facts={facts} onTake={take} />}
        <h3 className="mt-7 text-xl">In each</h3>
        <div className="mt-1 flex flex-wrap items-baseline gap-x-6 gap-y-2">
          <NumberField
            label={capital(drawing?.dough_name ?? "dough")}
            value={typeof dough === "number" ? dough : (pieces.dough_g ?? null)}
            unit="g"
            min={1}
            max={500}
            width="4rem"
            onChange={(dough_g) => edit({ ...sheet, pieces: { ...pieces, dough_g } })}
          />
          {sheet.parts.some((part) => part.role === "filling") && (
            <NumberField
              label={capital(way.words.filling ?? "filling")}
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
            ? "Clear “pieces wanted” to make as many as there is stuff for."
            : "As many as there is stuff for."}
        </p>
        <PartsOnIt bench={bench} />
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

/** What else goes on or round each piece, and the leaves to soak. */
function PartsOnIt({ bench }: { bench: StationProps["bench"] }) {
  const { facts } = bench.worked;
  const rows = bench.sheet.parts
    .map((part) => ({ name: part.name || part.role, key: `part.${part.role}.piece_g` }))
    .filter(({ key }) => facts[key]);
  const leaves = facts["shape.wrappers"];
  if (!rows.length && !leaves) return null;
  return (
    <ul className="mt-4">
      {rows.map(({ name, key }) => (
        <li key={key} className="hairline flex items-baseline justify-between gap-3 py-1">
          <span>{capital(name)} for each</span>
          <FactFigure facts={facts} name={key} className="font-bold">
            {number(facts, key, 1)} g
          </FactFigure>
        </li>
      ))}
      {leaves && (
        <li className="hairline flex items-baseline justify-between gap-3 py-1">
          <span>{capital(leaves.label)}</span>
          <FactFigure facts={facts} name="shape.wrappers" className="font-bold">
            {number(facts, "shape.wrappers")}
          </FactFigure>
        </li>
      )}
    </ul>
  );
}

const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);
const number = (facts: Facts, key: string, decimals = 0) => Number(facts[key]?.value ?? 0).toFixed(decimals);

export function BallSection({ drawing, facts }: { drawing: BallDrawing; facts: Facts }) {
  const r = 148;
  const cx = 190;
  const cy = 190;
  const scale = r / (drawing.outer_mm / 2);
  const cone = drawing.form === "parcel";
  // A cone holds a smaller circle than the ball of its weight: what lies in it is drawn to that.
  const inner = (drawing.core_mm / 2) * scale * (cone ? 0.62 : 1);
  const outer = drawing.outside ? "filling" : "starch";
  const core = drawing.outside ? "cooked" : "filling";
  const shellName = drawing.outside ? drawing.filling_name : drawing.dough_name;
  const shellG = number(facts, drawing.outside ? "shape.filling_g" : "shape.base_g", 1);
  const coreG = number(facts, drawing.outside ? "shape.base_g" : "shape.filling_g", 1);
  const coreName = drawing.outside ? drawing.dough_name : drawing.filling_name;
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
  const shell = drawing.outside ? "coat" : "skin";
  const round = drawing.form === "ball" || drawing.form === "pull";
  // A cone is widest below: what lies in it lies there.
  const coreY = cone ? cy + r * 0.44 : cy;
  const says = `A ${drawing.piece_name} ${number(facts, "shape.diameter_mm")} mm across${drawing.core_mm ? `, ${shell} ${number(facts, "shape.skin_mm", 1)} mm` : ""}`;
  return (
    <svg viewBox="0 0 720 440" className="block w-full" role="img" aria-label={says}>
      <Outline form={drawing.form} cx={cx} cy={cy} r={r} material={outer} />
      {drawing.core_mm > 0 && (
        <>
          <circle cx={cx} cy={coreY} r={inner} fill={fill(core)} stroke="var(--color-ink)" strokeWidth="1.6" />
          <Label x={cx} y={coreY - 2} size={24} bold anchor="middle" halo>
            {coreG} g
          </Label>
          <Label x={cx} y={coreY + 18} size={15} anchor="middle" halo>
            {coreName}
          </Label>
        </>
      )}
      {drawing.core_mm > 0 && drawing.form === "ball" && (
        <>
          <path d={`M${bx + 34} ${by - 34}L${bx} ${by}`} stroke="var(--color-ink)" />
          <Dimension x1={ax} y1={ay} x2={bx} y2={by} />
          <path d={`M${bx + 34} ${by - 34}h12`} stroke="var(--color-ink)" />
          <Label x={bx + 54} y={by - 36} bold size={19} tone={thin ? "bean" : "ink"}>
            {shell} {number(facts, "shape.skin_mm", 1)} mm
          </Label>
          <Label x={bx + 54} y={by - 17} size={14.5} tone={thin ? "bean" : "ink2"}>
            {drawing.least_skin_mm > 0 ? `tears under ${drawing.least_skin_mm.toFixed(1)} mm` : ""}
          </Label>
        </>
      )}
      <Label
        x={cx}
        y={cone ? cy + r + 30 : drawing.core_mm ? (drawing.outside ? 30 : cy + (inner + r) / 2 + 6) : cy + 6}
        bold
        size={18}
        anchor="middle"
        halo
      >
        {shellG} g {shellName}
      </Label>
      {round && (
        <>
          <Extension x1={cx - r} y1={cy} x2={cx - r} y2={cy + r + 48} />
          <Extension x1={cx + r} y1={cy} x2={cx + r} y2={cy + r + 48} />
          <Dimension x1={cx - r} y1={cy + r + 40} x2={cx + r} y2={cy + r + 40} />
          <Label x={cx} y={cy + r + 30} bold size={19} anchor="middle">
            {number(facts, "shape.diameter_mm")} mm across
          </Label>
        </>
      )}
      {disc > 0 && (
        <g transform="translate(440 216)">
          <Label x={0} y={0} size={15} tone="ink2">
            flatten {drawing.outside ? `the ${shellName}` : ""} to a disc, belly in the middle
          </Label>
          <path
            d={`M0 44q${(disc * small) / 2} -30 ${disc * small} 0q${(-disc * small) / 2} 12 ${-disc * small} 0z`}
            fill={fill(outer)}
            stroke="var(--color-ink)"
            strokeWidth="1.6"
          />
          <Dimension x1={0} y1={66} x2={disc * small} y2={66} />
          <Label x={disc * small + 12} y={72} bold size={18}>
            {disc.toFixed(0)} mm
          </Label>
        </g>
      )}
      {drawing.form === "packet" && <Packet facts={facts} />}
      {rope > 0 && (
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
      )}
    </svg>
  );
}

interface OutlineProps {
  form: BallDrawing["form"];
  cx: number;
  cy: number;
  r: number;
  material: string;
}

/** The outside of a piece by its form: a ball, a cone of leaf, a flat packet. */
function Outline({ form, cx, cy, r, material }: OutlineProps) {
  if (form === "parcel")
    return (
      <>
        <path
          d={`M${cx - r * 1.12} ${cy + r}L${cx} ${cy - r}L${cx + r * 1.12} ${cy + r}Z`}
          fill={fill("leaf")}
          stroke="var(--color-ink)"
          strokeWidth="2"
          strokeLinejoin="round"
        />
        <path
          d={`M${cx - r * 0.97} ${cy + r * 0.92}L${cx} ${cy - r * 0.82}L${cx + r * 0.97} ${cy + r * 0.92}Z`}
          fill={fill(material)}
          stroke="var(--color-ink)"
          strokeLinejoin="round"
        />
        <path
          d={`M${cx - r * 0.66} ${cy + r * 0.18}q${r * 0.66} 26 ${r * 1.32} 0`}
          fill="none"
          stroke="var(--color-ink)"
        />
      </>
    );
  if (form === "packet")
    return (
      <>
        <rect
          x={cx - r}
          y={cy - 46}
          width={2 * r}
          height="92"
          rx="10"
          fill="#d9d9d4"
          stroke="var(--color-ink)"
          strokeWidth="2"
        />
        <rect
          x={cx - r + 7}
          y={cy - 39}
          width={2 * r - 14}
          height="78"
          rx="8"
          fill={fill("leaf")}
          stroke="var(--color-ink)"
        />
        <rect
          x={cx - r + 16}
          y={cy - 30}
          width={2 * r - 32}
          height="60"
          rx="6"
          fill={fill("batter")}
          stroke="var(--color-ink)"
        />
      </>
    );
  return <circle cx={cx} cy={cy} r={r} fill={fill(material)} stroke="var(--color-ink)" strokeWidth="2" />;
}

/** The packet that the piece is folded to, from above and from the side, and the square of foil round it. */
function Packet({ facts }: { facts: Facts }) {
  const side = Number(facts["shape.side_mm"]?.value ?? 0);
  const thick = Number(facts["shape.thick_mm"]?.value ?? 0);
  const foil = Number(facts["shape.foil_mm"]?.value ?? 0);
  const scale = 190 / Math.max(foil, 1);
  const at = ((foil - side) / 2) * scale;
  return (
    <g transform="translate(440 120)">
      <Label x={0} y={-14} size={15} tone="ink2">
        leaf inside, foil outside
      </Label>
      <rect width={foil * scale} height={foil * scale} fill="#d9d9d4" stroke="var(--color-ink)" strokeWidth="1.4" />
      <rect
        x={at * 0.5}
        y={at * 0.5}
        width={(foil - (foil - side) / 2) * scale}
        height={(foil - (foil - side) / 2) * scale}
        fill={fill("leaf")}
        stroke="var(--color-ink)"
      />
      <rect x={at} y={at} width={side * scale} height={side * scale} fill={fill("batter")} stroke="var(--color-ink)" />
      <Label x={at + (side * scale) / 2} y={at + (side * scale) / 2 + 6} size={16} bold anchor="middle" halo>
        {side.toFixed(0)} mm
      </Label>
      <Dimension x1={0} y1={foil * scale + 16} x2={foil * scale} y2={foil * scale + 16} />
      <Label x={foil * scale + 12} y={foil * scale + 22} bold size={17}>
        {foil.toFixed(0)} mm
      </Label>
      <Label x={0} y={foil * scale + 48} size={15} tone="ink2">
        {thick.toFixed(0)} mm thick, room to swell
      </Label>
    </g>
  );
}

interface RunsOutProps {
  bench: StationProps["bench"];
  drawing: BallDrawing;
  facts: Facts;
  onTake: (remedy: Remedy) => void;
}

function RunsOut({ bench, drawing, facts, onTake }: RunsOutProps) {
  const value = (key: string) => Number(facts[key]?.value ?? 0);
  const dough = value("shape.base_enough_for");
  const filling = value("shape.filling_enough_for");
  const short = facts["shape.short_of"]?.value;
  const pieces = value("shape.pieces");
  const left = value("shape.left_over_g");
  const { dough_name, filling_word, piece_name } = drawing;
  const bars = [
    { name: dough_name, words: dough_name, total: drawing.dough_total_g, count: dough, material: "starch" },
    ...(filling
      ? [
          {
            name: filling_word,
            words: drawing.filling_name || filling_word,
            total: drawing.filling_total_g,
            count: filling,
            material: "filling",
          },
        ]
      : []),
    ...bench.sheet.parts
      .filter((part) => facts[`part.${part.role}.enough_for`])
      .map((part) => ({
        name: part.name || part.role,
        words: part.name || part.role,
        total: value(facts[`part.${part.role}.have_g`] ? `part.${part.role}.have_g` : `part.${part.role}.made_g`),
        count: value(`part.${part.role}.enough_for`),
        material: "sugar",
      })),
  ];
  const unit = 340 / Math.max(...bars.map((bar) => bar.count), 1);
  const other = short === dough_name ? filling_word : dough_name;
  const words =
    short === "nothing"
      ? `${pieces} ${piece_name}s, and nothing left over to speak of`
      : `the ${short}, after ${Math.floor(Math.min(...bars.map((bar) => bar.count)) + 1e-6)} ${piece_name}s${left >= 1 ? `: ${left.toFixed(0)} g of ${other} left over` : ""}`;
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
              {bar.words} {bar.total.toFixed(0)} g
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
