/** The shares of a line: for several steps, or for several parts. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { Line, Part, PartId } from "../../api/client";
import { LinkButton } from "../../ui/LinkButton";
import { NumberField } from "../../ui/NumberField";
import { fixed } from "../../words/numbers";
import { said } from "../../words/said";

interface Props {
  line: Line;
  part: PartId;
  parts: readonly Part[];
  onChange: (next: Partial<Line>) => void;
}

const PER_CENT = 100;

/** The shares of a line. The last one takes what the others leave, so that they always add up. */
export function Splits({ line, part, parts, onChange }: Props) {
  const splits = line.splits ?? [];
  const put = (next: typeof splits) => {
    const before = next.slice(0, -1);
    const rest = 1 - before.reduce((sum, item) => sum + item.share, 0);
    const last = next.at(-1);
    if (next.length < 2 || !last) onChange({ splits: [] });
    else if (rest > 0.001) onChange({ splits: [...before, { ...last, share: rest }] });
  };
  if (!splits.length)
    return (
      <p className="mt-2">
        <LinkButton
          onClick={() =>
            put([
              { share: 1 / 3, at: "first", to: null, joins: "" },
              { share: 2 / 3, at: "then", to: null, joins: "" },
            ])
          }
        >
          <Trans>Split it over steps or parts</Trans>
        </LinkButton>
      </p>
    );
  return (
    <fieldset className="mt-2">
      <legend className="text-ink2">
        <Trans>Its shares</Trans>
      </legend>
      {splits.map((split, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a share has no name of its own but its place
        <div key={i} className="hairline flex flex-wrap items-baseline gap-x-2 py-1">
          {i < splits.length - 1 ? (
            <NumberField
              label={t`Share ${i + 1}`}
              hideLabel
              value={split.share * PER_CENT}
              unit="%"
              decimals={1}
              within={{ min: 1, max: 98 }}
              width="3.4rem"
              onChange={(value) =>
                put(splits.map((split, j) => (j === i ? { ...split, share: value / PER_CENT } : split)))
              }
            />
          ) : (
            <span className="w-[5.2rem] text-right">{fixed(split.share * PER_CENT, 1)} %</span>
          )}
          <select
            aria-label={t`Share ${i + 1} goes to`}
            className="write"
            value={split.to ?? part}
            onChange={(event) =>
              put(
                splits.map((split, j) =>
                  j === i ? { ...split, to: event.target.value === part ? null : event.target.value } : split,
                ),
              )
            }
          >
            {parts.map((item) => (
              <option key={item.id} value={item.id}>
                {item.name || said(item.role)}
              </option>
            ))}
          </select>
          <input
            aria-label={t`Share ${i + 1}, when`}
            className="write min-w-0 flex-1"
            maxLength={60}
            value={split.at}
            onChange={(event) =>
              put(splits.map((split, j) => (j === i ? { ...split, at: event.target.value } : split)))
            }
          />
        </div>
      ))}
      <div className="mt-1 flex gap-5">
        {splits.length < 6 && (
          <LinkButton
            onClick={() => {
              const last = splits.at(-1);
              if (last)
                put([
                  ...splits.slice(0, -1),
                  { ...last, share: last.share / 2 },
                  { share: 0, at: "last", to: null, joins: "" },
                ]);
            }}
          >
            <Trans>one more share</Trans>
          </LinkButton>
        )}
        <LinkButton onClick={() => put([])}>
          <Trans>do not split it</Trans>
        </LinkButton>
      </div>
    </fieldset>
  );
}
