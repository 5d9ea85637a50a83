/** Stages of a heat: a ribbon true to time, and a row each for how strong, how long, and what is done as it begins. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { HeatDrawing, Sheet, WorkResult } from "../../api/client";
import { limit } from "../../api/limits";
import { LinkButton } from "../../ui/LinkButton";
import { NumberField } from "../../ui/NumberField";
import { Row } from "../../ui/Row";
import { TemperatureField } from "../../ui/TemperatureField";
import { said } from "../../words/said";

type Stage = Sheet["heat"]["stages"][number];
type StageLevel = NonNullable<Stage["level"]>;
type StageWorked = WorkResult["stages"][number];

const LEVELS: StageLevel[] = ["high", "medium-high", "medium", "medium-low", "low", "off"];
/** How strong each level looks: hatched ever closer, so that it does not hang on colour alone. */
const TONE: Record<StageLevel, string> = {
  high: "bg-bean/45",
  "medium-high": "bg-bean/38",
  medium: "bg-bean/30",
  "medium-low": "bg-bean/22",
  low: "bg-bean/15",
  off: "bg-paper",
};
const PLAIN: Stage = { level: null, oven_c: null, minutes: null, top_up_ml: 0, says: "" };

interface Props {
  drawing: HeatDrawing;
  heat: Sheet["heat"];
  worked: readonly StageWorked[];
  doneMin: number;
  onChange: (heat: Sheet["heat"]) => void;
}

/** Whether a heat can be taken in stages: a pan that is stirred, and balls in their pot, are looked at all the while. */
export const takesStages = (drawing: HeatDrawing) =>
  drawing.kind === "bake" ||
  drawing.kind === "steam" ||
  drawing.kind === "wrapped" ||
  (drawing.kind === "grain" && drawing.how !== "cooker");

export function Stages({ drawing, heat, worked, doneMin, onChange }: Props) {
  const { stages } = heat;
  const oven = drawing.kind === "bake";
  const own = worked.filter((item) => item.of === "heat");
  const set = (next: Stage[]) => onChange({ ...heat, stages: next });
  const change = (at: number, more: Partial<Stage>) =>
    set(stages.map((stage, i) => (i === at ? { ...stage, ...more } : stage)));
  if (stages.length === 0)
    return (
      <>
        {own.length > 1 && <Ribbon stages={own} />}
        <Row label={t`All the way alike`}>
          <LinkButton onClick={() => set(begun(drawing, heat, own, doneMin))}>
            <Trans>in stages</Trans>
          </LinkButton>
        </Row>
      </>
    );
  return (
    <fieldset className="mt-1">
      <legend className="text-ink2">
        <Trans>Stages</Trans>
      </legend>
      <Ribbon stages={own} />
      {stages.map((stage, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: stages have no name but their place
        <div key={i} className="hairline flex flex-wrap items-baseline gap-x-3 gap-y-1 py-1">
          <b className="w-4">{i + 1}</b>
          {oven ? (
            <TemperatureField
              label={t`Oven in stage ${i + 1}`}
              celsius={stage.oven_c ?? heat.oven_c}
              within={limit("HeatStage.oven_c")}
              onChange={(oven_c) => change(i, { oven_c })}
            />
          ) : (
            <select
              aria-label={t`Burner in stage ${i + 1}`}
              className="write min-h-9"
              value={stage.level ?? heat.level}
              onChange={(event) => change(i, { level: event.target.value as StageLevel })}
            >
              {LEVELS.map((level) => (
                <option key={level} value={level}>
                  {level === "off" ? t`off, lid shut` : said(level)}
                </option>
              ))}
            </select>
          )}
          <NumberField
            label={t`Minutes of stage ${i + 1}`}
            hideLabel
            value={stage.minutes ?? null}
            unit="min"
            decimals={1}
            width="3.5rem"
            within={limit("HeatStage.minutes")}
            onChange={(minutes) => change(i, { minutes })}
            onClear={() =>
              set(stages.map((stage, j) => (j === i ? { ...stage, minutes: null } : filled(stage, own[j]))))
            }
          />
          {stage.minutes == null && (
            <span className="text-green">
              <Trans>until done, ~{(own[i]?.minutes ?? 0).toFixed(0)} min</Trans>
            </span>
          )}
          {!oven && i > 0 && stage.level !== "off" && (
            <NumberField
              label={t`Topped up as stage ${i + 1} begins`}
              hideLabel
              value={stage.top_up_ml || null}
              unit={t`ml topped up`}
              decimals={0}
              width="3.5rem"
              within={limit("HeatStage.top_up_ml")}
              onChange={(top_up_ml) => change(i, { top_up_ml })}
              onClear={() => change(i, { top_up_ml: 0 })}
            />
          )}
          <input
            aria-label={t`What is done in stage ${i + 1}`}
            className="write ml-7 min-h-9 min-w-0 flex-1 basis-3/4"
            placeholder={i > 0 ? t`glaze it, turn it …` : t`what to look for`}
            maxLength={80}
            value={stage.says}
            onChange={(event) => change(i, { says: event.target.value })}
          />
          <LinkButton
            aria-label={t`Stage ${i + 1} away`}
            onClick={() => set(stages.length < 3 ? [] : stages.filter((_, j) => j !== i))}
          >
            <Trans>away</Trans>
          </LinkButton>
        </div>
      ))}
      {stages.length < 6 && (
        <LinkButton className="mt-1" onClick={() => set([...stages, { ...PLAIN, minutes: 10 }])}>
          <Trans>one stage more</Trans>
        </LinkButton>
      )}
    </fieldset>
  );
}

/** A stage that went on until it was done, at the minutes that it was told: another takes its place. */
const filled = (stage: Stage, worked?: StageWorked): Stage =>
  stage.minutes == null ? { ...stage, minutes: Math.max(0.5, Math.round(worked?.minutes ?? 10)) } : stage;

/** Two stages to begin with, or those that a pot of grain has by itself. */
function begun(drawing: HeatDrawing, heat: Sheet["heat"], own: readonly StageWorked[], doneMin: number): Stage[] {
  if (own.length > 1)
    return own.map((item) => ({
      ...PLAIN,
      level: item.level ?? null,
      minutes: item.is_open ? null : Math.max(0.5, Math.round(item.minutes)),
    }));
  if (drawing.kind === "bake") return [{ ...PLAIN, minutes: Math.max(1, Math.round(doneMin * 0.6)) }, PLAIN];
  return [
    { ...PLAIN, level: "high", minutes: 10 },
    { ...PLAIN, level: heat.level === "high" ? "medium" : heat.level },
  ];
}

function Ribbon({ stages }: { stages: readonly StageWorked[] }) {
  const words = stages.map((stage) => t`${stage.name} ${stage.minutes.toFixed(0)} min`).join(t`, then `);
  return (
    <div role="img" aria-label={words} className="my-1 flex h-10 w-full border border-ink text-[13px]">
      {stages.map((stage) => (
        <span
          key={stage.starts_min}
          style={{ flexGrow: Math.max(stage.minutes, 0.5), flexBasis: 0 }}
          title={t`${stage.name}, ${stage.minutes.toFixed(0)} min`}
          className={`flex min-w-2 flex-col justify-center overflow-hidden border-ink border-r px-1 leading-tight last:border-r-0 ${TONE[stage.level ?? "medium"]}`}
        >
          <span className="truncate">{stage.name}</span>
          <b className="truncate">{stage.minutes.toFixed(0)}</b>
        </span>
      ))}
    </div>
  );
}
