/** Heat: the heart's temperature over time with its window, the pot that gives it, and what else it could be. */

import type { ReactNode } from "react";
import { useState } from "react";
import type { Facts, HeatDrawing, SteamerDrawing, Worked } from "../../api/client";
import { withSchool } from "../../sheet/edits";
import type { StationProps } from "../../sheet/SheetPage";
import { FactFigure } from "../../ui/FactFigure";
import { Schools } from "../../ui/Schools";
import { TemperatureField } from "../../ui/TemperatureField";
import { capital, degrees, degreesUnit, quantity } from "../../ui/words";
import { BothSides } from "./BothSides";
import { Checks } from "./Checks";
import { GrainPot } from "./GrainPot";
import { along, HeatCurve, lastMinute, steamerOf } from "./HeatCurve";
import { Oven } from "./Oven";
import { Parcels } from "./Parcels";
import { Pot } from "./Pot";
import { levelAt, Steamer, type Within } from "./Steamer";
import { StirredPan } from "./StirredPan";

const ROWS = [
  "heat.core_hot_min",
  "heat.heart_done_c",
  "heat.needs_min",
  "heat.lost_g",
  "heat.gained_g",
  "heat.dried_pct",
  "heat.top_sets_min",
  "heat.top_looks",
  "heat.glaze_at_min",
  "heat.load_pieces",
  "heat.pot_dip_c",
  "heat.loads",
  "heat.all_loads_min",
  "heat.waits_c",
  "grain.cook_min",
  "heat.pound_min",
  "heat.pound_hot_min",
];
/** Minutes more or less than now, if something were otherwise. */
const COSTS = [
  "heat.deeper_min",
  "heat.thicker_min",
  "heat.tin_min",
  "heat.cover_min",
  "heat.colder_min",
  "heat.cooler_min",
  "heat.double_min",
  "heat.fuller_min",
  "heat.level_min",
  "heat.unsoaked_min",
  "heat.lid_min",
  "heat.door_min",
];
const FINISH = ["finish.side_min", "finish.each_min", "finish.frozen_min", "finish.loads", "finish.all_min"];
const LEVELS = ["low", "medium", "high"] as const;
type Level = (typeof LEVELS)[number];

