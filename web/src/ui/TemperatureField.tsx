/** A temperature to type, in the kitchen's own degrees; kept in °C. */

import { NumberField } from "./NumberField";
import { celsius, degrees, degreesUnit } from "./words";

interface Props {
  label: string;
  celsius: number;
  min: number;
  max: number;
  onChange: (celsius: number) => void;
}

export function TemperatureField({ label, celsius: value, min, max, onChange }: Props) {
  return (
    <NumberField
      label={label}
      hideLabel
      value={Number(degrees(value, 1))}
      unit={degreesUnit()}
      decimals={1}
      min={Number(degrees(min))}
      max={Number(degrees(max))}
      width="4rem"
      onChange={(typed) => onChange(celsius(typed))}
    />
  );
}
