/** Where the kitchen is and who works there; and the units that it is told in. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { KitchenSettings } from "../../api/client";
import { LOCALES } from "../../api/generated";
import { limit } from "../../api/limits";
import { ActionMenu } from "../../ui/ActionMenu";
import { NumberRow, PickRow, Row } from "../../ui/Row";
import { TemperatureField } from "../../ui/TemperatureField";
import { TimeField } from "../../ui/WallField";
import { dayWords } from "../../ui/words";
import { fixed } from "../../words/numbers";
import type { PanelProps } from "../things";

export function PlacePanel({ kitchen, set }: PanelProps) {
  const { quiet } = kitchen;
  return (
    <>
      <NumberRow
        label={t`Height above the sea`}
        unit="m"
        within={limit("Kitchen.altitude_m")}
        step={10}
        value={kitchen.altitude_m}
        onChange={(altitude_m) => set({ altitude_m })}
      />
      <Row label={t`Room`}>
        <TemperatureField
          label={t`Room`}
          celsius={kitchen.room_c}
          within={limit("Kitchen.room_c")}
          onChange={(room_c) => set({ room_c })}
        />
      </Row>
      <NumberRow
        label={t`Cooks`}
        within={limit("Kitchen.cooks")}
        value={kitchen.cooks}
        onChange={(cooks) => set({ cooks })}
      />
      <Row label={t`Quiet hours`}>
        <TimeField
          label={t`Quiet begins`}
          value={quiet.begins}
          onChange={(begins) => set({ quiet: { ...quiet, begins } })}
        />
        <span className="mx-3">
          <Trans>to</Trans>
        </span>
        <TimeField label={t`Quiet ends`} value={quiet.ends} onChange={(ends) => set({ quiet: { ...quiet, ends } })} />
      </Row>
      <Row label={t`Clock of`}>
        <ActionMenu label={t`Time zone: ${kitchen.timezone}`} choices={ZONES} onPick={(timezone) => set({ timezone })}>
          {kitchen.timezone}
        </ActionMenu>
      </Row>
    </>
  );
}

export function MeasuredIn({ kitchen, set }: PanelProps) {
  return (
    <>
      <Row label={t`Language and numbers`}>
        <ActionMenu
          label={t`Language and numbers: ${nameOf(kitchen.locale)}`}
          choices={LOCALES.map((id) => ({ id, words: nameOf(id) }))}
          onPick={(locale) => set({ locale: locale as KitchenSettings["locale"] })}
        >
          {nameOf(kitchen.locale)}
        </ActionMenu>
        <span className="ml-3 text-ink2">
          {dayWords(A_DAY)}, {fixed(2.5, 1)}
        </span>
      </Row>
      <PickRow
        label={t`Cups and spoons`}
        value={kitchen.measures}
        options={MEASURES}
        onChange={(measures) => set({ measures })}
      />
      <PickRow
        label={t`Temperatures in`}
        value={kitchen.temperature_unit}
        options={DEGREES}
        onChange={(temperature_unit) => set({ temperature_unit })}
      />
      <PickRow
        label={t`Weights in`}
        value={kitchen.weight_unit}
        options={WEIGHTS}
        onChange={(weight_unit) => set({ weight_unit })}
      />
      <PickRow
        label={t`Volumes in`}
        value={kitchen.volume_unit}
        options={VOLUMES}
        onChange={(volume_unit) => set({ volume_unit })}
      />
      <PickRow
        label={t`Lengths in`}
        value={kitchen.length_unit}
        options={LENGTHS}
        onChange={(length_unit) => set({ length_unit })}
      />
      <PickRow
        label={t`The clock goes by`}
        value={String(kitchen.clock_hours) as "24" | "12"}
        options={CLOCKS}
        onChange={(hours) => set({ clock_hours: hours === "12" ? 12 : 24 })}
      />
      <Row label={t`Prices in`}>
        <input
          aria-label={t`Prices in`}
          className="write w-24 text-right"
          maxLength={6}
          value={kitchen.currency}
          onChange={(event) => set({ currency: event.target.value })}
        />
      </Row>
    </>
  );
}

/** Every language by its own name, and where it is written so. */
const nameOf = (id: string) => new Intl.DisplayNames(id, { type: "language" }).of(id) ?? id;
const A_DAY = "2026-11-28"; // any: it shows how days are written

/** Every zone that the browser knows, under its part of the world. */
const ZONES = Intl.supportedValuesOf("timeZone").map((id) => {
  const [under = "", ...place] = id.split("/");
  return { id, under, words: place.join(", ").replaceAll("_", " ") || id };
});
const MEASURES = [
  ["metric", t`metric`],
  ["us", t`US`],
  ["metric_20", t`metric, a spoon of 20 ml`],
] as const;
const WEIGHTS = [
  ["g", t`grams`],
  ["oz", t`ounces`],
] as const;
const VOLUMES = [
  ["ml", t`millilitres`],
  ["fl oz", t`fluid ounces`],
] as const;
const LENGTHS = [
  ["mm", t`millimetres`],
  ["in", t`inches`],
] as const;
const CLOCKS = [
  ["24", t`24 hours`],
  ["12", t`12 hours`],
] as const;
const DEGREES = [
  ["C", "°C"],
  ["F", "°F"],
] as const;
