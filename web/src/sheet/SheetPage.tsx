/** A sheet being worked on: the line along the top, and the station you are at below it. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useIsMutating, useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useEffect, useState } from "react";
import { Navigate, useNavigate, useParams } from "react-router";
import {
  api,
  ask,
  type KitchenSettings,
  type Problem,
  Refused,
  type SheetOpen,
  sentence,
  type WayCard,
} from "../api/client";
import { useReach } from "../api/connection";
import { SHEET_VERSION } from "../api/generated";
import { kitchenQuery, kitchenSaving, occasionsQuery, waysQuery } from "../api/queries";
import { Cut } from "../stations/cut/Cut";
import { Heat } from "../stations/heat/Heat";
import { Mix } from "../stations/mix/Mix";
import { STATION_NAMES, STATIONS, type StationId, StationLine } from "../stations/StationLine";
import { Shape } from "../stations/shape/Shape";
import { Frame, Waiting } from "../ui/Frame";
import { useFormatters } from "../ui/formatters";
import { LinkButton } from "../ui/LinkButton";
import { OlderThanKemble } from "../ui/OlderThanKemble";
import { BringBack } from "../ui/RestoreTrashed";
import { TriedAgain } from "../ui/RetryNotice";
import { Foot } from "../ui/StationFoot";
import { dateOf } from "../ui/words";
import { ConflictDialog } from "./ConflictDialog";
import { MoreSlip } from "./MorePopover";
import { type Editing, type Saving, useSheet } from "./useSheet";

const MethodStation = lazy(() => import("../method/MethodStation"));
const PlanStation = lazy(() => import("../plan/PlanStation"));

const A_MINUTE_MS = 60_000;

export default function SheetPage() {
  const { sheetId, station } = useParams();
  const id = Number(sheetId);
  const { away } = useReach();
  const settling = useIsMutating({ mutationKey: kitchenSaving }) > 0;
  const opened = useQuery({
    queryKey: ["sheet", id],
    queryFn: () => ask(api.GET("/api/sheets/{sheet_id}", { params: { path: { sheet_id: id } } })),
    // While the settings are being saved, a sheet would be worked with the old ones; without the kitchen, that is all there is.
    enabled: !settling || away,
    staleTime: 0,
    gcTime: 0,
    refetchOnWindowFocus: false,
    refetchOnReconnect: false,
  });
  const ways = useQuery(waysQuery);
  const kitchen = useQuery(kitchenQuery);
  const at = STATIONS.find((eachStation) => eachStation === station);
  if (!at) return <Navigate to={`/sheets/${id}/mix`} replace />;
  const way = ways.data?.find((item) => item.id === opened.data?.sheet.way);
  if (!opened.data && opened.error instanceof Refused && opened.error.status === 410)
    return <Dropped id={id} error={opened.error} />;
  if (!opened.data || !way || !kitchen.data) return <Waiting error={opened.error ?? ways.error ?? kitchen.error} />;
  if (Number(opened.data.sheet.version) > SHEET_VERSION)
    return (
      <Frame title={<h1 className="text-2xl">{opened.data.sheet.title}</h1>}>
        <OlderThanKemble />
      </Frame>
    );
  return <OpenSheet key={id} opened={opened.data} at={at} way={way} kitchen={kitchen.data.kitchen} />;
}

/** The address of a sheet that was thrown away. */
function Dropped({ id, error }: { id: number; error: Refused }) {
  return (
    <Frame
      title={
        <h1 className="text-2xl">
          <Trans>Thrown away</Trans>
        </h1>
      }
    >
      <p className="mt-8 text-lg">
        {error.problems[0]?.says}.{" "}
        <BringBack kind="sheet" id={id}>
          <Trans>Bring it back</Trans>
        </BringBack>
      </p>
    </Frame>
  );
}

const STATION_VIEWS = { mix: Mix, shape: Shape, heat: Heat, cut: Cut } as const;

