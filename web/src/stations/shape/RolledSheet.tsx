/** Dough rolled out, with the cutter's places on it; the first rolling large, those from trimmings beside it. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { BallDrawing, Facts, RolledDrawing, Sheet } from "../../api/client";
import { limit } from "../../api/limits";
import type { Editing } from "../../sheet/useSheet";
import { Drawing } from "../../ui/Drawing";
import { Dimension, Label } from "../../ui/dimension";
import { FactRows } from "../../ui/FactRows";
import { useFormatters } from "../../ui/formatters";
import { LengthRow } from "../../ui/LengthField";
import { fill } from "../../ui/materials";
import { NumberRow, PickRow } from "../../ui/Row";

const PACKINGS = [
  ["hexagonal", t`rows in the hollows`],
  ["square", t`rows in line`],
] as const;
const CUTTERS = [
  ["round", t`round`],
  ["square", t`square`],
] as const;

export function RolledDrawn({ rolled, facts }: { rolled: RolledDrawing; facts: Facts }) {
  const { lengthWords, sizeFigure, sizeWords } = useFormatters();
  const first = rolled.rollings[0];
  if (!first) return null;
  const again = rolled.rollings.slice(1);
  const beside = again.length ? Math.max(...again.map((item) => item.length_mm)) + 40 : 0;
  const scale = Math.min(620 / (first.length_mm + beside), 330 / first.width_mm);
  let y = 0;
  const cut = Number(facts["shape.cut_of_sheet"]?.value ?? 0);
  const says = t`${cut} cut from a sheet ${lengthWords(rolled.thick_mm, 1)} thick`;
  return (
    <Drawing viewBox="0 0 720 440" className="block w-full" role="img" aria-label={says}>
      <g transform="translate(20 40)">
        <OneSheet rolling={first} rolled={rolled} scale={scale} />
        <Dimension
          x1={0}
          y1={first.width_mm * scale + 18}
          x2={first.length_mm * scale}
          y2={first.width_mm * scale + 18}
        />
        <Label x={(first.length_mm * scale) / 2} y={first.width_mm * scale + 42} bold size={18} anchor="middle">
          <Trans>
            {sizeFigure(first.length_mm, 0)} × {sizeWords(first.width_mm, 0)}, {lengthWords(rolled.thick_mm, 1)}
            thick{first.sheets > 1 ? t`, ${first.sheets} of them` : ""}
          </Trans>
        </Label>
        {again.map((item, i) => {
          const at = y;
          y += item.width_mm * scale + 46;
          return (
            <g key={`${item.length_mm}`} transform={`translate(${(first.length_mm + 40) * scale} ${at})`}>
              <Label x={0} y={-8} size={13.5} tone="ink2">
                {i === 0 ? t`trimmings, rolled again` : t`and again`}
              </Label>
              <OneSheet rolling={item} rolled={rolled} scale={scale} />
            </g>
          );
        })}
      </g>
      <Label x={20} y={24} size={15} tone="ink2">
        <Trans>
          {first.sheets * first.middles.length} from the first, {cut} in all
        </Trans>
      </Label>
    </Drawing>
  );
}

interface OneSheetProps {
  rolling: RolledDrawing["rollings"][number];
  rolled: RolledDrawing;
  scale: number;
}

function OneSheet({ rolling, rolled, scale }: OneSheetProps) {
  const d = rolled.cutter_mm * scale;
  return (
    <>
      <rect
        width={rolling.length_mm * scale}
        height={rolling.width_mm * scale}
        fill={fill("starch")}
        stroke="var(--color-ink)"
        strokeWidth="1.6"
      />
      {rolling.middles.map(([x = 0, y = 0]) =>
        rolled.shape === "round" ? (
          <circle
            key={`${x} ${y}`}
            cx={x * scale}
            cy={y * scale}
            r={d / 2}
            fill="var(--color-sheet)"
            stroke="var(--color-ink)"
            strokeWidth="1.3"
          />
        ) : (
          <rect
            key={`${x} ${y}`}
            x={x * scale - d / 2}
            y={y * scale - d / 2}
            width={d}
            height={d}
            fill="var(--color-sheet)"
            stroke="var(--color-ink)"
            strokeWidth="1.3"
          />
        ),
      )}
    </>
  );
}

export function RolledRows({ editing, drawing }: { editing: Editing; drawing: BallDrawing }) {
  const { sheet, worked, edit } = editing;
  const { facts } = worked;
  const { rolled } = sheet;
  const set = (change: Partial<Sheet["rolled"]>) => edit({ ...sheet, rolled: { ...rolled, ...change } });
  return (
    <section aria-label={t`Cutter`}>
      <h3 className="text-xl">
        <Trans>Rolled and cut</Trans>
      </h3>
      <div className="mt-1">
        <PickRow label={t`Cutter`} value={rolled.shape} options={CUTTERS} onChange={(shape) => set({ shape })} />
        <LengthRow
          label={rolled.shape === "round" ? t`Across` : t`Side`}
          name={t`Cutter, mm`}
          within={limit("RolledDough.cutter_mm")}
          step={5}
          value={rolled.cutter_mm ?? drawing.rolled?.cutter_mm ?? null}
          onChange={(cutter_mm) => set({ cutter_mm })}
        />
        {rolled.shape === "round" && (
          <PickRow label={t`Laid`} value={rolled.packing} options={PACKINGS} onChange={(packing) => set({ packing })} />
        )}
        <LengthRow
          label={t`Between cuts`}
          within={limit("RolledDough.gap_mm")}
          value={rolled.gap_mm}
          onChange={(gap_mm) => set({ gap_mm })}
        />
        <NumberRow
          label={t`Trimmings rolled again`}
          unit="times"
          within={limit("RolledDough.again")}
          value={rolled.again}
          onChange={(again) => set({ again })}
        />
        <LengthRow
          label={t`All of it rolled to, long`}
          within={limit("RolledDough.length_mm")}
          step={10}
          value={rolled.length_mm ?? null}
          onChange={(length_mm) => set({ length_mm })}
          onClear={() => set({ length_mm: null })}
        />
        <LengthRow
          label={t`All of it rolled to, wide`}
          within={limit("RolledDough.width_mm")}
          step={10}
          value={rolled.width_mm ?? null}
          onChange={(width_mm) => set({ width_mm })}
          onClear={() => set({ width_mm: null })}
        />
        <LengthRow
          label={t`Board, long`}
          within={limit("RolledDough.board_length_mm")}
          step={50}
          value={rolled.board_length_mm}
          onChange={(board_length_mm) => set({ board_length_mm })}
        />
        <LengthRow
          label={t`Board, wide`}
          within={limit("RolledDough.board_width_mm")}
          step={50}
          value={rolled.board_width_mm}
          onChange={(board_width_mm) => set({ board_width_mm })}
        />
      </div>
      <FactRows
        facts={facts}
        keys={[
          "shape.rolled_mm",
          "shape.rolled_cut_g",
          "shape.sheet_thick_mm",
          "shape.sheet_cm2",
          "shape.cut_of_sheet",
          "shape.trimmings_g",
        ]}
        className="mt-3"
      />
    </section>
  );
}
