/** Where it goes: every line as a band as thick as it is heavy, running to the part it ends in or to what is held back. */

import type { LineWorked, PartWorked, Sheet } from "../../api/client";
import { Label } from "../../ui/dimension";
import { fill } from "../../ui/materials";

const W = 680;
const H = 440;
const LEFT = 186;
const RIGHT = 404;
const GAP = 7;
const LEAST = 2;
/** Words of one line keep clear of the next one's, however thin its band. */
const PITCH = 15;
const HELD = "held back";

const MATERIAL: Record<string, string> = {
  flour: "starch",
  grain: "starch",
  dust: "starch",
  legume: "starch",
  liquid: "water",
  sugar: "sugar",
  fat: "fat",
  egg: "fat",
  nut: "filling",
  paste: "filling",
  fruit: "filling",
  leaf: "leaf",
  herb: "leaf",
};

interface Band {
  key: string;
  line: LineWorked;
  to: string;
  at: string;
  grams: number;
}

const bandsOf = (lines: LineWorked[]): Band[] =>
  lines.flatMap((line) =>
    (line.carried.length ? line.carried : [{ to: line.role, at: "", grams: line.used_g }]).map((one, i) => ({
      key: `${line.part}-${line.line}-${i}`,
      line,
      to: one.to || HELD,
      at: one.at,
      grams: one.grams,
    })),
  );

export function Flows({ lines, parts, sheet }: { lines: LineWorked[]; parts: PartWorked[]; sheet: Sheet }) {
  const bands = bandsOf(lines);
  const total = bands.reduce((sum, one) => sum + one.grams, 0);
  const ends = [...sheet.parts.map((part) => part.role as string), HELD].filter((role) =>
    bands.some((band) => band.to === role),
  );
  const room = H - 60 - PITCH * lines.length - LEAST * bands.length;
  const thick = (grams: number) => LEAST + (grams / total) * room;
  const starts = stack(bands.map((band) => [band.key, thick(band.grams), `${band.line.part} ${band.line.line}`]));
  const sorted = ends.flatMap((end) => bands.filter((band) => band.to === end));
  const stops = stack(sorted.map((band) => [band.key, thick(band.grams), band.to]));
  const made = new Map(parts.map((part) => [part.role, part]));
  const says = bands
    .filter((band) => band.line.carried.length)
    .map((band) => `${band.grams.toFixed(0)} g of ${band.line.name.toLowerCase()} to ${band.to} ${band.at}`.trim())
    .join("; ");
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      className="block w-full"
      role="img"
      aria-label={`Where each line goes. ${says || "Every line goes whole into its own part"}`}
    >
      {bands.map((band) => {
        const [y0 = 0, w = 0] = starts.get(band.key) ?? [];
        const [y1 = 0] = stops.get(band.key) ?? [];
        const mid = (LEFT + RIGHT) / 2;
        return (
          <path
            key={band.key}
            d={`M${LEFT} ${y0}C${mid} ${y0} ${mid} ${y1} ${RIGHT} ${y1}V${y1 + w}C${mid} ${y1 + w} ${mid} ${y0 + w} ${LEFT} ${y0 + w}Z`}
            fill={fill(MATERIAL[band.line.group] ?? "other")}
            stroke="var(--color-ink)"
            strokeWidth={band.line.carried.length ? 1.5 : 0.7}
          />
        );
      })}
      {lines.map((line) => {
        const own = bands.filter((band) => band.line === line).map((band) => starts.get(band.key) ?? [0, 0]);
        const y = ((own[0]?.[0] ?? 0) + (own.at(-1)?.[0] ?? 0) + (own.at(-1)?.[1] ?? 0)) / 2;
        return (
          <Label key={`${line.part} ${line.line}`} x={LEFT - 8} y={y + 5} size={13} anchor="end">
            {short(line.name)} <tspan fontWeight="700">{line.grams.toFixed(0)}</tspan>
          </Label>
        );
      })}
      {bands
        .filter((band) => band.line.carried.length && band.to !== HELD)
        .map((band) => {
          const [y = 0, w = 0] = stops.get(band.key) ?? [];
          return (
            <Label key={band.key} x={RIGHT - 6} y={y + w / 2 + 4} size={12.5} anchor="end" halo>
              {band.grams.toFixed(0)} g {band.at}
            </Label>
          );
        })}
      {ends.map((end) => {
        const own = sorted.filter((band) => band.to === end).map((band) => stops.get(band.key) ?? [0, 0]);
        const top = own[0]?.[0] ?? 0;
        const bottom = (own.at(-1)?.[0] ?? 0) + (own.at(-1)?.[1] ?? 0);
        const part = made.get(end);
        const name = sheet.parts.find((one) => one.role === end)?.name || end;
        const kept = end === HELD ? sorted.filter((band) => band.to === HELD) : [];
        return (
          <g key={end}>
            <path d={`M${RIGHT + 5} ${top}h5v${bottom - top}h-5`} fill="none" stroke="var(--color-ink)" />
            <Label x={RIGHT + 18} y={(top + bottom) / 2 + (part?.reduced ? -3 : 5)} size={14} bold>
              {name}
            </Label>
            {kept.length > 0 && (
              <Label x={RIGHT + 18} y={(top + bottom) / 2 + 23} size={13} tone="ink2">
                {kept.map((band) => `${band.grams.toFixed(0)} g ${band.at}`).join(", ")}
              </Label>
            )}
            {part && part.away_g > 0 && (
              <Label x={RIGHT + 18} y={(top + bottom) / 2 + (part.reduced ? 33 : 23)} size={13} tone="ink2">
                {part.away_g.toFixed(0)} g for {part.away_to.join(", ")}
              </Label>
            )}
            {part?.reduced && (
              <Label x={RIGHT + 18} y={(top + bottom) / 2 + 15} size={13} tone="bean">
                {yieldOf(part)}
              </Label>
            )}
          </g>
        );
      })}
    </svg>
  );
}

const yieldOf = (part: PartWorked) => `${part.raw_g.toFixed(0)} in, done at ${part.made_g.toFixed(0)} g`;
const short = (name: string) => (name.length > 22 ? `${name.slice(0, 21)}…` : name);

/** Bands one under the other with a gap wherever the group changes: key to (top, thickness). */
function stack(bands: [string, number, string][]): Map<string, [number, number]> {
  const placed = new Map<string, [number, number]>();
  let y = 16;
  let top = y;
  let before: string | null = null;
  for (const [key, thickness, group] of bands) {
    if (before !== null && before !== group) {
      y = Math.max(y + GAP, top + PITCH);
      top = y;
    }
    placed.set(key, [y, thickness]);
    y += thickness;
    before = group;
  }
  return placed;
}
