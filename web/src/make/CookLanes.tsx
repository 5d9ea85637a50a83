import { useFormatters } from "../ui/formatters";
import type { InHand } from "./props";

const MINUTE = 60_000;
const BACK_MS = 10 * MINUTE; // of what is past, so that what is late is seen
const AHEAD_MS = 80 * MINUTE;
const TICK_MS = 15 * MINUTE;

interface Bar {
  key: string;
  title: string;
  held: boolean;
  runs: boolean;
  left: number;
  wide: number;
  /** To where its name may be written. Names stand in two rows in turn: to the next but one. */
  room: number;
}

/** A cook's bars in per cent of the lane, in order of time. */
export function barsOf(all: InHand[], cook: string, at: number): Bar[] {
  const from = at - BACK_MS;
  const percent = (instant: number) => (100 * (instant - from)) / (BACK_MS + AHEAD_MS);
  const bars = all
    .filter(
      (inHand) => inHand.standing.who === cook && inHand.step.hands !== "free" && inHand.standing.status !== "done",
    )
    .map(({ making, step, standing }) => {
      const runs = standing.status === "running";
      const begins = Date.parse((runs && standing.started) || standing.expected_starts);
      // What runs past its time goes on until now; what waits begins no sooner.
      const starts = runs ? begins : Math.max(begins, at);
      const ends = Math.max(Date.parse(standing.expected_ends) + (starts - begins), runs ? at : starts);
      const left = Math.max(0, percent(starts));
      return {
        key: `${making.id} ${step.id}`,
        title: step.title,
        held: step.hands === "held",
        runs,
        left,
        wide: Math.min(100, percent(ends)) - left,
        room: 100 - left,
      };
    })
    .filter((item) => item.left < 100 && item.wide > 0)
    .sort((a, b) => a.left - b.left);
  return bars.map((bar, i) => ({ ...bar, room: (bars[i + 2]?.left ?? 100) - bar.left }));
}

const LEAST_ROOM = 7; // per cent; under that a name would be cut to nothing

export function CookLanes({ all, cooks, at, zone }: { all: InHand[]; cooks: string[]; at: number; zone: string }) {
  const { timeOfDay } = useFormatters();
  const from = at - BACK_MS;
  const first = Math.ceil((from + TICK_MS / 3) / TICK_MS) * TICK_MS;
  const ticks = [0, 1, 2, 3, 4, 5].map((n) => first + n * TICK_MS).filter((tick) => tick < at + AHEAD_MS - TICK_MS / 3);
  const percent = (instant: number) => `${(100 * (instant - from)) / (BACK_MS + AHEAD_MS)}%`;
  const lanes = cooks.map((cook) => ({ cook, bars: barsOf(all, cook, at) }));
  if (lanes.every((lane) => lane.bars.length === 0)) return null; // nothing for any hand so soon: the words below say when
  return (
    <div aria-hidden="true" className="isolate mt-4 grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-1">
      <span />
      <div className="relative h-6 text-sm text-ink2">
        {ticks.map((tick, i) => (
          <span
            key={tick}
            className={`-translate-x-1/2 absolute whitespace-nowrap ${i % 2 ? "hidden sm:inline" : ""}`}
            style={{ left: percent(tick) }}
          >
            {timeOfDay(new Date(tick), zone)}
          </span>
        ))}
      </div>
      {lanes.map((lane) => (
        <CookLane key={lane.cook} {...lane} now={percent(at)} />
      ))}
    </div>
  );
}

function CookLane({ cook, bars, now }: { cook: string; bars: Bar[]; now: string }) {
  return (
    <>
      <b className="self-start text-lg">{cook}</b>
      <div className="relative h-20 border-t border-hair" data-lane={cook}>
        {bars.map((bar, i) => (
          <div key={bar.key}>
            <div
              data-bar={bar.key}
              className={`absolute top-1 h-6 border border-ink ${bar.held ? "bg-bean" : "bg-sheet"}`}
              style={{ left: `${bar.left}%`, width: `${bar.wide}%` }}
            />
            {bar.room > LEAST_ROOM && (
              <span
                className={`absolute truncate pr-2 text-base ${i % 2 ? "top-[3.2rem]" : "top-7"} ${bar.runs ? "font-bold" : ""}`}
                style={{ left: `${bar.left}%`, maxWidth: `${bar.room}%` }}
              >
                {bar.title}
              </span>
            )}
          </div>
        ))}
        <div className="absolute top-0 h-8 w-0.5 bg-ink" style={{ left: now }} />
      </div>
    </>
  );
}
