/** A sheet on the bench: the line along the top, and the station you are at below it. */

import { useIsMutating, useMutation, useQuery } from "@tanstack/react-query";
import { AlertDialog } from "radix-ui";
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
import { kitchenQuery, kitchenSaving, larderQuery, occasionsQuery, waysQuery } from "../api/queries";
import { useReach } from "../api/reach";
import { Cut } from "../stations/cut/Cut";
import { Heat } from "../stations/heat/Heat";
import { Mix } from "../stations/mix/Mix";
import { Shape } from "../stations/shape/Shape";
import { BringBack } from "../ui/BringBack";
import { Foot } from "../ui/Foot";
import { Frame, Waiting } from "../ui/Frame";
import { Sorry } from "../ui/Sorry";
import { TriedAgain } from "../ui/TriedAgain";
import { capital, dayOf, timeOfDay } from "../ui/words";
import { STATION_NAMES, STATIONS, type StationId, TheLine } from "./Line";
import { type Bench, type Saving, useSheet } from "./useSheet";

const PlanStation = lazy(() => import("../plan/PlanStation"));

export interface StationProps {
  bench: Bench;
  way: WayCard;
  kitchen: KitchenSettings;
}

export function SheetPage() {
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
  const at = STATIONS.find((one) => one === station);
  if (!at) return <Navigate to={`/sheets/${id}/mix`} replace />;
  const way = ways.data?.find((one) => one.id === opened.data?.sheet.way);
  if (!opened.data && opened.error instanceof Refused && opened.error.status === 410)
    return <Dropped id={id} error={opened.error} />;
  if (!opened.data || !way || !kitchen.data) return <Waiting error={opened.error ?? ways.error ?? kitchen.error} />;
  return <OpenSheet key={id} opened={opened.data} at={at} way={way} kitchen={kitchen.data.kitchen} />;
}

/** The address of a sheet that was thrown away. */
function Dropped({ id, error }: { id: number; error: Refused }) {
  return (
    <Frame title={<h1 className="text-2xl">Thrown away</h1>}>
      <p className="mt-8 text-lg">
        {error.problems[0]?.says}.{" "}
        <BringBack kind="sheet" id={id}>
          Bring it back
        </BringBack>
      </p>
    </Frame>
  );
}

const STATION_VIEWS = { mix: Mix, shape: Shape, heat: Heat, cut: Cut } as const;

function OpenSheet(props: { opened: SheetOpen; at: StationId; way: WayCard; kitchen: KitchenSettings }) {
  const { opened, at, way, kitchen } = props;
  const bench = useSheet(opened);
  const { sheet, worked, moved, problems } = bench;
  const occasions = useQuery(occasionsQuery);
  const occasion = occasions.data?.find((one) => one.sheet === bench.id);
  useStationKeys(bench.id);
  useEffect(() => {
    document.title = `${sheet.title}: ${STATION_NAMES[at]} · Kemble`;
  }, [sheet.title, at]);

  const serve = sheet.serve;
  const plan = useQuery({
    queryKey: ["plan", bench.id, serve, worked.steps],
    enabled: Boolean(serve) && worked.problems.length === 0,
    placeholderData: (before) => before,
    retry: false,
    queryFn: () => ask(api.POST("/api/plan", { body: { sheet, serve: serve as string } })),
  });
  const Station = at === "plan" ? null : STATION_VIEWS[at];

  return (
    <Frame
      title={
        <div className="flex flex-wrap items-baseline gap-x-3">
          <Title value={sheet.title} onChange={(title) => bench.edit({ ...sheet, title })} />
          <span className="text-ink2">{way.name.toLowerCase()}</span>
        </div>
      }
      aside={
        <div className="flex items-baseline gap-3 text-ink2">
          {occasion && (
            <span>
              {occasion.title}, {dayOf(occasion.serve, kitchen.timezone).replace(/^\w+ /, "")}{" "}
              {timeOfDay(occasion.serve, kitchen.timezone)}
            </span>
          )}
          <SavedMark saving={bench.saving} />
          {(["undo", "redo"] as const).map((which) => (
            <button
              key={which}
              type="button"
              className="text-bean underline underline-offset-4 disabled:text-ink2 disabled:no-underline"
              disabled={!bench[which]}
              onClick={() => bench[which]?.()}
            >
              {capital(which)}
            </button>
          ))}
        </div>
      }
    >
      <h2 className="sr-only">{STATION_NAMES[at]}</h2>
      <TheLine
        id={bench.id}
        at={at}
        worked={worked}
        moved={moved}
        plan={serve && worked.problems.length === 0 ? (plan.data ?? null) : null}
        zone={kitchen.timezone}
      />
      <Problems problems={problems} />
      <TriedAgain failed={bench.failed} />
      <Behind bench={bench} />
      <div className="flex-1">
        {Station ? (
          <Station bench={bench} way={way} kitchen={kitchen} />
        ) : (
          <Suspense fallback={<Waiting />}>
            <PlanStation bench={bench} kitchen={kitchen} plan={plan.data ?? null} error={plan.error} />
          </Suspense>
        )}
      </div>
      {at !== "plan" && <Foot worked={worked} station={at} />}
      <ConflictDialog bench={bench} />
    </Frame>
  );
}

