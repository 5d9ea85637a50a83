/** Pans and scoops: things of the kitchen that are known by a name and a figure. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { type ReactNode, useState } from "react";
import { type Limits, limit } from "../../api/limits";
import { AmountField } from "../../ui/AmountField";
import { LengthField } from "../../ui/LengthField";
import { LinkButton } from "../../ui/LinkButton";
import type { PanelProps } from "../things";

export function Pans({ kitchen, set }: PanelProps) {
  const pans = kitchen.pans ?? [];
  return (
    <NamedWeights
      title={t`Pans, empty`}
      says={t`With its own weight known, what is in a pan is read without tipping it out; how wide it is says how fast it boils down.`}
      one={t`pan`}
      verb={t`weighs`}
      field={(name) => t`${name}, empty`}
      unit="g"
      within={limit("Pan.empty_g")}
      start={900}
      known={pans.map((pan) => ({ name: pan.name, value: pan.empty_g }))}
      onChange={(i, empty_g) => set({ pans: pans.map((pan, j) => (j === i ? { ...pan, empty_g } : pan)) })}
      also={(i) => {
        const pan = pans[i];
        return (
          pan && (
            <LengthField
              label={t`${pan.name}, across`}
              hideLabel
              value={pan.across_mm}
              decimals={0}
              within={limit("Pan.across_mm")}
              width="3.5rem"
              onChange={(across_mm) => set({ pans: pans.map((pan, j) => (j === i ? { ...pan, across_mm } : pan)) })}
            />
          )
        );
      }}
      onTakeAway={(i) => set({ pans: pans.filter((_, j) => j !== i) })}
      onAdd={(name, empty_g) => set({ pans: [...pans, { name, empty_g, across_mm: 200 }] })}
    />
  );
}

export function Scoops({ kitchen, set }: PanelProps) {
  const scoops = kitchen.scoops ?? [];
  return (
    <NamedWeights
      title={t`Scoops`}
      says={t`Fill it level with water and weigh the water. Shape then names the one nearest to a ball of filling.`}
      one={t`scoop`}
      verb={t`holds`}
      field={(name) => t`${name} holds`}
      unit="ml"
      within={limit("Scoop.ml")}
      start={30}
      known={scoops.map((scoop) => ({ name: scoop.name, value: scoop.ml }))}
      onChange={(i, ml) => set({ scoops: scoops.map((scoop, j) => (j === i ? { ...scoop, ml } : scoop)) })}
      onTakeAway={(i) => set({ scoops: scoops.filter((_, j) => j !== i) })}
      onAdd={(name, ml) => set({ scoops: [...scoops, { name, ml }] })}
    />
  );
}

interface NamedWeightsProps {
  title: string;
  says: string;
  /** What one of them is called. */
  one: string;
  verb: string;
  field: (name: string) => string;
  unit: string;
  within: Limits;
  start: number;
  known: { name: string; value: number }[];
  onChange: (i: number, value: number) => void;
  /** A second figure, where they have one. */
  also?: (i: number) => ReactNode;
  onTakeAway: (i: number) => void;
  onAdd: (name: string, value: number) => void;
}

/** Things of the kitchen that are known by a name and one figure. */
function NamedWeights(props: NamedWeightsProps) {
  const { title, says, one, verb, field, unit, within, start, known, onChange, also, onTakeAway, onAdd } = props;
  const [name, setName] = useState("");
  const [value, setValue] = useState(start);
  return (
    <>
      <h3 className="mt-7 text-lg">{title}</h3>
      <p className="mt-1 text-ink2">{says}</p>
      <ul>
        {known.map((item, i) => (
          <li key={item.name} className="hairline flex items-baseline justify-between gap-3 py-1">
            <span>{item.name}</span>
            <span className="flex items-baseline gap-4">
              {also?.(i)}
              <AmountField
                label={field(item.name)}
                hideLabel
                value={item.value}
                unit={unit}
                decimals={0}
                within={within}
                width="4.4rem"
                onChange={(next) => onChange(i, next)}
              />
              <LinkButton className="ml-4" onClick={() => onTakeAway(i)}>
                <Trans>Take away</Trans>
              </LinkButton>
            </span>
          </li>
        ))}
      </ul>
      <form
        className="mt-2 flex flex-wrap items-baseline gap-x-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (!name.trim() || known.some((item) => item.name === name.trim())) return;
          onAdd(name.trim(), value);
          setName("");
        }}
      >
        <input
          aria-label={t`Name of the new ${one}`}
          className="write w-40"
          placeholder={t`another ${one}`}
          required
          maxLength={40}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <AmountField
          label={verb}
          value={value}
          unit={unit}
          decimals={0}
          within={within}
          width="4.4rem"
          onChange={setValue}
        />
        <button type="submit" className="pick">
          <Trans>Add the {one}</Trans>
        </button>
      </form>
    </>
  );
}
