/** A cooked mass rolled to a sheet in a bag: from the side how thick it lies, and the bag's own measures. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { TinDrawing } from "../../api/client";
import { limit } from "../../api/limits";
import { withSchool } from "../../sheet/edits";
import { Drawing } from "../../ui/Drawing";
import { Dimension, Extension, Label } from "../../ui/dimension";
import { FactRows } from "../../ui/FactRows";
import { useFormatters } from "../../ui/formatters";
import { LengthRow } from "../../ui/LengthField";
import { fill } from "../../ui/materials";
import { Schools } from "../../ui/Schools";
import type { StationProps } from "../props";

export function BagShape({ editing, way, drawing }: StationProps & { drawing: TinDrawing }) {
  const { sheet, worked, edit, adjust } = editing;
  const { bag } = sheet;
  const { facts } = worked;
  return (
    <div className="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)]">
      <section aria-label={t`The bag from the side`}>
        <BagSection drawing={drawing} />
      </section>
      <section aria-label={t`The bag`}>
        <h3 className="text-xl">
          <Trans>The bag</Trans>
        </h3>
        <div className="mt-2">
          <LengthRow
            label={t`Length`}
            name={t`Bag, length`}
            within={limit("Bag.length_mm")}
            step={10}
            value={bag.length_mm}
            onChange={(length_mm) => edit({ ...sheet, bag: { ...bag, length_mm } })}
          />
          <LengthRow
            label={t`Width`}
            name={t`Bag, width`}
            within={limit("Bag.width_mm")}
            step={10}
            value={bag.width_mm}
            onChange={(width_mm) => edit({ ...sheet, bag: { ...bag, width_mm } })}
          />
          <LengthRow
            label={t`Roll it to, all else to match`}
            name={t`Thickness to roll to`}
            within={limit("Adjustment.mm")}
            value={drawing.depth_mm}
            onChange={(mm) => adjust({ by: "depth", mm })}
          />
        </div>
        <FactRows
          facts={facts}
          keys={["mix.cooked_g", "shape.depth_mm", "cut.pieces", "cut.piece_g"]}
          className="mt-4"
        />
        <Schools
          way={way}
          station="shape"
          schools={sheet.schools}
          onChoose={(choice, school) => edit(withSchool(sheet, choice, school))}
        />
      </section>
    </div>
  );
}

function BagSection({ drawing }: { drawing: TinDrawing }) {
  const { lengthWords, sizeFigure, sizeWords } = useFormatters();
  const { length_mm: length, width_mm: width } = drawing.tin;
  const scale = Math.min(460 / length, 230 / width);
  const [x, y, w, h] = [110, 30, length * scale, width * scale];
  const thick = drawing.depth_mm * scale;
  const side = y + h + 90;
  return (
    <Drawing
      viewBox="0 0 720 440"
      className="block w-full"
      role="img"
      aria-label={t`A sheet ${lengthWords(drawing.depth_mm)} thick in a bag ${sizeFigure(length)} by ${sizeWords(width)}`}
    >
      <rect x={x} y={y} width={w} height={h} fill={fill("cooked")} stroke="var(--color-ink)" strokeWidth="1.8" />
      <path d={`M${x - 8} ${y - 8}h${w + 16}v${h + 16}h${-w - 16}z`} fill="none" stroke="var(--color-ink2)" />
      <path d={`M${x - 8} ${y + 10}h${w + 16}`} stroke="var(--color-ink2)" strokeDasharray="2 3" />
      <Dimension x1={x} y1={y + h + 26} x2={x + w} y2={y + h + 26} />
      <Label x={x + w / 2} y={y + h + 48} bold size={19} anchor="middle">
        {sizeWords(length, 1)}
      </Label>
      <Dimension x1={x + w + 26} y1={y} x2={x + w + 26} y2={y + h} />
      <Label x={x + w + 36} y={y + h / 2 + 6} bold size={19}>
        {sizeWords(width, 1)}
      </Label>
      <rect x={x} y={side} width={w} height={thick} fill={fill("cooked")} stroke="var(--color-ink)" strokeWidth="1.8" />
      <Extension x1={x - 40} y1={side} x2={x - 4} y2={side} />
      <Extension x1={x - 40} y1={side + thick} x2={x - 4} y2={side + thick} />
      <Label x={x - 12} y={side + thick / 2 + 7} bold size={22} anchor="end">
        {lengthWords(drawing.depth_mm)}
      </Label>
      <Label x={x} y={side + thick + 24} size={14} tone="ink2">
        <Trans>the same sheet from the side, to the same scale</Trans>
      </Label>
    </Drawing>
  );
}
