/** Mix: the map of water and sugar, the bowl as one bar, and the lines that make it. */

import { withSchool } from "../../sheet/edits";
import type { StationProps } from "../../sheet/SheetPage";
import { FactFigure } from "../../ui/FactFigure";
import { NumberField } from "../../ui/NumberField";
import { Schools } from "../../ui/Schools";
import { degrees, degreesUnit } from "../../ui/words";
import { BowlBar } from "./BowlBar";
import { BowlLines } from "./BowlLines";
import { MixMap } from "./MixMap";

export function Mix({ bench, way }: StationProps) {
  const { sheet, worked, adjust } = bench;
  const drawing = worked.drawings.mix;
  const { facts } = worked;
  if (!drawing) return null;
  const hydration = Number(facts["mix.hydration_pct"]?.value);
  const sugar = Number(facts["mix.sugar_pct"]?.value);
  const to = (water: number, sweet: number) => adjust({ by: "ratio", hydration_pct: water, sugar_pct: sweet });
  return (
    <div className="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)]">
      <section aria-label="Map of water and sugar">
        <MixMap way={way} hydration={hydration} sugar={sugar} dots={bench.dots} onMove={to} />
        <BowlBar drawing={drawing} facts={facts} />
      </section>
      <section aria-label="In the bowl">
        <BowlLines bench={bench} drawing={drawing} />
        <div className="mt-2 flex flex-wrap items-baseline gap-x-4 gap-y-1">
          <NumberField
            label="Water"
            value={hydration}
            unit="%"
            decimals={0}
            min={20}
            max={400}
            width="3.6rem"
            onChange={(value) => to(value, sugar)}
          />
          <NumberField
            label="Sugar"
            value={sugar}
            unit="%"
            decimals={0}
            min={0}
            max={300}
            width="3.6rem"
            onChange={(value) => to(hydration, value)}
          />
          <NumberField
            label="From"
            value={Number(facts["mix.base_g"]?.value)}
            unit="g of flour"
            decimals={0}
            min={10}
            max={5000}
            step={10}
            width="4rem"
            onChange={(grams) => adjust({ by: "base", grams })}
          />
        </div>
        <Schools
          way={way}
          station="mix"
          schools={sheet.schools}
          onChoose={(choice, school) => bench.edit(withSchool(sheet, choice, school))}
        />
        <p className="mt-3 border-l-4 border-bean pl-4">
          <b>Will come out</b>{" "}
          <FactFigure facts={facts} name="mix.softness">
            {drawing.outcome}
          </FactFigure>
          ; gels at{" "}
          <FactFigure facts={facts} name="mix.gel_temperature_c" className="font-bold">
            {degrees(Number(facts["mix.gel_temperature_c"]?.value))} {degreesUnit()}
          </FactFigure>
          ; soft for about{" "}
          <FactFigure facts={facts} name="keep.hard_after_h" className="font-bold">
            {Number(facts["keep.hard_after_h"]?.value ?? 0).toFixed(0)} h
          </FactFigure>
          . <span className="text-ink2">A kitchen estimate, give or take half a step.</span>
        </p>
      </section>
    </div>
  );
}
