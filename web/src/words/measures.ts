/** The units in which a cook reads and types. Facts are in °C, mm, grams and millilitres, whatever stands here. */

export interface Measures {
  temperature_unit: "C" | "F";
  length_unit: "mm" | "in";
  weight_unit: "g" | "oz";
  volume_unit: "ml" | "fl oz";
  clock_hours: 24 | 12;
}

export const METRIC: Measures = {
  temperature_unit: "C",
  length_unit: "mm",
  weight_unit: "g",
  volume_unit: "ml",
  clock_hours: 24,
};
