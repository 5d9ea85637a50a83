/** What a window hangs on: of so many minutes either way, how many are the lid's, and what would narrow it most. */

import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Facts, Hang, KitchenSettings, Sheet } from "../../api/client";
import { kitchenQuery } from "../../api/queries";
import { useKitchenSave } from "../../kitchen/useKitchenSave";
import { LinkButton, TextLink } from "../../ui/LinkButton";
import { NumberField } from "../../ui/NumberField";
import { celsius, degrees, degreesUnit, lengthFigure, lengthUnit, millimetres } from "../../ui/words";

interface Props {
  hangs: readonly Hang[];
  facts: Facts;
  sheet: Sheet;
  batterC: number;
  onSheet: (sheet: Sheet) => void;
}

type Own = KitchenSettings["estimates"];

const minutes = (value: number) => (value < 20 ? +value.toFixed(1) : value.toFixed(0));

export function HangsOn({ hangs, facts, sheet, batterC, onSheet }: Props) {
  const [open, setOpen] = useState("");
  const value = (key: "first_check" | "latest") => Number(facts[`heat.${key}_min`]?.value ?? 0);
  const half = (value("latest") - value("first_check")) / 2;
  if (hangs.length === 0 || half <= 0) return null;
  const widest = Math.max(...hangs.map((hang) => hang.minutes));
  const best = hangs.filter((hang) => hang.narrows).sort((a, b) => a.becomes_min - b.becomes_min)[0];
  return (
    <section aria-label="What it hangs on" className="mt-5">
      <h3 className="text-xl">What the ± {minutes(half)} min hang on</h3>
      <ul>
        {hangs.map((hang) => (
          <li key={hang.id} className="hairline py-1.5">
            <div className="grid grid-cols-[1fr_7rem_4rem] items-center gap-x-3">
              <span>
                {hang.words}
                <span className="block text-sm text-ink2">{rangeOf(hang)}</span>
              </span>
              <span aria-hidden="true" className="block h-3">
                <span className="block h-3 bg-amber" style={{ width: `${(100 * hang.minutes) / widest}%` }} />
              </span>
              <b className="whitespace-nowrap text-right">± {minutes(hang.minutes)}</b>
            </div>
            {hang.narrows && (
              <p className={hang === best ? "" : "text-sm"}>
                {hang.narrows === "kettle" && <TextLink to="/kitchen#kettle">{hang.narrow_words}</TextLink>}
                {hang.narrows === "log" && <TextLink to="/log">{hang.narrow_words}</TextLink>}
                {hang.narrows === "scale" && <TextLink to="../shape">{hang.narrow_words}</TextLink>}
                {(hang.narrows === "oven" || hang.narrows === "depth" || hang.narrows === "warmth") && (
                  <LinkButton aria-expanded={open === hang.id} onClick={() => setOpen(open === hang.id ? "" : hang.id)}>
                    {hang.narrow_words}
                  </LinkButton>
                )}
                <span className="text-ink2">
                  {hang.takes_min ? ` (${hang.takes_min.toFixed(0)} min)` : ""}: ± {minutes(half)} becomes ±{" "}
                  {minutes(hang.becomes_min)}
                </span>
              </p>
            )}
            {open === hang.id && (
              <Measure
                hang={hang}
                sheet={sheet}
                batterC={batterC}
                depthMm={Number(facts["heat.depth_mm"]?.value ?? 0)}
                onSheet={onSheet}
                onDone={() => setOpen("")}
              />
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

const rangeOf = (hang: Hang) =>
  hang.unit === "x"
    ? `between ${hang.low.toFixed(2)} and ${hang.high.toFixed(2)} times what is told`
    : `${+hang.low.toPrecision(3)} to ${+hang.high.toPrecision(3)} ${hang.unit}`;

interface MeasureProps {
  hang: Hang;
  sheet: Sheet;
  batterC: number;
  depthMm: number;
  onSheet: (sheet: Sheet) => void;
  onDone: () => void;
}

/** One number that was read, kept as what this kitchen knows. */
function Measure({ hang, sheet, batterC, depthMm, onSheet, onDone }: MeasureProps) {
  const kitchen = useQuery(kitchenQuery).data?.kitchen;
  const { save, error } = useKitchenSave();
  const dial = sheet.heat.oven_c;
  const [oven, setOven] = useState(dial);
  const [stick, setStick] = useState(Math.round(depthMm));
  const [warm, setWarm] = useState(batterC);
  if (!kitchen) return null;
  const keep = (own: Own) => {
    save(kitchen, { ...kitchen, estimates: { ...kitchen.estimates, ...own } });
    onDone();
  };
  const inches = lengthUnit() === "in";
  return (
    <div className="mt-1 flex flex-wrap items-baseline gap-3 border-amber border-l-4 pl-3">
      {hang.narrows === "oven" && (
        <>
          <NumberField
            label={`The thermometer shows, with the dial at ${degrees(dial)} ${degreesUnit()}`}
            value={Number(degrees(oven))}
            unit={degreesUnit()}
            decimals={0}
            within={{ min: Number(degrees(dial - 80)), max: Number(degrees(dial + 80)) }}
            onChange={(typed) => setOven(celsius(typed))}
          />
          <LinkButton
            onClick={() => keep({ oven_c: { value: oven - dial, low: oven - dial - 3, high: oven - dial + 3 } })}
          >
            keep
          </LinkButton>
        </>
      )}
      {hang.narrows === "depth" && (
        <>
          <NumberField
            label="The stick is wet for"
            value={Number(lengthFigure(stick, 0))}
            unit={lengthUnit()}
            decimals={inches ? 2 : 0}
            within={{ min: Number(lengthFigure(depthMm * 0.5)), max: Number(lengthFigure(depthMm * 2)) }}
            onChange={(typed) => setStick(millimetres(typed))}
          />
          <LinkButton
            onClick={() => {
              const is = stick / Math.max(1, depthMm);
              keep({ depth: { value: is, low: is * 0.98, high: is * 1.02 } });
            }}
          >
            keep
          </LinkButton>
        </>
      )}
      {hang.narrows === "warmth" && (
        <>
          <NumberField
            label="It goes in at"
            value={Number(degrees(warm))}
            unit={degreesUnit()}
            decimals={0}
            within={{ min: Number(degrees(1)), max: Number(degrees(90)) }}
            onChange={(typed) => setWarm(celsius(typed))}
          />
          <LinkButton
            onClick={() => {
              onSheet({ ...sheet, start: { ...sheet.start, batter_c: warm } });
              keep({ start_c: { value: 0, low: -1, high: 1 } });
            }}
          >
            keep
          </LinkButton>
        </>
      )}
      {error && <span className="text-look">{error.message}</span>}
    </div>
  );
}
