/** What there is to carry home: one bar, as long as it weighs, a part for each shelf in the order of the shop. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { ShoppingList } from "../api/client";
import { Drawing, useRoom } from "../ui/Drawing";
import { Label } from "../ui/dimension";
import { useFormatters } from "../ui/formatters";
import { fill, materialOf } from "../ui/materials";

const HIGH = 30;
const LETTER = 7.4; // px

export function ToCarry({ list }: { list: ShoppingList }) {
  const { bulkWords } = useFormatters();
  const [box, W] = useRoom<HTMLDivElement>(760);
  const shelves = [...new Set(list.lines.map((line) => line.shelf))].flatMap((shelf) => {
    const lines = list.lines.filter((line) => line.shelf === shelf);
    const grams = lines.reduce((sum, line) => sum + line.carry_g, 0);
    return grams > 0 ? [{ shelf, grams, material: materialOf(lines[0]?.group ?? "") }] : [];
  });
  const total = shelves.reduce((sum, item) => sum + item.grams, 0);
  if (total === 0) return null;
  let at = 0;
  const words = shelves.map((shelf) => `${shelf.shelf} ${bulkWords(shelf.grams)}`).join(", ");
  return (
    <div ref={box} className="mb-4 max-w-[760px]">
      <p className="text-lg">
        <Trans>
          <b className="text-3xl">{bulkWords(total)}</b> to carry home, in packs
        </Trans>
      </p>
      <Drawing viewBox={`0 0 ${W} ${HIGH + 22}`} className="block w-full" role="img" aria-label={t`To carry: ${words}`}>
        {shelves.map((shelf) => {
          const x = at;
          const wide = (shelf.grams / total) * (W - 2);
          at += wide;
          const first = shelf.shelf.split(/[, ]/)[0] ?? "";
          return (
            <g key={shelf.shelf}>
              <rect
                x={x + 1}
                y="1"
                width={wide}
                height={HIGH - 2}
                fill={fill(shelf.material)}
                stroke="var(--color-ink)"
              />
              {wide > (first.length + 6) * LETTER && (
                <Label x={x + 4} y={HIGH + 16} size={14}>
                  {first} {bulkWords(shelf.grams)}
                </Label>
              )}
            </g>
          );
        })}
      </Drawing>
    </div>
  );
}
