/** The leaf that was measured, how many go to a parcel, and what is round a packet; what follows from them. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { BallDrawing, FactKey, Facts, Sheet, WayCard } from "../../api/client";
import { limit } from "../../api/limits";
import { FactRows } from "../../ui/FactRows";
import { LengthRow } from "../../ui/LengthField";
import { NumberRow, PickRow } from "../../ui/Row";

type Wrap = Sheet["wrap"];
interface Props {
  wrap: Wrap;
  facts: Facts;
  onChange: (wrap: Wrap) => void;
}

const OUTER = [
  ["leaf-foil", t`leaf, and foil outside`],
  ["leaf", t`leaf alone`],
  ["foil", t`foil alone`],
] as const;
const OF_A_PARCEL: FactKey[] = [
  "shape.leaf_holds_g",
  "shape.leaf_rice_g",
  "shape.leaf_filling_g",
  "shape.edge_mm",
  "shape.string_mm",
  "shape.string_m",
];
const OF_A_TIN: FactKey[] = ["shape.strip_mm", "shape.strip_wide_mm", "shape.floor_mm", "shape.lining_leaves"];

function OneLeaf({ wrap, onChange }: Omit<Props, "facts">) {
  const said = { min: limit("Wrap.leaf_length_mm").min, max: limit("Wrap.leaf_length_mm").max };
  return (
    <>
      <LengthRow
        label={t`One leaf, long`}
        within={said}
        step={10}
        value={wrap.leaf_length_mm ?? null}
        onChange={(leaf_length_mm) => onChange({ ...wrap, leaf_length_mm })}
        onClear={() => onChange({ ...wrap, leaf_length_mm: null })}
      />
      <LengthRow
        label={t`One leaf, wide`}
        within={limit("Wrap.leaf_width_mm")}
        step={5}
        value={wrap.leaf_width_mm ?? null}
        onChange={(leaf_width_mm) => onChange({ ...wrap, leaf_width_mm })}
        onClear={() => onChange({ ...wrap, leaf_width_mm: null })}
      />
    </>
  );
}

/** Of parcels and packets. */
export function LeafRows({ wrap, facts, onChange, drawing, way }: Props & { drawing: BallDrawing; way: WayCard }) {
  if (drawing.form === "packet")
    return (
      <section aria-label={t`Wrapped in`} className="mt-4">
        <PickRow
          label={t`Wrapped in`}
          value={wrap.outer ?? "leaf-foil"}
          options={OUTER}
          onChange={(outer) => onChange({ ...wrap, outer })}
        />
        <LengthRow
          label={t`Folded to, thick`}
          within={limit("Wrap.thick_mm")}
          value={wrap.thick_mm ?? Number(facts["shape.thick_mm"]?.value ?? 18)}
          onChange={(thick_mm) => onChange({ ...wrap, thick_mm })}
        />
        <FactRows facts={facts} keys={["shape.packet_ml"]} />
      </section>
    );
  if (drawing.form !== "parcel") return null;
  return (
    <section aria-label={t`The leaf`} className="mt-4">
      <h3 className="text-xl">
        <Trans>The leaf</Trans>
      </h3>
      <OneLeaf wrap={wrap} onChange={onChange} />
      <NumberRow
        label={t`To a parcel`}
        name={t`Leaves to a parcel`}
        within={limit("Wrap.leaves")}
        value={wrap.leaves ?? way.leaves_each}
        onChange={(leaves) => onChange({ ...wrap, leaves })}
      />
      {facts["shape.leaf_holds_g"] ? (
        <FactRows facts={facts} keys={OF_A_PARCEL} />
      ) : (
        <p className="mt-1 text-ink2">
          <Trans>Measure one: how large a parcel it folds, and how much string.</Trans>
        </p>
      )}
    </section>
  );
}

/** Of a tin that is lined. */
export function LiningRows({ wrap, facts, onChange, leaf }: Props & { leaf: boolean }) {
  return (
    <div className="mt-2">
      {leaf && <OneLeaf wrap={wrap} onChange={onChange} />}
      <FactRows facts={facts} keys={OF_A_TIN} />
    </div>
  );
}
