/** Anything pasted or dropped, a list, a page's source, a file: read line by line, ingredients and method; each line can be
 * put right before a sheet is begun from it. */

import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useNavigate } from "react-router";
import {
  api,
  ask,
  type IngredientCard,
  type KitchenSettings,
  type Part,
  type PartRole,
  type ReadLine,
  type ReadRecipe,
  type Sheet,
  type UnitId,
} from "../api/client";
import { limit } from "../api/limits";
import { kitchenQuery, larderQuery, waysQuery } from "../api/queries";
import { newLine, newPart } from "../sheet/edits";
import { unitName, unitsFor } from "../stations/mix/units";
import { FileButton } from "../ui/FileButton";
import { Frame, Waiting } from "../ui/Frame";
import { NumberField } from "../ui/NumberField";
import { newId } from "../ui/newId";
import { Sorry } from "../ui/Sorry";
import { MethodRead } from "./MethodRead";
import { slim } from "./slim";

const ROLES: PartRole[] = [
  "base",
  "syrup",
  "filling",
  "broth",
  "topping",
  "coat",
  "glaze",
  "oil",
  "herb",
  "wrapper",
  "heart",
];
type Understood = ReadRecipe["method"][number]["says"][number];
const KEPT = "kemble-pasted";

/** A line as it stands after the cook's corrections; `out` when it is left out on purpose. */
type Row = ReadLine & { out: boolean };

const ready = (row: Row) => row.ingredient != null && row.value != null && row.unit != null;

