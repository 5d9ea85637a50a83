/** A line that is made here: what of another part goes into this one, and at which step. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { FactKey, PartId, WayCard } from "../../api/client";
import { withTake } from "../../sheet/edits";
import type { Editing } from "../../sheet/useSheet";
import { FactFigure } from "../../ui/FactFigure";
import { useFormatters } from "../../ui/formatters";
import { joinSteps } from "./places";
import { SomeField } from "./SomeField";

interface Props {
  editing: Editing;
  part: PartId;
  at: number;
  way: WayCard;
}

export function TakeRow({ editing, part, at, way }: Props) {
  const { weightWords } = useFormatters();
  const { sheet, worked, edit } = editing;
  const take = sheet.parts.find((item) => item.id === part)?.takes[at];
  if (!take) return null;
  const [source = "", output] = take.of.split(".");
  const from = worked.parts.find((item) => item.id === source);
  const made = from?.outputs.find((eachOutput) => eachOutput.id === output) ?? from?.outputs[0];
  const flow = made?.goes.find((each) => each.to === part && each.take === at);
  const name = made?.name ?? take.of;
  const fact = `part.${source}.made_g` as FactKey;
  return (
    <tr className="hairline">
      <td className="py-0.5 pr-2 leading-tight">
        <FactFigure facts={worked.facts} name={fact}>
          {name}
        </FactFigure>
        <span className="block text-sm text-ink2">
          <Trans>made here</Trans>
        </span>
        {part === "base" && (
          <select
            aria-label={t`${name} joins at`}
            className="h-8 w-full max-w-40 bg-transparent text-sm text-ink2"
            value={take.joins}
            onChange={(event) => edit(withTake(sheet, part, at, (was) => ({ ...was, joins: event.target.value })))}
          >
            <option value="">
              <Trans>from the start</Trans>
            </option>
            {joinSteps(way, sheet).map(([id, words]) => (
              <option key={id} value={id}>
                {words}
              </option>
            ))}
          </select>
        )}
        {flow && flow.short_g > 0.05 && (
          <span className="block text-sm text-look">
            <Trans>{weightWords(flow.short_g, 0)} short: no more is made</Trans>
          </span>
        )}
      </td>
      <td className="whitespace-nowrap text-right">
        <SomeField
          label={t`${name}, amount`}
          some={take}
          madeG={made?.made_g ?? 0}
          onChange={(some) => edit(withTake(sheet, part, at, (was) => ({ ...was, ...some })))}
        />
      </td>
      <td className="hidden whitespace-nowrap pl-2 text-right text-[13.5px] text-ink2 sm:table-cell">
        {flow ? weightWords(flow.grams, 0) : ""}
      </td>
      <td />
      <td className="pl-1 text-right">
        <button
          type="button"
          className="min-h-8 min-w-6 text-ink2 hover:text-bean"
          aria-label={t`Take out ${name}`}
          onClick={() => edit(withTake(sheet, part, at, () => null))}
        >
          ×
        </button>
      </td>
    </tr>
  );
}
