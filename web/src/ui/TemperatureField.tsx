/** A temperature to type, in the kitchen's own degrees; kept in °C. */

import { type Limits, mapped } from "../api/limits";
import { useFormatters } from "./formatters";
import { NumberField } from "./NumberField";

interface Props {
  label: string;
  celsius: number;
  within: Limits;
  onChange: (celsius: number) => void;
}

export function TemperatureField({ label, celsius: value, within, onChange }: Props) {
  const { celsius, degrees, degreesUnit } = useFormatters();
  return (
    <NumberField
      label={label}
      hideLabel
      value={Number(degrees(value, 1))}
      unit={degreesUnit()}
      decimals={1}
      within={mapped(within, (bound) => Number(degrees(bound)))}
      width="4rem"
      onChange={(typed) => onChange(celsius(typed))}
    />
  );
}
