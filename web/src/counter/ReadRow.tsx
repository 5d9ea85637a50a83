/** A line that was read: what it was taken for, to be put right; and the sheet that all of them make. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type {
  IngredientCard,
  KitchenSettings,
  ParsedIngredientLine,
  Part,
  PartRole,
  Sheet,
  UnitId,
} from "../api/client";
import { limit } from "../api/limits";
import { newLine, newPart } from "../sheet/edits";
import { useFormatters } from "../ui/formatters";
import { NumberField } from "../ui/NumberField";
import { unitName, unitsFor } from "../ui/units";

const ROLES: PartRole[] = [
  "base",
  "syrup",
  "filling",
  "broth",
  "topping",
  "coat",
  "glaze",
  "oil",
  "herb",
  "wrapper",
  "heart",
];

/** A line as it stands after the cook's corrections; `out` when it is left out on purpose. */
export type Row = ParsedIngredientLine & { out: boolean };

export const ready = (row: Row) => row.ingredient != null && row.value != null && row.unit != null;

interface RowProps {
  row: Row;
  larder: IngredientCard[];
  kitchen: KitchenSettings;
  onChange: (next: Partial<Row>) => void;
}

export function ReadRow({ row, larder, kitchen, onChange }: RowProps) {
  const formatters = useFormatters();
  if (row.kind === "heading")
    return (
      <li className="hairline flex flex-wrap items-baseline gap-x-4 py-2">
        <span className="font-title text-lg">{row.text.replace(/[:*#]/g, "").trim()}</span>
        <span className="text-ink2">
          <Trans>begins the {row.role}</Trans>
        </span>
      </li>
    );
  const item = larder.find((item) => item.id === row.ingredient);
  const open = !row.out && !ready(row);
  return (
    <li className={`hairline grid gap-x-4 py-1.5 sm:grid-cols-[minmax(0,1fr)_auto] ${row.out ? "opacity-55" : ""}`}>
      <div>
        <span className={row.out ? "line-through" : ""}>{row.text}</span>
        <span className="block text-sm text-ink2">
          {[
            row.understood && t`understood: ${row.understood}`,
            row.guessed.length && t`guessed: ${row.guessed.join("; ")}`,
            row.left_over && row.ingredient && t`not used: “${row.left_over}”`,
          ]
            .filter(Boolean)
            .join(" · ")}
        </span>
        {row.asks && !row.out && <span className="block text-look">{row.asks}</span>}
      </div>
      <div className="flex flex-wrap items-baseline justify-end gap-x-2">
        <NumberField
          label={t`Amount of “${row.text}”`}
          hideLabel
          value={row.value ?? null}
          decimals={2}
          within={limit("Amount.value")}
          width="4.2rem"
          onChange={(value) => onChange({ value, unit: row.unit ?? "g", understood: "", guessed: [] })}
        />
        <select
          aria-label={t`Unit of “${row.text}”`}
          className="h-10 w-20 bg-transparent text-ink2"
          value={row.unit ?? ""}
          onChange={(event) => onChange({ unit: event.target.value as UnitId, understood: "", guessed: [] })}
        >
          {!row.unit && (
            <option value="">
              <Trans>unit</Trans>
            </option>
          )}
          {unitsFor(row.unit ?? "g", kitchen, item).map((unit) => (
            <option key={unit} value={unit}>
              {unitName(formatters, unit, kitchen, item)}
            </option>
          ))}
        </select>
        <select
          aria-label={t`Ingredient of “${row.text}”`}
          className={`write w-44 ${open && !row.ingredient ? "text-bean" : ""}`}
          value={row.ingredient ?? ""}
          onChange={(event) =>
            onChange({ ingredient: event.target.value, kind: "line", understood: "", guessed: [], left_over: "" })
          }
        >
          {!row.ingredient && (
            <option value="">
              <Trans>which ingredient?</Trans>
            </option>
          )}
          {larder.map((item) => (
            <option key={item.id} value={item.id}>
              {item.name}
            </option>
          ))}
        </select>
        <select
          aria-label={t`Part of “${row.text}”`}
          className="h-10 bg-transparent text-ink2"
          value={row.role}
          onChange={(event) => onChange({ role: event.target.value as PartRole })}
        >
          {ROLES.map((role) => (
            <option key={role}>{role}</option>
          ))}
        </select>
        <label className="whitespace-nowrap text-ink2">
          <Trans>
            <input
              type="checkbox"
              className="mr-1 size-4 align-[-2px] accent-bean"
              checked={row.out}
              onChange={(event) => onChange({ out: event.target.checked })}
            />
            leave out
          </Trans>
        </label>
      </div>
    </li>
  );
}

/** The sheet that the lines make: one part a role, in the order in which they were written, the base first. */
export function sheetOf(rows: Row[], way: string, title: string): Sheet {
  const parts = ROLES.flatMap((role): Part[] => {
    const lines = rows
      .filter((row) => row.role === role && row.kind !== "heading" && !row.out)
      .map((row) => ({
        ...newLine(row.ingredient as string, row.value as number, row.unit as UnitId),
        state: row.state ?? null,
      }));
    return lines.length ? [newPart(role, role === "base" ? "" : role, "", lines)] : [];
  });
  return { way, title: title.trim() || t`Pasted list`, parts } as Sheet;
}
