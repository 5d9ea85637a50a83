/** What gives heat and takes it: the hob, the ovens and what plugs in, the cold. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { limit } from "../../api/limits";
import { NumberRow, Row } from "../../ui/Row";
import { TemperatureField } from "../../ui/TemperatureField";
import { said } from "../../words/said";
import type { PanelProps } from "../things";
import { KettleTest } from "./KettleTest";

/** Every level, where its watts are kept, and the two that it lies between until it is measured. */
const LEVELS = [
  ["low", "low_w", null],
  ["medium-low", "medium_low_w", ["low_w", "medium_w"]],
  ["medium", "medium_w", null],
  ["medium-high", "medium_high_w", ["medium_w", "high_w"]],
  ["high", "high_w", null],
] as const;

export function HobPanel({ kitchen, set }: PanelProps) {
  const { burner } = kitchen;
  return (
    <>
      <p className="mt-1 text-ink2">
        <Trans>What reaches the pot, once the room has had its share.</Trans>
      </p>
      {LEVELS.map(([level, field, between]) => (
        <NumberRow
          key={level}
          label={said(level)}
          name={t`Burner at ${said(level)}`}
          unit="W"
          within={limit(`Burner.${field}`)}
          step={20}
          value={burner[field] ?? (between ? (burner[between[0]] + burner[between[1]]) / 2 : 0)}
          onChange={(watts) => set({ burner: { ...burner, [field]: watts } })}
        />
      ))}
      <KettleTest kitchen={kitchen} set={set} />
      <NumberRow
        label={t`How many`}
        name={t`Burners`}
        within={limit("Kitchen.burners")}
        value={kitchen.burners}
        onChange={(burners) => set({ burners })}
      />
    </>
  );
}

export function OvenPanel({ kitchen, set }: PanelProps) {
  return (
    <>
      <NumberRow
        label={t`Ovens`}
        within={limit("Kitchen.ovens")}
        value={kitchen.ovens}
        onChange={(ovens) => set({ ovens })}
      />
      <NumberRow
        label={t`Trays in the oven at once`}
        within={limit("Kitchen.oven_shelves")}
        value={kitchen.oven_shelves}
        onChange={(oven_shelves) => set({ oven_shelves })}
      />
      <NumberRow
        label={t`Toaster ovens, grills`}
        within={limit("Kitchen.toasters")}
        value={kitchen.toasters}
        onChange={(toasters) => set({ toasters })}
      />
      <NumberRow
        label={t`Microwave oven, rated`}
        name={t`Microwave oven`}
        unit="W"
        within={limit("Kitchen.microwave_w")}
        step={50}
        value={kitchen.microwave_w}
        onChange={(microwave_w) => set({ microwave_w })}
      />
      <NumberRow
        label={t`Rice cooker, rated`}
        name={t`Rice cooker`}
        unit="W"
        within={limit("Kitchen.cooker_w")}
        step={50}
        value={kitchen.cooker_w}
        onChange={(cooker_w) => set({ cooker_w })}
      />
      <NumberRow
        label={t`Machines to pound or grind`}
        within={limit("Kitchen.machines")}
        value={kitchen.machines}
        onChange={(machines) => set({ machines })}
      />
    </>
  );
}

export function ColdPanel({ kitchen, set }: PanelProps) {
  return (
    <>
      <Row label={t`Fridge`}>
        <TemperatureField
          label={t`Fridge`}
          celsius={kitchen.fridge_c}
          within={limit("Kitchen.fridge_c")}
          onChange={(fridge_c) => set({ fridge_c })}
        />
      </Row>
      <Row label={t`Freezer`}>
        <TemperatureField
          label={t`Freezer`}
          celsius={kitchen.freezer_c}
          within={limit("Kitchen.freezer_c")}
          onChange={(freezer_c) => set({ freezer_c })}
        />
      </Row>
      <NumberRow
        label={t`Shelves in the cold`}
        within={limit("Kitchen.cold_shelves")}
        value={kitchen.cold_shelves}
        onChange={(cold_shelves) => set({ cold_shelves })}
      />
    </>
  );
}
