/** The kitchen: what stands there, drawn to one scale, with its measures where one would look for them. */

import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import type { KitchenSettings } from "../api/client";
import { limit } from "../api/limits";
import { kitchenQuery } from "../api/queries";
import { useRole } from "../session/roles";
import { ActionMenu } from "../ui/ActionMenu";
import { Frame, Waiting } from "../ui/Frame";
import { JustDropped } from "../ui/JustDropped";
import { LengthRow } from "../ui/LengthField";
import { TextLink } from "../ui/LinkButton";
import { NumberField } from "../ui/NumberField";
import { NumberRow, PickRow, Row } from "../ui/Row";
import { Sorry } from "../ui/Sorry";
import { TemperatureField } from "../ui/TemperatureField";
import { TimeField } from "../ui/WallField";
import { Estimates } from "./Estimates";
import { KettleTest } from "./KettleTest";
import { OwnCups, Pans, Scoops } from "./Measures";
import { SteamerSection } from "./SteamerSection";
import { Tins } from "./Tins";
import { useSettings } from "./useSettings";

export default function KitchenPage() {
  const kitchen = useQuery(kitchenQuery);
  useEffect(() => {
    document.title = "Kitchen · Kemble";
  }, []);
  if (!kitchen.data) return <Waiting error={kitchen.error} />;
  return <Settings start={kitchen.data.kitchen} />;
}

