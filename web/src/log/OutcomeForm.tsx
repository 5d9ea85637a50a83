/** How it came out: just-about-right scales, faults seen, a note. */

import { RadioGroup, ToggleGroup } from "radix-ui";
import type { Kept, Outcome, WayCard } from "../api/client";
import { limit } from "../api/limits";
import { NumberField } from "../ui/NumberField";
import { useKept } from "../ui/useKept";

const MARKS = [-2, -1, 0, 1, 2] as const;

interface Props {
  way: WayCard;
  start: Outcome;
  busy: boolean;
  /** Under what it lies in this browser until it is in the log. */
  keptAs?: string;
  /** How many pieces and grams were told, where anything was. */
  told?: { pieces?: number; grams?: number };
  onSave: (outcome: Outcome) => void;
}

export function OutcomeForm({ way, start, busy, keptAs, told, onSave }: Props) {
  const [outcome, setOutcome] = useKept(keptAs ?? null, start);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        onSave(outcome);
      }}
    >
      {way.tastes.map((taste) => (
        <div key={taste.id} className="hairline py-4">
          <p id={`taste-${taste.id}`} className="sr-only">
            {taste.too_little} to {taste.too_much}
          </p>
          <div className="grid grid-cols-3 text-ink2">
            <span>{taste.too_little}</span>
            <span className="text-center">just right</span>
            <span className="text-right">{taste.too_much}</span>
          </div>
          <RadioGroup.Root
            aria-labelledby={`taste-${taste.id}`}
            orientation="horizontal"
            className="relative mt-2 flex justify-between before:absolute before:top-1/2 before:right-6 before:left-6 before:h-px before:bg-ink"
            value={outcome.tastes[taste.id] == null ? "" : String(outcome.tastes[taste.id])}
            onValueChange={(mark) =>
              setOutcome({ ...outcome, tastes: { ...outcome.tastes, [taste.id]: Number(mark) } })
            }
          >
            {MARKS.map((mark) => (
              <RadioGroup.Item
                key={mark}
                value={String(mark)}
                aria-label={wordsFor(mark, taste)}
                className={`relative size-12 rounded-full border-2 bg-paper data-[state=checked]:text-sheet ${
                  mark === 0
                    ? "border-green data-[state=checked]:bg-green"
                    : "border-ink data-[state=checked]:bg-bean data-[state=checked]:border-bean"
                }`}
              >
                <RadioGroup.Indicator>
                  <svg viewBox="0 0 20 20" className="mx-auto size-6" aria-hidden="true">
                    <path d="M4 10.5l4 4 8-9" fill="none" stroke="currentColor" strokeWidth="2.6" />
                  </svg>
                </RadioGroup.Indicator>
              </RadioGroup.Item>
            ))}
          </RadioGroup.Root>
        </div>
      ))}
      <p id="faults-seen" className="mt-5 text-ink2">
        What went wrong, if anything
      </p>
      <ToggleGroup.Root
        type="multiple"
        aria-labelledby="faults-seen"
        className="mt-2 flex flex-wrap gap-2"
        value={outcome.faults}
        onValueChange={(faults) => setOutcome({ ...outcome, faults })}
      >
        {way.faults.map((fault) => (
          <ToggleGroup.Item key={fault.id} value={fault.id} className="pick">
            {fault.seen}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
      <CountAndKeep outcome={outcome} told={told} onChange={setOutcome} />
      <label className="mt-5 block">
        <span className="text-ink2">A note</span>
        <textarea
          className="mt-1 block w-full border border-ink2 bg-sheet p-2"
          rows={3}
          maxLength={4000}
          value={outcome.note}
          onChange={(event) => setOutcome({ ...outcome, note: event.target.value })}
        />
      </label>
      <button type="submit" className="pick mt-5 min-h-12 px-8 text-lg" data-on="true" disabled={busy}>
        Put it in the log
      </button>
    </form>
  );
}

const PLACES = [
  ["counter", "covered, on the counter"],
  ["fridge", "in the fridge"],
  ["freezer", "in the freezer"],
] as const;

/** How many there were, what they weighed, and what is put by, where. */
function CountAndKeep(props: { outcome: Outcome; told: Props["told"]; onChange: (next: Outcome) => void }) {
  const { outcome, told, onChange } = props;
  const kept = outcome.kept ?? [];
  const put = (where: Kept["where"], pieces: number | null) => {
    const others = kept.filter((one) => one.where !== where);
    onChange({ ...outcome, kept: pieces ? [...others, { where, pieces }] : others });
  };
  return (
    <fieldset className="mt-5 border-0 p-0">
      <legend className="text-ink2">Counted, weighed, put by</legend>
      <div className="mt-2 flex flex-wrap items-end gap-x-6 gap-y-3">
        <NumberField
          label={told?.pieces ? `Pieces, ${told.pieces} told` : "Pieces"}
          value={outcome.pieces ?? null}
          within={limit("Outcome.pieces")}
          decimals={0}
          onClear={() => onChange({ ...outcome, pieces: null })}
          onChange={(pieces) => onChange({ ...outcome, pieces })}
        />
        <NumberField
          label="All of it weighs"
          value={outcome.grams ?? null}
          unit="g"
          within={limit("Outcome.grams")}
          decimals={0}
          onClear={() => onChange({ ...outcome, grams: null })}
          onChange={(grams) => onChange({ ...outcome, grams })}
        />
        {PLACES.map(([where, words]) => (
          <NumberField
            key={where}
            label={`Put by ${words}`}
            value={kept.find((one) => one.where === where)?.pieces ?? null}
            within={limit("Kept.pieces")}
            decimals={0}
            onClear={() => put(where, null)}
            onChange={(pieces) => put(where, pieces)}
          />
        ))}
      </div>
    </fieldset>
  );
}

export function wordsFor(mark: number, taste: WayCard["tastes"][number]) {
  if (mark === 0) return "just right";
  return `${Math.abs(mark) === 1 ? "a little " : "much "}${mark < 0 ? taste.too_little : taste.too_much}`;
}
