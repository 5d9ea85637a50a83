/** The lines of every part: amount in any unit, the household measure nearest to it, its share of the flour. */

import { useQuery } from "@tanstack/react-query";
import { Fragment } from "react";
import type { MixDrawing } from "../../api/client";
import { larderQuery } from "../../api/queries";
import { withLine, withNewLine } from "../../sheet/edits";
import type { Bench } from "../../sheet/useSheet";
import { NumberField } from "../../ui/NumberField";

const UNITS: [string, string][] = [
  ["g", "g"],
  ["kg", "kg"],
  ["oz", "oz"],
  ["lb", "lb"],
  ["ml", "ml"],
  ["l", "l"],
  ["cup_us", "US cup"],
  ["cup_metric", "metric cup"],
  ["cup_rice_cooker", "rice-cooker cup"],
  ["tbsp_us", "US tbsp"],
  ["tbsp_metric", "tbsp"],
  ["tbsp_20", "20 ml tbsp"],
  ["tsp_us", "US tsp"],
  ["tsp_metric", "tsp"],
  ["pinch", "pinch"],
  ["piece", "piece"],
];

export function BowlLines({ bench, drawing }: { bench: Bench; drawing: MixDrawing }) {
  const { sheet, edit } = bench;
  const larder = useQuery(larderQuery);
  return (
    <table className="w-full border-collapse">
      <thead>
        <tr className="text-sm text-ink2">
          <th className="text-left font-normal">
            <span className="font-title text-xl text-ink">In the bowl</span>
          </th>
          <th className="text-right font-normal">
            <span className="sr-only">amount</span>
          </th>
          <th className="hidden text-right font-normal sm:table-cell">household</th>
          <th className="text-right font-normal">of flour</th>
          <th>
            <span className="sr-only">take out</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {sheet.parts.map((part, p) => (
          <Fragment key={part.role}>
            <tr>
              <th colSpan={5} scope="colgroup" className="pt-1 text-left font-normal">
                <span className="flex items-baseline justify-between">
                  <b>{part.name || part.role}</b>
                  <select
                    aria-label={`Add to the ${part.name || part.role}`}
                    className="h-8 max-w-48 bg-transparent text-right text-bean [field-sizing:content]"
                    value=""
                    onChange={(event) => edit(withNewLine(sheet, p, event.target.value))}
                  >
                    <option value="">add …</option>
                    {larder.data?.map((item) => (
                      <option key={item.id} value={item.id}>
                        {item.name}
                      </option>
                    ))}
                  </select>
                </span>
              </th>
            </tr>
            {part.lines.map((line, i) => {
              const shown = drawing.lines.find((one) => one.part === p && one.line === i);
              return (
                // biome-ignore lint/suspicious/noArrayIndexKey: a line has no name of its own but its place
                <tr key={`${line.ingredient}-${i}`} className="hairline">
                  <td className="py-0.5 pr-2 leading-tight">
                    {shown?.name ?? line.ingredient}
                    {shown && shown.splits.length > 0 && (
                      <span className="block text-sm text-ink2">{shown.splits.join(", ")}</span>
                    )}
                    {shown?.look_alike && shown.group === "flour" && i === 0 && p === 0 && (
                      <span className="sr-only">{shown.look_alike}</span>
                    )}
                  </td>
                  <td className="whitespace-nowrap text-right">
                    <NumberField
                      label={`${shown?.name ?? line.ingredient}, amount`}
                      hideLabel
                      value={line.amount.value}
                      decimals={line.amount.value < 10 ? 2 : 1}
                      min={0.01}
                      max={50000}
                      width="4.4rem"
                      onChange={(value) =>
                        edit(withLine(sheet, p, i, (was) => ({ ...was, amount: { ...was.amount, value } })))
                      }
                    />
                    <select
                      aria-label={`${shown?.name ?? line.ingredient}, unit`}
                      className="ml-1 h-10 max-w-24 bg-transparent text-ink2 [field-sizing:content]"
                      value={line.amount.unit}
                      onChange={(event) =>
                        edit(
                          withLine(sheet, p, i, (was) => ({
                            ...was,
                            amount: { ...was.amount, unit: event.target.value as typeof was.amount.unit },
                          })),
                        )
                      }
                    >
                      {UNITS.map(([id, words]) => (
                        <option key={id} value={id}>
                          {words}
                        </option>
                      ))}
                    </select>
                  </td>
                  <td className="hidden whitespace-nowrap pl-2 text-right text-[13.5px] leading-tight text-ink2 sm:table-cell">
                    {shown?.household}
                    {shown?.household && Math.abs(shown.household_error_pct) >= 1 && (
                      <span className="block text-xs">
                        {shown.household_error_pct > 0 ? "+" : "−"}
                        {Math.abs(shown.household_error_pct).toFixed(0)} %
                      </span>
                    )}
                  </td>
                  <td className="whitespace-nowrap pl-2 text-right">
                    {shown && part.role === "base"
                      ? `${shown.pct < 10 ? shown.pct.toFixed(1) : shown.pct.toFixed(0)} %`
                      : ""}
                  </td>
                  <td className="pl-1 text-right">
                    {part.lines.length > 1 && (
                      <button
                        type="button"
                        className="min-h-8 min-w-6 text-ink2 hover:text-bean"
                        aria-label={`Take out ${shown?.name ?? line.ingredient}`}
                        onClick={() => edit(withLine(sheet, p, i, () => null))}
                      >
                        ×
                      </button>
                    )}
                  </td>
                </tr>
              );
            })}
          </Fragment>
        ))}
      </tbody>
    </table>
  );
}
