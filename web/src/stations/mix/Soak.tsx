/** The soak: water taken up over time, a bean to drag along it, and the weights that follow. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import type { KeyboardEvent } from "react";
import type { FactKey, Facts, GrainResult } from "../../api/client";
import { LIMITS } from "../../api/generated";
import { limit } from "../../api/limits";
import type { Editing } from "../../sheet/useSheet";
import { Drawing } from "../../ui/Drawing";
import { Axis, Dimension, Label } from "../../ui/dimension";
import { FactFigure } from "../../ui/FactFigure";
import { FactRows } from "../../ui/FactRows";
import { useFormatters } from "../../ui/formatters";
import { fill } from "../../ui/materials";
import { NumberField } from "../../ui/NumberField";
import { PickRow } from "../../ui/Row";
import { TemperatureField } from "../../ui/TemperatureField";
import { useAim } from "../../ui/useAim";
import { duration } from "../../ui/words";
import { WATER, withWater } from "./water";

const SOAK = LIMITS["Grain.soak_min"];
const W = 680;
const H = 300;
const PAD = { left: 56, right: 30, top: 30, bottom: 54 };

export function Soak({ editing, grain, facts }: { editing: Editing; grain: GrainResult; facts: Facts }) {
  const { sheet, edit } = editing;
  const soak = (change: Partial<typeof sheet.grain>) => edit({ ...sheet, grain: { ...sheet.grain, ...change } });
  const last = grain.minutes.at(-1) ?? 60;
  const x = scaleLinear()
    .domain([0, last])
    .range([PAD.left, W - PAD.right]);
  const y = scaleLinear()
    .domain([0, Math.max(44, grain.most_pct + 3)])
    .range([H - PAD.bottom, PAD.top]);
  const place = (at: DOMPoint) => Math.round(Math.max(0, Math.min(last, x.invert(at.x))) / 5) * 5;
  const { aim, put, grab, canvas } = useAim<number>(`${grain.soak_min} ${grain.soak_c}`, place, (soak_min) =>
    soak({ soak_min }),
  );
  const at = aim ?? grain.soak_min;
  const taken = interpolate(grain, at);
  const hours = scaleLinear()
    .domain([0, last / 60])
    .ticks(6);
  const ticks =
    last > 150
      ? hours.map((t) => ({ at: x(t * 60), text: t ? `${t} h` : "0" }))
      : x.ticks(6).map((t) => ({ at: x(t), text: `${t}` }));
  const path = line<number>()
    .x((_, i) => x(grain.minutes[i] ?? 0))
    .y((pct) => y(pct))(grain.uptake_pct);
  const nudge = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -5, ArrowDown: -5, ArrowRight: 5, ArrowUp: 5 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    put(Math.max(SOAK.min, Math.min(SOAK.max, at + by * (event.shiftKey ? 6 : 1))));
  };
  return (
    <figure className="m-0">
      <Drawing
        {...canvas}
        viewBox={`0 0 ${W} ${H}`}
        className="block w-full touch-none select-none"
        role="group"
        aria-label={t`Soak: water taken up over time`}
      >
        <path d={`${path}V${y(0)}H${x(0)}Z`} fill={fill("water")} opacity="0.6" />
        <path d={path ?? ""} fill="none" stroke="var(--color-ink)" strokeWidth="1.8" />
        <line
          x1={PAD.left}
          x2={W - PAD.right}
          y1={y(grain.most_pct)}
          y2={y(grain.most_pct)}
          stroke="var(--color-ink2)"
          strokeDasharray="6 4"
        />
        <Label x={W - PAD.right} y={y(grain.most_pct) - 6} size={13.5} anchor="end" tone="ink2">
          <Trans>all it takes in water so warm</Trans>
        </Label>
        <Axis along="bottom" from={PAD.left} to={W - PAD.right} cross={H - PAD.bottom} ticks={ticks} />
        <Axis
          along="left"
          from={PAD.top}
          to={H - PAD.bottom}
          cross={PAD.left}
          ticks={y.ticks(5).map((t) => ({ at: y(t), text: `${t}` }))}
        />
        <Label x={PAD.left} y={18} size={14} tone="ink2">
          <Trans>water taken up, % of the dry grain</Trans>
        </Label>
        <Label x={W - PAD.right} y={H - 12} size={14} tone="ink2" anchor="end">
          <Trans>time in the water</Trans>
        </Label>
        <path
          d={`M${PAD.left} ${y(taken)}H${x(at)}V${H - PAD.bottom}`}
          fill="none"
          stroke="var(--color-bean)"
          strokeDasharray="3 4"
        />
        <Label
          x={x(at) + 20}
          y={y(taken) + 24}
          bold
          size={19}
          tone="bean"
          halo
          anchor={at > last * 0.7 ? "end" : "start"}
        >
          <Trans>
            {taken.toFixed(0)} % in {duration(at)}
          </Trans>
        </Label>
        <g
          transform={`translate(${x(at)} ${y(taken)})`}
          className="group cursor-grab outline-none active:cursor-grabbing"
          tabIndex={0}
          role="slider"
          aria-label={t`Soak. Arrow keys change it`}
          aria-valuetext={t`${duration(at)}, ${taken.toFixed(0)} % taken up`}
          aria-valuenow={Math.round(at)}
          aria-valuemin={SOAK.min}
          aria-valuemax={SOAK.max}
          onKeyDown={nudge}
          onPointerDown={grab}
        >
          <circle r="26" fill="transparent" />
          <circle r="20" fill="none" strokeWidth="3" className="stroke-transparent group-focus-visible:stroke-ink" />
          <ellipse rx="15" ry="10" transform="rotate(-18)" fill="var(--color-bean)" />
          <path d="M-8 -1q5-6 13-5" stroke="var(--color-paper)" strokeWidth="1.6" fill="none" strokeLinecap="round" />
        </g>
      </Drawing>
      <GrainScale grain={grain} facts={facts} />
      <figcaption className="mt-1 flex flex-wrap items-baseline gap-x-5 gap-y-1 pl-[8%]">
        <NumberField
          label={t`Rinsed`}
          value={sheet.grain.rinses}
          unit="times"
          decimals={0}
          within={limit("Grain.rinses")}
          width="2.6rem"
          onChange={(rinses) => soak({ rinses: Math.round(rinses) })}
        />
        <NumberField
          label={t`Soaked`}
          value={sheet.grain.soak_min}
          unit="min"
          decimals={0}
          within={limit("Grain.soak_min")}
          step={15}
          width="4rem"
          onChange={(soak_min) => soak({ soak_min })}
        />
        <span>
          <Trans>
            in water of{" "}
            <TemperatureField
              label={t`Water of the soak`}
              celsius={sheet.grain.soak_c}
              within={limit("Grain.soak_c")}
              onChange={(soak_c) => soak({ soak_c })}
            />
          </Trans>
        </span>
        <NumberField
          label={t`Drained`}
          value={sheet.grain.drain_min}
          unit="min"
          decimals={0}
          within={limit("Grain.drain_min")}
          step={5}
          width="3.4rem"
          onChange={(drain_min) => soak({ drain_min })}
        />
      </figcaption>
      {facts["grain.cook_water_g"] && (
        <PickRow
          label={t`The liquid in the bowl is`}
          value={sheet.grain.water}
          options={WATER}
          onChange={(water) => edit(withWater(sheet, editing.worked.lines, facts, water))}
        />
      )}
      <FactRows facts={facts} keys={["grain.total_water_g", "grain.bean_uptake_g"]} />
    </figure>
  );
}

/** Taken up at a time, read off the curve while the bean is dragged. */
function interpolate({ minutes: at, uptake_pct: pct }: GrainResult, time: number): number {
  const i = at.findIndex((m) => m >= time);
  if (i <= 0) return pct[i === 0 ? 0 : pct.length - 1] ?? 0;
  const [a = 0, b = 1] = [at[i - 1], at[i]];
  return (pct[i - 1] ?? 0) + (((pct[i] ?? 0) - (pct[i - 1] ?? 0)) * (time - a)) / (b - a);
}

