/** An occasion: when people eat, which sheets, who helps; and the one plan of its day, or why there is none. */

import { plural, t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useNavigate, useParams } from "react-router";
import {
  api,
  ask,
  type DayPlan,
  type KitchenSettings,
  type Occasion,
  type OccasionOpen,
  type Plan,
  Refused,
  type SimulatedCookTraits,
} from "../api/client";
import { kitchenQuery } from "../api/queries";
import { RehearseSlip } from "../make/RehearseSlip";
import { ErrorNotice } from "../ui/ErrorNotice";
import { Frame, Waiting } from "../ui/Frame";
import { useFormatters } from "../ui/formatters";
import { LinkButton, TextLink } from "../ui/LinkButton";
import { newId } from "../ui/newId";
import { dayOf, wallClock } from "../ui/words";
import { fixed } from "../words/numbers";
import { ClashPanel } from "./ClashPanel";
import { DayLanes } from "./DayLanes";
import { DayOnPaper } from "./DayOnPaper";
import { HowSure } from "./HowSure";
import { OnTheTable } from "./OnTheTable";
import { PickedStep } from "./PickedStep";
import { Planning } from "./Planning";
import type { Scheduled } from "./slip";
import { useOccasion } from "./useOccasion";

export default function OccasionPage() {
  const id = Number(useParams().occasionId);
  const kitchen = useQuery(kitchenQuery);
  const editing = useOccasion(id);
  const { open, occasion } = editing;
  useEffect(() => {
    document.title = t`${open?.occasion.title || t`Occasion`} · Kemble`;
  }, [open?.occasion.title]);
  if (!open || !occasion || !kitchen.data) return <Waiting error={editing.error ?? kitchen.error} />;
  return (
    <Frame
      title={
        <h1 className="text-2xl">
          <input
            aria-label={t`What it is`}
            className="write w-full max-w-xl font-title text-2xl"
            placeholder={t`An occasion`}
            maxLength={120}
            defaultValue={occasion.title}
            key={open.id}
            onBlur={(event) => event.target.value !== occasion.title && editing.edit({ title: event.target.value })}
          />
        </h1>
      }
      aside={
        <span className="text-ink2" role="status">
          {editing.saving ? t`saving` : open.planning ? "" : editing.settled ? t`saved` : t`not saved`}
        </span>
      }
    >
      <ErrorNotice error={editing.problem} />
      {editing.problem instanceof Refused && editing.problem.status === 409 && (
        <p>
          <Trans>
            What you see is as you typed it; another change of yours saves it.{" "}
            <LinkButton onClick={editing.drop}>Take what is saved instead</LinkButton>
          </Trans>
        </p>
      )}
      <OnTheTable occasion={occasion} open={open} edit={editing.edit} isRefused={editing.problem != null} />
      <TheDay open={open} occasion={occasion} kitchen={kitchen.data.kitchen} editing={editing} />
    </Frame>
  );
}

interface DayProps {
  open: OccasionOpen;
  occasion: Occasion;
  kitchen: KitchenSettings;
  editing: ReturnType<typeof useOccasion>;
}

function TheDay({ open, occasion, kitchen, editing }: DayProps) {
  const { timeOfDay } = useFormatters();
  const [picked, setPicked] = useState("");
  const { day } = open;
  const zone = kitchen.timezone;
  const titles = open.dishes.map((dish) => dish.title);
  const item = day.plan?.scheduled.find((each) => keyOf(each) === picked) ?? null;
  const pinnedAt = (each: Scheduled) =>
    occasion.pins.find((pin) => pin.dish === each.dish && pin.step === each.step.id);
  const pin = (each: Scheduled, at: string | null) => {
    const others = occasion.pins.filter((other) => other !== pinnedAt(each));
    editing.edit({ pins: at ? [...others, { dish: each.dish, step: each.step.id, at }] : others });
  };
  if (occasion.dishes.length === 0)
    return (
      <p className="mt-8 text-ink2">
        <Trans>Put a sheet on the table, and its day is planned.</Trans>
      </p>
    );
  return (
    <section aria-label={t`The day`} className="mt-6 pb-10">
      {open.planning && <Planning id={open.id} planning={open.planning} before={Boolean(day.plan || day.clash)} />}
      {day.clash && <ClashPanel clash={day.clash} occasion={occasion} zone={zone} edit={editing.edit} />}
      {day.plan && (
        <div className={open.planning ? "opacity-60" : ""}>
          <p className="text-lg print:hidden">
            <Trans>
              Begin <b>{dayOf(day.plan.begin, zone)}</b> at{" "}
              <b className="text-2xl">{timeOfDay(day.plan.begin, zone)}</b>
              {day.plan.proven ? "" : t`, within ${fixed(day.plan.gap_pct, 1)} % of the best there can be`}.
              {!day.plan.quiet_kept && (
                <span className="text-look">
                  <Trans> Quiet hours are worked into.</Trans>
                </span>
              )}
              <MovedWords day={day} plan={day.plan} />
            </Trans>
          </p>
          <div className="print:hidden">
            <DayLanes
              plan={day.plan}
              kitchen={kitchen}
              dishes={titles}
              picked={item}
              onPick={(each) => setPicked(keyOf(each))}
              onCarry={(each, begins) => {
                setPicked(keyOf(each));
                pin(each, wallClock(begins, zone));
              }}
              pinned={(each) => pinnedAt(each) !== undefined}
              now={Date.now()}
            />
            <div className="mt-4 grid gap-x-12 gap-y-6 lg:grid-cols-2">
              {item ? (
                <PickedStep
                  plan={day.plan}
                  one={item}
                  dish={titles[item.dish] ?? ""}
                  zone={zone}
                  isPinned={pinnedAt(item) !== undefined}
                  onPin={(at) => pin(item, at)}
                />
              ) : (
                <p className="text-ink2">
                  <Trans>
                    Press a step for why it lies there. Carry it, or move it with the arrow keys: it is pinned, and the
                    rest follows.
                  </Trans>
                </p>
              )}
              {day.sure && (
                <HowSure sure={day.sure} plan={day.plan} titles={titles} occasion={occasion} edit={editing.edit} />
              )}
            </div>
          </div>
          <DayOnPaper
            plan={day.plan}
            titles={titles}
            title={occasion.title}
            zone={zone}
            sheets={occasion.dishes.map((dish) => dish.sheet)}
          />
        </div>
      )}
      <Away open={open} plan={day.plan} />
    </section>
  );
}

