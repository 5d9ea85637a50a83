/** Parcels kept under water by a plate. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { Drawing } from "../../ui/Drawing";
import { Label } from "../../ui/dimension";
import { useFormatters } from "../../ui/formatters";
import { fill } from "../../ui/materials";

/** `thick` is how far through a ball of a parcel's weight is, in mm. */
export function Parcels({ thick }: { thick: number }) {
  const { lengthWords } = useFormatters();
  const size = Math.min(74, thick * 1.5);
  return (
    <Drawing
      viewBox="0 0 480 290"
      className="block w-full max-w-[520px]"
      role="img"
      aria-label={t`Parcels under water, ${lengthWords(thick)} through`}
    >
      <path d="M60 40V250H420V40" fill="none" stroke="var(--color-ink)" strokeWidth="3" />
      <path d="M46 36h388" stroke="var(--color-ink)" strokeWidth="3" />
      <rect x="62" y="76" width="356" height="172" fill={fill("water")} />
      {[0, 1, 2].map((i) => (
        <path
          key={i}
          d={`M${112 + i * 118} ${236}l${size * 0.75} 0l${-size * 0.375} ${-size}z`}
          fill={fill("leaf")}
          stroke="var(--color-ink)"
          strokeWidth="1.6"
          strokeLinejoin="round"
        />
      ))}
      <path d="M92 118h296l-22 12h-252z" fill="var(--color-sheet)" stroke="var(--color-ink)" strokeWidth="1.6" />
      <Label x={240} y={108} anchor="middle" size={14.5} plate>
        <Trans>a plate keeps them under</Trans>
      </Label>
      <Label x={240} y={278} anchor="middle" size={15} tone="ink2">
        <Trans>as a ball of its weight: {lengthWords(thick)} through</Trans>
      </Label>
    </Drawing>
  );
}