export function Heat({ bench, way }: StationProps) {
  const { sheet, worked, edit } = bench;
  const { facts } = worked;
  const drawing = worked.drawings.heat;
  const [share, setShare] = useState(0);
  const at = drawing ? share * lastMinute(drawing, facts) : 0;
  const steamer = drawing ? steamerOf(drawing) : null;
  const levelled = drawing?.kind === "stirred" && drawing.method !== "microwave";
  const many = Number(facts["heat.loads"]?.value ?? 1) > 1;
  const shown = ROWS.filter((key) => many || (key !== "heat.loads" && key !== "heat.all_loads_min"));
  const setLevel = (level: Level) => edit({ ...sheet, heat: { ...sheet.heat, level } });
  return (
    <>
      <div className="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)]">
        <section aria-label="Temperature over time">
          {drawing && (
            <>
              <HeatCurve drawing={drawing} facts={facts} checks={worked.checks} at={at} />
              <Minute drawing={drawing} facts={facts} at={at} share={share} onShare={setShare} />
              <Checks worked={worked} />
              <Costs facts={facts} covered={sheet.schools.cover === "covered"} />
            </>
          )}
        </section>
        <section aria-label="What gives the heat">
          {drawing && <Pots drawing={drawing} worked={worked} at={at} />}
          {steamer && sheet.schools.course !== "strong-first" && (
            <Levels steamer={steamer} level={sheet.heat.level} onLevel={setLevel} />
          )}
          <ul>
            <Rows facts={facts} keys={shown} />
            {drawing?.kind === "bake" && (
              <Asked label="Oven">
                <TemperatureField
                  label="Oven"
                  celsius={sheet.heat.oven_c}
                  min={120}
                  max={260}
                  onChange={(oven_c) => edit({ ...sheet, heat: { ...sheet.heat, oven_c } })}
                />
              </Asked>
            )}
            {way.form === "tin" && (drawing?.kind === "steam" || drawing?.kind === "bake") && (
              <Asked label="Goes in at">
                <TemperatureField
                  label="Goes in at"
                  celsius={sheet.start.batter_c ?? way.batter_c}
                  min={1}
                  max={90}
                  onChange={(batter_c) => edit({ ...sheet, start: { ...sheet.start, batter_c } })}
                />
              </Asked>
            )}
            {(drawing?.kind === "boil" || drawing?.kind === "wrapped") && (
              <Asked label="Goes in at">
                <TemperatureField
                  label="Goes in at"
                  celsius={sheet.start.dough_c}
                  min={1}
                  max={95}
                  onChange={(dough_c) => edit({ ...sheet, start: { ...sheet.start, dough_c } })}
                />
              </Asked>
            )}
            {(drawing?.kind === "steam" || drawing?.kind === "bake") && (
              <Asked label="Lined with">
                <select
                  aria-label="Lined with"
                  className="write"
                  value={sheet.vessel.lining}
                  onChange={(event) =>
                    edit({
                      ...sheet,
                      vessel: { ...sheet.vessel, lining: event.target.value as typeof sheet.vessel.lining },
                    })
                  }
                >
                  <option value="none">nothing, oiled</option>
                  <option value="paper">paper</option>
                  <option value="leaf">leaf</option>
                </select>
              </Asked>
            )}
            {levelled && (
              <Asked label="Burner">
                <select
                  aria-label="Burner level"
                  className="write"
                  value={sheet.heat.level}
                  onChange={(event) => setLevel(event.target.value as Level)}
                >
                  {LEVELS.map((level) => (
                    <option key={level}>{level}</option>
                  ))}
                </select>
                <FactFigure facts={facts} name="heat.power_w" className="ml-3 text-ink2">
                  {Number(facts["heat.power_w"]?.value ?? 0).toFixed(0)} W into the pan
                </FactFigure>
              </Asked>
            )}
            <li className="flex items-baseline justify-between gap-3 py-1.5 text-ink2">
              <span>Water boils here at</span>
              <FactFigure facts={facts} name="heat.boil_c">
                {degrees(Number(facts["heat.boil_c"]?.value ?? 100))} {degreesUnit()}
              </FactFigure>
            </li>
          </ul>
          {facts["finish.all_min"] && (
            <>
              <h3 className="mt-4 font-bold">Once it has set</h3>
              <ul>
                <Rows facts={facts} keys={FINISH} />
              </ul>
            </>
          )}
          <Schools
            way={way}
            station="heat"
            schools={sheet.schools}
            onChoose={(choice, school) => edit(withSchool(sheet, choice, school))}
          />
        </section>
      </div>
      <BothSides sheet={sheet} way={way} />
    </>
  );
}

/** The pot, oven or pan, as the heat has it. */
function Pots({ drawing, worked, at }: { drawing: HeatDrawing; worked: Worked; at: number }) {
  const { facts } = worked;
  if (drawing.kind === "bake") return <Oven drawing={drawing} facts={facts} />;
  if (drawing.kind === "boil") return <Pot drawing={drawing} facts={facts} />;
  if (drawing.kind === "stirred") return <StirredPan drawing={drawing} />;
  const steamer = steamerOf(drawing);
  if (drawing.kind === "grain" && !drawing.steamer) return <GrainPot drawing={drawing} />;
  if (drawing.kind === "wrapped" && !drawing.steamer) return <Parcels thick={drawing.thick_mm} />;
  if (!steamer) return null;
  const within: Within =
    drawing.kind === "steam"
      ? { kind: "tin", tin: drawing.tin, depthMm: drawing.depth_mm, covered: drawing.covered }
      : drawing.kind === "grain"
        ? { kind: "bed", depthMm: drawing.bed_mm }
        : { kind: "packets", thickMm: drawing.thick_mm, sideMm: drawing.side_mm };
  return <Steamer steamer={steamer} facts={facts} within={within} at={at} />;
}