function Settings({ start }: { start: KitchenSettings }) {
  const { kitchen, set, dirty, pending, waiting, error } = useSettings(start);
  const role = useRole();
  const { steamer, pot, burner, quiet } = kitchen;
  return (
    <Frame
      title={
        <h1 className="text-2xl">
          <input
            aria-label="Name of the kitchen"
            className="w-full border-b border-transparent bg-transparent font-title text-2xl hover:border-ink2"
            maxLength={80}
            value={kitchen.name}
            onChange={(event) => set({ name: event.target.value })}
          />
        </h1>
      }
      aside={
        <span role="status" className="text-ink2">
          {waiting ? "kept here, not saved yet" : dirty || pending ? "saving" : error ? "not saved" : "saved"}
        </span>
      }
    >
      <Sorry error={error} />
      <div className="mt-5 grid gap-x-14 gap-y-8 pb-10 lg:grid-cols-2">
        <section>
          <h2 className="text-xl">Steamer</h2>
          <SteamerSection kitchen={kitchen} />
          <LengthRow
            label="Across"
            name="Steamer across"
            within={limit("Steamer.diameter_mm")}
            step={5}
            value={steamer.diameter_mm}
            onChange={(diameter_mm) => set({ steamer: { ...steamer, diameter_mm } })}
          />
          <LengthRow
            label="Floor to rack"
            within={limit("Steamer.rack_mm")}
            value={steamer.rack_mm}
            onChange={(rack_mm) => set({ steamer: { ...steamer, rack_mm } })}
          />
          <LengthRow
            label="Air under the rack"
            within={limit("Steamer.gap_mm")}
            value={steamer.gap_mm}
            onChange={(gap_mm) => set({ steamer: { ...steamer, gap_mm } })}
          />
          <LengthRow
            label="Water stays above"
            within={limit("Steamer.low_mm")}
            value={steamer.low_mm}
            onChange={(low_mm) => set({ steamer: { ...steamer, low_mm } })}
          />
          <NumberRow
            label="Tiers"
            within={limit("Steamer.tiers")}
            value={steamer.tiers}
            onChange={(tiers) => set({ steamer: { ...steamer, tiers } })}
          />
          <Row label="A machine of its own, rated">
            <NumberField
              label="Steamer with a machine of its own"
              hideLabel
              value={steamer.watts ?? null}
              unit="W"
              decimals={0}
              within={limit("Steamer.watts")}
              onChange={(watts) => set({ steamer: { ...steamer, watts } })}
              onClear={() => set({ steamer: { ...steamer, watts: null } })}
            />
          </Row>
          <h2 className="mt-7 text-xl">Boiling pot</h2>
          <LengthRow
            label="Across"
            name="Pot across"
            within={limit("Pot.diameter_mm")}
            step={5}
            value={pot.diameter_mm}
            onChange={(diameter_mm) => set({ pot: { ...pot, diameter_mm } })}
          />
          <NumberRow
            label="Water in it"
            unit="ml"
            within={limit("Pot.water_ml")}
            step={100}
            value={pot.water_ml}
            onChange={(water_ml) => set({ pot: { ...pot, water_ml } })}
          />
          <h2 className="mt-7 text-xl">Burners, net into the pot</h2>
          {LEVELS.map((level) => (
            <NumberRow
              key={level}
              label={level}
              name={`Burner at ${level}`}
              unit="W"
              within={limit(`Burner.${level}_w`)}
              step={20}
              value={burner[`${level}_w`]}
              onChange={(watts) => set({ burner: { ...burner, [`${level}_w`]: watts } })}
            />
          ))}
          <KettleTest kitchen={kitchen} set={set} />
          <NumberRow
            label="How many"
            name="Burners"
            within={limit("Kitchen.burners")}
            value={kitchen.burners}
            onChange={(burners) => set({ burners })}
          />
          <NumberRow
            label="Microwave oven, rated"
            name="Microwave oven"
            unit="W"
            within={limit("Kitchen.microwave_w")}
            step={50}
            value={kitchen.microwave_w}
            onChange={(microwave_w) => set({ microwave_w })}
          />
          <NumberRow
            label="Rice cooker, rated"
            name="Rice cooker"
            unit="W"
            within={limit("Kitchen.cooker_w")}
            step={50}
            value={kitchen.cooker_w}
            onChange={(cooker_w) => set({ cooker_w })}
          />
          <NumberRow
            label="Trays in the oven at once"
            within={limit("Kitchen.oven_shelves")}
            value={kitchen.oven_shelves}
            onChange={(oven_shelves) => set({ oven_shelves })}
          />
          <OwnCups kitchen={kitchen} set={set} />
          <Estimates kitchen={kitchen} set={set} />
        </section>
        <section>
          <h2 className="text-xl">Place and people</h2>
          <NumberRow
            label="Height above the sea"
            unit="m"
            within={limit("Kitchen.altitude_m")}
            step={10}
            value={kitchen.altitude_m}
            onChange={(altitude_m) => set({ altitude_m })}
          />
          <Row label="Room">
            <TemperatureField
              label="Room"
              celsius={kitchen.room_c}
              within={limit("Kitchen.room_c")}
              onChange={(room_c) => set({ room_c })}
            />
          </Row>
          <Row label="Fridge">
            <TemperatureField
              label="Fridge"
              celsius={kitchen.fridge_c}
              within={limit("Kitchen.fridge_c")}
              onChange={(fridge_c) => set({ fridge_c })}
            />
          </Row>
          <Row label="Freezer">
            <TemperatureField
              label="Freezer"
              celsius={kitchen.freezer_c}
              within={limit("Kitchen.freezer_c")}
              onChange={(freezer_c) => set({ freezer_c })}
            />
          </Row>
          <NumberRow
            label="Cooks"
            within={limit("Kitchen.cooks")}
            value={kitchen.cooks}
            onChange={(cooks) => set({ cooks })}
          />
          <Row label="Quiet hours">
            <TimeField
              label="Quiet begins"
              value={quiet.begins}
              onChange={(begins) => set({ quiet: { ...quiet, begins } })}
            />
            <span className="mx-3">to</span>
            <TimeField label="Quiet ends" value={quiet.ends} onChange={(ends) => set({ quiet: { ...quiet, ends } })} />
          </Row>
          <PickRow
            label="The clock goes by"
            value={String(kitchen.clock_hours) as "24" | "12"}
            options={CLOCKS}
            onChange={(hours) => set({ clock_hours: hours === "12" ? 12 : 24 })}
          />
          <NumberRow
            label="Steamers"
            within={limit("Kitchen.steamers")}
            value={kitchen.steamers}
            onChange={(steamers) => set({ steamers })}
          />
          <NumberRow
            label="Ovens"
            within={limit("Kitchen.ovens")}
            value={kitchen.ovens}
            onChange={(ovens) => set({ ovens })}
          />
          <NumberRow
            label="Toaster ovens, grills"
            within={limit("Kitchen.toasters")}
            value={kitchen.toasters}
            onChange={(toasters) => set({ toasters })}
          />
          <NumberRow
            label="Machines to pound or grind"
            within={limit("Kitchen.machines")}
            value={kitchen.machines}
            onChange={(machines) => set({ machines })}
          />
          <NumberRow
            label="Shelves in the cold"
            within={limit("Kitchen.cold_shelves")}
            value={kitchen.cold_shelves}
            onChange={(cold_shelves) => set({ cold_shelves })}
          />
          <PickRow
            label="Cups and spoons"
            value={kitchen.measures}
            options={MEASURES}
            onChange={(measures) => set({ measures })}
          />
          <PickRow
            label="Temperatures in"
            value={kitchen.temperature_unit}
            options={DEGREES}
            onChange={(temperature_unit) => set({ temperature_unit })}
          />
          <PickRow
            label="Lengths in"
            value={kitchen.length_unit}
            options={LENGTHS}
            onChange={(length_unit) => set({ length_unit })}
          />
          <Row label="Prices in">
            <input
              aria-label="Prices in"
              className="write w-24 text-right"
              maxLength={6}
              value={kitchen.currency}
              onChange={(event) => set({ currency: event.target.value })}
            />
          </Row>
          <Row label="Clock of">
            <ActionMenu
              label={`Time zone: ${kitchen.timezone}`}
              choices={ZONES}
              onPick={(timezone) => set({ timezone })}
            >
              {kitchen.timezone}
            </ActionMenu>
          </Row>
          <h2 className="mt-7 text-xl">Tins</h2>
          <JustDropped kinds={["tin"]} />
          <Tins tins={kitchen.tins} onChange={(tins) => set({ tins })} />
          <Pans kitchen={kitchen} set={set} />
          <Scoops kitchen={kitchen} set={set} />
          <p className="mt-7">
            <TextLink to="/household">Household: who comes in, on which devices; how this one calls and looks</TextLink>
          </p>
          {role === "owner" && (
            <p className="mt-3">
              <TextLink to="/kitchen/archive">The whole kitchen in one file, out and in</TextLink>
            </p>
          )}
          <p className="mt-7">
            <a href="/licences.txt" className="text-ink2">
              What Kemble is built of, and under which licences
            </a>
          </p>
        </section>
      </div>
    </Frame>
  );
}

/** Every zone that the browser knows, under its part of the world. */
const ZONES = Intl.supportedValuesOf("timeZone").map((id) => {
  const [under = "", ...place] = id.split("/");
  return { id, under, words: place.join(", ").replaceAll("_", " ") || id };
});
const LEVELS = ["low", "medium", "high"] as const;
const MEASURES = [
  ["metric", "metric"],
  ["us", "US"],
  ["metric_20", "metric, a spoon of 20 ml"],
] as const;
const LENGTHS = [
  ["mm", "millimetres"],
  ["in", "inches"],
] as const;
const CLOCKS = [
  ["24", "24 hours"],
  ["12", "12 hours"],
] as const;
const DEGREES = [
  ["C", "°C"],
  ["F", "°F"],
] as const;