export const keyOf = (item: Scheduled) => `${item.dish}:${item.step.id}`;

/** What moved against the plan before, the most first. */
function MovedWords({ day, plan }: { day: OccasionOpen["day"]; plan: Plan }) {
  if (day.moved.length === 0) return null;
  const most = [...day.moved].sort((a, b) => Math.abs(b.by_min) - Math.abs(a.by_min)).slice(0, 3);
  const told = most.map((item) => {
    const step = plan.scheduled.find((each) => each.dish === item.dish && each.step.id === item.step)?.step.title ?? "";
    const by = Math.abs(item.by_min).toFixed(0);
    return item.by_min < 0 ? t`${step} ${by} min earlier` : t`${step} ${by} min later`;
  });
  const more = day.moved.length - most.length;
  return (
    <span className="text-bean" role="status">
      <Trans>
        {" "}
        Moved: {told.join(", ")}
        {more > 0 ? t`, and ${plural(more, { one: "# more step", other: "# more steps" })}` : ""}.
      </Trans>
    </span>
  );
}

/** Begun, taken along, copied, dropped. */
function Away({ open, plan }: { open: OccasionOpen; plan: DayPlan["plan"] }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const begin = useMutation({
    mutationFn: (how: { rehearse: boolean; cook?: SimulatedCookTraits; uid: string }) =>
      ask(api.POST("/api/runs", { body: { occasion: open.id, sheet: null, dish: null, cook: null, ...how } })),
    onSuccess: (run) => {
      client.invalidateQueries({ queryKey: ["runs"] });
      navigate(`/make/${run.id}`);
    },
  });
  const copy = useMutation({
    mutationFn: (uid: string) =>
      ask(api.POST("/api/occasions", { body: { occasion: { ...open.occasion, pins: [] }, uid } })),
    onSuccess: (made) => navigate(`/occasions/${made.id}`),
  });
  const drop = useMutation({
    mutationFn: () => ask(api.DELETE("/api/occasions/{occasion_id}", { params: { path: { occasion_id: open.id } } })),
    onSuccess: () => {
      for (const key of ["occasions", "dropped"]) client.invalidateQueries({ queryKey: [key] });
      navigate("/");
    },
  });
  const helpers = [...new Set(plan?.scheduled.map((item) => item.who).filter(Boolean))].sort();
  return (
    <div className="mt-6 print:hidden">
      {plan && (
        <p className="flex flex-wrap gap-3">
          <button
            type="button"
            className="pick min-h-12 px-6 text-lg"
            data-on="true"
            disabled={begin.isPending}
            onClick={() => begin.mutate({ rehearse: false, uid: newId() })}
          >
            <Trans>Make it: all sheets in one flow</Trans>
          </button>
          <button
            type="button"
            className="pick min-h-12 px-6 text-lg"
            disabled={begin.isPending}
            onClick={() => begin.mutate({ rehearse: true, uid: newId() })}
          >
            <Trans>Rehearse it, 60 times as fast</Trans>
          </button>
          <RehearseSlip
            disabled={begin.isPending}
            onBegin={(cook) => begin.mutate({ rehearse: true, cook, uid: newId() })}
          />
        </p>
      )}
      <p className="mt-3 flex flex-wrap gap-x-6 gap-y-2">
        {plan && (
          <>
            <a className="text-bean" href={`/api/occasions/${open.id}/day.ics`} download>
              <Trans>For a calendar</Trans>
            </a>
            <a className="text-bean" href={`/api/occasions/${open.id}/day.txt`} download>
              <Trans>As plain text</Trans>
            </a>
            <LinkButton onClick={() => window.print()}>
              <Trans>Print the day</Trans>
            </LinkButton>
          </>
        )}
        {helpers.map((name) => (
          <TextLink key={name} to={`/occasions/${open.id}/for/${encodeURIComponent(name)}`}>
            <Trans>For {name}</Trans>
          </TextLink>
        ))}
        <LinkButton onClick={() => copy.mutate(newId())}>
          <Trans>Copy it</Trans>
        </LinkButton>
        <LinkButton onClick={() => drop.mutate()}>
          <Trans>Drop it</Trans>
        </LinkButton>
      </p>
      <ErrorNotice error={begin.error ?? copy.error ?? drop.error} />
    </div>
  );
}
