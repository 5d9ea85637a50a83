/** The kitchen: what stands there, drawn to one scale, with its measures where one would look for them. */

import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { api, ask, type KitchenSettings, Refused, sentence, type Tin } from "../api/client";
import { kitchenQuery, sessionQuery } from "../api/queries";
import { tinSize } from "../stations/shape/TinShape";
import { Dimension, Label } from "../ui/dimension";
import { Frame, Waiting } from "../ui/Frame";
import { fill } from "../ui/materials";
import { NumberField } from "../ui/NumberField";

export default function KitchenPage() {
  const kitchen = useQuery(kitchenQuery);
  useEffect(() => {
    document.title = "Kitchen · Kemble";
  }, []);
  if (!kitchen.data) return <Waiting error={kitchen.error} />;
  return <Settings start={kitchen.data.kitchen} />;
}

function Settings({ start }: { start: KitchenSettings }) {
  const client = useQueryClient();
  const [kitchen, setKitchen] = useState(start);
  const timer = useRef(0);
  const save = useMutation({
    mutationFn: (next: KitchenSettings) => ask(api.PUT("/api/kitchen", { body: { kitchen: next } })),
    onSuccess: (answer) => {
      client.setQueryData(["kitchen"], answer);
      for (const key of ["sheets", "sheet", "plan"]) client.invalidateQueries({ queryKey: [key] });
    },
  });
  const set = (change: Partial<KitchenSettings>) => {
    const next = { ...kitchen, ...change };
    setKitchen(next);
    clearTimeout(timer.current);
    timer.current = window.setTimeout(() => save.mutate(next), 500);
  };
  const { steamer, pot, burner, quiet } = kitchen;
  const error = save.error;
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
          {save.isPending ? "saving" : error ? "not saved" : "saved"}
        </span>
      }
    >
      {error instanceof Refused && error.problems[0] && (
        <p role="alert" className="mt-3 border-l-4 border-bean pl-4">
          {sentence(error.problems[0])}
        </p>
      )}
      <div className="mt-5 grid gap-x-14 gap-y-8 pb-10 lg:grid-cols-2">
        <section>
          <h2 className="text-xl">Steamer</h2>
          <SteamerSection kitchen={kitchen} />
          <Rows>
            <Row label="Across">
              <NumberField
                label="Steamer across"
                hideLabel
                value={steamer.diameter_mm}
                unit="mm"
                decimals={0}
                min={120}
                max={600}
                step={5}
                onChange={(diameter_mm) => set({ steamer: { ...steamer, diameter_mm } })}
              />
            </Row>
            <Row label="Floor to rack">
              <NumberField
                label="Floor to rack"
                hideLabel
                value={steamer.rack_mm}
                unit="mm"
                decimals={0}
                min={15}
                max={200}
                onChange={(rack_mm) => set({ steamer: { ...steamer, rack_mm } })}
              />
            </Row>
            <Row label="Water stays above">
              <NumberField
                label="Water stays above"
                hideLabel
                value={steamer.low_mm}
                unit="mm"
                decimals={0}
                min={3}
                max={60}
                onChange={(low_mm) => set({ steamer: { ...steamer, low_mm } })}
              />
            </Row>
            <Row label="Tiers">
              <NumberField
                label="Tiers"
                hideLabel
                value={steamer.tiers}
                decimals={0}
                min={1}
                max={5}
                onChange={(value) => set({ steamer: { ...steamer, tiers: Math.round(value) } })}
              />
            </Row>
          </Rows>
          <h2 className="mt-7 text-xl">Boiling pot</h2>
          <Rows>
            <Row label="Across">
              <NumberField
                label="Pot across"
                hideLabel
                value={pot.diameter_mm}
                unit="mm"
                decimals={0}
                min={120}
                max={600}
                step={5}
                onChange={(diameter_mm) => set({ pot: { ...pot, diameter_mm } })}
              />
            </Row>
            <Row label="Water in it">
              <NumberField
                label="Water in the pot"
                hideLabel
                value={pot.water_ml}
                unit="ml"
                decimals={0}
                min={500}
                max={20000}
                step={100}
                onChange={(water_ml) => set({ pot: { ...pot, water_ml } })}
              />
            </Row>
          </Rows>
          <h2 className="mt-7 text-xl">Burners, net into the pot</h2>
          <Rows>
            {(["low", "medium", "high"] as const).map((level) => (
              <Row key={level} label={level}>
                <NumberField
                  label={`Burner at ${level}`}
                  hideLabel
                  value={burner[`${level}_w`]}
                  unit={`W, boils off ${((burner[`${level}_w`] / 2257000) * 60000).toFixed(0)} g a minute`}
                  decimals={0}
                  min={50}
                  max={6000}
                  step={20}
                  onChange={(value) => set({ burner: { ...burner, [`${level}_w`]: value } })}
                />
              </Row>
            ))}
            <Row label="How many">
              <NumberField
                label="Burners"
                hideLabel
                value={kitchen.burners}
                decimals={0}
                min={1}
                max={12}
                onChange={(value) => set({ burners: Math.round(value) })}
              />
            </Row>
          </Rows>
        </section>
        <section>
          <h2 className="text-xl">Place and people</h2>
          <Rows>
            <Row label="Height above the sea">
              <NumberField
                label="Height above the sea"
                hideLabel
                value={kitchen.altitude_m}
                unit="m"
                decimals={0}
                min={-400}
                max={5500}
                step={10}
                onChange={(altitude_m) => set({ altitude_m })}
              />
            </Row>
            <Row label="Room">
              <NumberField
                label="Room"
                hideLabel
                value={kitchen.room_c}
                unit="°C"
                decimals={0}
                min={5}
                max={45}
                onChange={(room_c) => set({ room_c })}
              />
            </Row>
            <Row label="Fridge">
              <NumberField
                label="Fridge"
                hideLabel
                value={kitchen.fridge_c}
                unit="°C"
                decimals={0}
                min={0}
                max={10}
                onChange={(fridge_c) => set({ fridge_c })}
              />
            </Row>
            <Row label="Freezer">
              <NumberField
                label="Freezer"
                hideLabel
                value={kitchen.freezer_c}
                unit="°C"
                decimals={0}
                min={-35}
                max={-5}
                onChange={(freezer_c) => set({ freezer_c })}
              />
            </Row>
            <Row label="Cooks">
              <NumberField
                label="Cooks"
                hideLabel
                value={kitchen.cooks}
                decimals={0}
                min={1}
                max={12}
                onChange={(value) => set({ cooks: Math.round(value) })}
              />
            </Row>
            <Row label="Quiet hours">
              <input
                aria-label="Quiet from"
                type="time"
                className="write"
                value={quiet.begins}
                onChange={(event) =>
                  event.target.value && set({ quiet: { ...quiet, begins: event.target.value } })
                }
              />{" "}
              to{" "}
              <input
                aria-label="Quiet until"
                type="time"
                className="write"
                value={quiet.ends}
                onChange={(event) =>
                  event.target.value && set({ quiet: { ...quiet, ends: event.target.value } })
                }
              />
            </Row>
            <Row label="Cups and spoons">
              <select
                aria-label="Cups and spoons"
                className="write"
                value={kitchen.measures}
                onChange={(event) => set({ measures: event.target.value as KitchenSettings["measures"] })}
              >
                <option value="metric">metric</option>
                <option value="us">US</option>
              </select>
            </Row>
            <Row label="Temperatures in">
              <select
                aria-label="Temperatures in"
                className="write"
                value={kitchen.temperature_unit}
                onChange={(event) => set({ temperature_unit: event.target.value as "C" | "F" })}
              >
                <option value="C">°C</option>
                <option value="F">°F</option>
              </select>
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
          </Rows>
          <h2 className="mt-7 text-xl">Tins</h2>
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
                    onChange={(event) =>
                      set({ tins: replaced(kitchen.tins, i, { ...tin, name: event.target.value }) })
                    }
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
          <Password />
        </section>
      </div>
    </Frame>
  );
}

