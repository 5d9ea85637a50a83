/** How much of the dough's water is poured on boiling, and what that does as far as it is known. */

import { t } from "@lingui/core/macro";
import type { FactKey, WayCard } from "../../api/client";
import { limit } from "../../api/limits";
import type { Editing } from "../../sheet/useSheet";
import { FactRows } from "../../ui/FactRows";
import { NumberRow } from "../../ui/Row";
import { bySchool } from "../../ui/Schools";

const KEYS: FactKey[] = ["mix.scald_g", "mix.scald_cool_g", "mix.scald_c", "mix.scald_cooked_pct", "mix.scald_takes_g"];

export function Scalding({ editing, way }: { editing: Editing; way: WayCard }) {
  const { sheet, worked, edit } = editing;
  if (Object.keys(way.scalds).length === 0) return null;
  const usual = bySchool(way, sheet, way.scalds) ?? 0;
  const { start } = sheet;
  return (
    <section aria-label={t`Scalding`} className="mt-3">
      <NumberRow
        label={t`Of the water, poured on boiling`}
        unit="%"
        within={limit("StartTemperatures.scald_pct")}
        step={5}
        value={start.scald_pct ?? Math.round(100 * usual)}
        onChange={(scald_pct) => edit({ ...sheet, start: { ...start, scald_pct } })}
      />
      <FactRows facts={worked.facts} keys={KEYS} />
    </section>
  );
}