function OpenSheet(props: { opened: SheetOpen; at: StationId; way: WayCard; kitchen: KitchenSettings }) {
  const { timeOfDay } = useFormatters();
  const { opened, at, way, kitchen } = props;
  const editing = useSheet(opened);
  const { sheet, worked, moved, problems } = editing;
  const occasions = useQuery(occasionsQuery);
  const occasion = occasions.data?.find((item) => item.sheets.includes(editing.id));
  useStationKeys(editing.id);
  useEffect(() => {
    document.title = t`${sheet.title}: ${STATION_NAMES[at]} · Kemble`;
  }, [sheet.title, at]);

  const serve = sheet.serve;
  const plan = useQuery({
    queryKey: ["plan", editing.id, serve, worked.steps],
    // Where nobody has said when people eat, Plan shows the day as it would be begun now.
    enabled: (Boolean(serve) || at === "plan") && worked.problems.length === 0,
    refetchInterval: serve ? false : A_MINUTE_MS,
    placeholderData: (before) => before,
    retry: false,
    queryFn: () => ask(api.POST("/api/plan", { body: { sheet, serve: serve ?? null } })),
  });
  const Station = at === "plan" || at === "method" ? null : STATION_VIEWS[at];

  return (
    <Frame
      title={
        <div className="flex flex-wrap items-baseline gap-x-3">
          <Title value={sheet.title} onChange={(title) => editing.edit({ ...sheet, title })} />
          <span className="text-ink2">{way.name.toLowerCase()}</span>
        </div>
      }
      aside={
        <div className="flex items-baseline gap-3 text-ink2">
          {occasion && (
            <span>
              <span className="sr-only">{occasion.title}, </span>
              {dateOf(occasion.serve, kitchen.timezone)} {timeOfDay(occasion.serve, kitchen.timezone)}
            </span>
          )}
          <SavedMark saving={editing.saving} />
          <MoreSlip id={editing.id} />
          {(["undo", "redo"] as const).map((which) => (
            <LinkButton
              key={which}
              className="disabled:text-ink2 disabled:no-underline"
              disabled={!editing[which]}
              onClick={() => editing[which]?.()}
            >
              {which === "undo" ? t`Undo` : t`Redo`}
            </LinkButton>
          ))}
        </div>
      }
    >
      <p aria-hidden="true" className="hidden font-title text-2xl print:block">
        {sheet.title}
      </p>
      <h2 className="sr-only">{STATION_NAMES[at]}</h2>
      <StationLine
        id={editing.id}
        at={at}
        worked={worked}
        moved={moved}
        plan={serve && worked.problems.length === 0 ? (plan.data ?? null) : null}
        zone={kitchen.timezone}
      />
      <Problems problems={problems} />
      <TriedAgain failed={editing.failed} />
      <Behind editing={editing} />
      <div className="flex-1">
        {Station ? (
          <Station editing={editing} way={way} kitchen={kitchen} />
        ) : (
          <Suspense
            fallback={
              <p role="status">
                <Trans>One moment</Trans>
              </p>
            }
          >
            {at === "method" ? (
              <MethodStation editing={editing} />
            ) : (
              <PlanStation editing={editing} kitchen={kitchen} plan={plan.data ?? null} error={plan.error} />
            )}
          </Suspense>
        )}
      </div>
      {at !== "plan" && <Foot worked={worked} station={at} />}
      <ConflictDialog editing={editing} />
    </Frame>
  );
}

/** Keys 1 to 6 go to the stations; y asks why of the first key number in sight. */
function useStationKeys(id: number) {
  const navigate = useNavigate();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (event.ctrlKey || event.metaKey || event.altKey || /^(INPUT|SELECT|TEXTAREA)$/.test(target.tagName)) return;
      const station = STATIONS[Number(event.key) - 1];
      if (station) navigate(`/sheets/${id}/${station}`);
      if (event.key === "y") document.querySelector<HTMLElement>("main [data-fact]")?.click();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [id, navigate]);
}

function Title({ value, onChange }: { value: string; onChange: (title: string) => void }) {
  const [typed, setTyped] = useState(value);
  useEffect(() => setTyped(value), [value]);
  return (
    <h1 className="min-w-0 max-w-full">
      <textarea
        aria-label={t`Title of the sheet`}
        rows={1}
        className="block max-w-full resize-none border-b border-transparent bg-transparent font-title text-2xl leading-tight [field-sizing:content] hover:border-ink2 sm:text-[28px]"
        maxLength={120}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => (typed.trim() ? typed !== value && onChange(typed.trim()) : setTyped(value))}
        onKeyDown={(event) => {
          if (event.key === "Enter") event.currentTarget.blur();
        }}
      />
    </h1>
  );
}

/** That the figures are behind the sheet, when they will be for a while. */
function Behind({ editing }: { editing: Editing }) {
  if (!editing.stale) return null;
  return (
    <p role="status" data-stale="true" className="mt-2 border-l-4 border-amber pl-4">
      <b className="text-look">
        <Trans>The figures below are those of the sheet before your last change.</Trans>
      </b>
    </p>
  );
}

const SAVED_WORDS: Record<Saving, string> = {
  saved: t`saved`,
  unsaved: t`saving`,
  saving: t`saving`,
  unreachable: t`kept here, not saved yet`,
  refused: t`kept here, not saved: see below`,
  conflict: t`not saved`,
  gone: t`not saved`,
};

function SavedMark({ saving }: { saving: Saving }) {
  return (
    <span
      role="status"
      data-saving={saving}
      className={saving === "unreachable" || saving === "refused" ? "text-look" : ""}
    >
      {SAVED_WORDS[saving]}
    </span>
  );
}

function Problems({ problems }: { problems: Problem[] }) {
  if (!problems.length) return null;
  return (
    <ul role="alert" className="mt-2 border-l-4 border-bean pl-4">
      {problems.map((problem) => (
        <li key={problem.path + problem.says}>
          <b className="text-bean">
            <Trans>Not like this.</Trans>
          </b>{" "}
          {sentence(problem)}
        </li>
      ))}
    </ul>
  );
}