/** Dry, drained, poured on, cooked: four weights as bars on one scale, the drained one to check. */
function GrainScale({ grain, facts }: { grain: GrainResult; facts: Facts }) {
  const { weightWords } = useFormatters();
  const steps: { key: FactKey; words: string; grams: number; material: string }[] = [
    { key: "grain.dry_g", words: t`dry`, grams: grain.dry_g, material: "starch" },
    { key: "grain.soaked_g", words: t`drained, on the scale`, grams: grain.soaked_g, material: "starch" },
    ...(grain.cook_water_g != null
      ? [{ key: "grain.cook_water_g" as const, words: t`pour on`, grams: grain.cook_water_g, material: "water" }]
      : []),
    { key: "grain.cooked_g", words: grain.how, grams: grain.cooked_g, material: "cooked" },
  ];
  const most = Math.max(...steps.map((step) => step.grams));
  return (
    <ul className="mt-2 pl-[8%]">
      {steps.map((step) => (
        <li key={step.key} className="grid grid-cols-[10rem_1fr] items-center gap-3 py-0.5">
          <span className={step.key === "grain.soaked_g" ? "font-bold" : "text-ink2"}>{step.words}</span>
          <span className="flex items-center gap-3">
            <Drawing width="320" height="20" viewBox="0 0 320 20" className="max-w-[60%] shrink" aria-hidden="true">
              <rect
                x="1"
                y="2"
                width={(step.grams / most) * 316}
                height="16"
                fill={fill(step.material)}
                stroke="var(--color-ink)"
              />
              {step.key === "grain.soaked_g" && <Dimension x1={1} y1={19} x2={1 + (step.grams / most) * 316} y2={19} />}
            </Drawing>
            <FactFigure facts={facts} name={step.key} className="whitespace-nowrap text-lg font-bold">
              {weightWords(step.grams, 0)}
            </FactFigure>
          </span>
        </li>
      ))}
    </ul>
  );
}
