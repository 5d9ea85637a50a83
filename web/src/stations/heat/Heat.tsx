/** Heat: the heart's temperature over time with its window, the pot that gives it, and what else it could be. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useState } from "react";
import type { FactKey, Sheet, WayCard } from "../../api/client";
import { limit } from "../../api/limits";
import { withSchool } from "../../sheet/edits";
import { FactFigure } from "../../ui/FactFigure";
import { FactRows } from "../../ui/FactRows";
import { useFormatters } from "../../ui/formatters";
import { Row } from "../../ui/Row";
import { bySchool, Schools } from "../../ui/Schools";
import { TemperatureField } from "../../ui/TemperatureField";
import { said } from "../../words/said";
import type { StationProps } from "../props";
import { BothSides } from "./BothSides";
import { Checks } from "./Checks";
import { Costs } from "./Costs";
import { HangsOn } from "./HangsOn";
import { HeatCurve, lastMinute, steamerOf } from "./HeatCurve";
import { kindOf } from "./kinds";
import { type Level, Levels } from "./Levels";
import { Minute } from "./Minute";
import { Stages, takesStages } from "./Stages";
import { Dish, StandsIn } from "./vessels";

const ROWS: FactKey[] = [
  "heat.core_hot_min",
  "heat.set_min",
  "heat.dried_min",
  "heat.browns_min",
  "heat.steam_c",
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
  "heat.to_boil_min",
  "heat.melt_min",
  "heat.syrup_cools_min",
  "heat.caramel_min",
  "heat.thicken_min",
  "heat.pound_min",
  "heat.pound_hot_min",
];
const FINISH: FactKey[] = ["finish.side_min", "finish.each_min", "finish.frozen_min", "finish.loads", "finish.all_min"];
const LEVELS: Level[] = ["low", "medium-low", "medium", "medium-high", "high"];

export function Heat({ editing, way }: StationProps) {
  const { degrees, degreesUnit } = useFormatters();
  const { sheet, worked, edit } = editing;
  const { facts } = worked;
  const drawing = worked.drawings.heat;
  const [share, setShare] = useState(0);
  const curve = worked.core?.curve;
  const at = curve ? share * lastMinute(curve, facts) : 0;
  const steamer = drawing ? steamerOf(drawing) : null;
  const levelled = drawing?.kind === "stirred" && drawing.method !== "microwave";
  const many = Number(facts["heat.loads"]?.value ?? 1) > 1;
  const shown = ROWS.filter((key) => many || (key !== "heat.loads" && key !== "heat.all_loads_min"));
  const setLevel = (level: Level) => edit({ ...sheet, heat: { ...sheet.heat, level } });
  return (
    <>
      <div className="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)]">
        <section aria-label={t`Temperature over time`}>
          {drawing && curve && (
            <>
              <HeatCurve
                drawing={drawing}
                curve={curve}
                facts={facts}
                checks={worked.checks}
                stages={worked.stages.filter((stage) => stage.of === "heat")}
                at={at}
              />
              <Minute curve={curve} steamer={steamer} at={at} share={share} onShare={setShare} />
              <Checks worked={worked} />
              <Costs facts={facts} covered={sheet.schools.cover === "covered"} />
              <HangsOn
                hangs={worked.hangs}
                facts={facts}
                sheet={sheet}
                batterC={sheet.start.batter_c ?? batterOf(sheet, way)}
                onSheet={edit}
              />
            </>
          )}
        </section>
        <section aria-label={t`What gives the heat`}>
          {drawing && kindOf(drawing).draw(drawing, facts, at)}
          {steamer && sheet.schools.course !== "strong-first" && sheet.heat.stages.length === 0 && (
            <Levels steamer={steamer} level={sheet.heat.level} onLevel={setLevel} />
          )}
          {drawing && takesStages(drawing) && (
            <Stages
              drawing={drawing}
              heat={sheet.heat}
              worked={worked.stages}
              doneMin={Number(facts["heat.done_min"]?.value ?? 0)}
              onChange={(heat) => edit({ ...sheet, heat })}
            />
          )}
          <FactRows facts={facts} keys={shown} />
          <div>
            {drawing?.kind === "bake" && sheet.heat.stages.length === 0 && (
              <Row label={t`Oven`}>
                <TemperatureField
                  label={t`Oven`}
                  celsius={sheet.heat.oven_c}
                  within={limit("Heat.oven_c")}
                  onChange={(oven_c) => edit({ ...sheet, heat: { ...sheet.heat, oven_c } })}
                />
              </Row>
            )}
            {way.form === "tin" && (drawing?.kind === "steam" || drawing?.kind === "bake") && (
              <Row label={t`Goes in at`}>
                <TemperatureField
                  label={t`Goes in at`}
                  celsius={sheet.start.batter_c ?? batterOf(sheet, way)}
                  within={limit("StartTemperatures.batter_c")}
                  onChange={(batter_c) => edit({ ...sheet, start: { ...sheet.start, batter_c } })}
                />
              </Row>
            )}
            {(drawing?.kind === "boil" || drawing?.kind === "wrapped") && (
              <Row label={t`Goes in at`}>
                <TemperatureField
                  label={t`Goes in at`}
                  celsius={sheet.start.dough_c}
                  within={limit("StartTemperatures.dough_c")}
                  onChange={(dough_c) => edit({ ...sheet, start: { ...sheet.start, dough_c } })}
                />
              </Row>
            )}
            <StandsIn worked={worked} heat={sheet.heat} onPick={(heat) => edit({ ...sheet, heat })} />
            {way.form !== "tin" && drawing?.kind === "steam" && (
              <Dish vessel={sheet.vessel} onPick={(tin) => edit({ ...sheet, vessel: { ...sheet.vessel, tin } })} />
            )}
            {(drawing?.kind === "steam" || drawing?.kind === "bake") && (
              <Row label={t`Lined with`}>
                <select
                  aria-label={t`Lined with`}
                  className="write"
                  value={sheet.vessel.lining}
                  onChange={(event) =>
                    edit({
                      ...sheet,
                      vessel: { ...sheet.vessel, lining: event.target.value as typeof sheet.vessel.lining },
                    })
                  }
                >
                  <option value="none">
                    <Trans>nothing, oiled</Trans>
                  </option>
                  <option value="paper">
                    <Trans>paper</Trans>
                  </option>
                  <option value="leaf">
                    <Trans>leaf</Trans>
                  </option>
                </select>
              </Row>
            )}
            {levelled && (
              <Row label={t`Burner`}>
                <select
                  aria-label={t`Burner level`}
                  className="write"
                  value={sheet.heat.level}
                  onChange={(event) => setLevel(event.target.value as Level)}
                >
                  {LEVELS.map((level) => (
                    <option key={level} value={level}>
                      {said(level)}
                    </option>
                  ))}
                </select>
                <FactFigure facts={facts} name="heat.power_w" className="ml-3 text-ink2">
                  <Trans>{Number(facts["heat.power_w"]?.value ?? 0).toFixed(0)} W into the pan</Trans>
                </FactFigure>
              </Row>
            )}
            <Row
              label={
                <span className="text-ink2">
                  <Trans>Water boils here at</Trans>
                </span>
              }
            >
              <FactFigure facts={facts} name="heat.boil_c" className="text-ink2">
                {degrees(Number(facts["heat.boil_c"]?.value ?? 100))} {degreesUnit()}
              </FactFigure>
            </Row>
          </div>
          {facts["finish.all_min"] && (
            <>
              <h3 className="mt-4 font-bold">
                <Trans>Once it has set</Trans>
              </h3>
              {facts["finish.side_min"] && (
                <Row label={t`Pan or griddle`}>
                  <TemperatureField
                    label={t`Pan or griddle`}
                    celsius={sheet.heat.griddle_c ?? 180}
                    within={limit("Heat.griddle_c")}
                    onChange={(griddle_c) => edit({ ...sheet, heat: { ...sheet.heat, griddle_c } })}
                  />
                </Row>
              )}
              <FactRows facts={facts} keys={FINISH} />
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

/** °C at which a batter goes into its heat, as is usual in the schools followed. */
const batterOf = (sheet: Sheet, way: WayCard) => bySchool(way, sheet, way.batters) ?? way.batter_c;
