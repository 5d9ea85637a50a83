/** The units in which a cook reads and types. */

export interface Measures {
  temperature_unit: "C" | "F";
  length_unit: "mm" | "in";
  weight_unit: "g" | "oz";
  volume_unit: "ml" | "fl oz";
  clock_hours: 24 | 12;
}

/** As the kitchen has them. Facts are in °C, mm, grams and millilitres, whatever stands here. */
export const measures: Measures = {
  temperature_unit: "C",
  length_unit: "mm",
  weight_unit: "g",
  volume_unit: "ml",
  clock_hours: 24,
};

/** From here on it is read in these. Set whenever the kitchen is fetched; one kept from before a choice lacks it. */
export function measureIn(settings: Partial<Measures>) {
  for (const key of Object.keys(measures) as (keyof Measures)[])
    if (settings[key] !== undefined) Object.assign(measures, { [key]: settings[key] });
}
