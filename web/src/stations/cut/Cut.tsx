/** Rest and cut: the tray from above with its knife lines, and the cooling that says when. */

import { withSchool } from "../../sheet/edits";
import type { StationProps } from "../../sheet/SheetPage";
import { FactFigure } from "../../ui/FactFigure";
import { NumberField } from "../../ui/NumberField";
import { Schools } from "../../ui/Schools";
import { quantity } from "../../ui/words";
import { Cooling } from "./Cooling";
import { Tray } from "./Tray";

const ROWS = {
  tin: ["cut.piece_g", "cut.corners", "cut.edges", "cut.offcut_pct", "keep.room_h", "keep.cold_h", "keep.hard_after_h"],
  ball: ["rest.freeze_filling_min", "rest.soften_min", "keep.room_h", "keep.cold_h", "keep.hard_after_h"],
};

export function Cut({ bench, way }: StationProps) {
  const { sheet, worked, edit } = bench;
  const { facts, drawings } = worked;
  const tray = way.form === "tin";
  return (
    <div className="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1.3fr)_minmax(0,1fr)]">
      <section aria-label={tray ? "Knife lines from above" : "Cooling"}>
        {tray
          ? drawings.cut && <Tray drawing={drawings.cut} facts={facts} />
          : drawings.rest && (
              <Cooling
                drawing={drawings.rest}
                facts={facts}
                large
                verb={drawings.heat?.kind === "boil" ? "eat" : "work it"}
              />
            )}
      </section>
      <section aria-label="Resting and keeping">
        {tray && drawings.rest && <Cooling drawing={drawings.rest} facts={facts} />}
        <Schools
          way={way}
          station="cut"
          schools={sheet.schools}
          onChoose={(choice, school) => edit(withSchool(sheet, choice, school))}
        />
        {tray && (
          <div className="hairline mt-3 flex items-baseline justify-between">
            <span>Pieces wanted</span>
            <NumberField
              label="Pieces wanted"
              hideLabel
              value={sheet.cut.pieces}
              decimals={0}
              min={1}
              max={400}
              width="4rem"
              onChange={(value) => edit({ ...sheet, cut: { pieces: Math.round(value) } })}
            />
          </div>
        )}
        <ul>
          {ROWS[tray ? "tin" : "ball"].map((key) => {
            const fact = facts[key];
            const none = key.startsWith("cut.") && fact?.value === 0;
            return (
              fact &&
              !none && (
                <li key={key} className="hairline flex items-baseline justify-between gap-3 py-1.5">
                  <span>{fact.label.charAt(0).toUpperCase() + fact.label.slice(1)}</span>
                  <FactFigure facts={facts} name={key} className="font-bold">
                    {key.startsWith("keep.") ? "about " : ""}
                    {quantity(fact)}
                  </FactFigure>
                </li>
              )
            );
          })}
        </ul>
      </section>
    </div>
  );
}
