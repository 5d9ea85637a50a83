/** Just-about-right scales: a press for each, from too little over just right to too much. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { RadioGroup } from "radix-ui";
import { useState } from "react";
import type { WayCard } from "../api/client";
import { said } from "../words/said";

const MARKS = [-2, -1, 0, 1, 2] as const;

interface Props {
  way: WayCard;
  tastes: Record<string, number>;
  onChange: (tastes: Record<string, number>) => void;
}

export function Scales({ way, tastes, onChange }: Props) {
  const more = way.tastes.filter((taste) => !taste.asked);
  const [isOpen, setIsOpen] = useState(more.some((item) => tastes[item.id] != null));
  return (
    <>
      {way.tastes
        .filter((taste) => taste.asked || isOpen)
        .map((taste) => (
          <OneScale key={taste.id} taste={taste} tastes={tastes} onChange={onChange} />
        ))}
      {more.length > 0 && !isOpen && (
        <button
          type="button"
          className="mt-3 min-h-12 text-bean underline underline-offset-4"
          onClick={() => setIsOpen(true)}
        >
          <Trans>More to say: {more.map((item) => said(item.id)).join(", ")}</Trans>
        </button>
      )}
    </>
  );
}

function OneScale({ taste, tastes, onChange }: Omit<Props, "way"> & { taste: WayCard["tastes"][number] }) {
  return (
    <div className="hairline py-4">
      <p id={`taste-${taste.id}`} className="sr-only">
        <Trans>
          {taste.too_little} to {taste.too_much}
        </Trans>
      </p>
      <div className="grid grid-cols-3 text-ink2">
        <span>{taste.too_little}</span>
        <span className="text-center">
          <Trans>just right</Trans>
        </span>
        <span className="text-right">{taste.too_much}</span>
      </div>
      <RadioGroup.Root
        aria-labelledby={`taste-${taste.id}`}
        orientation="horizontal"
        className="relative mt-2 flex justify-between before:absolute before:top-1/2 before:right-6 before:left-6 before:h-px before:bg-ink"
        value={tastes[taste.id] == null ? "" : String(tastes[taste.id])}
        onValueChange={(mark) => onChange({ ...tastes, [taste.id]: Number(mark) })}
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
  );
}

export function wordsFor(mark: number, taste: WayCard["tastes"][number]) {
  if (mark === 0) return t`just right`;
  return `${Math.abs(mark) === 1 ? t`a little ` : t`much `}${mark < 0 ? taste.too_little : taste.too_much}`;
}
