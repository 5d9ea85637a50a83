/** Every clock there is: of the runs that are made together, and of any other that is on. Above the fold on a phone. */

import { t } from "@lingui/core/macro";
import { useNavigate } from "react-router";
import { clocksOf } from "../alarm/alarms";
import { useCards } from "../alarm/useCards";
import { serverNow } from "../api/connection";
import { type Formatters, useFormatters } from "../ui/formatters";
import { clock } from "../ui/words";
import type { InHand } from "./props";
import { keyOf } from "./stepInHand";

interface DockProps {
  all: InHand[];
  inHand: InHand | undefined;
  at: number;
  zone: string;
  onChoose: (key: string) => void;
}

interface Face {
  key: string;
  title: string;
  of: string;
  leftS: number;
  says: string;
  over: boolean;
  onPress: (() => void) | null;
}

export function Dock({ all, inHand, at, zone, onChoose }: DockProps) {
  const formatters = useFormatters();
  const navigate = useNavigate();
  const cardsAt = useCards();
  const ours = new Set(all.map((inHand) => inHand.making.id));
  const several = ours.size > 1;
  const faces = all.flatMap((eachInHand) =>
    facesOf(formatters, eachInHand, eachInHand === inHand, at, zone, several, onChoose),
  );
  const others = clocksOf(
    cardsAt(serverNow()).filter((card) => !ours.has(card.id)),
    serverNow(),
  ).map(
    (clock): Face => ({
      key: clock.key,
      title: clock.title,
      of: clock.runTitle,
      leftS: (clock.next - serverNow()) / 1000,
      says: t`in another run`,
      over: serverNow() > clock.latest,
      onPress: () => navigate(`/make/${clock.run}`),
    }),
  );
  const shown = [...faces, ...others].sort((a, b) => Number(b.over) - Number(a.over) || a.leftS - b.leftS);
  if (shown.length === 0) return null;
  return (
    <section
      aria-label={t`Clocks`}
      className="order-1 mt-2 border-y border-ink bg-sheet lg:sticky lg:bottom-(--strip,0px) lg:z-10 lg:order-3 lg:mt-0 lg:border-b-0"
    >
      <ul className="mx-auto grid max-w-[1280px] grid-cols-2 sm:px-4 sm:grid-cols-3 lg:auto-cols-fr lg:grid-flow-col lg:grid-cols-none">
        {shown.map((face) => (
          <li key={face.key} className="border-hair not-last:border-r">
            <FaceOf face={face} />
          </li>
        ))}
      </ul>
    </section>
  );
}

function FaceOf({ face }: { face: Face }) {
  const inside = (
    <>
      <span className="block truncate text-ink2">{face.title}</span>
      <span className={`block text-[34px] leading-tight font-bold ${face.over ? "text-bean" : ""}`}>
        {clock(face.leftS)}
      </span>
      <span className={`block truncate ${face.over ? "font-bold text-bean" : ""}`}>
        {face.over && (
          <svg viewBox="0 0 16 16" className="mr-1 inline size-4" aria-hidden="true">
            <path d="M8 1l7 13H1z" fill="currentColor" />
          </svg>
        )}
        {face.says}
        {face.of && <span className="font-normal text-ink2"> · {face.of}</span>}
      </span>
    </>
  );
  const room = "block min-h-16 w-full px-4 py-2 text-left sm:px-6";
  if (!face.onPress) return <div className={room}>{inside}</div>;
  return (
    <button type="button" className={`${room} hover:bg-paper`} onClick={face.onPress}>
      {inside}
    </button>
  );
}

/** The clocks of one step: its own unless it is the one in hand, and its water's. */
function facesOf(
  formatters: Formatters,
  inHand: InHand,
  isInHand: boolean,
  at: number,
  zone: string,
  several: boolean,
  onChoose: (key: string) => void,
): Face[] {
  const { making, step, standing } = inHand;
  if (standing.status !== "running" || !standing.started || !standing.due) return [];
  const faces: Face[] = [];
  const key = keyOf(making, step.id);
  const of = several ? making.title : "";
  const onPress = () => onChoose(key);
  const first = standing.first_check ? Date.parse(standing.first_check) : null;
  const due = Date.parse(standing.due);
  const over = at > Date.parse(standing.latest ?? standing.due);
  const to = first !== null && at < first ? first : due;
  if (!isInHand)
    faces.push({
      key,
      title: step.title,
      of,
      leftS: (to - at) / 1000,
      says: standing.paused
        ? t`paused`
        : over
          ? t`over: look now`
          : to === first
            ? t`first look, ${formatters.timeOfDay(new Date(to), zone)}`
            : t`until ${formatters.timeOfDay(standing.due, zone)}`,
      over,
      onPress,
    });
  const topUp = making.facts["heat.top_up_at_min"]?.value;
  if (step.window && typeof topUp === "number") {
    const left = (Date.parse(standing.started) + topUp * 60_000 - at) / 1000;
    const ml = Number(making.facts["heat.top_up_ml"]?.value ?? 0);
    faces.push({
      key: `${key} water`,
      title: t`Top up the water`,
      of,
      leftS: left,
      says: t`${formatters.volumeWords(ml)}, boiling`,
      over: left < 0,
      onPress: null,
    });
  }
  return faces;
}
