/** Heat: the heart's temperature over time with its window, and the pot that gives it. */

import { withSchool } from "../../sheet/edits";
import type { StationProps } from "../../sheet/SheetPage";
import { FactFigure } from "../../ui/FactFigure";
import { Schools } from "../../ui/Schools";
import { TemperatureField } from "../../ui/TemperatureField";
import { capital, degrees, degreesUnit, quantity } from "../../ui/words";
import { HeatCurve } from "./HeatCurve";
import { Oven } from "./Oven";
import { Pot } from "./Pot";
import { Steamer } from "./Steamer";
import { StirredPan } from "./StirredPan";
import { TimeRuler } from "./TimeRuler";
import { Wrapped } from "./Wrapped";

const ROWS = {
  steam: ["heat.deeper_min", "heat.cover_min", "heat.colder_min"],
  boil: ["heat.heart_done_c", "heat.load_pieces", "heat.pot_dip_c"],
  bake: ["heat.dried_pct", "heat.deeper_min", "heat.cooler_min", "heat.colder_min"],
  wrapped: ["heat.needs_min", "heat.heart_done_c", "heat.thicker_min", "heat.colder_min"],
  stirred: ["heat.lost_g", "heat.heart_done_c", "heat.double_min", "heat.level_min"],
  timed: ["heat.heart_done_c"],
};
const LEVELS = ["low", "medium", "high"] as const;

export function Heat({ bench, way }: StationProps) {
  const { sheet, worked, edit } = bench;
  const { facts } = worked;
  const drawing = worked.drawings.heat;
  const steam = drawing?.kind === "steam";
  const boil = drawing?.kind === "boil";
  const bake = drawing?.kind === "bake";
  const pan = drawing?.kind === "stirred" && drawing.method === "pan";
  const rows = ROWS[drawing?.kind ?? "timed"];
  return (
    <div className="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)]">
      <section aria-label="Temperature over time">
        {drawing?.kind === "timed" ? (
          <TimeRuler drawing={drawing} facts={facts} />
        ) : (
          drawing && <HeatCurve drawing={drawing} facts={facts} />
        )}
      </section>
      <section aria-label={steam ? "The steamer" : boil ? "The pot" : bake ? "The oven" : "The heat"}>
        {drawing?.kind === "steam" && <Steamer drawing={drawing} facts={facts} />}
        {drawing?.kind === "bake" && <Oven drawing={drawing} facts={facts} />}
        {drawing?.kind === "stirred" && <StirredPan drawing={drawing} />}
        {drawing?.kind === "wrapped" && <Wrapped drawing={drawing} />}
        {drawing?.kind === "boil" && <Pot drawing={drawing} facts={facts} />}
        <ul>
          {rows.map((key) => {
            const fact = facts[key];
            return (
              fact && (
                <li key={key} className="hairline flex items-baseline justify-between gap-3 py-1.5">
                  <span>
                    {key === "heat.cover_min"
                      ? sheet.schools.cover === "covered"
                        ? "Left open"
                        : "Covered with foil"
                      : capital(fact.label)}
                  </span>
                  <FactFigure facts={facts} name={key} className="font-bold">
                    {fact.unit === "min more" || key === "heat.cover_min"
                      ? `${signed(Number(fact.value))} min`
                      : quantity(fact)}
                  </FactFigure>
                </li>
              )
            );
          })}
          {bake && (
            <li className="hairline flex items-baseline justify-between gap-3 py-0.5">
              <span>Oven</span>
              <TemperatureField
                label="Oven"
                celsius={sheet.heat.oven_c}
                min={120}
                max={260}
                onChange={(oven_c) => edit({ ...sheet, heat: { ...sheet.heat, oven_c } })}
              />
            </li>
          )}
          {(steam || bake) && (
            <li className="hairline flex items-baseline justify-between gap-3 py-0.5">
              <span>Batter goes in at</span>
              <TemperatureField
                label="Batter goes in at"
                celsius={sheet.start.batter_c ?? way.batter_c}
                min={1}
                max={90}
                onChange={(batter_c) => edit({ ...sheet, start: { ...sheet.start, batter_c } })}
              />
            </li>
          )}
          {steam || pan ? (
            <li className="hairline flex items-baseline justify-between gap-3 py-0.5">
              <span>Burner</span>
              <span>
                <select
                  aria-label="Burner level"
                  className="write"
                  value={sheet.heat.level}
                  onChange={(event) =>
                    edit({ ...sheet, heat: { ...sheet.heat, level: event.target.value as (typeof LEVELS)[number] } })
                  }
                >
                  {LEVELS.map((level) => (
                    <option key={level}>{level}</option>
                  ))}
                </select>
                <FactFigure
                  facts={facts}
                  name={pan ? "heat.power_w" : "heat.water_loss_g_per_min"}
                  className="ml-3 text-ink2"
                >
                  {pan
                    ? `${Number(facts["heat.power_w"]?.value ?? 0).toFixed(0)} W into the pan`
                    : `${Number(facts["heat.water_loss_g_per_min"]?.value ?? 0).toFixed(0)} g a minute lost`}
                </FactFigure>
              </span>
            </li>
          ) : null}
          {(boil || drawing?.kind === "wrapped") && (
            <li className="hairline flex items-baseline justify-between gap-3 py-0.5">
              <span>{boil ? "Dough goes in at" : "Goes in at"}</span>
              <TemperatureField
                label={boil ? "Dough goes in at" : "Goes in at"}
                celsius={sheet.start.dough_c}
                min={1}
                max={95}
                onChange={(dough_c) => edit({ ...sheet, start: { ...sheet.start, dough_c } })}
              />
            </li>
          )}
          <li className="flex items-baseline justify-between gap-3 py-1.5 text-ink2">
            <span>Water boils here at</span>
            <FactFigure facts={facts} name="heat.boil_c">
              {degrees(Number(facts["heat.boil_c"]?.value ?? 100))} {degreesUnit()}
            </FactFigure>
          </li>
        </ul>
        <Schools
          way={way}
          station="heat"
          schools={sheet.schools}
          onChoose={(choice, school) => edit(withSchool(sheet, choice, school))}
        />
      </section>
    </div>
  );
}

const signed = (value: number) => `${value < 0 ? "−" : "+"} ${Math.abs(value).toFixed(0)}`;
