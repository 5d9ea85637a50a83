/** The counter: what is running now, what comes next, the sheets, and the ways to begin one. */

import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { AlertDialog } from "radix-ui";
import { type ReactNode, useEffect, useState } from "react";
import { Link, Navigate, useNavigate } from "react-router";
import { api, ask, type OccasionOpen, type RunCard, type SheetCard } from "../api/client";
import { kitchenQuery, occasionsQuery, runsQuery, sheetsQuery, waysQuery } from "../api/queries";
import { serverNow, useReach } from "../api/reach";
import { useTick } from "../make/useRun";
import { Find } from "../ui/Find";
import { Frame, Waiting } from "../ui/Frame";
import { JustDropped } from "../ui/JustDropped";
import { newId } from "../ui/newId";
import { Pages } from "../ui/Pages";
import { clock, dayOf, plural, quantity, sinceWords, timeOfDay } from "../ui/words";
import { WayDrawing } from "./WayDrawing";

export function Counter() {
  const kitchen = useQuery(kitchenQuery);
  const runs = useQuery(runsQuery);
  const occasions = useQuery(occasionsQuery);
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
            <JustDropped kinds={["run"]} />
            {runs.data?.length ? (
              <ul>
                {runs.data.map((run) => (
                  <Running key={run.id} run={run} zone={zone} />
                ))}
              </ul>
            ) : (
              <Nothing known={runs.data !== undefined} what="cooking">
                Nothing is cooking.
              </Nothing>
            )}
          </section>
          <section aria-labelledby="next">
            <h2 id="next" className="text-xl">
              Planned next
            </h2>
            <JustDropped kinds={["plan"]} />
            {occasions.data?.length ? (
              <ul>
                {occasions.data.map((occasion) => (
                  <Coming key={occasion.id} occasion={occasion} zone={zone} />
                ))}
              </ul>
            ) : (
              <Nothing known={occasions.data !== undefined} what="planned">
                Nothing yet. Open a sheet, go to Plan, and say when people eat.
              </Nothing>
            )}
          </section>
        </div>
        <Sheets />
      </div>
      <div className="mt-10 pb-10">
        <Gallery />
        <p className="mt-8">
          <Link to="/dropped" className="text-bean underline underline-offset-4">
            What was thrown away
          </Link>
        </p>
      </div>
    </Frame>
  );
}

/** An empty list, or a list that is not known: no answer is not nothing. */
function Nothing({ known, what, children }: { known: boolean; what: string; children: ReactNode }) {
  const { heard } = useReach();
  if (known) return <p className="mt-2 text-ink2">{children}</p>;
  return (
    <p className="mt-2 text-look" data-known="false">
      What is {what} is not known{heard ? ` since ${sinceWords(heard)}` : " yet"}.
    </p>
  );
}

function Sheets() {
  const [page, setPage] = useState(1);
  const [find, setFind] = useState("");
  const sheets = useQuery(sheetsQuery(page, find));
  const found = sheets.data;
  return (
    <section aria-labelledby="sheets">
      <div className="flex flex-wrap items-baseline justify-between gap-4">
        <h2 id="sheets" className="text-xl">
          Sheets
        </h2>
        {found && (found.pages > 1 || find) && (
          <Find
            value={find}
            onChange={(sought) => {
              setFind(sought);
              setPage(1);
            }}
          />
        )}
      </div>
      <JustDropped kinds={["sheet"]} />
      <ul>
        {found?.sheets.map((sheet) => (
          <SheetRow key={sheet.id} sheet={sheet} />
        ))}
      </ul>
      {!found?.total && (
        <Nothing known={found !== undefined} what="on the shelf">
          {find ? "None goes by that name." : "None yet. Take a way to begin one."}
        </Nothing>
      )}
      {found && <Pages page={found.page} pages={found.pages} total={found.total} what="sheets" onTurn={setPage} />}
    </section>
  );
}

function Running({ run, zone }: { run: RunCard; zone: string }) {
  useTick(500);
  const { state } = run;
  const focus = state.steps.find((step) => step.id === state.focus);
  // By the run's own clock from when the answer was given, wherever it has lain since.
  const at = Date.parse(state.now) + (serverNow() - Date.parse(run.wall)) * (run.rehearsed ? 60 : 1);
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
      for (const key of ["sheets", "occasions", "dropped"]) client.invalidateQueries({ queryKey: [key] });
    },
  });
  return (
    <li className="hairline flex items-center gap-2">
      <Link
        to={`/sheets/${sheet.id}/mix`}
        className="flex min-w-0 flex-1 flex-wrap items-baseline justify-between gap-x-4 py-2 text-ink no-underline hover:bg-sheet"
      >
        <span className="text-lg">{sheet.title}</span>
        <span className="text-ink2">{sheet.numbers.map(cardWords).join(" · ")}</span>
        {sheet.problem && <span className="w-full text-sm text-bean">cannot be worked: {sheet.problem}</span>}
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
              Its plans go with it. What was made from it stays in the log. For thirty days it can be brought back.
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
    mutationFn: (how: { rehearse: boolean; uid: string }) =>
      ask(api.POST("/api/runs", { body: { occasion: occasion.id, sheet: null, ...how } })),
    onSuccess: (run) => navigate(`/make/${run.id}`),
  });
  const drop = useMutation({
    mutationFn: () =>
      ask(api.DELETE("/api/occasions/{occasion_id}", { params: { path: { occasion_id: occasion.id } } })),
    onSuccess: () => {
      for (const key of ["occasions", "dropped"]) client.invalidateQueries({ queryKey: [key] });
    },
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
        <button
          type="button"
          className="text-bean underline underline-offset-4"
          onClick={() => begin.mutate({ rehearse: false, uid: newId() })}
        >
          Begin
        </button>
        <button
          type="button"
          className="text-bean underline underline-offset-4"
          onClick={() => begin.mutate({ rehearse: true, uid: newId() })}
        >
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
    mutationFn: (made: { way: string; uid: string }) =>
      ask(api.POST("/api/sheets", { body: { blank, sheet: null, ...made } })),
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
          <Find label="Find a way" value={wanted} onChange={setWanted} />
        </div>
      </div>
      <ul className="mt-3 grid gap-4 sm:grid-cols-3 lg:grid-cols-5">
        {found?.map((way) => (
          <li key={way.id}>
            <button
              type="button"
              className="flex h-full w-full flex-col rounded-md border border-ink2 p-3 text-left hover:border-bean hover:bg-sheet"
              disabled={make.isPending}
              onClick={() => make.mutate({ way: way.id, uid: newId() })}
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

const CARD_WORDS: Partial<Record<string, string>> = {
  "mix.hydration_pct": "water",
  "shape.pieces": "pieces",
  "shape.depth_mm": "deep",
};

/** "126 % water", "31 mm deep", "34 min". */
const cardWords = (number: SheetCard["numbers"][number]) =>
  [quantity(number), CARD_WORDS[number.key]].filter(Boolean).join(" ");