export default function PastePage() {
  const kitchen = useQuery(kitchenQuery);
  const larder = useQuery(larderQuery);
  const ways = useQuery(waysQuery);
  const navigate = useNavigate();
  const client = useQueryClient();
  const [text, setText] = useState(() => sessionStorage.getItem(KEPT) ?? "");
  const [rows, setRows] = useState<Row[] | null>(null);
  const [told, setTold] = useState<ReadRecipe | null>(null);
  const [leftOut, setLeftOut] = useState<ReadonlySet<number>>(new Set());
  const [way, setWay] = useState("");
  const [title, setTitle] = useState("Pasted list");
  useEffect(() => {
    document.title = "Paste or drop · Kemble";
  }, []);
  // What was pasted outlives a reload.
  useEffect(() => sessionStorage.setItem(KEPT, text), [text]);
  const drop = async (file: File | undefined) => {
    if (!file) return;
    const source = slim(await file.text());
    setText(source);
    read.mutate(source);
  };
  const read = useMutation({
    mutationFn: (source: string) => ask(api.POST("/api/read-recipe", { body: { text: source } })),
    onSuccess: (found) => {
      setTold(found);
      setLeftOut(new Set());
      setRows(found.listed.lines.map((line) => ({ ...line, out: false })));
      if (found.way) setWay(found.way);
      if (found.title) setTitle(found.title);
    },
  });
  const begin = useMutation({
    mutationFn: (made: { sheet: Sheet; says: Understood[]; uid: string }) =>
      ask(api.POST("/api/sheets", { body: { way: null, blank: false, ...made } })),
    onSuccess: (made) => {
      sessionStorage.removeItem(KEPT);
      client.invalidateQueries({ queryKey: ["sheets"] });
      navigate(`/sheets/${made.id}/mix`);
    },
  });
  if (!kitchen.data || !larder.data || !ways.data)
    return <Waiting error={kitchen.error ?? larder.error ?? ways.error} />;
  const open = rows?.filter((row) => row.kind !== "heading" && !row.out && !ready(row)) ?? [];
  const change = (at: number, next: Partial<Row>) =>
    setRows((was) => was?.map((row, i) => (i === at ? { ...row, ...next, asks: "" } : row)) ?? null);
  return (
    <Frame title={<h1 className="text-2xl sm:text-[28px]">Paste or drop</h1>}>
      <div className="mt-5 grid gap-x-10 gap-y-6 pb-10 lg:grid-cols-[minmax(0,1fr)_minmax(0,2.1fr)]">
        <form
          onSubmit={(event) => {
            event.preventDefault();
            read.mutate(slim(text));
          }}
          onDragOver={(event) => event.preventDefault()}
          onDrop={(event) => {
            event.preventDefault();
            void drop(event.dataTransfer.files[0]);
          }}
        >
          <label htmlFor="pasted" className="text-ink2">
            A list, one ingredient a line; a whole recipe with its method; the source of a page; or drop a file here. A
            line such as “For the filling:” begins a part.
          </label>
          <textarea
            id="pasted"
            className="mt-2 block min-h-72 w-full rounded-md border border-ink2 bg-sheet p-3 leading-relaxed"
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
          <button
            type="submit"
            className="pick mt-3 min-h-11 px-6"
            data-on={!rows}
            disabled={!text.trim() || read.isPending}
          >
            Read it
          </button>
          <FileButton
            accept=".json,.txt,.md,.html,.htm,application/json,application/ld+json,text/*"
            className="mt-3 ml-3 min-h-11"
            onFile={(file) => void drop(file)}
          >
            Open a file
          </FileButton>
          <Sorry error={read.error} />
        </form>
        <section aria-label="As it was read">
          {rows === null ? (
            <p className="text-ink2">
              Each line comes back with what was understood, what was guessed, and what could not be read. Nothing is
              dropped.
            </p>
          ) : told?.source === "sheet" ? (
            <OneOfOurs
              told={told}
              busy={begin.isPending}
              onOpen={(sheet) => begin.mutate({ sheet, says: [], uid: newId() })}
            />
          ) : (
            <>
              {told?.yields && <p className="text-ink2">It says: “{told.yields}”.</p>}
              {told?.asks.map((one) => (
                <p key={one} className="text-look">
                  {one}
                </p>
              ))}
              <ul>
                {rows.map((row, i) => (
                  <ReadRow
                    // biome-ignore lint/suspicious/noArrayIndexKey: the lines of a text are told by their place
                    key={i}
                    row={row}
                    larder={larder.data}
                    kitchen={kitchen.data.kitchen}
                    onChange={(next) => change(i, next)}
                  />
                ))}
              </ul>
              {rows.length === 0 && <p className="text-ink2">There is nothing in it.</p>}
              {told && told.method.length > 0 && (
                <MethodRead method={told.method} leftOut={leftOut} onLeaveOut={setLeftOut} />
              )}
              {rows.length > 0 && (
                <form
                  className="mt-4 flex flex-wrap items-baseline gap-x-4 gap-y-2"
                  onSubmit={(event) => {
                    event.preventDefault();
                    const method = (told?.method ?? []).filter((_, i) => !leftOut.has(i));
                    const says = method.flatMap((line) => line.says).filter((one) => one.path);
                    begin.mutate({ sheet: sheetOf(rows, way, title), says, uid: newId() });
                  }}
                >
                  <label>
                    Called{" "}
                    <input
                      className="write w-52"
                      required
                      maxLength={120}
                      value={title}
                      onChange={(event) => setTitle(event.target.value)}
                    />
                  </label>
                  <label>
                    made as{" "}
                    <select className="write" required value={way} onChange={(event) => setWay(event.target.value)}>
                      <option value="">which way?</option>
                      {ways.data.map((one) => (
                        <option key={one.id} value={one.id}>
                          {one.name}
                        </option>
                      ))}
                    </select>
                  </label>
                  {told && told.because.length > 0 && told.way === way && (
                    <span className="text-ink2">because {told.because.join(" and ")}</span>
                  )}
                  <button type="submit" className="pick" data-on="true" disabled={open.length > 0 || begin.isPending}>
                    Begin the sheet
                  </button>
                  {open.length > 0 && (
                    <span role="status" className="text-look">
                      {open.length === 1 ? "One line is" : `${open.length} lines are`} still open: fill in, or leave
                      out.
                    </span>
                  )}
                </form>
              )}
              <Sorry error={begin.error} />
            </>
          )}
        </section>
      </div>
    </Frame>
  );
}

/** A sheet of ours, whole: opened as it is, or what is wrong with it. */
function OneOfOurs(props: { told: ReadRecipe; busy: boolean; onOpen: (sheet: Sheet) => void }) {
  const { told, busy, onOpen } = props;
  const { sheet } = told;
  if (!sheet)
    return (
      <div role="alert">
        <p className="text-lg">It is a sheet of Kemble's, and something in it does not hold:</p>
        {told.asks.map((one) => (
          <p key={one} className="text-bean">
            {one}
          </p>
        ))}
      </div>
    );
  return (
    <div>
      <p className="text-lg">
        A sheet of Kemble's: <b>{sheet.title}</b>, all of it.
      </p>
      <button
        type="button"
        className="pick mt-3 min-h-11 px-6"
        data-on="true"
        disabled={busy}
        onClick={() => onOpen(sheet as Sheet)}
      >
        Keep it here
      </button>
    </div>
  );
}

