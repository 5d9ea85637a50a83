/** A weight or a volume to type, in the kitchen's own unit; kept in grams or millilitres. */

import type { ComponentProps } from "react";
import { mapped, nearestWithin } from "../api/limits";
import { useFormatters } from "./formatters";
import { NumberField } from "./NumberField";
import { Row } from "./Row";

type FieldProps = Omit<ComponentProps<typeof NumberField>, "unit"> & {
  /** Said after the unit: "/min". */
  after?: string;
};

/** Each kind of amount: the unit it is kept in; decimals as kept and as shown in another unit, and the step of an arrow key there. */
const KINDS = {
  weight: { kept: "g", decimals: 1, otherwise: 2, step: 0.05 },
  volume: { kept: "ml", decimals: 0, otherwise: 1, step: 0.5 },
};

/** How a kind is shown and read in the kitchen's own unit. */
function useAmount(kind: keyof typeof KINDS) {
  const { gramsOf, millilitresOf, volumeFigure, volumeUnit, weightFigure, weightUnit } = useFormatters();
  return kind === "weight"
    ? { ...KINDS.weight, shown: weightUnit(), figure: weightFigure, of: gramsOf }
    : { ...KINDS.volume, shown: volumeUnit(), figure: volumeFigure, of: millilitresOf };
}

function Field({ kind, ...props }: FieldProps & { kind: keyof typeof KINDS }) {
  const amount = useAmount(kind);
  const { value, within, onChange, decimals = amount.decimals, step = 1, after = "", ...rest } = props;
  const unit = `${amount.shown}${after}`;
  if (amount.shown === amount.kept)
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
export const WeightField = (props: FieldProps) => <Field {...props} kind="weight" />;

/** `value` and `within` are in millilitres. */
export const VolumeField = (props: FieldProps) => <Field {...props} kind="volume" />;

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