/** Keys 1 to 5 go to the stations; ? asks why of the first key number in sight. */
function useStationKeys(id: number) {
  const navigate = useNavigate();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (event.ctrlKey || event.metaKey || event.altKey || /^(INPUT|SELECT|TEXTAREA)$/.test(target.tagName)) return;
      const station = STATIONS[Number(event.key) - 1];
      if (station) navigate(`/sheets/${id}/${station}`);
      if (event.key === "?") document.querySelector<HTMLElement>("main [data-fact]")?.click();
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
        aria-label="Title of the sheet"
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
function Behind({ bench }: { bench: Bench }) {
  if (!bench.stale) return null;
  return (
    <p role="status" data-stale="true" className="mt-2 border-l-4 border-amber pl-4">
      <b className="text-look">The figures below are those of the sheet before your last change.</b>
    </p>
  );
}

const SAVED_WORDS: Record<Saving, string> = {
  saved: "saved",
  unsaved: "saving",
  saving: "saving",
  unreachable: "kept here, not saved yet",
  refused: "kept here, not saved: see below",
  conflict: "not saved",
  gone: "not saved",
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
          <b className="text-bean">Not like this.</b> {sentence(problem)}
        </li>
      ))}
    </ul>
  );
}

/** Two changed the same thing: both are shown, and either can be had, or both. Or the sheet was thrown away. */
function ConflictDialog({ bench }: { bench: Bench }) {
  const navigate = useNavigate();
  const larder = useQuery(larderQuery);
  const name = (id: string) => larder.data?.find((one) => one.id === id)?.name ?? id;
  const failing = useMutation({ mutationFn: (what: () => Promise<unknown>) => what(), retry: false });
  const copy = () => failing.mutate(async () => navigate(`/sheets/${await bench.keepBoth()}/mix`));
  const { conflict, gone } = bench;
  return (
    <AlertDialog.Root open={conflict !== null || gone !== null}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-ink/40" />
        <AlertDialog.Content className="fixed top-1/2 left-1/2 z-50 w-[min(34rem,calc(100vw-24px))] -translate-1/2 rounded-md border border-ink bg-sheet p-6">
          <AlertDialog.Title className="text-2xl">
            {conflict ? "Changed elsewhere, too" : "This sheet was thrown away"}
          </AlertDialog.Title>
          <AlertDialog.Description className="mt-2">
            {conflict
              ? "Another tab or device saved this sheet, and changed what you have changed. Nothing of yours is lost: Undo brings back whichever you do not take."
              : `${capital(gone?.says ?? "It is not there any more")}. What you changed since is kept here.`}
          </AlertDialog.Description>
          {conflict && (
            <table className="mt-3 w-full">
              <thead>
                <tr className="text-left text-sm text-ink2">
                  <th className="font-normal" />
                  <th className="font-normal">yours</th>
                  <th className="font-normal">the other</th>
                </tr>
              </thead>
              <tbody>
                {conflict.clashes.slice(0, 8).map((clash) => (
                  <tr key={clash.path.join()} className="hairline">
                    <th scope="row" className="py-1 text-left font-normal">
                      {placeWords(clash.path, name)}
                    </th>
                    <td className="font-bold">{valueWords(clash.mine)}</td>
                    <td className="font-bold">{valueWords(clash.theirs)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          <Sorry error={failing.error} />
          <div className="mt-5 flex flex-wrap gap-3">
            {conflict ? (
              <>
                <AlertDialog.Action className="pick" data-on="true" onClick={bench.keepMine}>
                  Take mine
                </AlertDialog.Action>
                <button type="button" className="pick" disabled={failing.isPending} onClick={copy}>
                  Keep both
                </button>
                <AlertDialog.Cancel className="pick" onClick={bench.takeTheirs}>
                  Take the other
                </AlertDialog.Cancel>
              </>
            ) : (
              <>
                <button
                  type="button"
                  className="pick"
                  data-on="true"
                  disabled={failing.isPending}
                  onClick={() => failing.mutate(bench.bringBack)}
                >
                  Bring it back
                </button>
                <button type="button" className="pick" disabled={failing.isPending} onClick={copy}>
                  Keep a copy
                </button>
                <AlertDialog.Cancel className="pick" onClick={() => navigate("/")}>
                  Leave it
                </AlertDialog.Cancel>
              </>
            )}
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}

/** Where on a sheet, in words: "Black tea, strong: amount". */
function placeWords(path: string[], name: (id: string) => string) {
  const [first, role, , line, ...field] = path;
  if (first !== "parts") return path.join(", ").replaceAll("_", " ");
  if (!line) return role ?? first;
  const what = field.filter((word) => word !== "value").join(" ") || "line";
  return `${name(line)}: ${what}`;
}

function valueWords(value: unknown) {
  if (value === null || value === undefined) return "taken out";
  if (typeof value !== "object") return String(typeof value === "number" ? +value.toFixed(2) : value);
  const amount = (value as { amount?: { value: number; unit: string } }).amount;
  return amount ? `${+amount.value.toFixed(2)} ${amount.unit}` : "changed";
}
