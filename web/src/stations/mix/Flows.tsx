/**
 * Where it goes: the making as one flow, parts in working order, each band as thick as it is heavy. What a part makes
 * can be taken and carried elsewhere, by pointer or by keys; a part is pressed to open it.
 */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { type KeyboardEvent, type PointerEvent, useState } from "react";
import type { OutputPlace, PartResult, WayCard } from "../../api/client";
import { withPlace, withTake } from "../../sheet/edits";
import type { Editing } from "../../sheet/useSheet";
import { cutText } from "../../ui/cutText";
import { Drawing } from "../../ui/Drawing";
import { Label } from "../../ui/dimension";
import { type Formatters, useFormatters } from "../../ui/formatters";
import { fill, materialOf } from "../../ui/materials";
import { FlowPanel } from "./FlowPanel";
import { BAR_WIDTH, type Band, bandPath, drawnFlow, type Flow, keyOf, LABELS_X, SINK_X, WIDTH } from "./flow";
import { outputKey, placeId, placeOf, placesFor, WHERE_WORDS } from "./places";

interface Props {
  editing: Editing;
  way: WayCard;
}

export function Flows({ editing, way }: Props) {
  const formatters = useFormatters();
  const { sheet, worked, edit } = editing;
  const drawn = drawnFlow(sheet, worked.lines, worked.parts);
  const [held, setHeld] = useState<string | null>(null);
  const [over, setOver] = useState<string | null>(null);
  const chosen = drawn.bands.find((band) => band.key === held && band.flow);
  const carry = (flow: Flow, id: string) => {
    const next = carried(sheet, way, flow, id);
    if (next) {
      edit(next);
      setHeld(null);
    }
  };
  const keys = (event: KeyboardEvent, flow: Flow) => {
    const by = { ArrowDown: 1, ArrowRight: 1, ArrowUp: -1, ArrowLeft: -1 }[event.key];
    if (event.key === "Enter" || event.key === " ") setHeld(keyOf(flow));
    else if (by) carry(flow, stepped(targetsOf(editing, way, flow), placeNowOf(flow), by));
    else return;
    event.preventDefault();
  };
  const drop = (event: PointerEvent, flow: Flow) => {
    const target = targetAt(event);
    setOver(null);
    if (target && targetsOf(editing, way, flow).some((id) => id.split(" ")[0] === target)) carry(flow, target);
  };
  return (
    <div>
      <div className="overflow-x-auto">
        <Drawing
          viewBox={`0 0 ${WIDTH} ${drawn.height}`}
          className="block w-full min-w-[600px] touch-pan-y"
          role="group"
          aria-label={t`Where each part goes, in working order: ${saying(formatters, drawn.bands)}`}
        >
          {/* Where a band can be dropped: wider than what is drawn there, and under it all. */}
          {drawn.bars.map((bar) => (
            <rect
              key={bar.id}
              data-target={bar.id}
              x={bar.x - 24}
              y={bar.top - 18}
              width={BAR_WIDTH + 90}
              height={bar.raw + 24}
              fill="transparent"
            />
          ))}
          {drawn.sinks.map((sink) => (
            <rect
              key={sink.id}
              data-target={sink.id}
              x={SINK_X - 20}
              y={sink.top - 6}
              width={WIDTH - SINK_X + 20}
              height={Math.max(sink.height, 30) + 8}
              fill="transparent"
            />
          ))}
          {drawn.bands.map((band) => (
            <FlowBand
              key={band.key}
              band={band}
              held={band.key === held}
              onHold={() => setHeld(band.key)}
              onKeys={keys}
              onOver={(event) => setOver(targetAt(event))}
              onDrop={drop}
            />
          ))}
          {drawn.words.map((word) => (
            <Label key={word.key} x={LABELS_X - 6} y={word.y + 4.5} size={13} anchor="end">
              {short(word.name)} <tspan fontWeight="700">{grams(formatters, word.grams)}</tspan>
            </Label>
          ))}
          {drawn.bars.map((bar) => (
            <g key={bar.id}>
              <path
                d={`M${bar.x} ${bar.top}L${bar.x + BAR_WIDTH} ${bar.top + (bar.raw - bar.made) / 2}v${bar.made}L${bar.x} ${bar.top + bar.raw}Z`}
                fill={over === bar.id ? "var(--color-bean)" : "var(--color-ink)"}
              />
              <g
                role="button"
                tabIndex={0}
                aria-label={t`${bar.name} ${madeWords(formatters, bar.part)}: open it`}
                className="cursor-pointer"
                onClick={() => openPart(bar.id)}
                onKeyDown={(event) => event.key === "Enter" && openPart(bar.id)}
              >
                <rect
                  x={bar.x - 7}
                  y={bar.top - 3}
                  width={BAR_WIDTH + 14}
                  height={Math.max(bar.raw, 14) + 6}
                  fill="transparent"
                />
                <g className="pointer-events-none">
                  <Label x={bar.x + BAR_WIDTH + 4} y={bar.top - 6} size={14} bold halo>
                    {`${bar.name} `}
                    <tspan fontWeight="400" dx="3">
                      {madeWords(formatters, bar.part)}
                    </tspan>
                  </Label>
                </g>
              </g>
            </g>
          ))}
          {drawn.sinks.map((sink) => (
            <g key={sink.id}>
              <path
                d={`M${SINK_X + 4} ${sink.top}h5v${sink.height}h-5`}
                fill="none"
                stroke={over === sink.id ? "var(--color-bean)" : "var(--color-ink)"}
                strokeWidth={over === sink.id ? 3 : 1}
              />
              <Label x={SINK_X + 16} y={sink.top + sink.height / 2 + 1} size={14} bold>
                {sink.name}
              </Label>
              <Label x={SINK_X + 16} y={sink.top + sink.height / 2 + 17} size={13}>
                {grams(formatters, sink.grams)} {sink.says}
              </Label>
            </g>
          ))}
        </Drawing>
      </div>
      {chosen?.flow ? (
        <FlowPanel
          editing={editing}
          way={way}
          flow={chosen.flow}
          onCarry={(id) => chosen.flow && carry(chosen.flow, id)}
        />
      ) : (
        <p className="mt-1 text-sm text-ink2">
          <Trans>
            Press a band that leaves a part to say where it goes, or drag it there; with the keyboard, arrows carry it.
          </Trans>
        </p>
      )}
    </div>
  );
}

