/** What is made, from the side: a tin with its batter, or a piece with what lies within. */

import type { SheetCard } from "../api/client";
import { fill } from "./materials";

/** All of them to one scale, a third of a unit to a millimetre, cut where a tray is wider than the room. */
const USUAL = 0.36;
const USUAL_ROOM = 72;

interface Props {
  section: SheetCard["section"];
  /** So many times as large as on the shelf. */
  times?: number;
}

export function Section({ section, times = 1 }: Props) {
  const perMm = USUAL * times;
  // On the shelf all stand in the middle of one width; larger and alone each has its own.
  const room = Math.min(
    USUAL_ROOM * times,
    times > 1 && section ? section.wide_mm * perMm + 4 : Number.POSITIVE_INFINITY,
  );
  if (!section) return <span className="inline-block h-3.5 shrink-0" style={{ width: room }} />;
  const wide = Math.min(room, section.wide_mm * perMm);
  const high = Math.max(2, section.high_mm * perMm);
  const tall = Math.max(14, high + 4);
  return (
    <svg width={room} height={tall} viewBox={`0 0 ${room} ${tall}`} aria-hidden="true" className="shrink-0">
      {section.kind === "tin" ? (
        <>
          <rect x={(room - wide) / 2} y={tall - 1 - high} width={wide} height={high} fill={fill("starch")} />
          <path
            d={`M${(room - wide) / 2} ${tall - 3 - high}v${high + 2}h${wide}v${-high - 2}`}
            fill="none"
            stroke="var(--color-ink)"
            strokeWidth="1.3"
          />
        </>
      ) : (
        <>
          <circle cx={room / 2} cy={tall / 2} r={wide / 2} fill={fill("starch")} stroke="var(--color-ink)" />
          {section.core_mm > 0 && (
            <circle cx={room / 2} cy={tall / 2} r={(section.core_mm * perMm) / 2} fill={fill("filling")} />
          )}
        </>
      )}
    </svg>
  );
}
