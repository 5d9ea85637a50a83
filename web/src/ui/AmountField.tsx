/** A weight or a volume to type, in the kitchen's own unit; kept in grams or millilitres. */

import type { ComponentProps } from "react";
import { mapped } from "../api/limits";
import { NumberField } from "./NumberField";
import { Row } from "./Row";
import { gramsOf, millilitresOf, volumeFigure, volumeUnit, weightFigure, weightUnit } from "./words";

type FieldProps = Omit<ComponentProps<typeof NumberField>, "unit"> & {
  /** Said after the unit: "/min". */
  after?: string;
};

/** `value` and `within` are in grams. */
export function WeightField({ value, within, onChange, decimals = 1, step = 1, after = "", ...rest }: FieldProps) {
  if (weightUnit() === "g")
    return <NumberField {...rest} {...{ value, within, onChange, decimals, step }} unit={`g${after}`} />;
  return (
    <NumberField
      {...rest}
      value={value == null ? null : Number(weightFigure(value))}
      unit={`${weightUnit()}${after}`}
      decimals={2}
      step={0.05}
      within={mapped(within, (bound) => Number(weightFigure(bound)))}
      onChange={(typed) => onChange(Math.round(100 * gramsOf(typed)) / 100)}
    />
  );
}

/** `value` and `within` are in millilitres. */
export function VolumeField({ value, within, onChange, decimals = 0, step = 1, after = "", ...rest }: FieldProps) {
  if (volumeUnit() === "ml")
    return <NumberField {...rest} {...{ value, within, onChange, decimals, step }} unit={`ml${after}`} />;
  return (
    <NumberField
      {...rest}
      value={value == null ? null : Number(volumeFigure(value))}
      unit={`${volumeUnit()}${after}`}
      decimals={1}
      step={0.5}
      within={mapped(within, (bound) => Number(volumeFigure(bound)))}
      onChange={(typed) => onChange(Math.round(10 * millilitresOf(typed)) / 10)}
    />
  );
}

/** By the unit that it is kept in: a weight, a volume, or another number. */
export function AmountField({ unit, ...rest }: ComponentProps<typeof NumberField>) {
  if (unit === "g") return <WeightField {...rest} />;
  return unit === "ml" ? <VolumeField {...rest} /> : <NumberField {...rest} unit={unit} />;
}

/** A volume in a row. */
export function VolumeRow({ label, name = label, ...rest }: FieldProps & { name?: string }) {
  return (
    <Row label={label}>
      <VolumeField label={name} hideLabel {...rest} />
    </Row>
  );
}
