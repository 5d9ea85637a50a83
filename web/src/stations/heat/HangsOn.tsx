/** What a window hangs on: of so many minutes either way, how many are the lid's, and what would narrow it most. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useState } from "react";
import type { Facts, Sensitivity, Sheet } from "../../api/client";
import { LinkButton, TextLink } from "../../ui/LinkButton";
import { fixed, trimmed } from "../../words/numbers";
import { isMeasuredHere, Measure } from "./Measure";

interface Props {
  hangs: readonly Sensitivity[];
  facts: Facts;
  sheet: Sheet;
  batterC: number;
  onSheet: (sheet: Sheet) => void;
}

const minutes = (value: number) => (value < 20 ? trimmed(value, 1) : value.toFixed(0));

export function HangsOn({ hangs, facts, sheet, batterC, onSheet }: Props) {
  const [open, setOpen] = useState("");
  const value = (key: "first_check" | "latest") => Number(facts[`heat.${key}_min`]?.value ?? 0);
  const half = (value("latest") - value("first_check")) / 2;
  if (hangs.length === 0 || half <= 0) return null;
  const widest = Math.max(...hangs.map((hang) => hang.minutes));
  const best = hangs.filter((hang) => hang.narrows).sort((a, b) => a.becomes_min - b.becomes_min)[0];
  return (
    <section aria-label={t`What it hangs on`} className="mt-5">
      <h3 className="text-xl">
        <Trans>What the ± {minutes(half)} min hang on</Trans>
      </h3>
      <ul>
        {hangs.map((hang) => (
          <li key={hang.id} className="hairline py-1.5">
            <div className="grid grid-cols-[1fr_7rem_4rem] items-center gap-x-3">
              <span>
                {hang.words}
                <span className="block text-sm text-ink2">{rangeOf(hang)}</span>
              </span>
              <span aria-hidden="true" className="block h-3">
                <span className="block h-3 bg-amber" style={{ width: `${(100 * hang.minutes) / widest}%` }} />
              </span>
              <b className="whitespace-nowrap text-right">± {minutes(hang.minutes)}</b>
            </div>
            {hang.narrows && (
              <p className={hang === best ? "" : "text-sm"}>
                {hang.narrows === "kettle" && <TextLink to="/kitchen/hob">{hang.narrow_words}</TextLink>}
                {hang.narrows === "log" && <TextLink to="/log">{hang.narrow_words}</TextLink>}
                {hang.narrows === "scale" && <TextLink to="../shape">{hang.narrow_words}</TextLink>}
                {isMeasuredHere(hang) && (
                  <LinkButton aria-expanded={open === hang.id} onClick={() => setOpen(open === hang.id ? "" : hang.id)}>
                    {hang.narrow_words}
                  </LinkButton>
                )}
                <span className="text-ink2">
                  <Trans>
                    {hang.takes_min ? t` (${hang.takes_min.toFixed(0)} min)` : ""}: ± {minutes(half)} becomes ±{" "}
                    {minutes(hang.becomes_min)}
                  </Trans>
                </span>
              </p>
            )}
            {open === hang.id && (
              <Measure
                hang={hang}
                sheet={sheet}
                batterC={batterC}
                depthMm={Number(facts["heat.depth_mm"]?.value ?? 0)}
                onSheet={onSheet}
                onDone={() => setOpen("")}
              />
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

const rangeOf = (hang: Sensitivity) =>
  hang.unit === "x"
    ? t`between ${fixed(hang.low, 2)} and ${fixed(hang.high, 2)} times what is told`
    : t`${+hang.low.toPrecision(3)} to ${+hang.high.toPrecision(3)} ${hang.unit}`;