/** A slider over the minutes, and what is so at that one. */
function Minute(props: {
  drawing: HeatDrawing;
  facts: Facts;
  at: number;
  share: number;
  onShare: (share: number) => void;
}) {
  const { drawing, facts, at, share, onShare } = props;
  const steamer = steamerOf(drawing);
  const heart = along(drawing.curve.minutes, drawing.curve.heart_c, at);
  const water = steamer ? `, ${levelAt(steamer, at).toFixed(0)} mm of water` : "";
  const says = `At ${at.toFixed(0)} min the heart is ${degrees(heart)} ${degreesUnit()}${water}`;
  return (
    <label className="mt-1 flex items-center gap-4">
      <input
        type="range"
        min="0"
        max="1"
        step="0.005"
        value={share}
        aria-label="Minute"
        aria-valuetext={says}
        className="min-h-9 min-w-0 flex-1 accent-bean"
        onChange={(event) => onShare(Number(event.target.value))}
      />
      <output className="w-80 shrink-0 text-ink2 max-md:w-48">{facts["heat.done_min"] ? says : ""}</output>
    </label>
  );
}

/** Each level of heat under the steamer: what boils off, how long the first water lasts, and what comes of it. */
function Levels({
  steamer,
  level,
  onLevel,
}: {
  steamer: SteamerDrawing;
  level: Level;
  onLevel: (level: Level) => void;
}) {
  return (
    <fieldset className="mt-1">
      <legend className="text-ink2">Burner under the steamer</legend>
      {steamer.levels.map((one) => (
        <label
          key={one.level}
          className="hairline grid min-h-9 cursor-pointer grid-cols-[1rem_4rem_5rem_4rem_1fr] items-baseline gap-2 py-1"
        >
          <input
            type="radio"
            name="level"
            checked={one.level === level}
            onChange={() => onLevel(one.level)}
            className="accent-bean"
          />
          <span>{one.level}</span>
          <b>{one.g_per_min.toFixed(0)} g/min</b>
          <span className="text-ink2">{one.lasts_min.toFixed(0)} min</span>
          <span className={one.says.startsWith("wisps") ? "text-green" : "text-look"}>{one.says}</span>
        </label>
      ))}
    </fieldset>
  );
}

function Asked({ label, children }: { label: string; children: ReactNode }) {
  return (
    <li className="hairline flex items-baseline justify-between gap-3 py-0.5">
      <span>{label}</span>
      <span>{children}</span>
    </li>
  );
}

function Rows({ facts, keys }: { facts: Facts; keys: readonly string[] }) {
  return keys.map((key) => {
    const fact = facts[key];
    return (
      fact && (
        <li key={key} className="hairline flex items-baseline justify-between gap-3 py-1.5">
          <span>{capital(fact.label)}</span>
          <FactFigure facts={facts} name={key} className="font-bold">
            {fact.unit === "min more" ? `${signed(fact)} min` : quantity(fact)}
          </FactFigure>
        </li>
      )
    );
  });
}

/** What it would cost if something were otherwise: minutes on a common scale. */
function Costs({ facts, covered }: { facts: Facts; covered: boolean }) {
  const found = COSTS.flatMap((key) => {
    const fact = facts[key];
    return fact ? [{ key, fact, minutes: Number(fact.value) }] : [];
  });
  if (!found.length) return null;
  const most = Math.max(...found.map((one) => Math.abs(one.minutes)), 1);
  return (
    <>
      <h3 className="mt-4 font-bold">What it would cost</h3>
      <ul>
        {found.map(({ key, fact, minutes }) => (
          <li key={key} className="hairline grid grid-cols-[1fr_9rem_5.5rem] items-baseline gap-3 py-1">
            <span>{costs(key, fact, covered)}</span>
            <span className="flex h-2 self-center" aria-hidden="true">
              <span
                className={minutes < 0 ? "bg-green" : "bg-look"}
                style={{ width: `${(100 * Math.abs(minutes)) / most}%` }}
              />
            </span>
            <FactFigure facts={facts} name={key} className="text-right font-bold">
              {signed(fact)} min
            </FactFigure>
          </li>
        ))}
      </ul>
    </>
  );
}

/** What would be otherwise, in words. */
const costs = (key: string, fact: Facts[string], covered: boolean) => {
  if (key === "heat.cover_min") return covered ? "Left open" : "Covered with foil";
  return capital(key === "heat.tin_min" ? fact.because.says : fact.label);
};

const signed = (fact: Facts[string]) => {
  const value = Number(fact.value);
  return `${value < 0 ? "−" : "+"} ${Math.abs(value).toFixed(fact.decimals)}`;
};
