/** The tin from the side, true to scale: how deep the batter stands, and how far below the brim. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { Tin, TinDrawing } from "../../api/client";
import { limit } from "../../api/limits";
import { ActionMenu } from "../../ui/ActionMenu";
import { Drawing } from "../../ui/Drawing";
import { Label } from "../../ui/dimension";
import { FactRows } from "../../ui/FactRows";
import { useFormatters } from "../../ui/formatters";
import { LengthRow } from "../../ui/LengthField";
import { fill } from "../../ui/materials";
import { NumberField } from "../../ui/NumberField";
import { NumberRow, PickRow, Row } from "../../ui/Row";
import { across, MATERIALS, MOST_SHALLOW_MM, SHAPES, tinSize } from "../../ui/tins";
import type { StationProps } from "../props";
import { LiningRows } from "./LeafRows";
import { TinSection } from "./TinSection";

export function TinShape({ editing, kitchen, drawing }: StationProps & { drawing: TinDrawing | null }) {
  const formatters = useFormatters();
  const { sheet, worked, edit, adjust } = editing;
  const { facts } = worked;
  const { tin, count, more } = sheet.vessel;
  const setMore = (next: typeof more) => edit({ ...sheet, vessel: { ...sheet.vessel, more: next } });
  const set = (change: Partial<Tin>) => edit({ ...sheet, vessel: { ...sheet.vessel, tin: { ...tin, ...change } } });
  const depth = drawing?.depth_mm ?? null;
  return (
    <div className="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)]">
      <section aria-label={t`The tin from the side`}>
        <TinSection
          tin={tin}
          depth={depth}
          count={count}
          layers={drawing?.layers ?? []}
          overMm={drawing?.over_mm ?? 0}
          onFill={(mm) => adjust({ by: "depth", mm })}
        />
        {more.length > 0 && <Beside tins={more} depth={depth} />}
      </section>
      <section aria-label={t`Tins`}>
        <h3 className="text-xl">
          <Trans>Your tins</Trans>
        </h3>
        <div className="mt-2 flex flex-wrap gap-2">
          {kitchen.tins.map((eachTin) => (
            <button
              key={`${eachTin.name}${tinSize(formatters, eachTin)}`}
              type="button"
              className="pick"
              data-on={JSON.stringify(eachTin) === JSON.stringify(tin)}
              onClick={() => edit({ ...sheet, vessel: { ...sheet.vessel, tin: eachTin } })}
            >
              {eachTin.name || tinSize(formatters, eachTin)}
            </button>
          ))}
        </div>
        <div className="mt-4">
          <NumberRow
            label={t`How many`}
            name={t`How many tins`}
            within={limit("Vessel.count")}
            value={count}
            onChange={(many) => edit({ ...sheet, vessel: { ...sheet.vessel, count: many } })}
          />
          <PickRow label={t`Shape`} value={tin.shape} options={SHAPES} onChange={(shape) => set({ shape })} />
          {tin.shape === "round" ? (
            <LengthRow
              label={t`Across`}
              within={limit("Tin.diameter_mm")}
              step={5}
              value={tin.diameter_mm}
              onChange={(diameter_mm) => set({ diameter_mm })}
            />
          ) : (
            <>
              <LengthRow
                label={t`Length`}
                within={limit("Tin.length_mm")}
                step={5}
                value={tin.length_mm}
                onChange={(length_mm) => set({ length_mm })}
              />
              <LengthRow
                label={t`Width`}
                within={limit("Tin.width_mm")}
                step={5}
                value={tin.width_mm}
                onChange={(width_mm) => set({ width_mm })}
              />
            </>
          )}
          <LengthRow
            label={t`Height`}
            within={limit("Tin.height_mm")}
            step={5}
            value={tin.height_mm}
            onChange={(height_mm) => set({ height_mm })}
          />
          <PickRow
            label={t`Made of`}
            value={tin.material}
            options={MATERIALS}
            onChange={(material) => set({ material })}
          />
          <LengthRow
            label={t`Fill it to, all else to match`}
            name={t`Depth to fill to`}
            within={{ min: MOST_SHALLOW_MM, max: Math.floor(tin.height_mm - 2) }}
            value={depth}
            onChange={(mm) => adjust({ by: "depth", mm })}
          />
        </div>
        <h4 className="mt-4 font-bold">
          <Trans>Poured into others too, at the same depth</Trans>
        </h4>
        {more.map((item, i) => (
          <Row
            // biome-ignore lint/suspicious/noArrayIndexKey: two may be alike, and their order is their place
            key={i}
            label={item.tin.name || tinSize(formatters, item.tin)}
          >
            <span className="whitespace-nowrap">
              <NumberField
                label={t`How many of ${item.tin.name || tinSize(formatters, item.tin)}`}
                hideLabel
                value={item.count}
                decimals={0}
                within={limit("MoreTins.count")}
                width="2.6rem"
                onChange={(many) =>
                  setMore(more.map((was, j) => (j === i ? { ...was, count: Math.round(many) } : was)))
                }
              />
              <button
                type="button"
                aria-label={t`Take away ${item.tin.name || tinSize(formatters, item.tin)}`}
                className="ml-2 min-h-8 min-w-8 text-ink2 hover:text-bean"
                onClick={() => setMore(more.filter((_, j) => j !== i))}
              >
                ×
              </button>
            </span>
          </Row>
        ))}
        {more.length < 5 && kitchen.tins.length > 0 && (
          <ActionMenu
            label={t`Pour into another tin too`}
            choices={kitchen.tins.map((tin, i) => ({ id: String(i), words: tin.name || tinSize(formatters, tin) }))}
            onPick={(i) => {
              const added = kitchen.tins[Number(i)];
              if (added) setMore([...more, { tin: added, count: 1 }]);
            }}
          >
            <Trans>another tin</Trans>
          </ActionMenu>
        )}
        <FactRows facts={facts} keys={["mix.volume_ml", "shape.depth_mm", "shape.headroom_mm"]} className="mt-4" />
        {sheet.vessel.lining !== "none" && (
          <LiningRows
            wrap={sheet.wrap}
            facts={facts}
            leaf={sheet.vessel.lining === "leaf"}
            onChange={(wrap) => edit({ ...sheet, wrap })}
          />
        )}
      </section>
    </div>
  );
}

/** The other tins from the side, to one scale, each with its share. */
function Beside({ tins, depth }: { tins: { tin: Tin; count: number }[]; depth: number | null }) {
  const formatters = useFormatters();
  const total = tins.reduce((sum, item) => sum + across(item.tin) + 30, 0);
  const high = Math.max(...tins.map((tin) => tin.tin.height_mm));
  const scale = Math.min(0.9, 660 / total, 90 / high);
  let x = 30;
  return (
    <Drawing
      viewBox={`0 0 720 ${high * scale + 50}`}
      className="block w-full"
      role="img"
      aria-label={t`The other tins`}
    >
      {tins.map(({ tin, count }, i) => {
        const at = x;
        const w = across(tin) * scale;
        const h = tin.height_mm * scale;
        const floor = high * scale + 10;
        x += w + 34;
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: two may be alike, and their order is their place
          <g key={i}>
            {depth != null && (
              <rect
                x={at}
                y={floor - depth * scale}
                width={w}
                height={depth * scale}
                fill={fill("batter")}
                stroke="var(--color-ink)"
              />
            )}
            <path
              d={`M${at} ${floor - h}V${floor}H${at + w}V${floor - h}`}
              fill="none"
              stroke="var(--color-ink)"
              strokeWidth="3"
            />
            <Label x={at + w / 2} y={floor + 26} anchor="middle" size={14} tone="ink2">
              {count > 1 ? `${count} × ` : ""}
              {tinSize(formatters, tin)}
            </Label>
          </g>
        );
      })}
    </Drawing>
  );
}
