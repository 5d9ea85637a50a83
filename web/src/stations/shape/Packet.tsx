/** A packet from above on its rectangle of foil, leaf between. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { FactKey, Facts } from "../../api/client";
import { Dimension, Label } from "../../ui/dimension";
import { useFormatters } from "../../ui/formatters";
import { fill } from "../../ui/materials";

/** The packet from above on its rectangle of foil, leaf between. */
const WRAPPED = { "leaf-foil": t`leaf inside, foil outside`, leaf: t`in leaf alone`, foil: t`in foil alone` };

export function Packet({ facts, wrap }: { facts: Facts; wrap: keyof typeof WRAPPED }) {
  const { lengthWords } = useFormatters();
  const value = (key: FactKey) => Number(facts[key]?.value ?? 0);
  const side = value("shape.side_mm");
  const bare = wrap === "leaf"; // nothing outside: the leaf is the rectangle
  const foil = bare
    ? { long: side * 2.6, across: side * 1.8 }
    : { long: value("shape.foil_mm"), across: value("shape.foil_across_mm") };
  const scale = 210 / Math.max(foil.long, 1);
  const w = foil.long * scale;
  const h = foil.across * scale;
  const s = side * scale;
  const leaf = s * 1.5;
  return (
    <g transform="translate(440 110)">
      <Label x={0} y={-14} size={15} tone="ink2">
        {WRAPPED[wrap]}
      </Label>
      <rect
        width={w}
        height={h}
        fill={bare ? fill("leaf") : "var(--color-foil)"}
        stroke="var(--color-ink)"
        strokeWidth="1.4"
      />
      {wrap === "leaf-foil" && (
        <rect
          x={(w - leaf) / 2}
          y={(h - leaf) / 2}
          width={leaf}
          height={leaf}
          fill={fill("leaf")}
          stroke="var(--color-ink)"
        />
      )}
      <rect x={(w - s) / 2} y={(h - s) / 2} width={s} height={s} fill={fill("batter")} stroke="var(--color-ink)" />
      <Label x={w / 2} y={h / 2 + 6} size={16} bold anchor="middle" plate>
        {lengthWords(side)}
      </Label>
      {!bare && (
        <>
          {" "}
          <Dimension x1={0} y1={h + 16} x2={w} y2={h + 16} />
          <Label x={w / 2} y={h + 36} bold size={17} anchor="middle">
            {lengthWords(foil.long)}
          </Label>
          <Dimension x1={w + 16} y1={0} x2={w + 16} y2={h} />
          <Label x={w + 24} y={h / 2 + 6} bold size={17}>
            {foil.across.toFixed(0)}
          </Label>
        </>
      )}{" "}
      <Label x={0} y={h + 62} size={15} tone="ink2">
        <Trans>{lengthWords(value("shape.thick_mm"))} thick, room to swell</Trans>
      </Label>
    </g>
  );
}
