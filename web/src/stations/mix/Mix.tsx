/** Mix: the map of water and sugar, where everything goes, the soak; the bowl as one bar and as lines. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useState } from "react";
import type { FactKey, Facts, MixDrawing } from "../../api/client";
import { DIETS } from "../../api/generated";
import { type Limits, limit } from "../../api/limits";
import { withSchool } from "../../sheet/edits";
import type { Editing } from "../../sheet/useSheet";
import { ActionMenu } from "../../ui/ActionMenu";
import { FactFigure } from "../../ui/FactFigure";
import { useFormatters } from "../../ui/formatters";
import { NumberField } from "../../ui/NumberField";
import { Schools } from "../../ui/Schools";
import { Picks } from "../../ui/ToggleChoice";
import type { StationProps } from "../props";
import { BowlBar } from "./BowlBar";
import { BowlLines } from "./BowlLines";
import { Flows } from "./Flows";
import { MakeIt } from "./MakeIt";
import { MixMap } from "./MixMap";
import { Scalding } from "./Scalding";
import { Soak } from "./Soak";

type View = "map" | "flows" | "soak";

export function Mix({ editing, way, kitchen }: StationProps) {
  const { sheet, worked, adjust } = editing;
  const drawing = worked.drawings.mix;
  const { facts } = worked;
  const [view, setView] = useState<View>("map");
  if (!drawing) return null;
  const hydration = Number(facts["mix.hydration_pct"]?.value);
  const sugar = Number(facts["mix.sugar_pct"]?.value);
  const views: [View, string][] = [
    ["map", t`map`],
    ["flows", t`where it goes`],
    ...(worked.grain ? ([["soak", t`soak`]] as [View, string][]) : []),
  ];
  return (
    <div className="mt-3 grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)]">
      <section aria-label={t`The bowl, drawn`}>
        <Picks label={t`What is drawn`} value={view} options={views} onPick={setView} className="mb-1" />
        {view === "map" && (
          <MixMap
            way={way}
            hydration={hydration}
            sugar={sugar}
            dots={editing.dots}
            cloud={cloudOf(facts)}
            onMove={(water, sweet) => adjust({ by: "ratio", hydration_pct: water, sugar_pct: sweet })}
          />
        )}
        {view === "flows" && <Flows editing={editing} way={way} />}
        {view === "soak" && worked.grain && <Soak editing={editing} grain={worked.grain} facts={facts} />}
        {view !== "soak" && <BowlBar drawing={drawing} facts={facts} />}
      </section>
      <section aria-label={t`In the bowl`}>
        <BowlLines editing={editing} way={way} kitchen={kitchen} />
        {editing.says.length > 0 && (
          <p role="status" className="mt-2 border-l-4 border-green pl-4">
            {editing.says.join(" ")}
          </p>
        )}
        <Ratios editing={editing} facts={facts} />
        <MakeIt editing={editing} way={way} />
        <p className="mt-2">
          <Trans>
            With{" "}
            <ActionMenu
              label={t`With no …`}
              choices={DIETS.map(([id, words]) => ({ id, words }))}
              onPick={(diet) => adjust({ by: "diet", diet: diet as (typeof DIETS)[number][0] })}
            >
              no …
            </ActionMenu>{" "}
            <span className="text-ink2">what stands in for it is put in its place, and said</span>
          </Trans>
        </p>
        <Schools
          way={way}
          station="mix"
          schools={sheet.schools}
          onChoose={(choice, school) => editing.edit(withSchool(sheet, choice, school))}
        />
        <Scalding editing={editing} way={way} />
        <Outcome drawing={drawing} facts={facts} />
      </section>
    </div>
  );
}

/** Between what the ratios lie, where a cup leaves them open. */
function cloudOf(facts: Facts) {
  const { "mix.hydration_pct": water, "mix.sugar_pct": sugar } = facts;
  if (water?.low == null || water.high == null || !sugar) return undefined;
  const sweet = Number(sugar.value);
  return {
    hydration: [water.low, water.high] as [number, number],
    sugar: [sugar.low ?? sweet, sugar.high ?? sweet] as [number, number],
  };
}

/** Each ratio to read, to press for its because, and to type; the others hold when one is changed. */
function Ratios({ editing, facts }: { editing: Editing; facts: Facts }) {
  const { adjust } = editing;
  const all: { key: FactKey; name: string; within: Limits; to: (value: number) => void }[] = [
    {
      key: "mix.hydration_pct",
      name: t`water`,
      within: limit("Adjustment.hydration_pct"),
      to: (v: number) => adjust({ by: "ratio", hydration_pct: v }),
    },
    {
      key: "mix.sugar_pct",
      name: t`sugar`,
      within: limit("Adjustment.sugar_pct"),
      to: (v: number) => adjust({ by: "ratio", sugar_pct: v }),
    },
    {
      key: "mix.fat_pct",
      name: t`fat`,
      within: limit("Adjustment.fat_pct"),
      to: (v: number) => adjust({ by: "ratio", fat_pct: v }),
    },
    {
      key: "mix.filling_share_pct",
      name: t`filling in the whole`,
      within: limit("Adjustment.share_pct"),
      to: (v: number) => adjust({ by: "filling_share", share_pct: v }),
    },
  ];
  const ratios = all.filter(({ key }) => facts[key] && (key !== "mix.fat_pct" || Number(facts[key]?.value) >= 0.5));
  return (
    <dl className="mt-2 flex flex-wrap gap-x-5 gap-y-1">
      {ratios.map(({ key, name, within, to }) => (
        <div key={key} className="flex items-baseline gap-1.5">
          <dt>
            <FactFigure facts={facts} name={key}>
              {name}
            </FactFigure>
          </dt>
          <dd>
            <NumberField
              label={t`${name}, per cent`}
              hideLabel
              value={Number(facts[key]?.value)}
              unit="%"
              decimals={0}
              within={within}
              width="3.2rem"
              onChange={to}
            />
          </dd>
        </div>
      ))}
    </dl>
  );
}

function Outcome({ drawing, facts }: { drawing: MixDrawing; facts: Facts }) {
  const { degrees, degreesUnit, figure } = useFormatters();
  const hard = facts["keep.hard_after_h"];
  const keeps = facts["keep.room_h"];
  return (
    <p className="mt-3 border-l-4 border-bean pl-4">
      <Trans>
        <b>Will come out</b>{" "}
        <FactFigure facts={facts} name="mix.softness">
          {drawing.outcome}
        </FactFigure>
        ,{" "}
        <FactFigure facts={facts} name="mix.tenderness">
          {drawing.bite}
        </FactFigure>
        ; gels at{" "}
        <FactFigure facts={facts} name="mix.gel_temperature_c" className="font-bold">
          {degrees(Number(facts["mix.gel_temperature_c"]?.value))} {degreesUnit()}
        </FactFigure>
        {hard && (
          <Trans>
            ; soft for about{" "}
            <FactFigure facts={facts} name="keep.hard_after_h" className="font-bold">
              {figure(hard)} h
            </FactFigure>
          </Trans>
        )}
        {keeps && (
          <Trans>
            , keeps{" "}
            <FactFigure facts={facts} name="keep.room_h" className="font-bold">
              {figure(keeps)} h
            </FactFigure>{" "}
            in the room
          </Trans>
        )}
        . <span className="text-ink2">A kitchen estimate, give or take half a step.</span>
      </Trans>
    </p>
  );
}
