/** The tins: each from the side, and another one. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useState } from "react";
import type { Tin } from "../../api/client";
import { limit, usual } from "../../api/limits";
import { useFormatters } from "../../ui/formatters";
import { JustDropped } from "../../ui/JustTrashed";
import { LengthField } from "../../ui/LengthField";
import { LinkButton } from "../../ui/LinkButton";
import { tinSize } from "../../ui/tins";
import { said } from "../../words/said";
import type { PanelProps } from "../things";
import { TinSide } from "../vesselsDrawn";

function AddTin({ onAdd }: { onAdd: (tin: Tin) => void }) {
  const blank: Tin = {
    name: "",
    shape: "round",
    diameter_mm: usual("Tin.diameter_mm"),
    length_mm: usual("Tin.length_mm"),
    width_mm: usual("Tin.width_mm"),
    height_mm: usual("Tin.height_mm"),
    material: "metal",
  };
  const [tin, setTin] = useState(blank);
  return (
    <form
      className="mt-3 flex flex-wrap items-end gap-x-4 gap-y-1"
      onSubmit={(event) => {
        event.preventDefault();
        onAdd(tin);
        setTin(blank);
      }}
    >
      <input
        aria-label={t`Name of the new tin`}
        className="write w-36"
        placeholder={t`another tin`}
        maxLength={60}
        value={tin.name}
        onChange={(event) => setTin({ ...tin, name: event.target.value })}
      />
      <select
        aria-label={t`Shape of the new tin`}
        className="write"
        value={tin.shape}
        onChange={(event) => setTin({ ...tin, shape: event.target.value as Tin["shape"] })}
      >
        <option>
          <Trans>round</Trans>
        </option>
        <option>
          <Trans>oblong</Trans>
        </option>
      </select>
      {tin.shape === "round" ? (
        <LengthField
          label={t`Across`}
          value={tin.diameter_mm}
          decimals={0}
          within={limit("Tin.diameter_mm")}
          width="4rem"
          onChange={(diameter_mm) => setTin({ ...tin, diameter_mm })}
        />
      ) : (
        <>
          <LengthField
            label={t`Length`}
            value={tin.length_mm}
            decimals={0}
            within={limit("Tin.length_mm")}
            width="4rem"
            onChange={(length_mm) => setTin({ ...tin, length_mm })}
          />
          <LengthField
            label={t`Width`}
            value={tin.width_mm}
            decimals={0}
            within={limit("Tin.width_mm")}
            width="4rem"
            onChange={(width_mm) => setTin({ ...tin, width_mm })}
          />
        </>
      )}
      <LengthField
        label={t`High`}
        value={tin.height_mm}
        decimals={0}
        within={limit("Tin.height_mm")}
        width="4rem"
        onChange={(height_mm) => setTin({ ...tin, height_mm })}
      />
      <select
        aria-label={t`New tin is made of`}
        className="write"
        value={tin.material}
        onChange={(event) => setTin({ ...tin, material: event.target.value as Tin["material"] })}
      >
        <option>
          <Trans>metal</Trans>
        </option>
        <option>
          <Trans>glass</Trans>
        </option>
        <option>
          <Trans>ceramic</Trans>
        </option>
      </select>
      <button type="submit" className="pick">
        <Trans>Add it</Trans>
      </button>
    </form>
  );
}

const replaced = (tins: Tin[], at: number, tin: Tin) => tins.map((eachTin, i) => (i === at ? tin : eachTin));

export function TinsPanel({ kitchen, set }: PanelProps) {
  const formatters = useFormatters();
  const { sizeWords } = formatters;
  const { tins } = kitchen;
  const onChange = (next: Tin[]) => set({ tins: next });
  return (
    <>
      <JustDropped kinds={["tin"]} />
      <ul>
        {tins.map((tin, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: two tins may be alike
          <li key={i} className="hairline flex flex-wrap items-center gap-x-4 py-2">
            <TinSide tin={tin} />
            <span className="flex-1">
              <input
                aria-label={t`Name of tin ${i + 1}`}
                className="write w-36"
                maxLength={60}
                value={tin.name}
                onChange={(event) => onChange(replaced(tins, i, { ...tin, name: event.target.value }))}
              />
              <span className="block text-ink2">
                <Trans>
                  {tinSize(formatters, tin)}, {sizeWords(tin.height_mm)} high, {said(tin.material)}
                </Trans>
              </span>
            </span>
            <LinkButton onClick={() => onChange(tins.filter((_, j) => j !== i))}>
              <Trans>Take away</Trans>
            </LinkButton>
          </li>
        ))}
      </ul>
      <AddTin onAdd={(tin) => onChange([...tins, tin])} />
    </>
  );
}
