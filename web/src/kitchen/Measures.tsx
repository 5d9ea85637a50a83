/** The cook's own cup, spoon and pans, weighed once: every sheet then reads them. */

import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import type { KitchenSettings, UnitId } from "../api/client";
import { type Limits, limit } from "../api/limits";
import { larderQuery } from "../api/queries";
import { unitName } from "../stations/mix/units";
import { LengthField } from "../ui/LengthField";
import { LinkButton } from "../ui/LinkButton";
import { NumberField } from "../ui/NumberField";
import { Row } from "../ui/Row";

interface Props {
  kitchen: KitchenSettings;
  set: (change: Partial<KitchenSettings>) => void;
}

const VOLUMES: UnitId[] = [
  "cup_own",
  "spoon_own",
  "cup_metric",
  "cup_us",
  "cup_rice_cooker",
  "tbsp_metric",
  "tbsp_us",
  "tbsp_20",
  "tsp_metric",
  "tsp_us",
];

export function OwnCups({ kitchen, set }: Props) {
  const larder = useQuery(larderQuery);
  const weighed = kitchen.weighed ?? [];
  const name = (id: string) => larder.data?.find((one) => one.id === id)?.name ?? id;
  return (
    <>
      <h2 className="mt-7 text-xl">Your own cup and spoon</h2>
      <p className="mt-1 text-ink2">
        Fill it with water to the brim you use, and weigh the water: grams are millilitres.
      </p>
      <Row label="Water in your cup">
        <NumberField
          label="Water in your cup"
          hideLabel
          value={kitchen.own_cup_ml ?? null}
          unit="g"
          within={limit("Kitchen.own_cup_ml")}
          onClear={() => set({ own_cup_ml: null, weighed: weighed.filter((one) => one.measure !== "cup_own") })}
          onChange={(own_cup_ml) => set({ own_cup_ml })}
        />
      </Row>
      <Row label="Water in your spoon">
        <NumberField
          label="Water in your spoon"
          hideLabel
          value={kitchen.own_spoon_ml ?? null}
          unit="g"
          within={limit("Kitchen.own_spoon_ml")}
          onClear={() => set({ own_spoon_ml: null, weighed: weighed.filter((one) => one.measure !== "spoon_own") })}
          onChange={(own_spoon_ml) => set({ own_spoon_ml })}
        />
      </Row>
      <ul>
        {weighed.map((one, i) => (
          <li
            key={`${one.measure} ${one.ingredient}`}
            className="hairline flex items-baseline justify-between gap-3 py-1"
          >
            <span>
              {unitName(one.measure, kitchen)} of {name(one.ingredient).toLowerCase()}
            </span>
            <span className="whitespace-nowrap">
              <b>{one.grams} g</b>
              <LinkButton className="ml-4" onClick={() => set({ weighed: weighed.filter((_, j) => j !== i) })}>
                Take away
              </LinkButton>
            </span>
          </li>
        ))}
      </ul>
      <WeighOne kitchen={kitchen} set={set} />
    </>
  );
}

function WeighOne({ kitchen, set }: Props) {
  const larder = useQuery(larderQuery);
  const [measure, setMeasure] = useState<UnitId>("cup_metric");
  const [ingredient, setIngredient] = useState("sweet-rice-flour");
  const [grams, setGrams] = useState(140);
  const known = VOLUMES.filter(
    (unit) =>
      (unit !== "cup_own" || kitchen.own_cup_ml != null) && (unit !== "spoon_own" || kitchen.own_spoon_ml != null),
  );
  return (
    <form
      className="mt-2 flex flex-wrap items-baseline gap-x-3 gap-y-1"
      onSubmit={(event) => {
        event.preventDefault();
        const others = (kitchen.weighed ?? []).filter((one) => one.ingredient !== ingredient);
        set({ weighed: [...others, { measure, ingredient, grams }] });
      }}
    >
      <select
        aria-label="Weighed measure"
        className="write"
        value={measure}
        onChange={(event) => setMeasure(event.target.value as UnitId)}
      >
        {known.map((unit) => (
          <option key={unit} value={unit}>
            {unitName(unit, kitchen)}
          </option>
        ))}
      </select>
      of
      <select
        aria-label="Weighed ingredient"
        className="write max-w-52"
        value={ingredient}
        onChange={(event) => setIngredient(event.target.value)}
      >
        {larder.data?.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </select>
      <NumberField
        label="weighs"
        value={grams}
        unit="g"
        within={limit("WeighedMeasure.grams")}
        width="4rem"
        onChange={setGrams}
      />
      <button type="submit" className="pick">
        Keep it
      </button>
    </form>
  );
}

export function Pans({ kitchen, set }: Props) {
  const pans = kitchen.pans ?? [];
  return (
    <NamedWeights
      title="Pans, empty"
      says="With its own weight known, what is in a pan is read without tipping it out; how wide it is says how fast it boils down."
      one="pan"
      verb="weighs"
      field={(name) => `${name}, empty`}
      unit="g"
      within={limit("Pan.empty_g")}
      start={900}
      known={pans.map((pan) => ({ name: pan.name, value: pan.empty_g }))}
      onChange={(i, empty_g) => set({ pans: pans.map((one, j) => (j === i ? { ...one, empty_g } : one)) })}
      also={(i) => {
        const pan = pans[i];
        return (
          pan && (
            <LengthField
              label={`${pan.name}, across`}
              hideLabel
              value={pan.across_mm}
              decimals={0}
              within={limit("Pan.across_mm")}
              width="3.5rem"
              onChange={(across_mm) => set({ pans: pans.map((one, j) => (j === i ? { ...one, across_mm } : one)) })}
            />
          )
        );
      }}
      onTakeAway={(i) => set({ pans: pans.filter((_, j) => j !== i) })}
      onAdd={(name, empty_g) => set({ pans: [...pans, { name, empty_g, across_mm: 200 }] })}
    />
  );
}

export function Scoops({ kitchen, set }: Props) {
  const scoops = kitchen.scoops ?? [];
  return (
    <NamedWeights
      title="Scoops"
      says="Fill it level with water and weigh the water. Shape then names the one nearest to a ball of filling."
      one="scoop"
      verb="holds"
      field={(name) => `${name} holds`}
      unit="ml"
      within={limit("Scoop.ml")}
      start={30}
      known={scoops.map((scoop) => ({ name: scoop.name, value: scoop.ml }))}
      onChange={(i, ml) => set({ scoops: scoops.map((one, j) => (j === i ? { ...one, ml } : one)) })}
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
      <h2 className="mt-7 text-xl">{title}</h2>
      <p className="mt-1 text-ink2">{says}</p>
      <ul>
        {known.map((item, i) => (
          <li key={item.name} className="hairline flex items-baseline justify-between gap-3 py-1">
            <span>{item.name}</span>
            <span className="flex items-baseline gap-4">
              {also?.(i)}
              <NumberField
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
                Take away
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
          aria-label={`Name of the new ${one}`}
          className="write w-40"
          placeholder={`another ${one}`}
          required
          maxLength={40}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <NumberField
          label={verb}
          value={value}
          unit={unit}
          decimals={0}
          within={within}
          width="4.4rem"
          onChange={setValue}
        />
        <button type="submit" className="pick">
          Add the {one}
        </button>
      </form>
    </>
  );
}
