/** The kitchen: what stands there, drawn to one scale, with its measures where one would look for them. */

import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, ask, type KitchenSettings, type Tin } from "../api/client";
import { limit } from "../api/limits";
import { kitchenQuery, sessionQuery } from "../api/queries";
import { tinSize } from "../stations/shape/TinShape";
import { Dimension, Label } from "../ui/dimension";
import { Frame, Waiting } from "../ui/Frame";
import { JustDropped } from "../ui/JustDropped";
import { fill } from "../ui/materials";
import { NumberField } from "../ui/NumberField";
import { NumberRow, PickRow, Row } from "../ui/Row";
import { Sorry } from "../ui/Sorry";
import { TemperatureField } from "../ui/TemperatureField";
import { KettleTest } from "./KettleTest";
import { OwnCups, Pans, Scoops } from "./Measures";
import { useKitchenSave, withUnsaved } from "./useKitchenSave";

export default function KitchenPage() {
  const kitchen = useQuery(kitchenQuery);
  useEffect(() => {
    document.title = "Kitchen · Kemble";
  }, []);
  if (!kitchen.data) return <Waiting error={kitchen.error} />;
  return <Settings start={kitchen.data.kitchen} />;
}

function Settings({ start }: { start: KitchenSettings }) {
  const [kitchen, setKitchen] = useState(() => withUnsaved(start));
  const unsaved = useRef<{ from: KitchenSettings; to: KitchenSettings; timer: number } | null>(null);
  const [dirty, setDirty] = useState(false);
  const { save, pending, waiting, error } = useKitchenSave();
  const set = (change: Partial<KitchenSettings>) => {
    const to = { ...kitchen, ...change };
    setKitchen(to);
    setDirty(true);
    clearTimeout(unsaved.current?.timer);
    const from = unsaved.current?.from ?? kitchen;
    unsaved.current = { from, to, timer: window.setTimeout(() => flush.current(), SAVE_MS) };
  };
  // Also when the page is left before the moment is up: nothing typed is lost.
  const flush = useRef(() => {});
  flush.current = () => {
    if (!unsaved.current) return;
    clearTimeout(unsaved.current.timer);
    save(unsaved.current.from, unsaved.current.to);
    unsaved.current = null;
    setDirty(false);
  };
  useEffect(() => () => flush.current(), []);
  // What was changed elsewhere, or brought back, is shown, unless something is being typed here.
  useEffect(() => {
    if (!unsaved.current) setKitchen(withUnsaved(start));
  }, [start]);
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
          <NumberRow
            label="Across"
            name="Steamer across"
            unit="mm"
            within={limit("Steamer.diameter_mm")}
            step={5}
            value={steamer.diameter_mm}
            onChange={(diameter_mm) => set({ steamer: { ...steamer, diameter_mm } })}
          />
          <NumberRow
            label="Floor to rack"
            unit="mm"
            within={limit("Steamer.rack_mm")}
            value={steamer.rack_mm}
            onChange={(rack_mm) => set({ steamer: { ...steamer, rack_mm } })}
          />
          <NumberRow
            label="Air under the rack"
            unit="mm"
            within={limit("Steamer.gap_mm")}
            value={steamer.gap_mm}
            onChange={(gap_mm) => set({ steamer: { ...steamer, gap_mm } })}
          />
          <NumberRow
            label="Water stays above"
            unit="mm"
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
          <h2 className="mt-7 text-xl">Boiling pot</h2>
          <NumberRow
            label="Across"
            name="Pot across"
            unit="mm"
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
            {(["begins", "ends"] as const).map((end) => (
              <input
                key={end}
                aria-label={`Quiet ${end}`}
                type="time"
                className="write ml-3"
                value={quiet[end]}
                onChange={(event) => event.target.value && set({ quiet: { ...quiet, [end]: event.target.value } })}
              />
            ))}
          </Row>
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
            <input
              aria-label="Time zone"
              className="write w-44"
              defaultValue={kitchen.timezone}
              onBlur={(event) =>
                event.target.value !== kitchen.timezone && set({ timezone: event.target.value.trim() })
              }
            />
          </Row>
          <h2 className="mt-7 text-xl">Tins</h2>
          <JustDropped kinds={["tin"]} />
          <ul>
            {kitchen.tins.map((tin, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: two tins may be alike
              <li key={i} className="hairline flex flex-wrap items-center gap-x-4 py-2">
                <TinSide tin={tin} />
                <span className="flex-1">
                  <input
                    aria-label={`Name of tin ${i + 1}`}
                    className="write w-36"
                    maxLength={60}
                    value={tin.name}
                    onChange={(event) => set({ tins: replaced(kitchen.tins, i, { ...tin, name: event.target.value }) })}
                  />
                  <span className="block text-ink2">
                    {tinSize(tin)}, {tin.height_mm / 10} cm high, {tin.material}
                  </span>
                </span>
                <button
                  type="button"
                  className="text-bean underline underline-offset-4"
                  onClick={() => set({ tins: kitchen.tins.filter((_, j) => j !== i) })}
                >
                  Take away
                </button>
              </li>
            ))}
          </ul>
          <AddTin onAdd={(tin) => set({ tins: [...kitchen.tins, tin] })} />
          <Pans kitchen={kitchen} set={set} />
          <Scoops kitchen={kitchen} set={set} />
          <Password />
        </section>
      </div>
    </Frame>
  );
}

