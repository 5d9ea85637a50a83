/** Who does what: each cook's own lane, what is in their hands now and what comes next, and what must stand ready for it. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { StepResult } from "../api/client";
import { cooks, useRole } from "../api/roles";
import { type Formatters, useFormatters } from "../ui/formatters";
import { TextLink } from "../ui/LinkButton";
import { capital, dayOf } from "../ui/words";
import { CookLanes } from "./CookLanes";
import type { InHand } from "./props";
import { isMine, keyOf, nextOf } from "./stepInHand";

interface Props {
  all: InHand[];
  cooks: string[];
  me: string;
  inHand: InHand | undefined;
  next: InHand | undefined;
  at: number;
  zone: string;
  onMe: (me: string) => void;
  onChoose: (key: string) => void;
}

export function Cooks({ all, cooks: lanes, me, inHand, next, at, zone, onMe, onChoose }: Props) {
  const role = useRole();
  const first = (inHand ?? all[0])?.making;
  return (
    <section aria-label={t`What comes next`} className="mt-8 border-t border-ink pt-4">
      {lanes.length > 1 ? (
        <>
          <p className="flex flex-wrap items-center gap-3">
            <span className="text-ink2">
              <Trans>This screen stands beside</Trans>
            </span>
            {["", ...lanes].map((cook) => (
              <button
                key={cook}
                type="button"
                className="pick min-h-16 px-6"
                aria-pressed={cook === me}
                data-on={cook === me}
                onClick={() => onMe(cook)}
              >
                {cook || t`all of them`}
              </button>
            ))}
          </p>
          <CookLanes all={all} cooks={lanes} at={at} zone={zone} />
          <div className="mt-3 grid gap-x-10 gap-y-4 sm:grid-cols-2">
            {lanes.map((cook) => (
              <Lane key={cook} cook={cook} all={all} at={at} zone={zone} onChoose={onChoose} />
            ))}
          </div>
        </>
      ) : (
        next && (
          <Next
            label={t`Next for your hands`}
            one={next}
            several={several(all)}
            at={at}
            zone={zone}
            onChoose={onChoose}
          />
        )
      )}
      {first && cooks(role) && (
        <p className="mt-4 text-right">
          <TextLink to={first.batch ? `/log/${first.batch}` : `/make/${first.id}/outcome`}>
            <Trans>Finish and log</Trans>
          </TextLink>
        </p>
      )}
    </section>
  );
}

const isToday = (instant: string, at: number, zone: string) => dayOf(instant, zone) === dayOf(new Date(at), zone);
const several = (all: InHand[]) => new Set(all.map((inHand) => inHand.making.id)).size > 1;

function Lane({ cook, all, at, zone, onChoose }: Pick<Props, "all" | "at" | "zone" | "onChoose"> & { cook: string }) {
  const { timeOfDay } = useFormatters();
  const theirs = all.filter((inHand) => inHand.standing.who === cook);
  const now = theirs.find((their) => their.standing.status === "running");
  const next = nextOf(theirs, cook, now);
  return (
    <section aria-label={cook}>
      <h2 className="text-xl">{capital(cook)}</h2>
      {now && (
        <p className="text-lg">
          <span className="text-ink2">
            <Trans>now </Trans>
          </span>
          <b>{now.step.title}</b>
          {now.standing.due && Date.parse(now.standing.due) > at && (
            <span className="text-ink2">
              <Trans> until {timeOfDay(now.standing.due, zone)}</Trans>
            </span>
          )}
        </p>
      )}
      {next ? (
        <Next label={t`next`} one={next} several={several(all)} at={at} zone={zone} onChoose={onChoose} />
      ) : (
        <p className="text-ink2">
          {theirs.some((their) => isMine(their, cook) && their === now) ? t`Then free.` : "Free."}
        </p>
      )}
    </section>
  );
}

function Next(props: { label: string; one: InHand; several: boolean } & Pick<Props, "at" | "zone" | "onChoose">) {
  const { timeOfDay } = useFormatters();
  const { label, one, several, at, zone, onChoose } = props;
  const { step, standing, making } = one;
  return (
    <div>
      <button
        type="button"
        className="block min-h-16 w-full py-2 text-left hover:text-bean"
        onClick={() => onChoose(keyOf(making, step.id))}
      >
        <span className="block text-ink2">
          {label}, {isToday(standing.expected_starts, at, zone) ? "" : `${dayOf(standing.expected_starts, zone)} `}
          {timeOfDay(standing.expected_starts, zone)}
          {several && ` · ${making.title}`}
        </span>
        <span className="block text-2xl font-bold">{step.title}</span>
      </button>
      <Ready step={step} />
    </div>
  );
}

/** What must stand ready before a step begins. */
function Ready({ step }: { step: StepResult }) {
  const formatters = useFormatters();
  const things = [
    ...(step.tools ?? []),
    ...step.to_hand.map((item) => `${grams(formatters, item.grams)} ${item.name.toLowerCase()}`),
  ];
  return (
    <>
      {things.length > 0 && (
        <p className="text-lg">
          <Trans>Ready before it: {things.join(", ")}.</Trans>
        </p>
      )}
      {step.asks && <p className="text-lg font-bold text-look">{step.asks}</p>}
    </>
  );
}

const grams = (formatters: Formatters, value: number) => formatters.weightWords(value, value < 20 ? 1 : 0);
