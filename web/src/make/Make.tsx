/** Make: one step, large enough to read from two metres, its cue and its clock; all clocks in a dock; who does what. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import { kitchenQuery } from "../api/queries";
import { isKnown } from "../runs/fold";
import { type Flow, type Happening, type Making, useFlow } from "../runs/useFlow";
import { AwayLine } from "../ui/AwayLine";
import { ClockLine } from "../ui/ClockLine";
import { Waiting } from "../ui/Frame";
import { useFormatters } from "../ui/formatters";
import { HelpSlip } from "../ui/HelpPopover";
import { OlderThanKemble } from "../ui/OlderThanKemble";
import { TriedAgain } from "../ui/RetryNotice";
import { useTick } from "../ui/useTick";
import { duration } from "../ui/words";
import { AllDone } from "./AllDone";
import { useElbows, useStayAwake } from "./attention";
import { Cooks } from "./Cooks";
import { CurrentStep } from "./CurrentStep";
import { Dock } from "./Dock";
import { MethodOffers } from "./MethodOffers";
import { NotTaken } from "./NotTaken";
import { allOf, beside, cooksOf, keyOf, mostUrgent, nextOf, straightOn, waitsForHands } from "./stepInHand";
import { TheRest } from "./TheRest";
import { useMe } from "./useMe";

export default function Make() {
  const id = Number(useParams().runId);
  const flow = useFlow(id);
  const kitchen = useQuery(kitchenQuery);
  useTick((flow.run?.pace ?? 1) > 1 ? 100 : 250);
  useStayAwake();
  useElbows();
  if (!flow.run || !kitchen.data) return <Waiting error={flow.error ?? kitchen.error} />;
  return <OpenFlow {...flow} first={flow.run} zone={kitchen.data.kitchen.timezone} />;
}

type Props = Omit<Flow, "run" | "error"> & { first: Making; zone: string };

function OpenFlow({ makings, first, now, tell, undo, redo, outbox, zone }: Props) {
  const { timeOfDay } = useFormatters();
  const at = now();
  const all = allOf(makings);
  const cooks = cooksOf(all);
  const [me, setMe] = useMe(cooks);
  const [chosen, setChosen] = useState<string | null>(null);
  const looked = all.find(
    (inHand) => keyOf(inHand.making, inHand.step.id) === chosen && inHand.standing.status !== "done",
  );
  const inHand = looked ?? mostUrgent(all, at, me);
  const on = inHand ? straightOn(all, inHand, at, me) : null;
  const key = inHand ? keyOf(inHand.making, inHand.step.id) : null;
  const title = inHand?.step.title ?? first.title;
  useEffect(() => {
    document.title = t`${title} · Kemble`;
  }, [title]);

  const act = (run: number, what: Happening) => {
    setChosen(null);
    tell(run, what);
  };
  const look = (by: 1 | -1) => {
    const there = beside(all, key, by);
    if (there) setChosen(keyOf(there.making, there.step.id));
  };
  const moves = {
    next: () => look(1),
    back: () => look(-1),
    hands: () => {
      const waits = waitsForHands(all, at, me);
      setChosen(waits ? keyOf(waits.making, waits.step.id) : null);
    },
  };
  const done = all.filter((inHand) => inHand.standing.status === "done").length;
  const waiting = outbox.waiting.filter((telling) => makings.some((making) => making.id === telling.run));
  const failed = makings.map((making) => outbox.failedOf(String(making.id))).find(Boolean) ?? null;
  return (
    <div className="flex min-h-dvh flex-col">
      <header className="mx-auto flex w-full max-w-[1280px] flex-wrap items-baseline gap-x-5 gap-y-1 px-4 pt-3 sm:px-10">
        <Link to="/" className="inline-flex min-h-8 items-center font-title text-lg text-bean no-underline">
          Kemble
        </Link>
        <p className="flex-1 basis-72 text-ink2">
          <Trans>
            {inHand ? inHand.making.title : first.title} · {done} of {all.length} steps done · table at{" "}
            <Table makings={makings} zone={zone} />
            {first.pace > 1 && (
              <b className="text-look">
                <Trans>
                  {" "}
                  · rehearsal, {first.pace} times as fast: {timeOfDay(new Date(at), zone)}
                </Trans>
              </b>
            )}
          </Trans>
        </p>
        {waiting.length > 0 && failed && (
          <p role="status" className="text-look">
            <Trans>{waiting.length} kept here, to be sent</Trans>
          </p>
        )}
        <HelpSlip />
      </header>
      <div className="mx-auto w-full max-w-[1280px] px-4 sm:px-10">
        <AwayLine />
        <ClockLine />
        <TriedAgain failed={failed} />
        {makings.map((making) => (
          <NotTaken key={making.id} run={making} outbox={outbox} />
        ))}
        {makings.some((making) => !making.events.every(isKnown)) && <OlderThanKemble />}
        {makings.map((making) => (
          <MethodOffers key={making.id} making={making} tell={(what) => act(making.id, what)} />
        ))}
        <TheRest makings={makings} />
      </div>
      <Dock all={all} inHand={inHand} at={at} zone={zone} onChoose={setChosen} />
      <main className="order-2 mx-auto w-full max-w-[1280px] flex-1 px-4 py-5 sm:px-10">
        {inHand ? (
          <CurrentStep
            key={key}
            {...inHand}
            at={at}
            tell={(what) => act(inHand.making.id, what)}
            undo={undo}
            redo={redo}
            told={waiting.length === 0}
            zone={zone}
            moves={moves}
            cooks={cooks}
            then={on?.step ?? null}
            onThen={() => {
              if (!on) return;
              act(inHand.making.id, { kind: "done", step: inHand.step.id });
              tell(on.making.id, { kind: "started", step: on.step.id });
            }}
          />
        ) : (
          <AllDone makings={makings} undo={undo} />
        )}
        <Cooks
          all={all}
          cooks={cooks}
          me={me}
          inHand={inHand}
          next={nextOf(all, me, inHand)}
          at={at}
          zone={zone}
          onMe={setMe}
          onChoose={setChosen}
        />
      </main>
    </div>
  );
}

/** When the table is ready, and by how much that is not as planned. */
function Table({ makings, zone }: { makings: Making[]; zone: string }) {
  const { timeOfDay } = useFormatters();
  const latest = makings.reduce((a, b) => (a.state.expected_serve > b.state.expected_serve ? a : b));
  const late = Math.round(Math.max(...makings.map((making) => making.state.late_min)));
  const words = late > 1 ? t`${duration(late)} late` : late < -1 ? t`${duration(-late)} early` : t`on time`;
  return (
    <>
      <b className="text-ink">{timeOfDay(latest.state.expected_serve, zone)}</b>,{" "}
      <span className={late > 1 ? "font-bold text-bean" : ""}>{words}</span>
    </>
  );
}
