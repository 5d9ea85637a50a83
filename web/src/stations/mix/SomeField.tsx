/** Some of what is made: a share of it in per cent, or an amount by weight or measure. */

import { t } from "@lingui/core/macro";
import type { PartialAmount, UnitId } from "../../api/client";
import { UNITS } from "../../api/generated";
import { limit, scaled } from "../../api/limits";
import { NumberField } from "../../ui/NumberField";

const UNIT_IDS = (Object.keys(UNITS) as UnitId[]).filter((unit) => ["mass", "volume"].includes(UNITS[unit].kind));
const SHARE = "%";

interface Props {
  label: string;
  some: PartialAmount | null;
  /** What all of it weighs: turning a share into grams, or grams into a share, changes nothing. */
  madeG: number;
  onChange: (some: PartialAmount) => void;
  onClear?: () => void;
}

export function SomeField({ label, some, madeG, onChange, onClear }: Props) {
  const unit = some?.amount ? some.amount.unit : SHARE;
  const share = some?.share == null ? null : some.share * 100;
  const put = (value: number) =>
    onChange(
      some?.amount
        ? { share: null, amount: { ...some.amount, value } }
        : { share: Math.min(1, value / 100), amount: null },
    );
  const turn = (to: string) => {
    if (to === SHARE) onChange({ share: 0.5, amount: null });
    else {
      const grams = some?.share == null ? some?.amount?.value : some.share * madeG;
      onChange({ share: null, amount: { value: +(grams || 1).toFixed(1), unit: to as UnitId } });
    }
  };
  return (
    <span className="whitespace-nowrap">
      <NumberField
        label={label}
        hideLabel
        value={some?.amount ? some.amount.value : share}
        decimals={1}
        within={some?.amount ? limit("Amount.value") : scaled(limit("PartialAmount.share"), 100)}
        width="4.4rem"
        onChange={put}
        onClear={onClear}
      />
      <select
        aria-label={t`${label}, unit`}
        className="ml-1 h-10 w-[4.6rem] bg-transparent text-ink2"
        value={unit}
        onChange={(event) => turn(event.target.value)}
      >
        <option>{SHARE}</option>
        {UNIT_IDS.map((id) => (
          <option key={id} value={id}>
            {UNITS[id].listed}
          </option>
        ))}
      </select>
    </span>
  );
}
