/** The counter: what is running now, what comes next, the sheets, and the ways to begin one. */

import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { AlertDialog } from "radix-ui";
import { useEffect, useState } from "react";
import { Link, Navigate, useNavigate } from "react-router";
import { api, ask, type OccasionOpen, type RunCard, type SheetCard } from "../api/client";
import { kitchenQuery, occasionsQuery, runsQuery, sheetsQuery, waysQuery } from "../api/queries";
import { useTick } from "../make/useRun";
import { Frame, Waiting } from "../ui/Frame";
import { clock, dayOf, plural, timeOfDay } from "../ui/words";
import { WayDrawing } from "./WayDrawing";

export function Counter() {
  const kitchen = useQuery(kitchenQuery);
  const runs = useQuery(runsQuery);
  const occasions = useQuery(occasionsQuery);
  const sheets = useQuery(sheetsQuery);
  useEffect(() => {
    document.title = "Counter · Kemble";
  }, []);
  if (!kitchen.data) return <Waiting error={kitchen.error} />;
  if (!kitchen.data.set_up) return <Navigate to="/welcome" replace />;
  const zone = kitchen.data.kitchen.timezone;
  return (
    <Frame title={<h1 className="text-2xl sm:text-[28px]">{kitchen.data.kitchen.name}</h1>}>
      <div className="mt-6 grid gap-x-14 gap-y-8 lg:grid-cols-2">
        <div className="grid content-start gap-8">
          <section aria-labelledby="now">
            <h2 id="now" className="text-xl">
              On the stove
            </h2>
            {runs.data?.length ? (
              <ul>
                {runs.data.map((run) => (
                  <Running key={run.id} run={run} zone={zone} fetched={runs.dataUpdatedAt} />
                ))}
              </ul>
            ) : (
              <p className="mt-2 text-ink2">Nothing is cooking.</p>
            )}
          </section>
          <section aria-labelledby="next">
            <h2 id="next" className="text-xl">
              Planned next
            </h2>
            {occasions.data?.length ? (
              <ul>
                {occasions.data.map((occasion) => (
                  <Coming key={occasion.id} occasion={occasion} zone={zone} />
                ))}
              </ul>
            ) : (
              <p className="mt-2 text-ink2">Nothing yet. Open a sheet, go to Plan, and say when people eat.</p>
            )}
          </section>
        </div>
        <section aria-labelledby="sheets">
          <h2 id="sheets" className="text-xl">
            Sheets
          </h2>
          <ul>
            {sheets.data?.map((sheet) => (
              <SheetRow key={sheet.id} sheet={sheet} />
            ))}
          </ul>
          {sheets.data?.length === 0 && <p className="mt-2 text-ink2">None yet. Take a way to begin one.</p>}
        </section>
      </div>
      <div className="mt-10 pb-10">
        <Gallery />
      </div>
    </Frame>
  );
}

function Running({ run, zone, fetched }: { run: RunCard; zone: string; fetched: number }) {
  useTick(500);
  const { state } = run;
  const focus = state.steps.find((step) => step.id === state.focus);
  const at = Date.parse(state.now) + (Date.now() - fetched) * (run.rehearsed ? 60 : 1);
  const left = focus?.due ? (Date.parse(focus.due) - at) / 1000 : null;
  const late = Math.round(state.late_min);
  return (
    <li className="hairline">
      <Link
        to={`/make/${run.id}`}
        className="flex items-center justify-between gap-4 py-3 text-ink no-underline hover:bg-sheet"
      >
        <span>
          <span className="block text-lg">{run.title}</span>
          <span className="text-ink2">
            {run.rehearsed ? "rehearsal, " : ""}table at {timeOfDay(state.expected_serve, zone)}
            {late > 1 ? <b className="text-bean">, {late} min late</b> : ""}
          </span>
        </span>
        {left != null && <b className={`text-[34px] leading-none ${left < 0 ? "text-bean" : ""}`}>{clock(left)}</b>}
      </Link>
    </li>
  );
}

function SheetRow({ sheet }: { sheet: SheetCard }) {
  const client = useQueryClient();
  const drop = useMutation({
    mutationFn: () => ask(api.DELETE("/api/sheets/{sheet_id}", { params: { path: { sheet_id: sheet.id } } })),
    onSuccess: () => {
      for (const key of ["sheets", "occasions"]) client.invalidateQueries({ queryKey: [key] });
    },
  });
  return (
    <li className="hairline flex items-center gap-2">
      <Link
        to={`/sheets/${sheet.id}/mix`}
        className="flex min-w-0 flex-1 flex-wrap items-baseline justify-between gap-x-4 py-2 text-ink no-underline hover:bg-sheet"
      >
        <span className="text-lg">{sheet.title}</span>
        <span className="text-ink2">{sheet.numbers.join(" · ")}</span>
      </Link>
      <AlertDialog.Root>
        <AlertDialog.Trigger
          className="min-h-9 min-w-8 text-ink2 hover:text-bean"
          aria-label={`Throw away ${sheet.title}`}
        >
          ×
        </AlertDialog.Trigger>
        <AlertDialog.Portal>
          <AlertDialog.Overlay className="fixed inset-0 z-40 bg-ink/40" />
          <AlertDialog.Content className="fixed top-1/2 left-1/2 z-50 w-[min(30rem,calc(100vw-24px))] -translate-1/2 rounded-md border border-ink bg-sheet p-6">
            <AlertDialog.Title className="text-2xl">Throw away “{sheet.title}”?</AlertDialog.Title>
            <AlertDialog.Description className="mt-2">
              Its plans go with it. What was made from it stays in the log.
            </AlertDialog.Description>
            <div className="mt-5 flex flex-wrap gap-3">
              <AlertDialog.Cancel className="pick" data-on="true">
                Keep it
              </AlertDialog.Cancel>
              <AlertDialog.Action className="pick" onClick={() => drop.mutate()}>
                Throw it away
              </AlertDialog.Action>
            </div>
          </AlertDialog.Content>
        </AlertDialog.Portal>
      </AlertDialog.Root>
    </li>
  );
}