const SAVE_MS = 500;
const LEVELS = ["low", "medium", "high"] as const;
const MEASURES = [
  ["metric", "metric"],
  ["us", "US"],
  ["metric_20", "metric, a spoon of 20 ml"],
] as const;
const DEGREES = [
  ["C", "°C"],
  ["F", "°F"],
] as const;
const replaced = (tins: Tin[], at: number, tin: Tin) => tins.map((one, i) => (i === at ? tin : one));

function SteamerSection({ kitchen }: { kitchen: KitchenSettings }) {
  const { steamer } = kitchen;
  const scale = Math.min(1.35, 380 / steamer.diameter_mm);
  const wide = steamer.diameter_mm * scale;
  const rack = 150 - steamer.rack_mm * scale;
  const full = Math.max(steamer.low_mm + 5, steamer.rack_mm - steamer.gap_mm) * scale;
  return (
    <svg viewBox="0 0 520 176" className="block w-full max-w-xl" role="img" aria-label="The steamer from the side">
      <rect x="40" y={150 - full} width={wide} height={full} fill={fill("water")} />
      <line
        x1="40"
        x2={40 + wide}
        y1={150 - steamer.low_mm * scale}
        y2={150 - steamer.low_mm * scale}
        stroke="var(--color-amber)"
        strokeDasharray="6 4"
        strokeWidth="1.6"
      />
      <path d={`M40 20V142q0 8 8 8H${32 + wide}q8 0 8 -8V20`} fill="none" stroke="var(--color-ink)" strokeWidth="2.6" />
      <line x1="46" x2={34 + wide} y1={rack} y2={rack} stroke="var(--color-ink)" strokeWidth="2.4" />
      <Dimension x1={40 + wide + 18} y1={rack} x2={40 + wide + 18} y2={150} />
      <Label x={40 + wide + 26} y={(rack + 150) / 2 + 5} size={14} bold>
        {steamer.rack_mm} mm
      </Label>
      <Dimension x1={40} y1={168} x2={40 + wide} y2={168} />
    </svg>
  );
}

function TinSide({ tin }: { tin: Tin }) {
  const wide = (tin.shape === "round" ? tin.diameter_mm : tin.length_mm) * 0.36;
  const high = tin.height_mm * 0.36;
  return (
    <svg width="110" height="44" aria-hidden="true">
      <path
        d={`M4 ${40 - high}V40H${4 + Math.min(100, wide)}V${40 - high}`}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth={tin.material === "metal" ? 2 : 4}
      />
    </svg>
  );
}

