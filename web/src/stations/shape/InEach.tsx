/** The measures of a piece: any two are said, the rest follow. Typing one holds it; the older of the two lets go. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useRef } from "react";
import type { BallDrawing, FactKey, Facts, Sheet, WayCard } from "../../api/client";
import { limit } from "../../api/limits";
import type { Editing } from "../../sheet/useSheet";
import { AmountField } from "../../ui/AmountField";
import { FactFigure } from "../../ui/FactFigure";
import { FactRows } from "../../ui/FactRows";
import { useFormatters } from "../../ui/formatters";
import { LinkButton } from "../../ui/LinkButton";
import { NumberField } from "../../ui/NumberField";
import { NumberRow, Row } from "../../ui/Row";
import { capital } from "../../ui/words";
import { holding, type Measure, released } from "./piece";

interface Measured {
  name: Measure;
  fact: FactKey;
  label: (way: WayCard, outside: boolean) => string;
  unit: string;
  decimals: number;
  step: number;
  plain?: boolean;
}

const ROWS: Measured[] = [
  { name: "dough_g", fact: "shape.base_g", label: (way) => capital(way.words.dough ?? t`dough`), unit: "g", decimals: 1, step: 1, plain: true }, // biome-ignore format: a table
  { name: "filling_g", fact: "shape.filling_g", label: (way) => capital(way.words.filling ?? t`filling`), unit: "g", decimals: 1, step: 1 }, // biome-ignore format: a table
  { name: "piece_g", fact: "shape.piece_g", label: () => t`Whole piece`, unit: "g", decimals: 1, step: 1 }, // biome-ignore format: a table
  { name: "diameter_mm", fact: "shape.diameter_mm", label: () => t`Across`, unit: "mm", decimals: 1, step: 1, plain: true }, // biome-ignore format: a table
  { name: "skin_mm", fact: "shape.skin_mm", label: (_, outside) => (outside ? t`Coat` : t`Skin`), unit: "mm", decimals: 1, step: 0.5 }, // biome-ignore format: a table
  { name: "skin_pct", fact: "shape.skin_pct", label: (_, outside) => (outside ? t`Coat, of the whole` : t`Skin, of the whole`), unit: "%", decimals: 0, step: 1 }, // biome-ignore format: a table
];

const BESIDE: FactKey[] = ["shape.pinch_g", "shape.trim_g", "shape.hand_water_ml", "shape.hand_salt_g"];

/** The fillings and hearts, where there are several of one: each has its share of what is within. */
const severalWithin = (sheet: Sheet, facts: Facts) =>
  sheet.parts.filter(
    ({ id, role }) => (role === "filling" || role === "heart") && facts[`part.${id}.piece_g`] !== undefined,
  );

export function InEach({ editing, way, drawing }: { editing: Editing; way: WayCard; drawing: BallDrawing | null }) {
  const { sheet, worked, edit } = editing;
  const { facts } = worked;
  const { pieces } = sheet;
  const { weightWords } = useFormatters();
  const recent = useRef<Measure[]>([]);
  const filled = sheet.parts.some((part) => part.role === "filling" || part.role === "heart");
  const round = drawing?.form !== "packet" && drawing?.form !== "parcel";
  const rows = ROWS.filter((row) => (filled || row.plain) && (round || row.unit === "g"));
  const skin = facts["shape.skin_pct"];
  const say = (name: Measure, value: number) => {
    const next = holding(pieces, name, value, !filled, recent.current, skin ? Number(skin.value) : null);
    recent.current = [name, ...recent.current.filter((item) => item !== name)];
    edit({ ...sheet, pieces: next });
  };
  return (
    <section aria-label={t`In each`} className="mt-4">
      <h3 className="text-xl">
        <Trans>In each</Trans>
      </h3>
      <div className="mt-1 grid grid-cols-1 gap-x-8 sm:grid-cols-2">
        {rows.map((row) => {
          const fact = facts[row.fact];
          const said = pieces[row.name] ?? null;
          const value = fact && typeof fact.value === "number" ? fact.value : said;
          const hearted = row.name === "filling_g" && facts["shape.heart_g"];
          const label = `${row.label(way, drawing?.outside ?? false)}${hearted ? t`, heart in` : ""}`;
          return (
            <Row
              key={row.name}
              label={
                <FactFigure facts={facts} name={row.fact}>
                  {label}
                </FactFigure>
              }
            >
              <span className="whitespace-nowrap">
                <LinkButton
                  className="mr-1 min-h-8 text-sm disabled:no-underline"
                  hidden={said == null}
                  aria-label={t`held: let go of ${label.toLowerCase()}`}
                  onClick={() => edit({ ...sheet, pieces: released(pieces, row.name) })}
                >
                  <Trans>held</Trans>
                </LinkButton>
                <AmountField
                  label={label}
                  hideLabel
                  value={said ?? value}
                  unit={row.unit}
                  decimals={row.decimals}
                  within={limit(`Pieces.${row.name}`)}
                  step={row.step}
                  width="3.6rem"
                  onChange={(typed) => say(row.name, typed)}
                />
              </span>
            </Row>
          );
        })}
        {severalWithin(sheet, facts).map((part) => (
          <div key={part.id} className="sm:col-span-2">
            <Row
              label={
                <FactFigure facts={facts} name={`part.${part.id}.piece_g`}>
                  {t`of it ${part.name || part.id}`}
                </FactFigure>
              }
            >
              {weightWords(Number(facts[`part.${part.id}.piece_g`]?.value), 1)}
            </Row>
          </div>
        ))}
        <Row label={t`Pieces wanted`}>
          <NumberField
            label={t`Pieces wanted`}
            hideLabel
            value={pieces.count ?? null}
            decimals={0}
            within={limit("Pieces.count")}
            width="3.6rem"
            onClear={() => edit({ ...sheet, pieces: { ...pieces, count: null } })}
            onChange={(count) => edit({ ...sheet, pieces: { ...pieces, count: Math.round(count) } })}
          />
        </Row>
        {filled && round && (
          <NumberRow
            label={t`Left showing`}
            unit="%"
            within={limit("Pieces.bare_pct")}
            step={5}
            value={pieces.bare_pct ?? 0}
            onChange={(bare_pct) => edit({ ...sheet, pieces: { ...pieces, bare_pct } })}
          />
        )}
        {round && (
          <NumberRow
            label={t`Pinched off`}
            name={t`Pinched off once it is closed`}
            unit="%"
            within={limit("Pieces.trim_pct")}
            step={5}
            value={pieces.trim_pct ?? 0}
            onChange={(trim_pct) => edit({ ...sheet, pieces: { ...pieces, trim_pct } })}
          />
        )}
      </div>
      <FactRows facts={facts} keys={BESIDE} />
      <p className="mt-1 text-sm text-ink2">
        {filled ? t`Two that are held give the rest. ` : ""}
        {pieces.count ? t`Clear “pieces wanted” to make as many as there is for.` : t`As many as there is for.`}
      </p>
    </section>
  );
}
