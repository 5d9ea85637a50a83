/** A parcel drawn from its leaf: the leaf to scale with the cone that it is folded to, and the parcel beside it. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { Facts, Sheet } from "../../api/client";
import { Dimension, Label } from "../../ui/dimension";
import { useFormatters } from "../../ui/formatters";
import { fill } from "../../ui/materials";

const ROOM = 240; // px for the length of the leaf

export function LeafFold({ facts, wrap, leaves }: { facts: Facts; wrap: Sheet["wrap"]; leaves: number }) {
  const { lengthWords } = useFormatters();
  const edge = Number(facts["shape.edge_mm"]?.value ?? 0);
  const { leaf_length_mm: long, leaf_width_mm: wide } = wrap;
  if (!edge || !long || !wide) return null;
  const scale = ROOM / long;
  const [l, w, e] = [long * scale, wide * scale, edge * scale];
  const apart = w * 0.6;
  const across = w + apart * (leaves - 1);
  const tall = (e * Math.sqrt(3)) / 2;
  const middle = across / 2;
  const y = Math.max(across, tall) + 22;
  const says = t`${leaves === 1 ? t`One leaf` : t`${leaves} leaves side by side`}, ${lengthWords(long)} by ${lengthWords(wide)}, folded to a cone with an edge of ${lengthWords(edge)}`;
  return (
    <g transform="translate(440 60)">
      <title>{says}</title>
      <Label x={0} y={-14} size={15} tone="ink2">
        <Trans>{leaves === 1 ? t`one leaf` : t`${leaves} leaves, lapped`}, to a cone</Trans>
      </Label>
      {Array.from({ length: leaves }, (_, i) => {
        const top = i * apart;
        return (
          <path
            // biome-ignore lint/suspicious/noArrayIndexKey: leaves are alike
            key={i}
            d={`M0 ${top + w / 2}q${l * 0.18} ${-w * 0.66} ${l * 0.5} ${-w * 0.5}q${l * 0.4} ${w * 0.04} ${l * 0.5} ${w * 0.5}q${-l * 0.1} ${w * 0.46} ${-l * 0.5} ${w * 0.5}q${-l * 0.32} ${w * 0.16} ${-l * 0.5} ${-w * 0.5}z`}
            fill={fill("leaf")}
            stroke="var(--color-ink)"
            strokeWidth="1.2"
          />
        );
      })}
      <path
        d={`M${l * 0.42} ${middle - tall / 2}l${e} 0l${-e / 2} ${tall}z`}
        fill="var(--color-sheet)"
        fillOpacity="0.55"
        stroke="var(--color-ink)"
        strokeDasharray="5 4"
      />
      <Dimension x1={0} y1={y} x2={l} y2={y} />
      <Label x={l / 2} y={y + 22} bold size={17} anchor="middle">
        {lengthWords(long)}
      </Label>
      <g transform={`translate(${l * 0.1} ${y + 52})`}>
        <path
          d={`M0 ${tall}h${e}l${-e / 2} ${-tall}z`}
          fill={fill("leaf")}
          stroke="var(--color-ink)"
          strokeWidth="1.6"
          strokeLinejoin="round"
        />
        <path d={`M${e * 0.18} ${tall * 0.64}h${e * 0.64}`} stroke="var(--color-bean)" strokeWidth="2" />
        <path d={`M${e / 2} 0l${-e * 0.1} ${tall}`} stroke="var(--color-ink)" strokeWidth="1" />
        <Dimension x1={0} y1={tall + 14} x2={e} y2={tall + 14} />
        <Label x={e / 2} y={tall + 36} bold size={17} anchor="middle">
          {lengthWords(edge)}
        </Label>
      </g>
    </g>
  );
}
