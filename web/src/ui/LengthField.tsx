/** A length to type, in the kitchen's own unit; kept in mm. */

import type { ComponentProps } from "react";
import { mapped } from "../api/limits";
import { useFormatters } from "./formatters";
import { NumberField } from "./NumberField";
import { Row } from "./Row";

type FieldProps = Omit<ComponentProps<typeof NumberField>, "unit">;

/** `value`, `within` and `step` are in mm; `after` is said after the unit. */
export function LengthField({
  value,
  within,
  onChange,
  decimals = 1,
  step = 1,
  after = "",
  ...rest
}: FieldProps & { after?: string }) {
  const { lengthFigure, lengthUnit, millimetres } = useFormatters();
  const inches = lengthUnit() === "in";
  return (
    <NumberField
      {...rest}
      value={value == null ? null : Number(lengthFigure(value, decimals))}
      unit={`${lengthUnit()}${after}`}
      decimals={inches ? 2 : decimals}
      step={inches ? 0.05 : step}
      within={mapped(within, (bound) => Number(lengthFigure(bound, decimals)))}
      onChange={(typed) => onChange(inches ? Math.round(10 * millimetres(typed)) / 10 : typed)}
    />
  );
}

interface RowProps extends FieldProps {
  /** What the field is called where the row's label alone would not tell. */
  name?: string;
}

/** A length in whole millimetres, in a row. */
export function LengthRow({ label, name = label, onChange, ...rest }: RowProps) {
  const { lengthUnit } = useFormatters();
  return (
    <Row label={label}>
      <LengthField
        label={name}
        hideLabel
        decimals={0}
        {...rest}
        onChange={(mm) => onChange(lengthUnit() === "in" ? mm : Math.round(mm))}
      />
    </Row>
  );
}