function Coming({ occasion, zone }: { occasion: OccasionOpen; zone: string }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const begin = useMutation({
    mutationFn: (rehearse: boolean) =>
      ask(api.POST("/api/runs", { body: { occasion: occasion.id, sheet: null, rehearse } })),
    onSuccess: (run) => navigate(`/make/${run.id}`),
  });
  const drop = useMutation({
    mutationFn: () =>
      ask(api.DELETE("/api/occasions/{occasion_id}", { params: { path: { occasion_id: occasion.id } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: ["occasions"] }),
  });
  return (
    <li className="hairline py-3">
      <div className="flex items-baseline justify-between gap-4">
        <Link
          to={`/sheets/${occasion.sheet}/plan`}
          className="text-lg text-ink no-underline hover:underline underline-offset-4"
        >
          {occasion.sheet_title}
        </Link>
        <span className="shrink-0">
          begin <b>{timeOfDay(occasion.plan.begin, zone)}</b>
        </span>
      </div>
      <p className="text-ink2">
        {occasion.title}
        {occasion.people ? `, ${plural(occasion.people, "person", "people")}` : ""}: {dayOf(occasion.serve, zone)}, on
        the table at {timeOfDay(occasion.serve, zone)}
      </p>
      <p className="mt-1 flex gap-5">
        <button type="button" className="text-bean underline underline-offset-4" onClick={() => begin.mutate(false)}>
          Begin
        </button>
        <button type="button" className="text-bean underline underline-offset-4" onClick={() => begin.mutate(true)}>
          Rehearse
        </button>
        <button type="button" className="text-bean underline underline-offset-4" onClick={() => drop.mutate()}>
          Drop
        </button>
      </p>
    </li>
  );
}

export function Gallery() {
  const ways = useQuery(waysQuery);
  const client = useQueryClient();
  const navigate = useNavigate();
  const [wanted, setWanted] = useState("");
  const [blank, setBlank] = useState(false);
  const make = useMutation({
    mutationFn: (way: string) => ask(api.POST("/api/sheets", { body: { way, blank, sheet: null } })),
    onSuccess: (sheet) => {
      client.invalidateQueries({ queryKey: ["sheets"] });
      navigate(`/sheets/${sheet.id}/mix`);
    },
  });
  const sought = wanted.trim().toLowerCase();
  const found = ways.data?.filter((way) =>
    [way.name, way.says, ...way.kin].some((words) => words.toLowerCase().includes(sought)),
  );
  return (
    <section aria-labelledby="ways">
      <div className="flex flex-wrap items-baseline justify-between gap-4">
        <h2 id="ways" className="text-xl">
          Begin a sheet
        </h2>
        <div className="flex flex-wrap items-baseline gap-x-6 gap-y-1 text-ink2">
          <Link to="/paste" className="text-bean underline underline-offset-4">
            paste a list of ingredients
          </Link>
          <label>
            <input
              type="checkbox"
              className="mr-1.5 size-4 align-[-2px] accent-bean"
              checked={blank}
              onChange={(event) => setBlank(event.target.checked)}
            />
            blank, with nothing in the bowl
          </label>
          <label>
            Find a way
            <input
              className="write ml-2 w-40"
              type="search"
              value={wanted}
              onChange={(event) => setWanted(event.target.value)}
            />
          </label>
        </div>
      </div>
      <ul className="mt-3 grid gap-4 sm:grid-cols-3 lg:grid-cols-5">
        {found?.map((way) => (
          <li key={way.id}>
            <button
              type="button"
              className="flex h-full w-full flex-col rounded-md border border-ink2 p-3 text-left hover:border-bean hover:bg-sheet"
              disabled={make.isPending}
              onClick={() => make.mutate(way.id)}
            >
              <WayDrawing way={way.id} />
              <span className="mt-2 block font-title text-lg leading-tight text-bean">{way.name}</span>
              <span className="mt-1 block text-[14.5px] leading-snug text-ink2">{way.says}</span>
            </button>
          </li>
        ))}
      </ul>
      {found?.length === 0 && <p className="mt-3 text-ink2">No way goes by that name here.</p>}
    </section>
  );
}
