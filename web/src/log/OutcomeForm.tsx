/** How it came out: just-about-right scales, faults seen, a note. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { ToggleGroup } from "radix-ui";
import type { BatchOutcome, StoredPieces, WayCard } from "../api/client";
import { limit } from "../api/limits";
import { WeightField } from "../ui/AmountField";
import { NumberField } from "../ui/NumberField";
import { usePersistentState } from "../ui/usePersistentState";
import { Scales } from "./Scales";

interface Props {
  way: WayCard;
  start: BatchOutcome;
  busy: boolean;
  /** Under what it lies in this browser until it is in the log. */
  keptAs?: string;
  /** The parts that it has; of one that it lacks nothing can go wrong. */
  roles?: string[];
  /** How many pieces and grams were told, where anything was. */
  told?: { pieces?: number; grams?: number };
  onSave: (outcome: BatchOutcome) => void;
}

const canShow = (roles?: string[]) => (fault: WayCard["faults"][number]) =>
  !roles || !fault.of?.length || fault.of.some((role) => roles.includes(role));

export function OutcomeForm({ way, start, busy, keptAs, roles, told, onSave }: Props) {
  const [outcome, setOutcome] = usePersistentState(keptAs ?? null, start);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        onSave(outcome);
      }}
    >
      <Scales way={way} tastes={outcome.tastes} onChange={(tastes) => setOutcome({ ...outcome, tastes })} />
      <p id="faults-seen" className="mt-5 text-ink2">
        <Trans>What went wrong, if anything</Trans>
      </p>
      <ToggleGroup.Root
        type="multiple"
        aria-labelledby="faults-seen"
        className="mt-2 flex flex-wrap gap-2"
        value={outcome.faults}
        onValueChange={(faults) => setOutcome({ ...outcome, faults })}
      >
        {way.faults.filter(canShow(roles)).map((fault) => (
          <ToggleGroup.Item key={fault.id} value={fault.id} className="pick">
            {fault.seen}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
      <CountAndKeep outcome={outcome} told={told} onChange={setOutcome} />
      <label className="mt-5 block">
        <span className="text-ink2">
          <Trans>A note</Trans>
        </span>
        <textarea
          className="mt-1 block w-full border border-ink2 bg-sheet p-2"
          rows={3}
          maxLength={4000}
          value={outcome.note}
          onChange={(event) => setOutcome({ ...outcome, note: event.target.value })}
        />
      </label>
      <button type="submit" className="pick mt-5 min-h-12 px-8 text-lg" data-on="true" disabled={busy}>
        <Trans>Put it in the log</Trans>
      </button>
    </form>
  );
}

const PLACES = [
  ["counter", t`covered, on the counter`],
  ["fridge", t`in the fridge`],
  ["freezer", t`in the freezer`],
] as const;

/** How many there were, what they weighed, and what is put by, where. */
function CountAndKeep(props: { outcome: BatchOutcome; told: Props["told"]; onChange: (next: BatchOutcome) => void }) {
  const { outcome, told, onChange } = props;
  const kept = outcome.kept ?? [];
  const put = (where: StoredPieces["where"], pieces: number | null) => {
    const others = kept.filter((item) => item.where !== where);
    onChange({ ...outcome, kept: pieces ? [...others, { where, pieces }] : others });
  };
  return (
    <fieldset className="mt-5 border-0 p-0">
      <legend className="text-ink2">
        <Trans>Counted, weighed, put by</Trans>
      </legend>
      <div className="mt-2 flex flex-wrap items-end gap-x-6 gap-y-3">
        <NumberField
          label={told?.pieces ? t`Pieces, ${told.pieces} told` : t`Pieces`}
          value={outcome.pieces ?? null}
          within={limit("BatchOutcome.pieces")}
          decimals={0}
          onClear={() => onChange({ ...outcome, pieces: null })}
          onChange={(pieces) => onChange({ ...outcome, pieces })}
        />
        <WeightField
          label={t`All of it weighs`}
          value={outcome.grams ?? null}
          within={limit("BatchOutcome.grams")}
          decimals={0}
          onClear={() => onChange({ ...outcome, grams: null })}
          onChange={(grams) => onChange({ ...outcome, grams })}
        />
        {PLACES.map(([where, words]) => (
          <NumberField
            key={where}
            label={t`Put by ${words}`}
            value={kept.find((item) => item.where === where)?.pieces ?? null}
            within={limit("StoredPieces.pieces")}
            decimals={0}
            onClear={() => put(where, null)}
            onChange={(pieces) => put(where, pieces)}
          />
        ))}
      </div>
    </fieldset>
  );
}