interface BandProps {
  band: Band;
  held: boolean;
  onHold: () => void;
  onKeys: (event: KeyboardEvent, flow: Flow) => void;
  onOver: (event: PointerEvent) => void;
  onDrop: (event: PointerEvent, flow: Flow) => void;
}

function FlowBand({ band, held, onHold, onKeys, onOver, onDrop }: BandProps) {
  const formatters = useFormatters();
  const [from, setFrom] = useState<[number, number] | null>(null);
  const look = { d: bandPath(band), fill: fill(materialOf(band.group)), stroke: "var(--color-ink)" };
  const { flow } = band;
  if (!flow || flow.part === "base") return <path {...look} strokeWidth={0.7} />;
  const far = (event: PointerEvent) => from && Math.hypot(event.clientX - from[0], event.clientY - from[1]) > 8;
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={t`${flowWords(formatters, flow)}. Press to change it, arrows carry it elsewhere`}
      aria-pressed={held}
      className="group cursor-grab touch-none outline-none"
      onClick={onHold}
      onKeyDown={(event) => onKeys(event, flow)}
      onPointerDown={(event) => {
        setFrom([event.clientX, event.clientY]);
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={(event) => far(event) && onOver(event)}
      onPointerUp={(event) => {
        if (far(event)) onDrop(event, flow);
        setFrom(null);
      }}
    >
      <path
        {...look}
        strokeWidth={held ? 3 : 1.4}
        className="group-focus-visible:stroke-bean group-focus-visible:[stroke-width:4]"
      />
      {/* A thin band is as easy to take as a thick one. */}
      <path d={look.d} fill="none" stroke="transparent" strokeWidth={14} />
    </g>
  );
}

/** The sheet with a flow carried to another place; null where it is already there. */
function carried(sheet: Editing["sheet"], way: WayCard, flow: Flow, id: string) {
  const [to = ""] = id.split(" ");
  if (flow.goes.take >= 0) {
    const taker = flow.goes.to;
    if (to === taker) return null;
    const take = sheet.parts.find((part) => part.id === taker)?.takes[flow.goes.take];
    const without = withTake(sheet, taker, flow.goes.take, () => null);
    if (!take || !sheet.parts.some((part) => part.id === to)) return without;
    return {
      ...without,
      parts: without.parts.map((part) =>
        part.id === to ? { ...part, takes: [...part.takes, { ...take, joins: "" }] } : part,
      ),
    };
  }
  if (id === placeNowOf(flow)) return null;
  const whole = placesFor(sheet, way, flow.part).find(([name]) => name.startsWith("whole "))?.[0];
  return withPlace(
    sheet,
    flow.part,
    outputKey(flow.nth, flow.output.id),
    placeOf(to === "whole" && id === "whole" ? (whole ?? "whole") : id),
  );
}

/** Every place that a flow can be carried to; what is taken can only go to another part, or back. */
function targetsOf(editing: Editing, way: WayCard, flow: Flow): string[] {
  const all = placesFor(editing.sheet, way, flow.part).map(([id]) => id);
  return flow.goes.take < 0 ? all : all.filter((id) => !id.startsWith("whole") && id !== "beside");
}

const placeNowOf = (flow: Flow) =>
  flow.goes.take >= 0 ? flow.goes.to : placeId({ ...(flow.output.place as OutputPlace), joins: "" });

function stepped(ids: string[], now: string, by: number): string {
  const at = ids.indexOf(now);
  return ids[(at + by + ids.length) % ids.length] ?? now;
}

const targetAt = (event: PointerEvent) =>
  document.elementsFromPoint(event.clientX, event.clientY).flatMap((element) => {
    const result = element.closest("[data-target]")?.getAttribute("data-target");
    return result ? [result] : [];
  })[0] ?? null;

function openPart(id: string) {
  const head = document.getElementById(`part-${id}`);
  head?.scrollIntoView({ block: "nearest" });
  head?.click();
}

const flowWords = (formatters: Formatters, { output, goes }: Flow) => {
  const where = goes.where ? WHERE_WORDS[goes.where as keyof typeof WHERE_WORDS] : goes.name || goes.to;
  return t`${grams(formatters, goes.grams)} of ${output.name}: ${goes.to === "whole" ? where : t`to ${goes.name || goes.to}`}`;
};
const saying = (formatters: Formatters, bands: Band[]) =>
  bands.flatMap((band) => (band.flow ? [flowWords(formatters, band.flow)] : [])).join("; ");
const grams = (formatters: Formatters, value: number) => formatters.weightWords(value, value < 9.95 ? 1 : 0);
const madeWords = (formatters: Formatters, part: PartResult) =>
  part.reduced
    ? t`${formatters.weightFigure(part.raw_g)} in, ${grams(formatters, part.made_g)} made`
    : grams(formatters, part.made_g);
const short = (name: string) => cutText(name, 21, "…");
