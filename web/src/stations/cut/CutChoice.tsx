/** How it is cut: the pattern, and whether by the count, by a side or by a weight. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { Cut } from "../../api/client";
import { limit } from "../../api/limits";
import type { Editing } from "../../sheet/useSheet";
import { WeightField } from "../../ui/AmountField";
import { LengthField } from "../../ui/LengthField";
import { NumberField } from "../../ui/NumberField";
import { Picks } from "../../ui/ToggleChoice";
import { said } from "../../words/said";

const PATTERNS: Cut["pattern"][] = ["squares", "oblongs", "strips", "diamonds", "triangles", "wedges", "rings"];
type By = "count" | "side" | "weight";
const BY: [By, string][] = [
  ["count", t`so many`],
  ["side", t`of a size`],
  ["weight", t`of a weight`],
];
const SIDE_WORDS: Record<Cut["pattern"], string> = {
  squares: t`side`,
  oblongs: t`short side`,
  strips: t`width`,
  diamonds: t`side`,
  triangles: t`short side`,
  wedges: t`length at the edge`,
  rings: t`width of a ring`,
};
/** Patterns that a round tray can be cut in with every piece of one area. Wedges and rings always are. */
const EVEN: Cut["pattern"][] = ["squares", "oblongs", "strips"];

export function CutChoice({ editing }: { editing: Editing }) {
  const { sheet, worked, edit } = editing;
  const { cut } = sheet;
  const { facts } = worked;
  const set = (change: Partial<Cut>) => edit({ ...sheet, cut: { ...cut, ...change } });
  const by: By = cut.side_mm != null ? "side" : cut.piece_g != null ? "weight" : "count";
  const value = (key: string) => (facts[key] ? Number(facts[key]?.value) : null);
  const turn = (next: By) => {
    const whole = { side_mm: null, long_mm: null, piece_g: null };
    if (next === "side") set({ ...whole, side_mm: Math.round(value("cut.piece_mm") ?? 40) });
    else if (next === "weight") set({ ...whole, piece_g: Math.round(value("cut.piece_g") ?? 30) });
    else set({ ...whole, pieces: Math.max(1, Math.round(value("cut.pieces") ?? cut.pieces)) });
  };
  const round = worked.drawings.cut?.trays.some((tray) => tray.shape === "round") ?? false;
  return (
    <section aria-label={t`How it is cut`}>
      <Picks
        label={t`Cut in`}
        value={cut.pattern}
        options={PATTERNS.map((pattern) => [pattern, said(pattern)] as const)}
        onPick={(pattern) => set({ pattern })}
      />
      <div className="mt-2 flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <Picks label={t`Said by`} value={by} options={BY} onPick={turn} />
        {by === "count" && (
          <NumberField
            label={t`Pieces wanted`}
            value={cut.pieces}
            decimals={0}
            within={limit("Cut.pieces")}
            width="3.6rem"
            onChange={(pieces) => set({ pieces: Math.round(pieces) })}
          />
        )}
        {by === "side" && (
          <LengthField
            label={SIDE_WORDS[cut.pattern]}
            value={cut.side_mm ?? null}
            decimals={0}
            within={limit("Cut.side_mm")}
            width="3.6rem"
            onChange={(side_mm) => set({ side_mm })}
          />
        )}
        {by === "side" && cut.pattern === "oblongs" && (
          <LengthField
            label={t`long side`}
            value={cut.long_mm ?? (cut.side_mm ?? 0) * 2}
            decimals={0}
            within={limit("Cut.long_mm")}
            width="3.6rem"
            onChange={(long_mm) => set({ long_mm })}
          />
        )}
        {by === "weight" && (
          <WeightField
            label={t`each`}
            value={cut.piece_g ?? null}
            decimals={0}
            within={limit("Cut.piece_g")}
            width="3.6rem"
            onChange={(piece_g) => set({ piece_g })}
          />
        )}
      </div>
      <div className="flex flex-wrap items-baseline gap-x-5">
        {round && EVEN.includes(cut.pattern) && (
          <label className="flex min-h-9 items-center gap-2">
            <Trans>
              <input
                type="checkbox"
                className="size-5 accent-bean"
                checked={cut.even}
                onChange={(event) => set({ even: event.target.checked })}
              />
              every piece of one weight, nothing left over
            </Trans>
          </label>
        )}
        <NumberField
          label={t`Cut small, for children and old people`}
          value={cut.small}
          unit={t`of them`}
          decimals={0}
          within={limit("Cut.small")}
          width="2.8rem"
          onChange={(small) => set({ small: Math.round(small) })}
        />
      </div>
    </section>
  );
}
