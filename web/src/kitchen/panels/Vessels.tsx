/** Steamers, and pots and pans: each by its name, with the measures that its water and its times go by. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useEffect, useState } from "react";
import type { Pot, Steamer } from "../../api/client";
import { limit, usual } from "../../api/limits";
import { VolumeRow } from "../../ui/AmountField";
import { LengthRow } from "../../ui/LengthField";
import { LinkButton } from "../../ui/LinkButton";
import { NumberField } from "../../ui/NumberField";
import { NumberRow, Row } from "../../ui/Row";
import type { PanelProps } from "../things";
import { SteamerSide } from "../vesselsDrawn";
import { Pans } from "./NamedWeights";

/** A name that none of the others has. */
function another(kind: string, others: { name: string }[]): string {
  const taken = new Set(others.map((item) => item.name));
  const names = [kind, ...others.map((_, i) => `${kind} ${i + 2}`)];
  return names.find((name) => !taken.has(name)) ?? `${kind} ${others.length + 2}`;
}

interface NameProps {
  /** What it is called and where among its like: "steamer 2". */
  label: string;
  name: string;
  others: { name: string }[];
  onChange: (name: string) => void;
}

/** Its name: kept once it tells it from the others; until then it stays as typed, and says why. */
function NameField({ label, name, others, onChange }: NameProps) {
  const [typed, setTyped] = useState(name);
  useEffect(() => setTyped(name), [name]);
  const called = typed.trim();
  const wrong = !called
    ? t`A name, please.`
    : others.some((item) => item.name === called)
      ? t`Another is called that.`
      : "";
  return (
    <span>
      <input
        aria-label={label}
        aria-invalid={wrong !== ""}
        className="write w-full max-w-60 font-bold"
        maxLength={40}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => wrong || called === name || onChange(called)}
      />
      {wrong && (
        <span role="alert" className="block text-sm text-bean">
          {wrong}
        </span>
      )}
    </span>
  );
}

export function SteamersPanel({ kitchen, set }: PanelProps) {
  const steamers = kitchen.steamers;
  const put = (i: number, change: Partial<Steamer>) =>
    set({ steamers: steamers.map((steamer, j) => (j === i ? { ...steamer, ...change } : steamer)) });
  const blank: Steamer = {
    name: another(t`steamer`, steamers),
    diameter_mm: usual("Steamer.diameter_mm"),
    rack_mm: usual("Steamer.rack_mm"),
    gap_mm: usual("Steamer.gap_mm"),
    low_mm: usual("Steamer.low_mm"),
    tiers: usual("Steamer.tiers"),
    watts: null,
  };
  return (
    <>
      <p className="mt-1 text-ink2">
        <Trans>A sheet stands in the first that takes its tin, unless it names another.</Trans>
      </p>
      {steamers.map((steamer, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: its name is being typed
        <section key={i} aria-label={steamer.name} className="mt-5">
          <div className="flex items-end justify-between gap-4">
            <NameField
              label={t`Name of steamer ${i + 1}`}
              name={steamer.name}
              others={steamers.filter((_, j) => j !== i)}
              onChange={(name) => put(i, { name })}
            />
            <SteamerSide steamer={steamer} scale={0.3} />
          </div>
          <LengthRow
            label={t`Across`}
            name={t`Across, ${steamer.name}`}
            within={limit("Steamer.diameter_mm")}
            step={5}
            value={steamer.diameter_mm}
            onChange={(diameter_mm) => put(i, { diameter_mm })}
          />
          <LengthRow
            label={t`Floor to rack`}
            name={t`Floor to rack, ${steamer.name}`}
            within={limit("Steamer.rack_mm")}
            value={steamer.rack_mm}
            onChange={(rack_mm) => put(i, { rack_mm })}
          />
          <LengthRow
            label={t`Air under the rack`}
            name={t`Air under the rack, ${steamer.name}`}
            within={limit("Steamer.gap_mm")}
            value={steamer.gap_mm}
            onChange={(gap_mm) => put(i, { gap_mm })}
          />
          <LengthRow
            label={t`Water stays above`}
            name={t`Water stays above, ${steamer.name}`}
            within={limit("Steamer.low_mm")}
            value={steamer.low_mm}
            onChange={(low_mm) => put(i, { low_mm })}
          />
          <NumberRow
            label={t`Tiers`}
            name={t`Tiers, ${steamer.name}`}
            within={limit("Steamer.tiers")}
            value={steamer.tiers}
            onChange={(tiers) => put(i, { tiers })}
          />
          <Row label={t`A machine of its own, rated`}>
            <NumberField
              label={t`A machine of its own, ${steamer.name}`}
              hideLabel
              value={steamer.watts ?? null}
              unit="W"
              decimals={0}
              within={limit("Steamer.watts")}
              onChange={(watts) => put(i, { watts })}
              onClear={() => put(i, { watts: null })}
            />
          </Row>
          <LinkButton className="mt-1" onClick={() => set({ steamers: steamers.filter((_, j) => j !== i) })}>
            <Trans>Take away {steamer.name}</Trans>
          </LinkButton>
        </section>
      ))}
      <button type="button" className="pick mt-4" onClick={() => set({ steamers: [...steamers, blank] })}>
        <Trans>Add a steamer</Trans>
      </button>
    </>
  );
}

export function PotsPanel({ kitchen, set }: PanelProps) {
  const pots = kitchen.pots;
  const put = (i: number, change: Partial<Pot>) =>
    set({ pots: pots.map((pot, j) => (j === i ? { ...pot, ...change } : pot)) });
  const blank: Pot = {
    name: another(t`pot`, pots),
    diameter_mm: usual("Pot.diameter_mm"),
    water_ml: usual("Pot.water_ml"),
  };
  return (
    <>
      <p className="mt-1 text-ink2">
        <Trans>Balls and parcels are boiled in the first, unless a sheet names another.</Trans>
      </p>
      {pots.map((pot, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: its name is being typed
        <section key={i} aria-label={pot.name} className="mt-4">
          <NameField
            label={t`Name of pot ${i + 1}`}
            name={pot.name}
            others={pots.filter((_, j) => j !== i)}
            onChange={(name) => put(i, { name })}
          />
          <LengthRow
            label={t`Across`}
            name={t`Across, ${pot.name}`}
            within={limit("Pot.diameter_mm")}
            step={5}
            value={pot.diameter_mm}
            onChange={(diameter_mm) => put(i, { diameter_mm })}
          />
          <VolumeRow
            label={t`Water in it`}
            name={t`Water in it, ${pot.name}`}
            within={limit("Pot.water_ml")}
            step={100}
            value={pot.water_ml}
            onChange={(water_ml) => put(i, { water_ml })}
          />
          <LinkButton className="mt-1" onClick={() => set({ pots: pots.filter((_, j) => j !== i) })}>
            <Trans>Take away {pot.name}</Trans>
          </LinkButton>
        </section>
      ))}
      <button type="button" className="pick mt-4" onClick={() => set({ pots: [...pots, blank] })}>
        <Trans>Add a pot</Trans>
      </button>
      <Pans kitchen={kitchen} set={set} />
    </>
  );
}