function AddTin({ onAdd }: { onAdd: (tin: Tin) => void }) {
  const blank: Tin = {
    name: "",
    shape: "round",
    diameter_mm: 200,
    length_mm: 200,
    width_mm: 200,
    height_mm: 60,
    material: "metal",
  };
  const [tin, setTin] = useState(blank);
  return (
    <form
      className="mt-3 flex flex-wrap items-end gap-x-4 gap-y-1"
      onSubmit={(event) => {
        event.preventDefault();
        onAdd(tin);
        setTin(blank);
      }}
    >
      <input
        aria-label="Name of the new tin"
        className="write w-36"
        placeholder="another tin"
        maxLength={60}
        value={tin.name}
        onChange={(event) => setTin({ ...tin, name: event.target.value })}
      />
      <select
        aria-label="Shape of the new tin"
        className="write"
        value={tin.shape}
        onChange={(event) => setTin({ ...tin, shape: event.target.value as Tin["shape"] })}
      >
        <option>round</option>
        <option>oblong</option>
      </select>
      {tin.shape === "round" ? (
        <NumberField
          label="Across"
          value={tin.diameter_mm}
          unit="mm"
          decimals={0}
          within={limit("Tin.diameter_mm")}
          width="4rem"
          onChange={(diameter_mm) => setTin({ ...tin, diameter_mm })}
        />
      ) : (
        <>
          <NumberField
            label="Length"
            value={tin.length_mm}
            unit="mm"
            decimals={0}
            within={limit("Tin.length_mm")}
            width="4rem"
            onChange={(length_mm) => setTin({ ...tin, length_mm })}
          />
          <NumberField
            label="Width"
            value={tin.width_mm}
            unit="mm"
            decimals={0}
            within={limit("Tin.width_mm")}
            width="4rem"
            onChange={(width_mm) => setTin({ ...tin, width_mm })}
          />
        </>
      )}
      <NumberField
        label="High"
        value={tin.height_mm}
        unit="mm"
        decimals={0}
        within={limit("Tin.height_mm")}
        width="4rem"
        onChange={(height_mm) => setTin({ ...tin, height_mm })}
      />
      <select
        aria-label="New tin is made of"
        className="write"
        value={tin.material}
        onChange={(event) => setTin({ ...tin, material: event.target.value as Tin["material"] })}
      >
        <option>metal</option>
        <option>glass</option>
        <option>ceramic</option>
      </select>
      <button type="submit" className="pick">
        Add it
      </button>
    </form>
  );
}

/** The password that every other browser is asked for; this one came in with it, or with a key. */
function Password() {
  const session = useQuery(sessionQuery);
  const client = useQueryClient();
  const [typed, setTyped] = useState("");
  const save = useMutation({
    mutationFn: () => ask(api.PUT("/api/session/password", { body: { password: typed } })),
    onSuccess: (answer) => {
      client.setQueryData(["session"], answer);
      setTyped("");
    },
  });
  const leave = useMutation({
    mutationFn: () => ask(api.DELETE("/api/session")),
    onSuccess: () => location.assign("/"),
  });
  const error = save.error ?? leave.error;
  return (
    <form
      className="mt-7"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <h2 className="text-xl">Other devices</h2>
      <p className="mt-1 text-ink2">
        Any other browser comes in as “{session.data?.name}” with a password
        {session.data?.has_password ? "; one is set" : "; none is set yet, so only a key lets one in"}.
      </p>
      <input type="text" hidden readOnly autoComplete="username" value={session.data?.name ?? ""} />
      <input
        aria-label="New password"
        type="password"
        autoComplete="new-password"
        className="write mt-2 w-56"
        minLength={10}
        maxLength={200}
        required
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
      />
      <button type="submit" className="pick ml-3" disabled={save.isPending}>
        Set password
      </button>
      <Sorry error={error} />
      <p className="mt-3">
        <button
          type="button"
          className="text-bean underline underline-offset-4"
          disabled={leave.isPending}
          onClick={() => leave.mutate()}
        >
          Sign this browser out
        </button>
      </p>
    </form>
  );
}
