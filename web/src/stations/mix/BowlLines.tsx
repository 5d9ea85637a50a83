/** The lines of every part: amount in any unit, the household measure nearest to it, its share of flour or grain. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { Fragment, useState } from "react";
import type { KitchenSettings, LineResult, PartRole, UnitId, WayCard } from "../../api/client";
import { limit } from "../../api/limits";
import { familiesQuery, larderQuery } from "../../api/queries";
import { newPart, nextId, withLine } from "../../sheet/edits";
import type { Editing } from "../../sheet/useSheet";
import { ActionMenu } from "../../ui/ActionMenu";
import { useFormatters } from "../../ui/formatters";
import { NumberField } from "../../ui/NumberField";
import { unitName, unitNamed, unitsFor } from "../../ui/units";
import { fixed } from "../../words/numbers";
import { said } from "../../words/said";
import { LineSlip } from "./LineSlip";
import { PartHead } from "./PartHead";
import { workedLine } from "./pairing";
import { TakeRow } from "./TakeRow";

interface Props {
  editing: Editing;
  way: WayCard;
  kitchen: KitchenSettings;
}

export function BowlLines({ editing, way, kitchen }: Props) {
  const { sheet, worked } = editing;
  const [held, setHeld] = useState(false);
  return (
    <table className="w-full border-collapse">
      <thead>
        <tr className="text-sm text-ink2">
          <th className="text-left font-normal">
            <span className="font-title text-xl text-ink">
              <Trans>In the bowl</Trans>
            </span>
          </th>
          <th className="text-right font-normal">
            <label className="whitespace-nowrap">
              <Trans>
                <input
                  type="checkbox"
                  className="mr-1.5 size-4 align-[-2px] accent-bean"
                  checked={held}
                  onChange={(event) => setHeld(event.target.checked)}
                />
                hold the ratios
              </Trans>
            </label>
          </th>
          <th className="hidden text-right font-normal sm:table-cell">
            <Trans>household</Trans>
          </th>
          <th className="text-right font-normal">
            <Trans>of {said(way.base)}</Trans>
          </th>
          <th>
            <span className="sr-only">
              <Trans>take out</Trans>
            </span>
          </th>
        </tr>
      </thead>
      <tbody>
        {sheet.parts.map((part, p) => (
          <Fragment key={part.id}>
            <tr>
              <th colSpan={5} scope="colgroup" className="pt-1 text-left font-normal">
                <PartHead
                  editing={editing}
                  part={part}
                  at={p}
                  worked={worked.parts.find((eachPart) => eachPart.id === part.id)}
                  kitchen={kitchen}
                  way={way}
                />
              </th>
            </tr>
            {part.lines.map((line, i) => (
              <LineRow
                // biome-ignore lint/suspicious/noArrayIndexKey: a line has no name of its own but its place
                key={`${line.ingredient}-${i}`}
                editing={editing}
                part={p}
                at={i}
                shown={workedLine(worked.lines, editing.drawnFrom, sheet, p, i)}
                kitchen={kitchen}
                held={held}
                way={way}
              />
            ))}
            {part.takes.map((take, i) => (
              <TakeRow
                // biome-ignore lint/suspicious/noArrayIndexKey: a take has no name of its own but its place
                key={`${take.of}-${i}`}
                editing={editing}
                part={part.id}
                at={i}
                way={way}
              />
            ))}
          </Fragment>
        ))}
        <tr>
          <td colSpan={5} className="pt-1">
            <AddPart editing={editing} />
          </td>
        </tr>
      </tbody>
    </table>
  );
}

interface RowProps {
  editing: Editing;
  part: number;
  at: number;
  shown?: LineResult;
  kitchen: KitchenSettings;
  held: boolean;
  way: WayCard;
}

function LineRow({ editing, part, at, shown, kitchen, held, way }: RowProps) {
  const formatters = useFormatters();
  const { weightWords } = formatters;
  const larder = useQuery(larderQuery);
  const { sheet, edit, adjust } = editing;
  const line = sheet.parts[part]?.lines[at];
  if (!line) return null;
  const item = larder.data?.find((item) => item.id === line.ingredient);
  const name = item?.name ?? shown?.name ?? line.ingredient;
  const { role, lines } = sheet.parts[part] as (typeof sheet.parts)[number];
  const amount = (value: number) => {
    // With the ratios held, an amount is what there is of it: everything else follows. It is told in its own unit, so
    // that it holds for the sheet as it will be when the server comes to it, whatever is under way.
    if (held) adjust({ by: "line", part, line: at, amount: value });
    else edit(withLine(sheet, part, at, (was) => ({ ...was, amount: { ...was.amount, value } })));
  };
  return (
    <tr className="hairline">
      <td className="py-0.5 pr-2 leading-tight">
        {shown ? <LineSlip editing={editing} shown={shown} item={item} way={way} /> : name}
        {shown && shown.carried.length > 0 && (
          <span className="block text-sm text-ink2">
            {shown.carried
              .map((item) => [weightWords(item.grams, 0), item.at, item.to && item.to !== role && `(${item.to})`])
              .map((words) => words.filter(Boolean).join(" "))
              .join(", ")}
          </span>
        )}
        {shown?.question && <span className="block text-sm text-look">{shown.question}</span>}
      </td>
      <td className="whitespace-nowrap text-right">
        <NumberField
          label={t`${name}, amount`}
          hideLabel
          value={line.amount.value}
          decimals={line.amount.value < 10 ? 2 : line.amount.value < 100 ? 1 : 0}
          within={limit("Amount.value")}
          width="4.4rem"
          onChange={amount}
          byFeel
          onWords={(value, words) => {
            const unit = unitNamed(words, unitsFor(line.amount.unit, kitchen, item));
            if (unit) edit(withLine(sheet, part, at, (was) => ({ ...was, amount: { value, unit } })));
            return unit !== null;
          }}
        />
        <select
          aria-label={t`${name}, unit`}
          className="ml-1 h-10 w-[4.6rem] bg-transparent text-ink2"
          value={line.amount.unit}
          onChange={(event) => adjust({ by: "unit", part, line: at, unit: event.target.value as UnitId })}
        >
          {unitsFor(line.amount.unit, kitchen, item).map((unit) => (
            <option key={unit} value={unit}>
              {unitName(formatters, unit, kitchen, item)}
            </option>
          ))}
        </select>
      </td>
      <td className="hidden whitespace-nowrap pl-2 text-right text-[13.5px] leading-tight text-ink2 sm:table-cell">
        {shown?.household}
        {shown?.household && Math.abs(shown.household_error_pct) >= 1 && (
          <span className="block text-[13px]">
            {shown.household_error_pct > 0 ? "+" : "−"}
            {Math.abs(shown.household_error_pct).toFixed(0)} %
          </span>
        )}
      </td>
      <td className="whitespace-nowrap pl-2 text-right">
        {shown && role === "base" ? `${shown.pct < 10 ? fixed(shown.pct, 1) : shown.pct.toFixed(0)} %` : ""}
      </td>
      <td className="pl-1 text-right">
        {lines.length + (sheet.parts[part]?.takes.length ?? 0) > 1 && (
          <button
            type="button"
            className="min-h-8 min-w-6 text-ink2 hover:text-bean"
            aria-label={t`Take out ${name}`}
            onClick={() => edit(withLine(sheet, part, at, () => null))}
          >
            ×
          </button>
        )}
      </td>
    </tr>
  );
}

/** Another part beside the base, with a formula to start from; of a role that is there already one more, with a name. */
function AddPart({ editing }: { editing: Editing }) {
  const { sheet } = editing;
  const families = useQuery(familiesQuery);
  const options = (families.data ?? []).flatMap((family) =>
    family.roles.filter((role) => nextId(sheet, role)).map((role) => ({ role, family })),
  );
  const add = (chosen: string) => {
    const [role, familyId] = chosen.split(" ") as [PartRole, string];
    const family = families.data?.find((item) => item.id === familyId);
    const id = nextId(sheet, role);
    if (!family || !id) return;
    const name = family.outputs[0]?.name ? family.name.toLowerCase() : role;
    const taken = sheet.parts.filter((part) => part.name === name || part.name.startsWith(`${name} `)).length;
    const own = taken ? `${name} ${taken + 1}` : name;
    editing.edit({ ...sheet, parts: [...sheet.parts, newPart(role, own, family.id, family.lines, id)] });
  };
  return (
    <ActionMenu
      label={t`Add a part`}
      choices={options.map(({ role, family }) => ({
        id: `${role} ${family.id}`,
        words: sheet.parts.some((part) => part.role === role)
          ? t`${family.name} (one more ${said(role)})`
          : `${family.name} (${said(role)})`,
      }))}
      onPick={add}
    >
      <Trans>add a part</Trans>
    </ActionMenu>
  );
}
