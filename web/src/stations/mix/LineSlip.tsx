/** Everything about one line that is not its amount: exchanges, shares for other parts, what is held back, its cup. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { Popover } from "radix-ui";
import { useState } from "react";
import type { IngredientCard, Line, LineResult, WayCard } from "../../api/client";
import { limit } from "../../api/limits";
import { exchangesQuery } from "../../api/queries";
import { withLine } from "../../sheet/edits";
import type { Editing } from "../../sheet/useSheet";
import { NumberField } from "../../ui/NumberField";
import { Slip } from "../../ui/PopoverPanel";
import { PickRow, Row } from "../../ui/Row";
import { said } from "../../words/said";
import { joinSteps, laterStages } from "./places";
import { Splits } from "./Splits";

interface Props {
  editing: Editing;
  shown: LineResult;
  item?: IngredientCard;
  way: WayCard;
}

export function LineSlip({ editing, shown, item, way }: Props) {
  const { sheet, edit, adjust } = editing;
  const [open, setOpen] = useState(false);
  const line = sheet.parts[shown.part]?.lines[shown.line];
  if (!line) return <>{shown.name}</>;
  const change = (next: Partial<Line>) => edit(withLine(sheet, shown.part, shown.line, (was) => ({ ...was, ...next })));
  const at = { part: shown.part, line: shown.line };
  const later = laterStages(shown.part_id, editing.worked.steps);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="text-left underline decoration-hair underline-offset-4 hover:text-bean hover:decoration-bean">
        {shown.name}
        <span className="sr-only">
          <Trans>: exchange, split, hold back</Trans>
        </span>
      </Popover.Trigger>
      <Slip label={shown.name} wide>
        <p className="font-title text-xl">{shown.name}</p>
        {shown.look_alike && <p className="text-look">{shown.look_alike}</p>}
        {item && (
          <p className="text-sm text-ink2">
            <Trans>
              In 100 g: {composition(item)}; figures {item.figures}.
              {shown.allergens.length > 0 && t` Contains ${shown.allergens.join(", ")}.`}
            </Trans>
          </p>
        )}
        <Exchanges
          ingredient={line.ingredient}
          onTake={(ingredient) => {
            adjust({ by: "exchange", ...at, ingredient });
            setOpen(false);
          }}
        />
        <p className="mt-3">
          <NumberField
            label={t`There is only`}
            value={shown.grams}
            unit={t`g of it: make everything to fit`}
            decimals={1}
            within={limit("Amount.value")}
            onChange={(grams) => adjust({ by: "line", ...at, grams })}
          />
        </p>
        {item && Object.keys(item.density).length > 1 && (
          <label className="mt-2 block">
            <Trans>
              A cup of it is{" "}
              <select
                className="write"
                value={line.state ?? ""}
                onChange={(event) => change({ state: (event.target.value || null) as Line["state"] })}
              >
                <option value="">filled as usual</option>
                {Object.entries(item.density).map(([state, density]) => (
                  <option key={state} value={state}>
                    <Trans>
                      {state}, {density} g/ml
                    </Trans>
                  </option>
                ))}
              </select>
            </Trans>
          </label>
        )}
        {shown.part_id === "base" && (
          <PickRow
            label={t`Joins at`}
            value={line.joins}
            options={[["", t`from the start`] as const, ...joinSteps(way, sheet)]}
            onChange={(joins) => change({ joins })}
          />
        )}
        {shown.part_id !== "base" && later.length > 0 && (
          <PickRow
            label={t`Joins at`}
            value={line.joins}
            options={[["", t`from the start`] as const, ...later]}
            onChange={(joins) => change({ joins })}
          />
        )}
        {item?.group === "legume" && shown.part_id === "base" && (
          <Row label={t`Soaked and drained`}>
            <NumberField
              label={t`Soaked and drained`}
              hideLabel
              value={line.soak_min ?? null}
              unit="min"
              decimals={0}
              within={limit("Line.soak_min")}
              onClear={() => change({ soak_min: null })}
              onChange={(soak_min) => change({ soak_min })}
            />
          </Row>
        )}
        <Reserve line={line} onChange={change} />
        <Splits line={line} part={shown.part_id} parts={sheet.parts} onChange={change} />
        <div className="mt-3 text-right">
          <Popover.Close className="pick">
            <Trans>close</Trans>
          </Popover.Close>
        </div>
      </Slip>
    </Popover.Root>
  );
}

const composition = (item: IngredientCard) =>
  (["water", "sugar", "starch", "fat", "protein"] as const)
    .filter((name) => (item.per_100_g[name] ?? 0) >= 0.5)
    .map((name) => `${said(name)} ${(item.per_100_g[name] ?? 0).toFixed(0)}`)
    .join(", ");

function Exchanges({ ingredient, onTake }: { ingredient: string; onTake: (to: string) => void }) {
  const query = useQuery(exchangesQuery(ingredient));
  const [taken, setTaken] = useState<string | null>(null);
  if (!query.data?.length) return null;
  const swap = query.data.find((item) => item.to === taken);
  return (
    <div className="mt-3">
      <label>
        <Trans>
          Exchange it for{" "}
          <select
            className="write max-w-full"
            value={taken ?? "-"}
            onChange={(event) => setTaken(event.target.value === "-" ? null : event.target.value)}
          >
            <option value="-">…</option>
            {query.data.map((item) => (
              <option key={item.to} value={item.to}>
                {item.label}
              </option>
            ))}
          </select>
        </Trans>
      </label>
      {swap && (
        <p className="mt-1">
          <Trans>
            {swap.says} Water and sugar stay where they are.
            <button type="button" className="pick ml-3" data-on="true" onClick={() => onTake(swap.to)}>
              Exchange
            </button>
          </Trans>
        </p>
      )}
    </div>
  );
}

function Reserve({ line, onChange }: { line: Line; onChange: (next: Partial<Line>) => void }) {
  const unit = line.reserve?.unit ?? line.amount.unit;
  return (
    <p className="mt-2 flex flex-wrap items-baseline gap-x-3">
      <NumberField
        label={t`Hold back`}
        value={line.reserve?.value ?? null}
        unit={unit}
        within={{ above: 0, below: line.amount.value }}
        decimals={2}
        width="4rem"
        onClear={() => onChange({ reserve: null })}
        onChange={(value) => onChange({ reserve: { value, unit } })}
      />
      {line.reserve && (
        <label>
          <Trans>
            for{" "}
            <input
              className="write w-40"
              maxLength={60}
              value={line.reserve_for}
              onChange={(event) => onChange({ reserve_for: event.target.value })}
            />
          </Trans>
        </label>
      )}
    </p>
  );
}
