/** A weight or a volume to type, in the kitchen's own unit; kept in grams or millilitres. */

import type { ComponentProps } from "react";
import { mapped, nearestWithin } from "../api/limits";
import { NumberField } from "./NumberField";
import { Row } from "./Row";
import { gramsOf, millilitresOf, volumeFigure, volumeUnit, weightFigure, weightUnit } from "./words";

type FieldProps = Omit<ComponentProps<typeof NumberField>, "unit"> & {
  /** Said after the unit: "/min". */
  after?: string;
};

interface Amount {
  kept: string;
  shown: () => string;
  figure: (kept: number) => string;
  of: (typed: number) => number;
  /** Decimals as kept and as shown otherwise, and the step of an arrow key there. */
  decimals: number;
  otherwise: number;
  step: number;
}

const WEIGHT: Amount = {
  kept: "g",
  shown: weightUnit,
  figure: weightFigure,
  of: gramsOf,
  decimals: 1,
  otherwise: 2,
  step: 0.05,
};
const VOLUME: Amount = {
  kept: "ml",
  shown: volumeUnit,
  figure: volumeFigure,
  of: millilitresOf,
  decimals: 0,
  otherwise: 1,
  step: 0.5,
};

function Field(props: FieldProps & { amount: Amount }) {
  const { amount, value, within, onChange, decimals = amount.decimals, step = 1, after = "", ...rest } = props;
  const unit = `${amount.shown()}${after}`;
  if (amount.shown() === amount.kept)
    return <NumberField {...rest} {...{ value, within, onChange, decimals, step, unit }} />;
  const shown = (kept: number) => Number(amount.figure(kept));
  return (
    <NumberField
      {...rest}
      unit={unit}
      value={value == null ? null : shown(value)}
      decimals={amount.otherwise}
      step={amount.step}
      within={mapped(within, shown)}
      // A bound that was rounded to be shown may lie a hair beyond the one that is kept.
      onChange={(typed) => onChange(nearestWithin(Math.round(100 * amount.of(typed)) / 100, within, 0.01))}
    />
  );
}

/** `value` and `within` are in grams. */
export const WeightField = (props: FieldProps) => <Field {...props} amount={WEIGHT} />;

/** `value` and `within` are in millilitres. */
export const VolumeField = (props: FieldProps) => <Field {...props} amount={VOLUME} />;

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
