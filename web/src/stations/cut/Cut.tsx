/** Rest and cut: the tray from above with its knife lines, and the cooling that says when. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useState } from "react";
import type { CutDrawing, FactKey, Facts } from "../../api/client";
import { withSchool } from "../../sheet/edits";
import type { Editing } from "../../sheet/useSheet";
import { FactRows } from "../../ui/FactRows";
import { TextLink } from "../../ui/LinkButton";
import { Schools } from "../../ui/Schools";
import { fixed } from "../../words/numbers";
import type { StationProps } from "../props";
import { Cooling } from "./Cooling";
import { CutChoice } from "./CutChoice";
import { inches } from "./inches";
import { Tray } from "./Tray";

const ROWS: Record<"tin" | "ball", FactKey[]> = {
  tin: ["cut.corners", "cut.edges", "cut.offcut_pct", "rest.cut_counter_min", "rest.cut_fridge_min", "rest.firm_h"],
  ball: ["rest.shaping_min", "rest.chill_min", "rest.freeze_filling_min", "rest.soften_min", "rest.take_out"],
};
/** What is eaten, with all that is in it and on it. */
const WHOLE: FactKey[] = ["whole.g", "whole.piece_g", "whole.water_pct", "whole.sugar_pct", "whole.fat_pct"];
const KEEP: FactKey[] = [
  "keep.eat_within_h",
  "keep.limited_by",
  "keep.room_h",
  "keep.eaten_h",
  "keep.cold_h",
  "keep.frozen_days",
  "keep.hard_after_h",
  "keep.hard_cold_h",
  "keep.restore",
];

export function Cut({ editing, way }: StationProps) {
  const { sheet, worked, edit } = editing;
  const { facts, drawings, cooling } = worked;
  const tray = drawings.shape ? drawings.shape.kind === "tin" : way.form === "tin";
  return (
    <div className="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1.3fr)_minmax(0,1fr)]">
      <section aria-label={tray ? t`Knife lines from above` : t`Cooling`}>
        {tray
          ? drawings.cut && <Trays cut={drawings.cut} />
          : cooling && (
              <Cooling
                cooling={cooling}
                facts={facts}
                large
                verb={drawings.heat?.kind === "boil" ? "eat" : "work it"}
              />
            )}
        {tray && drawings.cut && !drawings.cut.cannot && <KnifePlaces editing={editing} cut={drawings.cut} />}
        {(tray || !cooling) && <Keeps facts={facts} />}
      </section>
      <section aria-label={t`Resting and keeping`}>
        {tray && <CutChoice editing={editing} />}
        {tray && cooling && <Cooling cooling={cooling} facts={facts} />}
        <Schools
          way={way}
          station="cut"
          schools={sheet.schools}
          onChoose={(choice, school) => edit(withSchool(sheet, choice, school))}
        />
        <FactRows
          facts={facts}
          keys={ROWS[tray ? "tin" : "ball"].filter((key) => !key.startsWith("cut.") || facts[key]?.value !== 0)}
        />
        <h3 className="mt-4 font-bold">
          <Trans>What is eaten</Trans>
        </h3>
        <FactRows facts={facts} keys={WHOLE} />
        {!tray && cooling && <Keeps facts={facts} />}
      </section>
    </div>
  );
}

/** How long it keeps, what limits it first, and what restores it. */
function Keeps({ facts }: { facts: Facts }) {
  return (
    <section aria-label={t`Keeping`}>
      <h3 className="mt-4 font-bold">
        <Trans>How it keeps</Trans>
      </h3>
      <FactRows facts={facts} keys={KEEP} />
      <p className="mt-1 text-sm text-ink2">
        <Trans>
          An index from kitchen experience, not a safety validation. For sale or public service local food law decides.
        </Trans>
      </p>
    </section>
  );
}

/** Each size of tray in turn. */
function Trays({ cut }: { cut: CutDrawing }) {
  const [at, setAt] = useState(0);
  const shown = cut.trays[at] ?? cut.trays[0];
  return (
    <>
      {cut.trays.length > 1 && (
        <div className="mb-1 flex flex-wrap gap-1.5">
          {cut.trays.map((tray, i) => (
            <button
              // biome-ignore lint/suspicious/noArrayIndexKey: two may be alike, and their order is their place
              key={i}
              type="button"
              className="pick !min-h-8 !px-3 text-[15px]"
              data-on={i === at}
              onClick={() => setAt(i)}
            >
              {tray.name}
            </button>
          ))}
        </div>
      )}
      {shown && <Tray tray={shown} smallMm={cut.small_mm} />}
    </>
  );
}

/** Where the knife meets the edge, in cm and inches, and the same as strips of paper. */
function KnifePlaces({ editing, cut }: { editing: Editing; cut: CutDrawing }) {
  const rulers = cut.trays.flatMap((tray) => tray.rulers.map((ruler) => ({ tray, ruler })));
  if (!rulers.length) return null;
  return (
    <details className="mt-2">
      <summary className="min-h-9 cursor-pointer text-bean">
        <Trans>Every cut from the edge, in cm and inches</Trans>
      </summary>
      <dl>
        {rulers.map(({ tray, ruler }) => (
          <div key={`${tray.name} ${ruler.along}`} className="hairline py-1.5">
            <dt className="text-ink2">
              {cut.trays.length > 1 ? `${tray.name}: ` : ""}
              {ruler.along}
            </dt>
            <dd>
              <Trans>
                <b>{ruler.ticks.map((mm) => fixed(mm / 10, 1)).join(" · ")}</b> cm
              </Trans>
            </dd>
            <dd>
              <Trans>{ruler.ticks.map(inches).join(" · ")} in</Trans>
            </dd>
          </div>
        ))}
      </dl>
      <TextLink to={`/sheets/${editing.id}/strips`} className="mt-2 inline-block">
        <Trans>Print them as strips to lay beside the tray</Trans>
      </TextLink>
    </details>
  );
}
