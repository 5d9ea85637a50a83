/** Each level of heat under the steamer: what boils off, how long the first water lasts, and what comes of it. */

import { Trans } from "@lingui/react/macro";
import type { Sheet, SteamerDrawing } from "../../api/client";
import { useFormatters } from "../../ui/formatters";
import { said } from "../../words/said";

export type Level = Sheet["heat"]["level"];

export function Levels({
  steamer,
  level,
  onLevel,
}: {
  steamer: SteamerDrawing;
  level: Level;
  onLevel: (level: Level) => void;
}) {
  const { weightWords } = useFormatters();
  return (
    <fieldset className="mt-1">
      <legend className="text-ink2">
        <Trans>Burner under the steamer</Trans>
      </legend>
      {steamer.levels.map((eachLevel) => (
        <label
          key={eachLevel.level}
          className="hairline grid min-h-9 cursor-pointer grid-cols-[1rem_6.5rem_5rem_4rem_1fr] items-baseline gap-2 py-1"
        >
          <input
            type="radio"
            name="level"
            checked={eachLevel.level === level}
            onChange={() => onLevel(eachLevel.level)}
            className="accent-bean"
          />
          <span>{said(eachLevel.level)}</span>{" "}
          <b className="whitespace-nowrap">
            <Trans>{weightWords(eachLevel.g_per_min)}/min</Trans>
          </b>{" "}
          <span className="text-ink2">
            <Trans>{eachLevel.lasts_min.toFixed(0)} min</Trans>
          </span>{" "}
          <span className={eachLevel.says.startsWith("wisps") ? "text-green" : "text-look"}>{eachLevel.says}</span>
        </label>
      ))}
    </fieldset>
  );
}
