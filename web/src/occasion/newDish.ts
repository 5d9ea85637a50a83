import type { Occasion } from "../api/client";

/** A sheet as it comes to a table: as much of it as it says, made on the day, nothing there already. */
export const newDish = (sheet: number): Occasion["dishes"][number] => ({
  sheet,
  serving: 0,
  each: null,
  days_before: 0,
  schools: {},
  soak: "",
  factor: 1,
  there: [],
});
