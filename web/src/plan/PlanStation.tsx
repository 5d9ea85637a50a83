/** Plan: everything counted back from when people eat, drawn as lanes; then begin, or rehearse. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, ask, type KitchenSettings, type Plan, type SimulatedCookTraits } from "../api/client";
import { RehearseSlip } from "../make/RehearseSlip";
import { LongSteps } from "../method/LongSteps";
import { DayLanes } from "../occasion/DayLanes";
import { DayOnPaper } from "../occasion/DayOnPaper";
import { OneStep } from "../occasion/PickedStep";
import { occasionOf } from "../occasion/useNewOccasion";
import type { Editing } from "../sheet/useSheet";
import { ErrorNotice } from "../ui/ErrorNotice";
import { useFormatters } from "../ui/formatters";
import { LinkButton, TextLink } from "../ui/LinkButton";
import { newId } from "../ui/newId";
import { WallField } from "../ui/WallField";
import { dayOf, daysOn, minutes, wallClock } from "../ui/words";
import { Risks } from "./Risks";

interface Props {
  editing: Editing;
  kitchen: KitchenSettings;
  plan: Plan | null;
  error: Error | null;
}

export default function PlanStation({ editing, kitchen, plan, error }: Props) {
  const { timeOfDay } = useFormatters();
  const { sheet, edit } = editing;
  const client = useQueryClient();
  const navigate = useNavigate();
  const [people, setPeople] = useState("");
  const [title, setTitle] = useState("");
  const [picked, setPicked] = useState("");
  const item = plan?.scheduled.find((each) => each.step.id === picked) ?? null;
  const serve = sheet.serve ?? "";
  const zone = kitchen.timezone;

  const begin = useMutation({
    mutationFn: (how: { rehearse: boolean; cook?: SimulatedCookTraits; uid: string }) =>
      ask(api.POST("/api/runs", { body: { sheet: editing.id, occasion: null, dish: null, cook: null, ...how } })),
    onSuccess: (run) => {
      client.invalidateQueries({ queryKey: ["runs"] });
      navigate(`/make/${run.id}`);
    },
  });
  const keep = useMutation({
    mutationFn: (uid: string) => {
      const occasion = occasionOf(title.trim(), serve, [editing.id], people ? Number(people) : null);
      return ask(api.POST("/api/occasions", { body: { occasion, uid } }));
    },
    onSuccess: () => client.invalidateQueries({ queryKey: ["occasions"] }),
  });
  const nudge = (by: number) => {
    const at = new Date(`${serve}:00Z`);
    at.setUTCMinutes(at.getUTCMinutes() + by);
    edit({ ...sheet, serve: at.toISOString().slice(0, 16) });
  };
  const problem = (error ?? begin.error ?? keep.error) as Error | null;
  const total = plan ? (Date.parse(plan.serve) - Date.parse(plan.begin)) / 60000 : 0;
  const saved = editing.saving === "saved";

  return (
    <div className="mt-4">
      <div className="flex flex-wrap items-end gap-x-6 gap-y-3">
        {serve ? (
          <WallField label={t`On the table at`} value={serve} onChange={(at) => edit({ ...sheet, serve: at })} />
        ) : (
          <button
            type="button"
            className="pick"
            onClick={() => edit({ ...sheet, serve: `${daysOn(wallClock(new Date(), zone).slice(0, 10), 2)}T15:30` })}
          >
            <Trans>Say when people eat</Trans>
          </button>
        )}
        {serve && (
          <span className="flex gap-2">
            <button type="button" className="pick" onClick={() => nudge(-15)}>
              <Trans>15 min earlier</Trans>
            </button>
            <button type="button" className="pick" onClick={() => nudge(15)}>
              <Trans>15 min later</Trans>
            </button>
          </span>
        )}
        {plan && !error && !serve && (
          <p className="text-lg">
            <Trans>
              Begun now, it is on the table at <b className="text-2xl">{timeOfDay(plan.serve, zone)}</b>:{" "}
              {minutes(total)}
              {total < 90 ? t` min` : ""} from first to last.
            </Trans>
          </p>
        )}
        {plan && !error && serve && (
          <p className="text-lg">
            <Trans>
              Begin <b>{dayOf(plan.begin, zone)}</b> at <b className="text-2xl">{timeOfDay(plan.begin, zone)}</b>;{" "}
              {minutes(total)}
              {total < 90 ? t` min` : ""} from first to last.
              {!plan.quiet_kept && (
                <span className="text-look">
                  <Trans> Quiet hours could not be kept.</Trans>
                </span>
              )}
            </Trans>
          </p>
        )}
      </div>
      <ErrorNotice error={problem} />
      {plan && !plan.gaps_kept && !error && (
        <p role="status" className="mt-3 border-l-4 border-amber pl-4">
          <Trans>
            <b className="text-look">Look.</b> By this method some things wait longer than they should:{" "}
            <TextLink to={`/sheets/${editing.id}/method`}>the method</TextLink> says which.
          </Trans>
        </p>
      )}
      {plan && plan.late_min > 0 && !error && (
        <p role="alert" className="mt-3 border-l-4 border-amber pl-4">
          <Trans>
            <b className="text-look">Late.</b> This should have begun {minutes(plan.late_min)}
            {plan.late_min < 90 ? t` min` : ""} ago. Begun now, it is on the table on{" "}
            {dayOf(plan.earliest_serve as string, zone)} at {timeOfDay(plan.earliest_serve as string, zone)}.{" "}
            <LinkButton
              onClick={() => edit({ ...sheet, serve: wallClock(new Date(plan.earliest_serve as string), zone) })}
            >
              Serve it then
            </LinkButton>
          </Trans>
        </p>
      )}
      <LongSteps editing={editing} />
      {plan && !error && (
        <>
          <DayLanes
            plan={plan}
            kitchen={kitchen}
            dishes={[sheet.title]}
            picked={item}
            onShift={serve ? nudge : undefined}
            onPick={(each) => setPicked(each.step.id)}
          />
          {item && <OneStep plan={plan} one={item} zone={zone} />}
          {saved && serve && <Risks sheet={editing.id} of={editing.worked} />}
        </>
      )}
      <div className="mt-4 flex flex-wrap items-end gap-x-6 gap-y-3">
        <button
          type="button"
          className="pick min-h-12 px-6 text-lg"
          data-on="true"
          disabled={!saved || begin.isPending || editing.problems.length > 0}
          onClick={() => begin.mutate({ rehearse: false, uid: newId() })}
        >
          <Trans>Make it now</Trans>
        </button>
        <button
          type="button"
          className="pick min-h-12"
          data-points="rehearse"
          disabled={!saved || begin.isPending || editing.problems.length > 0}
          onClick={() => begin.mutate({ rehearse: true, uid: newId() })}
        >
          <Trans>Rehearse, sixty times as fast</Trans>
        </button>
        <RehearseSlip
          disabled={!saved || begin.isPending || editing.problems.length > 0}
          onBegin={(cook) => begin.mutate({ rehearse: true, cook, uid: newId() })}
        />
        <TextLink to={`/sheets/${editing.id}/hands`}>
          <Trans>How the hands go, on paper</Trans>
        </TextLink>
        {plan && !error && (
          <LinkButton onClick={() => window.print()}>
            <Trans>The plan, on paper</Trans>
          </LinkButton>
        )}
        <form
          className="flex flex-wrap items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            keep.mutate(newId());
          }}
        >
          <label>
            <span className="block text-sm text-ink2">
              <Trans>For</Trans>
            </span>
            <input
              className="write w-52"
              placeholder={t`an occasion`}
              maxLength={120}
              value={title}
              onChange={(event) => setTitle(event.target.value)}
            />
          </label>
          <label>
            <span className="block text-sm text-ink2">
              <Trans>People</Trans>
            </span>
            <input
              className="write w-16 text-right"
              inputMode="numeric"
              pattern="[1-9][0-9]{0,2}|1000"
              title={t`a whole number from 1 to 1000`}
              value={people}
              onChange={(event) => setPeople(event.target.value)}
            />
          </label>
          <button type="submit" className="pick" disabled={!plan || !serve || !saved || keep.isPending}>
            <Trans>Keep this plan</Trans>
          </button>
          {keep.data && (
            <span role="status" className="text-green">
              <Trans>
                Kept: <TextLink to={`/occasions/${keep.data.id}`}>its day</TextLink> is on the counter.
              </Trans>
            </span>
          )}
        </form>
      </div>
      {plan && !error && <DayOnPaper plan={plan} titles={[sheet.title]} title={sheet.title} zone={zone} />}
    </div>
  );
}