interface RowProps {
  row: Row;
  larder: IngredientCard[];
  kitchen: KitchenSettings;
  onChange: (next: Partial<Row>) => void;
}

function ReadRow({ row, larder, kitchen, onChange }: RowProps) {
  if (row.kind === "heading")
    return (
      <li className="hairline flex flex-wrap items-baseline gap-x-4 py-2">
        <span className="font-title text-lg">{row.text.replace(/[:*#]/g, "").trim()}</span>
        <span className="text-ink2">begins the {row.role}</span>
      </li>
    );
  const item = larder.find((one) => one.id === row.ingredient);
  const open = !row.out && !ready(row);
  return (
    <li className={`hairline grid gap-x-4 py-1.5 sm:grid-cols-[minmax(0,1fr)_auto] ${row.out ? "opacity-55" : ""}`}>
      <div>
        <span className={row.out ? "line-through" : ""}>{row.text}</span>
        <span className="block text-sm text-ink2">
          {[
            row.understood && `understood: ${row.understood}`,
            row.guessed.length && `guessed: ${row.guessed.join("; ")}`,
            row.left_over && row.ingredient && `not used: “${row.left_over}”`,
          ]
            .filter(Boolean)
            .join(" · ")}
        </span>
        {row.asks && !row.out && <span className="block text-look">{row.asks}</span>}
      </div>
      <div className="flex flex-wrap items-baseline justify-end gap-x-2">
        <NumberField
          label={`Amount of “${row.text}”`}
          hideLabel
          value={row.value ?? null}
          decimals={2}
          within={limit("Amount.value")}
          width="4.2rem"
          onChange={(value) => onChange({ value, unit: row.unit ?? "g", understood: "", guessed: [] })}
        />
        <select
          aria-label={`Unit of “${row.text}”`}
          className="h-10 w-20 bg-transparent text-ink2"
          value={row.unit ?? ""}
          onChange={(event) => onChange({ unit: event.target.value as UnitId, understood: "", guessed: [] })}
        >
          {!row.unit && <option value="">unit</option>}
          {unitsFor(row.unit ?? "g", kitchen, item).map((unit) => (
            <option key={unit} value={unit}>
              {unitName(unit, kitchen, item)}
            </option>
          ))}
        </select>
        <select
          aria-label={`Ingredient of “${row.text}”`}
          className={`write w-44 ${open && !row.ingredient ? "text-bean" : ""}`}
          value={row.ingredient ?? ""}
          onChange={(event) =>
            onChange({ ingredient: event.target.value, kind: "line", understood: "", guessed: [], left_over: "" })
          }
        >
          {!row.ingredient && <option value="">which ingredient?</option>}
          {larder.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </select>
        <select
          aria-label={`Part of “${row.text}”`}
          className="h-10 bg-transparent text-ink2"
          value={row.role}
          onChange={(event) => onChange({ role: event.target.value as PartRole })}
        >
          {ROLES.map((role) => (
            <option key={role}>{role}</option>
          ))}
        </select>
        <label className="whitespace-nowrap text-ink2">
          <input
            type="checkbox"
            className="mr-1 size-4 align-[-2px] accent-bean"
            checked={row.out}
            onChange={(event) => onChange({ out: event.target.checked })}
          />
          leave out
        </label>
      </div>
    </li>
  );
}

/** The sheet that the lines make: one part a role, in the order in which they were written, the base first. */
function sheetOf(rows: Row[], way: string, title: string): Sheet {
  const parts = ROLES.flatMap((role): Part[] => {
    const lines = rows
      .filter((row) => row.role === role && row.kind !== "heading" && !row.out)
      .map((row) => ({
        ...newLine(row.ingredient as string, row.value as number, row.unit as UnitId),
        state: row.state ?? null,
      }));
    return lines.length ? [newPart(role, role === "base" ? "" : role, "", lines)] : [];
  });
  return { way, title: title.trim() || "Pasted list", parts } as Sheet;
}