const replaced = (tins: Tin[], at: number, tin: Tin) => tins.map((one, i) => (i === at ? tin : one));

const Rows = ({ children }: { children: ReactNode }) => <dl className="mt-1">{children}</dl>;
function Row({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className="hairline flex items-baseline justify-between gap-4 py-0.5">
      <dt>{label}</dt>
      <dd className="text-right">{children}</dd>
    </div>
  );
}

function SteamerSection({ kitchen }: { kitchen: KitchenSettings }) {
  const { steamer } = kitchen;
  const scale = Math.min(1.35, 380 / steamer.diameter_mm);
  const wide = steamer.diameter_mm * scale;
  const rack = 150 - steamer.rack_mm * scale;
  const full = Math.max(steamer.low_mm + 5, steamer.rack_mm - steamer.gap_mm) * scale;
  return (
    <svg
      viewBox="0 0 520 176"
      className="block w-full max-w-xl"
      role="img"
      aria-label="The steamer from the side"
    >
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
      <path
        d={`M40 20V142q0 8 8 8H${32 + wide}q8 0 8 -8V20`}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth="2.6"
      />
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
          min={40}
          max={500}
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
            min={40}
            max={600}
            width="4rem"
            onChange={(length_mm) => setTin({ ...tin, length_mm })}
          />
          <NumberField
            label="Width"
            value={tin.width_mm}
            unit="mm"
            decimals={0}
            min={40}
            max={600}
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
        min={10}
        max={200}
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

/** The password that other devices in the house are asked for. This machine is never asked. */
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
  const error = save.error;
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
        On this machine no password is asked. From any other, sign in as “{session.data?.name}” with a
        password
        {session.data?.has_password ? "; one is set" : "; none is set yet, so none gets in"}.
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
      {error instanceof Refused && error.problems[0] && (
        <p role="alert" className="text-bean">
          {sentence(error.problems[0])}
        </p>
      )}
    </form>
  );
}
